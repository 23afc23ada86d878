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
  /** Questions the text leaves open; absent where they were not counted yet. */
  readonly unsettled?: number;
};

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
