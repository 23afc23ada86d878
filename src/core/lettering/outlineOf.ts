import { fontOutlines } from "./fontOutlines";

/**
 * The outlines of a line of words, in thousandths of the type size from its first letter's origin, y downwards: what a page with
 * many words is drawn with, since a browser measures every text anew whenever the scale changes.
 * @returns undefined where a letter is not among the outlines; such a line is drawn as text
 * O(letters).
 */
export function outlineOf(
  words: string,
  weight: 400 | 600,
): { readonly path: string; readonly width: number } | undefined {
  const glyphs = fontOutlines[weight];
  let path = "";
  let pen = 0;
  let [x, y] = [0, 0];
  for (const letter of words) {
    const glyph = glyphs && Object.hasOwn(glyphs, letter) ? glyphs[letter] : undefined;
    if (!glyph) return undefined;
    const [advance, outline, endX, endY] = glyph;
    if (outline !== "") {
      // Each outline goes on from where the last one ended.
      path += `m${pen - x} ${-y}${outline}`;
      [x, y] = [pen + endX, endY];
    }
    pen += advance;
  }
  return { path, width: pen };
}
