import type { OpenQuestion } from "./discourse/questions";
import type { Frame } from "./frames";
import type { BriefReading, Sentence } from "./sentences";

export interface Coverage {
  /** Sentences a model has to account for: all but the background. */
  readonly sentences: number;
  readonly accounted: number;
  /** 0 to 1; 1 for a text without such sentences. */
  readonly share: number;
  readonly open: readonly Sentence[];
}

/** The same in numbers, as it is kept. */
export type BriefSummary = Pick<Coverage, "sentences" | "accounted"> & {
  /** What the text leaves open; absent where it was not asked yet. */
  readonly asks?: readonly Ask[];
};

/** A question the text leaves open, with the marks whose elements it is about. */
export type Ask = Pick<OpenQuestion, "id" | "question" | "marks">;

/** The open questions of all processes of a text. */
export const asksOf = (frames: readonly Frame[]): Ask[] =>
  frames.flatMap((frame) => frame.open.map(({ id, question, marks }) => ({ id, question, marks })));

/**
 * How much of a text the models account for: a sentence is accounted for when something marked in it stands in a model.
 * @param linked the marks that some element of a model is linked to
 */
export function coverageOf(reading: BriefReading, linked: ReadonlySet<string>): Coverage {
  const counted = reading.sentences.filter((sentence) => !sentence.isAside);
  const open = counted.filter((sentence) => !sentence.marks.some((mark) => linked.has(mark.id)));
  const accounted = counted.length - open.length;
  return { sentences: counted.length, accounted, share: counted.length === 0 ? 1 : accounted / counted.length, open };
}
