import { Worker } from "node:worker_threads";
import { Mutex, types } from "@electric-sql/pglite";

interface Rows {
  readonly rows: unknown[];
  readonly fields: readonly { readonly name: string; readonly dataTypeID: number }[];
}

interface Statements {
  query(text: string, params?: unknown[], options?: { rowMode?: "array" | "object" }): Promise<Rows>;
}

/** What a statement begins with that says of which kind a transaction is. */
const ofKind = "set transaction ";

interface Waiting {
  readonly resolve: (answer: never) => void;
  readonly reject: (error: Error) => void;
}

/**
 * The database in a folder as Drizzle's driver for it wants it (statements and transactions); it runs in a thread of its own (thread.mjs).
 * One act at a time: a transaction keeps everybody else waiting, since there is one connection.
 */
export class LocalDatabase implements Statements {
  private readonly thread: Worker;
  private readonly waiting = new Map<number, Waiting>();
  private readonly turn = new Mutex();
  private asked = 0;
  private gone: Error | undefined;
  /** Resolves when the thread has ended, whoever or whatever ended it. */
  readonly ended: Promise<void>;

  private constructor(script: string, folder: string) {
    this.thread = new Worker(script, { workerData: { folder } });
    const end = (error: Error) => {
      this.gone = error;
      for (const { reject } of this.waiting.values()) reject(error);
      this.waiting.clear();
    };
    this.thread.on("message", ({ id, answer, error, ended }) => {
      if (ended) return end(Object.assign(new Error(ended.message), ended));
      const waiting = this.waiting.get(id);
      this.waiting.delete(id);
      if (this.waiting.size === 0) this.thread.unref();
      if (error) waiting?.reject(Object.assign(new Error(error.message), error));
      else waiting?.resolve(answer as never);
    });
    this.thread.on("error", end);
    this.ended = new Promise((resolve) => {
      this.thread.on("exit", () => {
        end(this.gone ?? new Error("The database is closed."));
        resolve();
      });
    });
    // A thread that nobody waits for does not keep a process alive that has nothing else to do.
    this.thread.unref();
  }

  /** @throws what the database says of a folder that it cannot open */
  static async open(script: string, folder: string): Promise<LocalDatabase> {
    const database = new LocalDatabase(script, folder);
    await database.ask({ what: "ready" }).catch(async (error) => {
      await database.thread.terminate();
      throw error;
    });
    return database;
  }

  private ask<Answer>(request: { readonly what: string; readonly [input: string]: unknown }): Promise<Answer> {
    if (this.gone) return Promise.reject(this.gone);
    return new Promise((resolve, reject) => {
      const id = ++this.asked;
      this.waiting.set(id, { resolve, reject });
      this.thread.ref();
      this.thread.postMessage({ id, ...request });
    });
  }

  private readonly now = {
    query: async (
      text: string,
      params: unknown[] = [],
      options: { rowMode?: "array" | "object" } = {},
      begins?: string,
    ): Promise<Rows> => {
      const answer = await this.ask<Rows>({ what: "query", text, params, rowMode: options.rowMode, begins });
      for (const [at, { name, dataTypeID }] of answer.fields.entries())
        if (dataTypeID === types.JSON || dataTypeID === types.JSONB)
          parseIn(answer.rows, options.rowMode === "array" ? at : name);
      return answer;
    },
  };

  query(...statement: Parameters<Statements["query"]>): Promise<Rows> {
    return this.turn.runExclusive(() => this.now.query(...statement));
  }

  exec(text: string): Promise<void> {
    return this.turn.runExclusive(() => this.ask<void>({ what: "exec", text }));
  }

  /** @throws what `act` throws, after everything it did was taken back */
  transaction<Outcome>(act: (statements: Statements) => Promise<Outcome>): Promise<Outcome> {
    return this.turn.runExclusive(async () => {
      let isBegun = false;
      let kind = "";
      const statements: Statements = {
        query: async (text, params, options) => {
          // Said as the transaction begins, it needs no message of its own.
          if (!isBegun && text.startsWith(ofKind)) {
            kind = text.slice(ofKind.length);
            return { rows: [], fields: [] };
          }
          const begins = isBegun ? undefined : `begin ${kind}`;
          isBegun = true;
          return this.now.query(text, params, options, begins);
        },
      };
      try {
        const outcome = await act(statements);
        // What only read has nothing to lose: nobody waits for its end.
        if (isBegun && kind.endsWith("read only")) this.thread.postMessage({ what: "commit" });
        else if (isBegun) await this.ask({ what: "commit" });
        return outcome;
      } catch (error) {
        // What cannot be taken back is not left open for the next act: the database ends, and is opened anew without it.
        if (isBegun) await this.now.query("rollback").catch(() => this.thread.terminate());
        throw error;
      }
    });
  }

  async close(): Promise<void> {
    if (this.gone) return;
    await this.turn.runExclusive(() => this.ask<void>({ what: "close" }));
    await this.thread.terminate();
  }
}

function parseIn(rows: readonly unknown[], column: string | number): void {
  for (const row of rows as { [column: string | number]: unknown }[]) {
    const value = row[column];
    if (typeof value === "string") row[column] = JSON.parse(value);
  }
}
