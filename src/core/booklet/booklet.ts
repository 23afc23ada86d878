import type { Scene } from "../drawing";
import type { Id } from "../model";

/**
 * A document to be read, printed and filed: what it says, without how it looks. Handbooks and reports are made of it; each kind of file
 * (PDF, Word, web page, Markdown) is written from it by one writer.
 */
/** The letters a booklet can be set in, by what they are called: without serifs, and with them. */
export const bookletFonts = { plain: "Atkinson Hyperlegible Next", serif: "Source Serif 4" } as const;
export type BookletFont = keyof typeof bookletFonts;

export interface Booklet {
  readonly title: string;
  /** What is said below the title; "" for nothing. */
  readonly subtitle: string;
  /** BCP 47, as "en". */
  readonly language: string;
  /** Facts on the cover. */
  readonly facts: readonly Fact[];
  /** What its list of contents is called. */
  readonly contents: string;
  readonly blocks: readonly Block[];
  /** Plain where nothing is said. */
  readonly font?: BookletFont;
  /** On the cover: a PNG, three times as wide as high. */
  readonly logo?: Uint8Array;
}

/** How a logo stands on a cover, in points. */
export const logoSize = { width: 144, height: 48 } as const;

/** A piece of a line: its words, and how they are set. `link` is an address outside, or `#` and an anchor inside. */
export interface Run {
  readonly text: string;
  readonly isStrong?: boolean;
  readonly isEmphasis?: boolean;
  readonly link?: string;
}
export type Line = readonly Run[];

export interface Fact {
  readonly name: string;
  readonly says: Line;
}

export interface Column {
  readonly name: string;
  /** How wide it is, beside the others. */
  readonly share: number;
}

export type Block =
  | {
      readonly kind: "heading";
      readonly level: 1 | 2 | 3;
      readonly text: string;
      readonly anchor: string;
      /** Begins on a page of its own, on paper. */
      readonly isChapter?: boolean;
      /** The element it is about, where a picture shows that. */
      readonly of?: Id;
    }
  | { readonly kind: "paragraph"; readonly says: Line }
  | { readonly kind: "list"; readonly isOrdered: boolean; readonly items: readonly Line[] }
  | { readonly kind: "facts"; readonly facts: readonly Fact[] }
  | {
      readonly kind: "table";
      readonly caption: string;
      readonly columns: readonly Column[];
      readonly rows: readonly (readonly Line[])[];
    }
  | {
      readonly kind: "picture";
      readonly caption: string;
      /** What it shows, for whoever does not see it. */
      readonly shows: string;
      readonly scene: Scene;
    };

/** Words set like all others. */
export const line = (text: string): Line => (text === "" ? [] : [{ text }]);

/** Words that lead to a place in the same document. */
export const linkTo = (text: string, anchor: string): Run => ({ text, link: `#${anchor}` });

/** Pieces with something between them. */
export const joined = (runs: readonly Run[], between = ", "): Line =>
  runs.flatMap((run, at) => (at === 0 ? [run] : [{ text: between }, run]));

/** The words of a line alone. */
export const wordsOfLine = (says: Line): string => says.map(({ text }) => text).join("");

/** A name that can stand in an address, made of any id; different ids make different ones. */
export const anchorOf = (kind: string, id: string): string =>
  `${kind}-${id.replace(/[^A-Za-z0-9-]/gu, (letter) => `_${(letter.codePointAt(0) as number).toString(16)}_`)}`;
