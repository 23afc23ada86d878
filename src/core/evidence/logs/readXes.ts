import { SaxesParser } from "saxes";
import { type Said, say } from "../../messages";
import { failure, ok, type Problem, type Result } from "../../model";
import { LogBuilder } from "./building";
import type { EventLog } from "./eventLog";

/** Attributes of an event that are read; what else it has is passed over. */
const read = {
  "concept:name": "activity",
  "time:timestamp": "at",
  "lifecycle:transition": "lifecycle",
  "org:role": "role",
  "org:resource": "who",
} as const;
type Field = (typeof read)[keyof typeof read];
type ToldEvent = { [field in Field]?: string } & {
  readonly line: number;
  /** What the classifier that names events asks for, by its keys. */
  readonly named?: Map<string, string>;
  /** What else is said of it. */
  more?: [key: string, value: string][];
};

/** What a person says of a file of this form: by which of its classifiers events are named. */
export interface SaidOfXes {
  readonly classifier?: string;
}

/** Ends reading at what makes a file unusable. */
class Unusable extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message);
  }
}

/**
 * Reads a log in XES (IEEE 1849-2016, from memory of its schema), from its text in pieces: traces with their names, events with name, time,
 * lifecycle, role and resource. Values that a file gives for all events (globals) stand where an event says nothing. Attributes of a trace
 * that stand inside others are called by their whole way ("plant / power"). Where a classifier of the file is asked for, events are named by
 * its keys, with a plus between, and each of them counts. Other extensions are passed over. An event without a name, or with a time that is none, is left out and counted.
 * O(text), with only the events kept.
 */
export function readXes(pieces: Iterable<string>, { classifier }: SaidOfXes = {}): Result<EventLog> {
  const reader = new XesReader(classifier);
  try {
    for (const piece of pieces) reader.write(piece);
    return ok(reader.end());
  } catch (error) {
    if (error instanceof Unusable) return failure(error.problem);
    throw error;
  }
}

/** The classifiers that a file names before its traces: under which name, and by which keys. Reads only as far as the text goes. */
export function classifiersIn(beginning: string): { readonly name: string; readonly keys: readonly string[] }[] {
  const parser = new SaxesParser({ xmlns: false });
  const found: { name: string; keys: string[] }[] = [];
  parser.on("error", () => undefined);
  parser.on("opentag", ({ name, attributes }) => {
    if (name.slice(name.indexOf(":") + 1) === "classifier")
      found.push({ name: attributes.name ?? "", keys: keysIn(attributes.keys ?? "") });
  });
  parser.write(beginning);
  return found.filter(({ name, keys }) => name !== "" && keys.length > 0);
}

/** Keys with blanks between; one with a blank in it stands in single quotes (IEEE 1849-2016, from memory). */
const keysIn = (keys: string): string[] =>
  [...keys.matchAll(/'([^']*)'|(\S+)/g)].map(([, quoted, plain]) => quoted ?? plain ?? "");

class XesReader {
  readonly #parser = new SaxesParser({ xmlns: false, position: true });
  readonly #builder = new LogBuilder();
  readonly #usual: { [field in Field]?: string } = {};
  #path: string[] = [];
  #global: string | undefined;
  /** What is said of the trace that is open; its name may come behind its events. */
  #trace: { name: string; readonly attributes: [string, string][]; readonly events: ToldEvent[] } | undefined;
  #event: ToldEvent | undefined;
  /** The keys of the attributes that are open, from the trace down. */
  #inside: (string | undefined)[] = [];
  #keys: readonly string[] = [];

