import { SaxesParser } from "saxes";
import { say } from "../../messages";
import { failure, ok, type Problem, type Result } from "../../model";
import { type EventLog, Leaving, type LoggedEvent, type LoggedTrace } from "./eventLog";

/** Attributes of an event that are read; what else it has is passed over. */
const read = {
  "concept:name": "activity",
  "time:timestamp": "at",
  "lifecycle:transition": "lifecycle",
  "org:role": "role",
  "org:resource": "who",
} as const;
type Field = (typeof read)[keyof typeof read];

/** Ends reading at what makes a file unusable. */
class Unusable extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message);
  }
}

/**
 * Reads a log in XES (IEEE 1849-2016, from memory of its schema), from its text in pieces: traces with their names, events with name, time,
 * lifecycle, role and resource. Values that a file gives for all events (globals) stand where an event says nothing. Nested attributes,
 * other extensions and classifiers are passed over. An event without a name, or with a time that is none, is left out and counted.
 * O(text), with only the events kept.
 */
export function readXes(pieces: Iterable<string>): Result<EventLog> {
  const reader = new XesReader();
  try {
    for (const piece of pieces) reader.write(piece);
    return ok(reader.end());
  } catch (error) {
    if (error instanceof Unusable) return failure(error.problem);
    throw error;
  }
}

class XesReader {
  readonly #parser = new SaxesParser({ xmlns: false, position: true });
  readonly #leaving = new Leaving();
  readonly #traces: LoggedTrace[] = [];
  readonly #usual: { [field in Field]?: string } = {};
  readonly #known = new Map<string, string>();
  #path: string[] = [];
  #global: string | undefined;
  #case = "";
  #events: LoggedEvent[] | undefined;
  #event: { [field in Field]?: string } | undefined;
  #eventLine = 0;

  constructor() {
    const parser = this.#parser;
    parser.on("error", (error) => {
      throw this.#unusable(error.message.replace(/^\d+:\d+: /, ""));
    });
    parser.on("doctype", () => {
      throw this.#unusable("it brings a document type, which is not read");
    });
    parser.on("opentag", ({ name, attributes }) => this.#open(name.slice(name.indexOf(":") + 1), attributes));
    parser.on("closetag", ({ name }) => this.#close(name.slice(name.indexOf(":") + 1)));
  }

  write(text: string): void {
    this.#parser.write(text);
  }

  end(): EventLog {
    this.#parser.close();
    return { traces: this.#traces, left: this.#leaving.left, leftOut: this.#leaving.count };
  }

  #unusable(why: string): Unusable {
    const { line, column } = this.#parser;
    const [problem] = failure({ code: "bad-log", message: say`${why}`, line, column: column + 1 }).problems;
    return new Unusable(problem as Problem);
  }

  /** The same words as one string, however often a log has them. */
  #word(text: string): string {
    const known = this.#known.get(text);
    if (known !== undefined) return known;
    this.#known.set(text, text);
    return text;
  }

  #open(name: string, attributes: { readonly [name: string]: string }): void {
    const parent = this.#path.at(-1);
    if (parent === undefined && name !== "log") throw this.#unusable(`its root is “${name}” where a log has “log”`);
    this.#path.push(name);
    if (name === "global") this.#global = attributes.scope ?? "event";
    else if (name === "trace" && parent === "log") {
      this.#events = [];
      this.#case = "";
    } else if (name === "event" && (parent === "trace" || parent === "log")) {
      this.#event = {};
      this.#eventLine = this.#parser.line;
    } else if (attributes.key !== undefined) this.#attribute(parent, attributes.key, attributes.value ?? "");
  }

  #attribute(parent: string | undefined, key: string, value: string): void {
    const field = read[key as keyof typeof read];
    if (parent === "trace" && key === "concept:name") this.#case = value;
    else if (parent === "event" && this.#event && field) this.#event[field] = value;
    else if (parent === "global" && this.#global === "event" && field && field !== "at") this.#usual[field] = value;
  }

  #close(name: string): void {
    this.#path.pop();
    if (name === "global") this.#global = undefined;
    else if (name === "trace" && this.#events) {
      this.#traces.push({ case: this.#case || String(this.#traces.length + 1), events: this.#events });
      this.#events = undefined;
    } else if (name === "event" && this.#event) {
      this.#keep(this.#event);
      this.#event = undefined;
    }
  }

  #keep(said: { readonly [field in Field]?: string }): void {
    const of = (field: Field) => (said[field] ?? this.#usual[field] ?? "").trim();
    const activity = of("activity");
    const at = said.at === undefined ? undefined : Date.parse(said.at);
    if (activity === "") this.#leaving.leave(this.#eventLine, "the event has no name (concept:name)");
    else if (at !== undefined && Number.isNaN(at))
      this.#leaving.leave(this.#eventLine, `“${said.at}” is no time (time:timestamp)`);
    else if (!this.#events) this.#leaving.leave(this.#eventLine, "the event stands in no trace");
    else
      this.#events.push({
        activity: this.#word(activity),
        at,
        lifecycle: this.#word(of("lifecycle").toLowerCase()),
        role: this.#word(of("role")),
        who: this.#word(of("who")),
      });
  }
}
