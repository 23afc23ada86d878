import type { MarkKind } from "@/core/brief";
import { text } from "../../messages";

/** The letter that marks words as a kind, and what the kind is called. */
export const kindLetters: { readonly [kind in MarkKind]: string } = {
  trigger: "T",
  role: "R",
  party: "O",
  activity: "A",
  decision: "D",
  document: "P",
  system: "S",
  time: "W",
  result: "E",
};

export const kindWords = (kind: MarkKind): string => text.brief.kinds[kind];

export const kindOfLetter = (letter: string): MarkKind | undefined =>
  (Object.keys(kindLetters) as MarkKind[]).find((kind) => kindLetters[kind] === letter.toUpperCase());
