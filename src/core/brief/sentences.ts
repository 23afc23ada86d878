import { type BriefNode, type Mark, type Passage, passagesOf, type Span } from "./document";

/** A sentence of a text passage; headings have none, they say nothing a model could account for. */
export interface Sentence extends Span {
  readonly at: number;
  readonly passage: number;
  readonly text: string;
  readonly isAside: boolean;
  /** Where somebody said it belongs to, by the id of a trigger or part. */
  readonly assigned: string | undefined;
  readonly marks: readonly Mark[];
}

export interface BriefReading {
  readonly passages: readonly Passage[];
  readonly sentences: readonly Sentence[];
  readonly marks: readonly Mark[];
}

const abbreviation = /(?:\b(?:e\.g|i\.e|approx|incl|resp|cf|no|nos|st|dr|mr|mrs|ms|art|par|vs)\.|\b[A-Z]\.)\s*$/i;

/** Reads a page: its passages, sentences and marks. O(length of the text + marks × sentences of a passage). */
export function readBrief(document: BriefNode): BriefReading {
  const { passages, marks } = passagesOf(document);
  const sentences: Sentence[] = [];
  const byPassage = new Map<number, Mark[]>();
  for (const mark of marks) byPassage.set(mark.passage, [...(byPassage.get(mark.passage) ?? []), mark]);
  for (const passage of passages) {
    if (passage.kind === "heading") continue;
    for (const { from, to } of sentenceSpans(passage.text)) {
      const inside = (span: Span) => span.from < to && span.to > from;
      sentences.push({
        at: sentences.length,
        passage: passage.at,
        from,
        to,
        text: passage.text.slice(from, to),
        isAside: passage.asides.some(inside),
        assigned: passage.belongs.find(inside)?.target,
        marks: (byPassage.get(passage.at) ?? []).filter((mark) => mark.from >= from && mark.from < to),
      });
    }
  }
  return { passages, sentences, marks };
}

const segmenter = new Intl.Segmenter("en", { granularity: "sentence" });

const longestSentence = 2_000;

/** Where sentences begin and end, without the white space around them. */
export function sentenceSpans(text: string): Span[] {
  const spans: Span[] = [];
  let open: number | undefined;
  for (const { segment, index } of segmenter.segment(text)) {
    open ??= index;
    const to = index + segment.length;
    // "approx. 20 days" does not end a sentence, whatever follows.
    if (abbreviation.test(segment) && to < text.length) continue;
    for (let at = open; at < to; ) {
      // What has no end for pages is no sentence; reading it as one would take minutes.
      const blank = to - at > longestSentence ? text.lastIndexOf(" ", at + longestSentence) : -1;
      const end = to - at <= longestSentence ? to : blank > at ? blank + 1 : at + longestSentence;
      const part = text.slice(at, end);
      const from = at + (part.length - part.trimStart().length);
      if (part.trim() !== "") spans.push({ from, to: from + part.trim().length });
      at = end;
    }
    open = undefined;
  }
  return spans;
}
