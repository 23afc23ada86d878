import type { Mention } from "../../subjects";
import type { Course } from "../course";
import type { Part } from "../part";

/** What a rule is handed: a clause, the course of the work so far, and all people and things its sentence names. */
export interface Moment {
  readonly part: Part;
  readonly course: Course;
  readonly everybody: readonly Mention[];
  /** What is called from several processes. */
  readonly shared: ReadonlySet<string>;
}

/** One turn of phrase by which a text says how work goes on. */
export interface TurnOfPhrase {
  readonly name: string;
  /** Marked texts with what they are read as, an item a line: they are its tests. */
  readonly examples: readonly { readonly text: string; readonly reads: readonly string[] }[];
  /** Reads a clause; true where nothing is left in it to be read by the rules behind. */
  readonly read: (moment: Moment) => boolean;
}
