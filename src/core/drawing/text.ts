import { fontWidths } from "./fontWidths";

export type FontWeight = 400 | 600;

const tables = new Map<number, Map<number, number>>();
/** For letters the table lacks; wide, so that text is rather broken early than clipped. */
const unknownWidth = 620;

function widthsOf(weight: FontWeight): Map<number, number> {
  let table = tables.get(weight);
  if (!table) {
    table = new Map(
      (fontWidths[weight] ?? "").split(" ").map((entry) => {
        const [code, width] = entry.split(":") as [string, string];
        return [Number.parseInt(code, 36), Number.parseInt(width, 36)];
      }),
    );
    tables.set(weight, table);
  }
  return table;
}

/** Width of a text in the shipped font, in the units of its size. O(letters). */
export function textWidth(text: string, size: number, weight: FontWeight = 400): number {
  const widths = widthsOf(weight);
  let sum = 0;
  for (const letter of text) {
    const code = letter.codePointAt(0) as number;
    // Ideographs and the like are as wide as they are high.
    sum += widths.get(code) ?? (code >= 0x2e80 ? 1000 : unknownWidth);
  }
  return (sum * size) / 1000;
}

/** Texts as they were broken before: on a page on which half of the steps move aside, none says anything else. */
const known = new Map<string, readonly string[]>();
/** So many are kept; then the keeping begins anew. */
const mostKnown = 8_000;

/**
 * Breaks a text into lines no wider than `width`: at spaces and hyphens, else within a word. With more lines than `most`, the
 * last one ends in an ellipsis. Line ends in the text are kept.
 */
export function brokenLines(
  text: string,
  width: number,
  size: number,
  weight: FontWeight = 400,
  most = Number.POSITIVE_INFINITY,
): readonly string[] {
  const key = `${width} ${size} ${weight} ${most} ${text}`;
  const before = known.get(key);
  if (before) return before;
  if (known.size >= mostKnown) known.clear();
  const lines = breakLines(text, width, size, weight, most);
  known.set(key, lines);
  return lines;
}

function breakLines(text: string, width: number, size: number, weight: FontWeight, most: number): readonly string[] {
  const lines: string[] = [];
  for (const paragraph of text.replace(/\r\n?/g, "\n").split("\n")) {
    let line = "";
    for (const piece of paragraph.trim().split(/(?<=[\s-])/)) {
      if (textWidth((line + piece).trimEnd(), size, weight) <= width) {
        line += piece;
        continue;
      }
      if (line.trim() !== "") lines.push(line.trimEnd());
      line = piece;
      while (textWidth(line.trimEnd(), size, weight) > width && line.length > 1) {
        let cut = line.length - 1;
        while (cut > 1 && textWidth(line.slice(0, cut), size, weight) > width) cut--;
        lines.push(line.slice(0, cut));
        line = line.slice(cut);
      }
    }
    if (line.trim() !== "") lines.push(line.trimEnd());
  }
  if (lines.length <= most) return lines;
  const kept = lines.slice(0, most);
  let last = kept[most - 1] as string;
  while (last.length > 1 && textWidth(`${last}…`, size, weight) > width) last = last.slice(0, -1).trimEnd();
  kept[most - 1] = `${last}…`;
  return kept;
}
