/**
 * The text of a table's file: UTF-8, or UTF-16 where a mark at its start or its NUL bytes say so, as spreadsheets save "Unicode text".
 * Source of the mark: The Unicode Standard, chapter 23.8 "Specials" (byte order mark). O(size).
 */
export function decodeText(bytes: Uint8Array): string {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return new TextDecoder("utf-16le").decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder("utf-16be").decode(bytes);
  // Without a mark, every other byte of mostly Latin text is 0.
  const looked = bytes.subarray(0, 200);
  const zeros = (odd: number) => looked.filter((byte, at) => at % 2 === odd && byte === 0).length;
  if (looked.length >= 4 && zeros(1) > looked.length / 4 && zeros(0) === 0)
    return new TextDecoder("utf-16le").decode(bytes);
  if (looked.length >= 4 && zeros(0) > looked.length / 4 && zeros(1) === 0)
    return new TextDecoder("utf-16be").decode(bytes);
  return new TextDecoder().decode(bytes);
}
