import { describe, expect, test } from "vitest";
import type { Block } from "../booklet";
import { templateSchema } from ".";
import { withNumbers } from "./numbering";

const heading = (level: 1 | 2 | 3, text: string): Block => ({ kind: "heading", level, text, anchor: text });
const texts = (blocks: readonly Block[]) => blocks.flatMap((block) => (block.kind === "heading" ? [block.text] : []));

describe("numbers before headings", () => {
  test("of one process stand before its parts", () => {
    const blocks = [heading(1, "Bills"), heading(2, "Diagram"), heading(2, "Steps"), heading(3, "1 Print")];
    expect(texts(withNumbers(blocks))).toEqual(["Bills", "1 Diagram", "2 Steps", "1 Print"]);
  });

  test("of several stand before each, and begin anew for its parts", () => {
    const blocks = [heading(1, "A"), heading(2, "x"), heading(2, "y"), heading(1, "B"), heading(2, "x")];
    expect(texts(withNumbers(blocks))).toEqual(["1 A", "1.1 x", "1.2 y", "2 B", "2.1 x"]);
  });

  test("leave everything else as it is, also where things lead to", () => {
    const blocks: Block[] = [heading(1, "A"), { kind: "paragraph", says: [] }, heading(2, "x")];
    expect(withNumbers(blocks)[1]).toBe(blocks[1]);
    expect(withNumbers(blocks)[2]).toMatchObject({ anchor: "x" });
    expect(withNumbers([])).toEqual([]);
  });
});

describe("a template", () => {
  const whole = { name: "House", parts: ["steps"] };
  test("says what it is about, and has the rest by itself", () => {
    expect(templateSchema.parse(whole)).toEqual({ ...whole, lenses: [], isNumbered: false, font: "plain", logo: null });
  });
  test.each<[what: string, wrong: object]>([
    ["no name", { name: "  " }],
    ["no part", { parts: [] }],
    ["letters nobody has", { font: "handwriting" }],
    ["a part that is none", { parts: ["weather"] }],
    ["a logo from elsewhere", { logo: "https://elsewhere.example/x.png" }],
    ["a logo that is a drawing with a program", { logo: "data:image/svg+xml;base64,PHN2Zy8+" }],
    ["a logo that breaks out of its address", { logo: 'data:image/png;base64,AA"><script>' }],
    ["a logo that is too large", { logo: `data:image/png;base64,${"A".repeat(280_000)}` }],
  ])("with %s is refused", (_, wrong) => expect(templateSchema.safeParse({ ...whole, ...wrong }).success).toBe(false));
});
