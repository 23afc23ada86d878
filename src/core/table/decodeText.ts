/**
 * The text of a table's file: UTF-8, or UTF-16 where a mark at its start or its NUL bytes say so, as spreadsheets save "Unicode text".
 * Source of the mark: The Unicode Standard, chapter 23.8 "Specials" (byte order mark). O(size).
 */
export const decodeText = (bytes: Uint8Array): string => new TextDecoder(encodingOf(bytes)).decode(bytes);

/** The encoding of a text, from its mark or from its first letters. */
export function encodingOf(bytes: Uint8Array): "utf-8" | "utf-16le" | "utf-16be" {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return "utf-16le";
  if (first === 0xfe && second === 0xff) return "utf-16be";
  // Without a mark, every other byte of mostly Latin text is 0.
  const looked = bytes.subarray(0, 200);
  const zeros = (odd: number) => looked.filter((byte, at) => at % 2 === odd && byte === 0).length;
  if (looked.length >= 4 && zeros(1) > looked.length / 4 && zeros(0) === 0) return "utf-16le";
  if (looked.length >= 4 && zeros(0) > looked.length / 4 && zeros(1) === 0) return "utf-16be";
  return "utf-8";
}
