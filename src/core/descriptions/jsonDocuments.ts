import { LineCounter, parseDocument } from "yaml";
import { type Said, say } from "../messages";
import { failure, ok, type Result } from "../model";
import { type DescriptionFile, descriptionLimits, pathBeside } from "./description";

export type JsonMap = { readonly [key: string]: unknown };
export const isMap = (value: unknown): value is JsonMap =>
  typeof value === "object" && value !== null && !Array.isArray(value);
export const own = (map: unknown, key: string): unknown =>
  isMap(map) && Object.hasOwn(map, key) ? map[key] : undefined;
export const textOf = (value: unknown): string => (typeof value === "string" ? value : "");

/** Present wherever this runs, but not part of the language library core is compiled against. */
declare class TextDecoder {
  constructor(label: string, options: { fatal: boolean });
  decode(bytes: Uint8Array): string;
}

/** The value of a JSON or YAML text. Aliases are followed up to a bound, and what nests too deep is refused. O(length). */
export function parseJsonOrYaml(bytes: Uint8Array): Result<unknown> {
  const refuse = (message: Said, place?: { line: number; column: number }) =>
    failure({ code: "not-read", message, ...place });
  if (bytes.length > descriptionLimits.bytes)
    return refuse(
      say`The description is ${Math.round(bytes.length / 1e6)} MB; up to ${descriptionLimits.bytes / 1024 / 1024} MB are read.`,
    );
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return refuse(say`The description is not UTF-8 text.`, { line: 1, column: 1 });
  }
  try {
    const value: unknown = JSON.parse(text);
    return isTooDeep(value) ? refuse(tooDeep()) : ok(value);
  } catch {
    // Not JSON, or broken JSON: YAML includes it, and says where it ends to be readable.
  }
  const lines = new LineCounter();
  try {
    const document = parseDocument(text, { lineCounter: lines, prettyErrors: false, stringKeys: true });
    const [error] = document.errors;
    if (error) {
      const { line, col } = lines.linePos(error.pos[0]);
      return refuse(say`This is neither JSON nor YAML: ${error.message}`, { line, column: col });
    }
    const value: unknown = document.toJS({ maxAliasCount: descriptionLimits.aliases });
    return isTooDeep(value) ? refuse(tooDeep()) : ok(value);
  } catch (error) {
    return refuse(
      say`This is neither JSON nor YAML: ${error instanceof RangeError ? "it nests too deep" : (error as Error).message}`,
    );
  }
}

const tooDeep = () => say`The description nests more than ${descriptionLimits.depth} levels deep.`;

function isTooDeep(value: unknown): boolean {
  // Level by level: what is shared by aliases is looked at once, and a ring of them never ends.
  let level = new Set<object>(typeof value === "object" && value !== null ? [value] : []);
  for (let depth = 0; level.size > 0; depth++) {
    if (depth > descriptionLimits.depth) return true;
    const next = new Set<object>();
    for (const one of level)
      for (const inner of Object.values(one)) if (typeof inner === "object" && inner !== null) next.add(inner);
    level = next;
  }
  return false;
}

/** A value with the file it stands in. */
export interface Placed {
  readonly value: unknown;
  readonly file: string;
}

/** Keys of what is an example and no description, so that what looks like a reference in it is none. */
const examples = new Set(["example", "examples", "enum", "const", "default"]);
/** What holds parts by names that somebody gave them, which may be any word. */
const names = new Set(
  "properties patternProperties $defs definitions schemas responses parameters requestBodies headers paths".split(" "),
);

/** A description and the files it refers to, each read once. */
export class JsonDocuments {
  readonly problems: Said[] = [];
  readonly #files = new Map<string, unknown>();
  readonly #told = new Set<string>();

  constructor(
    readonly file: DescriptionFile,
    readonly root: unknown,
  ) {
    this.#files.set(file.name, root);
  }

