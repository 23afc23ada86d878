import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { BookletFont } from "@/core/booklet";
import type { FontWeight } from "./fonts";
import { unpackWoff } from "./woff";

/** A shipped file of letters: one package, one script. */
export interface Face {
  readonly key: string;
  readonly file: (weight: FontWeight) => Uint8Array;
}

/** What each kind of letters is set in, and what stands in for scripts it lacks; the first that has a letter is taken. */
const packages: { readonly [font in BookletFont]: readonly string[] } = {
  plain: ["atkinson-hyperlegible-next", "source-sans-3"],
  serif: ["source-serif-4", "source-sans-3"],
};
/** Height of the letters' top above their baseline, as a share of the size (`hhea` of the first file). */
export const ascents: { readonly [font in BookletFont]: number } = { plain: 0.984, serif: 1.036 };

interface Subset {
  readonly face: Face;
  readonly ranges: readonly (readonly [from: number, to: number])[];
}

const root = () => join(process.env.LANE_ROOT ?? process.cwd(), "node_modules/@fontsource");
const files = new Map<string, Uint8Array>();

function faceOf(name: string, subset: string): Face {
  const file = (weight: FontWeight) => {
    const path = join(root(), name, "files", `${name}-${subset}-${weight}-normal.woff`);
    const known = files.get(path) ?? unpackWoff(readFileSync(path));
    files.set(path, known);
    return known;
  };
  return { key: `${name} ${subset}`, file };
}

/** "U+0460-052F,U+20B4": which letters a file has, as its package says. */
const rangesOf = (said: string) =>
  said.split(",").map((range) => {
    const [from = "", to = from] = range.replace(/^U\+/i, "").split("-");
    return [Number.parseInt(from, 16), Number.parseInt(to, 16)] as const;
  });

const known = new Map<BookletFont, readonly Subset[]>();
function subsetsOf(font: BookletFont): readonly Subset[] {
  let subsets = known.get(font);
  if (!subsets) {
    subsets = packages[font].flatMap((name) => {
      const said = JSON.parse(readFileSync(join(root(), name, "unicode.json"), "utf8")) as Record<string, string>;
      // Latin before the rest: its file has the signs that all of them share.
      const order = Object.keys(said).sort((a, b) => Number(b === "latin") - Number(a === "latin"));
      return order.map((subset) => ({ face: faceOf(name, subset), ranges: rangesOf(said[subset] ?? "") }));
    });
    known.set(font, subsets);
  }
  return subsets;
}

const has = ({ ranges }: Subset, letter: number) => ranges.some(([from, to]) => letter >= from && letter <= to);

/** The face everything begins in; it has to be there at any rate. */
export const mainFace = (font: BookletFont): Face => (subsetsOf(font)[0] as Subset).face;

/**
 * A text in pieces, each with a face that has its letters: as few as there are scripts in it. What no shipped file has stays in the face
 * before it, and is drawn as a box. O(letters).
 */
export function inFaces(text: string, font: BookletFont): readonly { readonly text: string; readonly face: Face }[] {
  const subsets = subsetsOf(font);
  const pieces: { text: string; face: Face }[] = [];
  let now = subsets[0] as Subset;
  for (const letter of text) {
    const code = letter.codePointAt(0) ?? 0;
    const last = pieces.at(-1);
    const next = has(now, code) ? now : (subsets.find((subset) => has(subset, code)) ?? now);
    if (last && next === now) last.text += letter;
    else pieces.push({ text: letter, face: next.face });
    now = next;
  }
  return pieces;
}
