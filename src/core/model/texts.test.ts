import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { smallModel } from "../testing/models";
import {
  descriptionIn,
  type Element,
  languagesOf,
  type Model,
  modelIn,
  nameIn,
  ownName,
  withDescriptionIn,
  withNameIn,
} from ".";

const withElement = (model: Model, element: Element): Model => ({
  ...model,
  elements: model.elements.with(new Map([[element.id, element]])),
});
const the = (model: Model, id: string): Element => model.elements.get(id) as Element;
const named = (model: Model, id: string, language: string, name: string): Model => {
  const element = the(model, id);
  return withElement(model, { ...element, extension: withNameIn(element, language, name) ?? [] });
};
const described = (model: Model, id: string, language: string, words: string): Model => {
  const element = the(model, id);
  return withElement(model, { ...element, documentation: withDescriptionIn(element, language, words) ?? [] });
};

describe("names in languages", () => {
  test("are kept beside each other, replaced one by one, and taken away by nothing", () => {
    const two = named(named(smallModel(), "check", "de", "Antrag prüfen"), "check", "fr", "Vérifier");
    expect([nameIn(the(two, "check"), "de"), nameIn(the(two, "check"), "fr")]).toEqual(["Antrag prüfen", "Vérifier"]);
    const other = named(two, "check", "de", "Prüfen");
    expect([nameIn(the(other, "check"), "de"), nameIn(the(other, "check"), "fr")]).toEqual(["Prüfen", "Vérifier"]);
    const gone = named(named(other, "check", "de", ""), "check", "fr", "");
    expect(nameIn(the(gone, "check"), "de")).toBeUndefined();
    expect(languagesOf(gone)).toEqual([]);
  });

  test("languages of names and of descriptions are both languages of the model", () => {
    const model = described(named(smallModel(), "check", "fr", "Vérifier"), "approve", "de", "Genau lesen.");
    expect(languagesOf(model)).toEqual(["de", "fr"]);
    expect(descriptionIn(the(model, "approve"), "de")).toBe("Genau lesen.");
  });

  test("any name and any text come back from a file as they were", () => {
    // XML has no way to write most control characters.
    const isControl = (letter: string) => /\p{Cc}|\p{Cn}/u.test(letter);
    const words = fc.string({ unit: "grapheme", maxLength: 30 }).filter((text) => ![...text].some(isControl));
    fc.assert(
      fc.property(words, words, (name, text) => {
        const model = described(named(smallModel(), "check", "de", name), "check", "pt-BR", text);
        const read = readBpmn(new TextEncoder().encode(writeBpmn(model)));
        if (!read.ok) throw new Error(read.problems[0]?.message);
        expect(nameIn(the(read.value, "check"), "de")).toBe(name === "" ? undefined : name);
        expect(descriptionIn(the(read.value, "check"), "pt-BR")).toBe(text.trim());
      }),
      { numRuns: 100 },
    );
  });
});

describe("a model in a language", () => {
  const model = described(named(smallModel(), "check", "de", "Antrag prüfen"), "check", "de", "Jedes Papier.");

  test("is called and described in it where that is kept", () => {
    const { model: german } = modelIn(model, "de");
    expect(ownName(the(german, "check"))).toBe("Antrag prüfen");
    expect(descriptionIn(the(german, "check"))).toBe("Jedes Papier.");
    expect(ownName(the(german, "approve"))).toBe(ownName(the(model, "approve")));
  });

  test("says what is missing, and nothing that nobody reads", () => {
    const { untold } = modelIn(model, "de");
    expect(untold.map(({ element }) => element.id)).toContain("approve");
    expect(untold.some(({ element }) => element.id === "check" || element.type === "definitions")).toBe(false);
  });

  test("changes nothing else: geometry, flow and the model itself stay", () => {
    const { model: german } = modelIn(model, "de");
    expect(german.shapes).toBe(model.shapes);
    expect(ownName(the(model, "check"))).not.toBe("Antrag prüfen");
    expect(modelIn(smallModel(), "xx").model.elements.get("check")).toEqual(the(smallModel(), "check"));
  });
});
