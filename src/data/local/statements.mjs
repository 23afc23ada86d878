/**
 * What a database in a folder is asked, each in one message of the protocol (PostgreSQL documentation, "Message Flow": Parse, Bind,
 * Describe, Execute, Sync, and the pipelining of these), and of statements that come again only what is new: which rows. To read and to
 * plan a statement takes several times as long as to do it.
 */
import { parse, protocol } from "@electric-sql/pglite";

const { serialize } = protocol;

/** So many statements are kept ready; of more, those that were not asked for the longest go. */
const mostKept = 200;
/** Longer ones carry values by the hundred, seldom as many again, and would fill the memory that is kept for others. */
const mostCharacters = 5_000;
/** After so many rows were written a statement is planned anew: to one that was planned for a table of three rows an index is of no use. */
const rowsOfAPlan = 1_000;

const execute = [serialize.describe({ type: "P" }), serialize.execute({})];
const begin = (text) => [serialize.parse({ text }), serialize.bind({}), serialize.execute({})];
const sync = serialize.sync();

export class Statements {
  /** By text, the one asked for last at the end. One that came once has no name yet: many never come again. */
  #kept = new Map();
  /** Names that are of no use any more, which the next message says. */
  #over = [];
  #named = 0;
  #written = 0;
  #parsers;

  /**
   * @param database which nobody else asks meanwhile
   * @param parsers by type, how a value is read from its text where not as the database says
   */
  constructor(database, parsers) {
    this.database = database;
    this.parsers = parsers;
  }

  /** Of some hundred types, known once the database is ready. To put them together takes longer than most statements. */
  get #reading() {
    this.#parsers ??= { ...this.database.parsers, ...this.parsers };
    return this.#parsers;
  }

  /**
   * Rows, fields and what was done.
   * @param begins where a transaction begins with it, the statement that begins one
   * @throws what the database says; after which the statement is none that is kept
   */
  async query(text, params = [], rowMode = undefined, begins = undefined) {
    const kept = this.#kept.get(text);
    const isNew = !kept || kept.name === "" || this.#written - kept.written > rowsOfAPlan;
    const { name, written } = isNew ? { name: kept ? `s${++this.#named}` : "", written: this.#written } : kept;
    if (isNew && kept) this.#leave(kept);
    if (text.length <= mostCharacters) this.#keep(text, { name, written });
    const message = [
      ...this.#over.splice(0).map((name) => serialize.close({ type: "S", name })),
      ...(begins === undefined ? [] : begin(begins)),
      ...(isNew ? [serialize.parse({ name, text })] : []),
      serialize.bind({ statement: name, values: params.map(asParameter) }),
      ...execute,
      sync,
    ];
    try {
      const messages = await this.database.execProtocolStream(Buffer.concat(message));
      const result = parse.parseResults(messages, this.#reading, { rowMode }).at(-1);
      this.#written += result.affectedRows;
      return result;
    } catch (error) {
      this.#kept.delete(text);
      this.#leave({ name });
      throw error;
    }
  }

  /** Statements on their own, without values; what was kept may mean something else after them. */
  async exec(text) {
    for (const kept of this.#kept.values()) this.#leave(kept);
    this.#kept.clear();
    await this.database.exec(text);
  }

  #keep(text, kept) {
    this.#kept.delete(text);
    this.#kept.set(text, kept);
    if (this.#kept.size <= mostKept) return;
    const [[oldest, left]] = this.#kept;
    this.#kept.delete(oldest);
    this.#leave(left);
  }

  #leave({ name }) {
    if (name !== "") this.#over.push(name);
  }
}

/** A value as the database reads it: as text, which it takes for whatever is asked for at its place; bytes as they are. */
function asParameter(value) {
  if (value === null || value === undefined) return null;
  if (typeof value === "string" || value instanceof Uint8Array) return value;
  if (value instanceof Date) return value.toISOString();
  if (Array.isArray(value)) return listOf(value);
  return typeof value === "object" ? JSON.stringify(value) : String(value);
}

/** As PostgreSQL writes lists ("Array Input and Output Syntax"). */
const listOf = (values) =>
  `{${values
    .map((value) => {
      if (Array.isArray(value)) return listOf(value);
      const text = asParameter(value);
      return text === null ? "NULL" : `"${text.replace(/[\\"]/g, "\\$&")}"`;
    })
    .join(",")}}`;
