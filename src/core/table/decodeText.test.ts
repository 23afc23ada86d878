import fc from "fast-check";
import { expect, test } from "vitest";
import { decodeText, readTable, writeTable } from ".";

const text = "Step,Who\r\nPrüfen,Front desk\r\n";
const utf16 = (words: string, isBig: boolean, mark: boolean) => {
  const bytes = Buffer.from(`${mark ? "\ufeff" : ""}${words}`, "utf16le");
  return new Uint8Array(isBig ? bytes.swap16() : bytes);
};

test.each([
  ["UTF-8", new TextEncoder().encode(text)],
  ["UTF-16, little end first, marked", utf16(text, false, true)],
  ["UTF-16, big end first, marked", utf16(text, true, true)],
  ["UTF-16, little end first, without a mark", utf16(text, false, false)],
  ["UTF-16, big end first, without a mark", utf16(text, true, false)],
])("a table in %s is read as the same", (_, bytes) => {
  expect(decodeText(bytes)).toBe(text);
});

test("a cell comes back as it was, apostrophes before a formula included", () => {
  for (const cell of ["=1", "'=1", "''=1", "'", "'a", "+1", "-", "@x"]) {
    const read = readTable(writeTable([["Step"], [cell]]));
    expect(read.ok && read.value[1]?.[0]).toBe(cell);
  }
  fc.assert(
    fc.property(fc.stringMatching(/^['=+\-@a]{1,6}$/), (cell) => {
      const read = readTable(writeTable([["Step"], [cell]]));
      expect(read.ok && read.value[1]?.[0]).toBe(cell);
      expect(writeTable([["Step"], [cell]]).split("\r\n")[1]).not.toMatch(/^[=+\-@]/);
    }),
  );
});
