import fc from "fast-check";
import { SaxesParser } from "saxes";
import { describe, expect, test } from "vitest";
import { escapeAttribute, escapeText } from ".";

/** What an XML parser that is not ours reads of a value written both ways. */
function read(value: string): { readonly attribute: string; readonly text: string } {
  const parser = new SaxesParser();
  let attribute = "";
  let text = "";
  parser.on("opentag", (tag) => {
    attribute = String(tag.attributes.name);
  });
  parser.on("text", (part) => {
    text += part;
  });
  parser.on("error", (error) => {
    throw error;
  });
  parser.write(`<a name="${escapeAttribute(value)}">${escapeText(value)}</a>`).close();
  return { attribute, text };
}

describe("values in XML", () => {
  test("come back as they are, line ends and all", () => {
    for (const value of [
      "a & b < c > d",
      'say "no"',
      "two\nlines",
      "tab\there",
      "old\rMac",
      "ключ 鍵 🔑",
      "]]>",
      "&amp;",
    ])
      expect(read(value)).toEqual({ attribute: value, text: value });
  });

  test.each([
    ["Check\vapplication", "Check application"],
    ["new\fpage", "new page"],
    ["bell\u0007", "bell"],
    ["nothing\0here", "nothinghere"],
    ["half \ud83d of a pair", "half  of a pair"],
    ["\udd11 other half", " other half"],
    ["no\uffff", "no"],
  ])("what no XML can hold is left out: %j", (value, left) => {
    expect(read(value)).toEqual({ attribute: left, text: left });
  });

  test("whatever a value holds, it is well-formed, and only what XML cannot hold is missing", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary" }), (value) => {
        const kept = value
          .replace(/[\v\f]/g, " ")
          .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, "");
        expect(read(value)).toEqual({ attribute: kept, text: kept });
      }),
      { numRuns: 500 },
    );
  });
});
