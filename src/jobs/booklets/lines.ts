import type { Line, Run } from "@/core/booklet";

/** A piece of a line that is set in one way. */
export interface Piece {
  readonly text: string;
  readonly x: number;
  readonly width: number;
  readonly run: Run;
}

/** Width of a text as it will be set. */
export type Measure = (text: string, run: Run) => number;

/**
 * Breaks words into lines no wider than there is room: at spaces, else within a word. Ends of lines in the text are kept.
 * O(letters), apart from words wider than a line.
 */
export function setInLines(says: Line, room: number, measure: Measure): Piece[][] {
  const lines: Piece[][] = [[]];
  let x = 0;
  const put = (text: string, run: Run) => {
    const width = measure(text, run);
    const current = lines.at(-1) as Piece[];
    const last = current.at(-1);
    if (last?.run === run) current[current.length - 1] = { ...last, text: last.text + text, width: last.width + width };
    else current.push({ text, x, width, run });
    x += width;
  };
  const next = () => {
    lines.push([]);
    x = 0;
  };
  for (const run of says)
    for (const [at, paragraph] of run.text.split("\n").entries()) {
      if (at > 0) next();
      for (const word of paragraph.match(/\s+|\S+/g) ?? []) {
        const isSpace = word.trim() === "";
        if (x > 0 && !isSpace && x + measure(word, run) > room) next();
        // A space at the beginning of a line is none.
        if (isSpace) {
          if (x > 0) put(" ", run);
        } else if (measure(word, run) <= room) put(word, run);
        else
          for (const part of partsOfWord(word, room, (text) => measure(text, run))) {
            if (x > 0) next();
            put(part, run);
          }
      }
    }
  return lines;
}

/** A word too wide for a line, in parts as wide as one. */
function partsOfWord(word: string, room: number, measure: (text: string) => number): string[] {
  const parts: string[] = [];
  let part = "";
  for (const letter of word) {
    if (part !== "" && measure(part + letter) > room) {
      parts.push(part);
      part = "";
    }
    part += letter;
  }
  return [...parts, part];
}