  constructor(private readonly classifier: string | undefined) {
    const parser = this.#parser;
    parser.on("error", (error) => {
      throw this.#unusable(say`${error.message.replace(/^\d+:\d+: /, "")}`);
    });
    parser.on("doctype", () => {
      throw this.#unusable(say`it brings a document type, which is not read`);
    });
    parser.on("opentag", ({ name, attributes }) => this.#open(name.slice(name.indexOf(":") + 1), attributes));
    parser.on("closetag", ({ name }) => this.#close(name.slice(name.indexOf(":") + 1)));
  }

  write(text: string): void {
    this.#parser.write(text);
  }

  end(): EventLog {
    this.#parser.close();
    return this.#builder.end();
  }

  #unusable(message: Said): Unusable {
    const { line, column } = this.#parser;
    const [problem] = failure({ code: "bad-log", message, line, column: column + 1 }).problems;
    return new Unusable(problem as Problem);
  }

  #open(name: string, attributes: { readonly [name: string]: string }): void {
    const parent = this.#path.at(-1);
    if (parent === undefined && name !== "log") throw this.#unusable(say`its root is “${name}” where a log has “log”`);
    this.#path.push(name);
    if (name === "global") this.#global = attributes.scope ?? "event";
    else if (name === "trace" && parent === "log") {
      this.#trace = { name: "", attributes: [], events: [] };
    } else if (name === "event" && (parent === "trace" || parent === "log")) {
      this.#event = { line: this.#parser.line, ...(this.#keys.length > 0 && { named: new Map() }) };
    } else if (name === "classifier" && parent === "log" && attributes.name === this.classifier) {
      this.#keys = keysIn(attributes.keys ?? "");
    } else if (attributes.key !== undefined) this.#attribute(parent, attributes.key, attributes.value ?? "");
    if (this.#trace && !this.#event && name !== "trace") this.#inside.push(attributes.key);
  }

  #attribute(parent: string | undefined, key: string, value: string): void {
    const field = read[key as keyof typeof read];
    if (parent === "trace" && this.#trace) {
      if (key === "concept:name") this.#trace.name = value;
      else this.#trace.attributes.push([key, value]);
    } else if (this.#trace && !this.#event && this.#inside.length > 0 && value !== "") {
      // A list or a container has no value of its own.
      const way = [...this.#inside, key].filter((one) => one !== undefined);
      this.#trace.attributes.push([way.join(" / "), value]);
    } else if (parent === "event" && this.#event) {
      if (field) this.#event[field] = value;
      else if (this.#event.more) this.#event.more.push([key, value]);
      else this.#event.more = [[key, value]];
      if (this.#keys.includes(key)) this.#event.named?.set(key, value);
    } else if (parent === "global" && this.#global === "event" && field && field !== "at") this.#usual[field] = value;
  }

  #close(name: string): void {
    this.#path.pop();
    if (this.#trace && !this.#event && name !== "trace") this.#inside.pop();
    if (name === "global") this.#global = undefined;
    else if (name === "trace" && this.#trace) {
      this.#keep(this.#trace);
      this.#trace = undefined;
    } else if (name === "event" && this.#event) {
      if (this.#trace) this.#trace.events.push(this.#event);
      else this.#builder.leaving.leave(this.#event.line, say`the event stands in no trace`);
      this.#event = undefined;
    }
  }

  #keep({
    name,
    attributes,
    events,
  }: {
    name: string;
    attributes: [string, string][];
    events: readonly ToldEvent[];
  }): void {
    const builder = this.#builder;
    const of = builder.case(name || String(builder.caseCount + 1), true);
    for (const [key, value] of attributes) builder.attribute(of, key, value);
    for (const said of events) {
      const told = (field: Field) => (said[field] ?? this.#usual[field] ?? "").trim();
      const activity = said.named ? this.#keys.map((key) => said.named?.get(key) ?? "").join("+") : told("activity");
      const at = said.at === undefined ? undefined : Date.parse(said.at);
      if (/^\+*$/.test(activity)) builder.leaving.leave(said.line, say`the event has no name (concept:name)`);
      else if (at !== undefined && Number.isNaN(at))
        builder.leaving.leave(said.line, say`“${said.at ?? ""}” is no time (time:timestamp)`);
      else {
        builder.event(of, {
          activity,
          at,
          lifecycle: said.named ? "complete" : told("lifecycle").toLowerCase(),
          role: told("role"),
          who: told("who"),
        });
        for (const [key, value] of said.more ?? []) builder.eventAttribute(key, value);
      }
    }
  }
}