  /** What stands behind a reference, also one to a reference; a ring of them leads nowhere. */
  follow(placed: Placed): Placed | undefined {
    let at = placed;
    const seen = new Set<string>();
    for (;;) {
      const reference = own(at.value, "$ref");
      if (typeof reference !== "string") return at;
      const key = `${at.file} ${reference}`;
      if (seen.has(key)) return undefined;
      seen.add(key);
      const target = this.#target(at.file, reference);
      if (!target) return undefined;
      at = target;
    }
  }

  /** Follows every reference there is, so that those that lead nowhere or elsewhere are told, whoever would need them. */
  lookAtAll(): void {
    const waiting = [{ value: this.root, file: this.file.name, areNames: false }];
    const seen = new Set<unknown>();
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      const { value, file, areNames } = next;
      if (typeof value !== "object" || value === null || seen.has(value)) continue;
      seen.add(value);
      const reference = own(value, "$ref");
      if (typeof reference === "string") {
        const target = this.#target(file, reference);
        if (target) waiting.push({ ...target, areNames: false });
      }
      for (const [key, inner] of Object.entries(value))
        if (areNames || !examples.has(key)) waiting.push({ value: inner, file, areNames: !areNames && names.has(key) });
    }
  }

  tell(said: Said): void {
    if (this.#told.has(said.text)) return;
    this.#told.add(said.text);
    this.problems.push(said);
  }

  #target(from: string, reference: string): Placed | undefined {
    const hash = reference.indexOf("#");
    const [path, fragment] = hash < 0 ? [reference, ""] : [reference.slice(0, hash), reference.slice(hash + 1)];
    const file = path === "" ? from : pathBeside(from, path);
    if (file === undefined) {
      this.tell(say`The reference ${reference} leads out of the description's folder and was not followed.`);
      return undefined;
    }
    const document = this.#open(file);
    if (document === undefined) return undefined;
    const value =
      fragment.startsWith("/") || fragment === "" ? pointed(document, fragment) : anchored(document, fragment);
    if (value === undefined) {
      this.tell(say`The reference ${reference} leads nowhere.`);
      return undefined;
    }
    return { value, file };
  }

  #open(file: string): unknown {
    if (this.#files.has(file)) return this.#files.get(file);
    this.#files.set(file, undefined);
    if (this.#files.size > descriptionLimits.files) {
      this.tell(say`The description refers to more than ${descriptionLimits.files} files; the others were not read.`);
      return undefined;
    }
    const bytes = this.file.beside?.(file);
    if (!bytes) {
      this.tell(say`The file ${file}, which the description refers to, is not there.`);
      return undefined;
    }
    const read = parseJsonOrYaml(bytes);
    if (read.ok) this.#files.set(file, read.value);
    else this.tell(say`The file ${file} cannot be read: ${read.problems[0]?.message ?? ""}`);
    return this.#files.get(file);
  }
}

/** Source: RFC 6901, JSON Pointer, in the form of a fragment of an address (section 6). */
function pointed(document: unknown, pointer: string): unknown {
  if (pointer === "" || pointer === "/") return pointer === "" ? document : own(document, "");
  let at = document;
  for (const raw of pointer.slice(1).split("/")) {
    let part = raw;
    try {
      part = decodeURIComponent(raw);
    } catch {
      // As it is written.
    }
    const key = part.replaceAll("~1", "/").replaceAll("~0", "~");
    at = Array.isArray(at) ? at[Number(key)] : own(at, key);
    if (at === undefined) return undefined;
  }
  return at;
}

/** Source: JSON Schema 2020-12, core, section 8.2.2 ($anchor). */
function anchored(document: unknown, anchor: string): unknown {
  const waiting: unknown[] = [document];
  const seen = new Set<unknown>();
  for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
    if (typeof at !== "object" || at === null || seen.has(at)) continue;
    seen.add(at);
    if (own(at, "$anchor") === anchor) return at;
    waiting.push(...Object.values(at));
  }
  return undefined;
}
