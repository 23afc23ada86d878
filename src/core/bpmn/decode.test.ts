import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { nameOf } from "../model";
import { expectOk, performAll, smallModel } from "../testing/models";
import { decodeXml, encodeXmlLike, readBpmn, writeBpmn } from ".";

const bytesOf = (...parts: (readonly number[] | string)[]) =>
  Uint8Array.from(
    parts.flatMap((part) => (typeof part === "string" ? [...part].map((one) => one.charCodeAt(0)) : part)),
  );
/** Letters below 256 in two bytes each. */
const wide = (text: string, order: "big" | "little") =>
  [...text].flatMap((one) => (order === "big" ? [0, one.charCodeAt(0)] : [one.charCodeAt(0), 0]));

/** A beginning of a file, and what tells how it is written: XML 1.0, appendix F "Autodetection of Character Encodings". */
const files: readonly (readonly [how: string, start: Uint8Array])[] = [
  ["no mark and no declaration: UTF-8", bytesOf("<a/>")],
  ["the mark of UTF-8", bytesOf([0xef, 0xbb, 0xbf], "<a/>")],
  ["the mark of UTF-16, big end first", bytesOf([0xfe, 0xff], wide("<a/>", "big"))],
  ["the mark of UTF-16, little end first", bytesOf([0xff, 0xfe], wide("<a/>", "little"))],
  ["UTF-16 without a mark, big end first", bytesOf(wide("<a/>", "big"))],
  ["UTF-16 without a mark, little end first", bytesOf(wide("<a/>", "little"))],
  ["declared UTF-8", bytesOf('<?xml version="1.0" encoding="utf-8"?><a/>')],
  ["declared Latin-1", bytesOf("<?xml version='1.0' encoding='ISO-8859-1'?><a/>")],
  ["declared as Windows has it", bytesOf('<?xml version="1.0" encoding="Windows-1252" standalone="yes"?><a/>')],
  ["declared ASCII", bytesOf('<?xml version="1.0" encoding="US-ASCII"?><a/>')],
  // Half of the file would be lost if it were believed.
  ["declared UTF-16 in single bytes", bytesOf('<?xml version="1.0" encoding="UTF-16"?><a/>')],
];

describe.each(files)("a file with %s", (how, start) => {
  test("is read without its mark", () => {
    expect(expectOk(decodeXml(start))).toMatch(/^(?:<\?xml [^>]*\?>)?<a\/>$/);
  });

  test("gets text back the way it is written, and reads it as the same", () => {
    const declaration = /^<\?xml [^>]*\?>/.exec(expectOk(decodeXml(start)))?.[0] ?? "";
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 40 }), (letters) => {
        const text = `${declaration}<a>${letters.replace(/[<>&\0]/g, "")}</a>`;
        const back = expectOk(decodeXml(encodeXmlLike(start, text)));
        // What an older encoding has no sign for stands as a reference.
        expect(back.replace(/&#(\d+);/g, (_, point) => String.fromCodePoint(Number(point)))).toBe(text);
        if (!/Latin|Windows|ASCII/.test(how)) expect(back).toBe(text);
      }),
      { numRuns: 60 },
    );
  });

  test("keeps its mark when it is written anew", () => {
    const marked = [0xef, 0xfe, 0xff].includes(start[0] as number) ? 2 : 0;
    expect([...encodeXmlLike(start, "<b/>").subarray(0, marked)]).toEqual([...start.subarray(0, marked)]);
  });
});

test("a model goes through each way of writing with the names it has", () => {
  const name = "Prüfen – “Dach” 屋根 & 🏠 ≥ 30°";
  const model = performAll(smallModel(), { type: "rename", id: "check", name });
  for (const [how, start] of files) {
    const declared = /<\?xml [^>]*\?>/.exec(expectOk(decodeXml(start)))?.[0];
    const text = writeBpmn(model).replace(/<\?xml [^>]*\?>/, (ours) => declared ?? ours);
    const read = expectOk(readBpmn(encodeXmlLike(start, text)));
    expect(nameOf(read, "check"), how).toBe(name);
  }
});

describe("what cannot be read is refused, where it is, with what to do", () => {
  test.each([
    ["an encoding nobody here reads", bytesOf('<?xml version="1.0" encoding="EBCDIC-CP-US"?><a/>'), "EBCDIC-CP-US"],
    ["a byte that is no UTF-8", bytesOf("<a>", [0xff, 0x41], "</a>"), "UTF-8"],
    ["a letter cut off in UTF-8", bytesOf("<a>", [0xe2, 0x82]), "UTF-8"],
    ["half a pair in UTF-16", bytesOf([0xff, 0xfe], wide("<a>", "little"), [0x00, 0xd8, 0x41, 0x00]), "UTF-16LE"],
    ["an odd number of bytes in UTF-16", bytesOf([0xfe, 0xff], wide("<a/>", "big"), [0x00]), "UTF-16BE"],
  ])("%s", (_, bytes, named) => {
    const read = decodeXml(bytes);
    const [problem] = read.ok ? [] : read.problems;
    expect(problem).toMatchObject({ code: "encoding", line: 1, column: 1 });
    expect(problem?.message).toContain(named);
    expect(problem?.message).toContain("Save it as UTF-8");
  });

  test("nothing at all is no file of ours, and says so", () => {
    for (const bytes of [bytesOf(), bytesOf([0xef, 0xbb, 0xbf]), bytesOf([0xff, 0xfe])])
      expect(readBpmn(bytes)).toMatchObject({ ok: false });
  });
});
