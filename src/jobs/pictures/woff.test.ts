import { describe, expect, test } from "vitest";
import { openTypeFont } from "./fonts";
import { unpackWoff } from "./woff";

/** The sum of a table as OpenType counts it: its big-endian 32-bit words, the last one padded with zeros. */
function sumOf(table: Uint8Array): number {
  const padded = new Uint8Array((table.length + 3) & ~3);
  padded.set(table);
  const words = new DataView(padded.buffer);
  let sum = 0;
  for (let at = 0; at < padded.length; at += 4) sum = (sum + words.getUint32(at)) >>> 0;
  return sum;
}

describe("the shipped font, unpacked", () => {
  // Source: the OpenType specification, "Organization of an OpenType Font": table directory and checksums.
  test.each([400, 600] as const)("%s: every table lies where the directory says, and has its checksum", (weight) => {
    const font = openTypeFont(weight);
    const view = new DataView(font.buffer, font.byteOffset, font.byteLength);
    expect([0x00010000, 0x4f54544f]).toContain(view.getUint32(0));
    const count = view.getUint16(4);
    const tags: string[] = [];
    for (let at = 0; at < count; at++) {
      const entry = 12 + at * 16;
      const tag = String.fromCharCode(...font.subarray(entry, entry + 4));
      tags.push(tag);
      const [checksum, offset, length] = [4, 8, 12].map((by) => view.getUint32(entry + by)) as [number, number, number];
      expect(offset % 4).toBe(0);
      expect(offset + length).toBeLessThanOrEqual(font.length);
      // The head's own sum leaves out the word that makes the whole font add up.
      if (tag !== "head") expect(sumOf(font.subarray(offset, offset + length)), tag).toBe(checksum);
    }
    expect(tags).toEqual([...tags].sort());
    for (const needed of ["cmap", "head", "hhea", "hmtx", "maxp", "name", "post"]) expect(tags).toContain(needed);
  });
  test("what is no WOFF is refused", () => {
    expect(() => unpackWoff(new Uint8Array(100))).toThrow("no WOFF");
  });
});
