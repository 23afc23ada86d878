import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { inFaces, mainFace } from "./letters";
import { unpackWoff } from "./woff";

const shown = (text: string, font: "plain" | "serif" = "plain") =>
  inFaces(text, font).map((piece) => `${piece.face.key}: ${piece.text}`);

describe("letters in the faces that have them", () => {
  test.each([
    ["Check documents, 80 %", ["atkinson-hyperlegible-next latin: Check documents, 80 %"]],
    ["Zähler „prüfen“ – 5 €", ["atkinson-hyperlegible-next latin: Zähler „prüfen“ – 5 €"]],
    [
      "Łódź",
      [
        "atkinson-hyperlegible-next latin-ext: Ł",
        "atkinson-hyperlegible-next latin: ód",
        "atkinson-hyperlegible-next latin-ext: ź",
      ],
    ],
    [
      "Проверить план",
      ["source-sans-3 cyrillic: Проверить", "atkinson-hyperlegible-next latin:  ", "source-sans-3 cyrillic: план"],
    ],
    ["Έλεγχος", ["source-sans-3 greek: Έλεγχος"]],
    ["", []],
  ])("%s", (text, expected) => expect(shown(text)).toEqual(expected));

  test("with serifs, Latin has them; Greek and Cyrillic too", () => {
    expect(shown("Check Проверить Έλεγχος", "serif").map((one) => one.split(":")[0])).toEqual([
      "source-serif-4 latin",
      "source-serif-4 cyrillic",
      "source-serif-4 latin",
      "source-serif-4 greek",
    ]);
  });

  test("nothing of a text is lost, in its order, whatever script it is in", () => {
    fc.assert(
      fc.property(
        fc.string({ unit: "grapheme" }),
        fc.constantFrom("plain" as const, "serif" as const),
        (text, font) => {
          const pieces = inFaces(text, font);
          expect(pieces.map((piece) => piece.text).join("")).toBe(text);
          for (const [at, piece] of pieces.entries()) expect(piece.face).not.toBe(pieces[at - 1]?.face);
        },
      ),
    );
  });

  test("what no file has stays where it is", () =>
    expect(shown("要 ok")).toEqual(["atkinson-hyperlegible-next latin: 要 ok"]));

  test.each(["plain", "serif"] as const)("each file is a font: %s", (font) => {
    for (const face of [mainFace(font), ...inFaces("Łя Ω", font).map((piece) => piece.face)])
      for (const weight of [400, 600] as const) expect(face.file(weight).length).toBeGreaterThan(5_000);
    expect(() => unpackWoff(new Uint8Array(3))).toThrow();
  });
});
