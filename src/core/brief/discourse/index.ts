import type { BriefPart, Mark } from "../document";
import type { FrameItem } from "../frames";
import type { Sentence } from "../sentences";
import type { Subjects } from "../subjects";
import type { Answers, OpenQuestion } from "./questions";
import { Reader } from "./reader";

type PartSentences = { readonly part: BriefPart; readonly sentences: readonly Sentence[] };

export interface Told {
  readonly items: readonly FrameItem[];
  readonly result: Mark | undefined;
  readonly open: readonly OpenQuestion[];
}

/**
 * The steps, waits and decisions of a process in the order of the text, and what the text leaves open. Each clause is read by the turns
 * of phrase in `rules/`, with what was said before it in mind. What only a part speaks of is one item in the place of the part's first
 * sentence. O(clauses × steps).
 */
export function itemsOf(
  sentences: readonly Sentence[],
  subjects: Subjects,
  settled: {
    readonly shared: ReadonlySet<string>;
    readonly parts: readonly PartSentences[];
    readonly answers: Answers;
  },
): Told {
  const { shared, parts, answers } = settled;
  const reader = new Reader(subjects, shared, sentences, answers);
  const places = [
    ...sentences.map((sentence) => ({ at: sentence.at, read: () => reader.readSentence(sentence) })),
    ...parts.flatMap(({ part, sentences: inner }) => {
      const first = inner[0];
      if (!first) return [];
      return [
        {
          at: first.at,
          read: () => reader.readPart(part, inner, itemsOf(inner, subjects, { shared, parts: [], answers })),
        },
      ];
    }),
  ].sort((a, b) => a.at - b.at);
  for (const { read } of places) read();
  return reader.finish();
}
