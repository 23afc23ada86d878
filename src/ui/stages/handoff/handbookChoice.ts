import { create } from "zustand";
import type { BookletFont } from "@/core/booklet";
import { type HandbookPart, handbookParts } from "@/core/handbook";

/** A part, and whether it is taken in. */
export interface ChosenPart {
  readonly part: HandbookPart;
  readonly isIn: boolean;
}

export type HandbookScope = "version" | "area" | "all";

interface HandbookChoice {
  readonly scope: HandbookScope;
  readonly language: string;
  readonly title: string;
  readonly parts: readonly ChosenPart[];
  /** Lenses that are laid over its diagrams. */
  readonly lenses: readonly string[];
  readonly isNumbered: boolean;
  readonly font: BookletFont;
  /** A PNG as the address that holds it. */
  readonly logo: string | null;
  /** The template it was taken from; "" for none. */
  readonly template: string;
  readonly choose: (choice: Partial<Omit<HandbookChoice, "choose">>) => void;
}

/** What a handbook is made of, as long as the window is open: whoever looks at another stage comes back to it. */
export const useHandbookChoice = create<HandbookChoice>((set) => ({
  scope: "version",
  language: "",
  title: "",
  parts: handbookParts.map((part) => ({ part, isIn: true })),
  lenses: [],
  isNumbered: false,
  font: "plain",
  logo: null,
  template: "",
  choose: (choice) => set(choice),
}));

/** Parts with one of them a place further up or down; at an end it stays. */
export function partMoved(parts: readonly ChosenPart[], part: HandbookPart, by: 1 | -1): readonly ChosenPart[] {
  const at = parts.findIndex((one) => one.part === part);
  const to = at + by;
  if (at < 0 || to < 0 || to >= parts.length) return parts;
  const next = [...parts];
  [next[at], next[to]] = [parts[to] as ChosenPart, parts[at] as ChosenPart];
  return next;
}
