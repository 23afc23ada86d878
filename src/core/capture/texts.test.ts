import { describe, expect, test } from "vitest";
import { descriptionIn, nameIn, ownName } from "../model";
import { writeTable } from "../table";
import { performAll, smallModel } from "../testing/models";
import { describing, missingIn, textRows, textsAsCsv, textsFromCsv } from ".";

const described = () =>
  performAll(
    smallModel(),
    { type: "describe", id: "check", text: "Compare\neach paper." },
    { type: "nameIn", id: "check", language: "de", name: "Antrag prüfen" },
  );

describe("texts in a language", () => {
  test("all that somebody reads stands in it once, steps in their order, with what is missing", () => {
    const rows = textRows(described(), "de");
    const ids = rows.map(({ element }) => element);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids.indexOf("check")).toBeLessThan(ids.indexOf("approve"));
    const check = rows.find(({ element }) => element === "check");
    expect(check).toMatchObject({
      kind: "user task",
      own: { description: "Compare\neach paper." },
      told: { name: "Antrag prüfen", description: "" },
      isRich: false,
    });
    const named = rows.filter(({ own }) => own.name !== "").length;
    expect(missingIn(rows)).toBe(named - 1 + 1);
    expect(missingIn(textRows(described(), "fr"))).toBe(named + 1);
  });

  test("a name is said, said otherwise and taken away; a description is kept in its language", () => {
    const model = performAll(described(), describing("check", "de", "Jedes Papier\nvergleichen."));
    const check = model.elements.get("check");
    expect(check && descriptionIn(check, "de")).toBe("Jedes Papier\nvergleichen.");
    expect(check && descriptionIn(check)).toBe("Compare\neach paper.");
    const gone = performAll(model, { type: "nameIn", id: "check", language: "de", name: "" });
    expect(gone.elements.get("check") && nameIn(gone.elements.get("check") as never, "de")).toBeUndefined();
  });

  test("a description with emphasis is told as such", () => {
    const rich = performAll(smallModel(), {
      type: "describeIn",
      id: "check",
      language: null,
      text: {
        type: "doc",
        content: [{ type: "paragraph", content: [{ type: "text", text: "Now", marks: [{ type: "bold" }] }] }],
      },
    });
    expect(textRows(rich, "de").find(({ element }) => element === "check")?.isRich).toBe(true);
  });
});

describe("texts as a table", () => {
  const filled = (language: string, names: { readonly [id: string]: string }, head = ["Id", `Name (${language})`]) =>
    writeTable([head, ...Object.entries(names)]);
  const commands = (text: string) => {
    const read = textsFromCsv(described(), "de", text);
    if (!read.ok) throw new Error(read.problems[0]?.message);
    return read.value;
  };

  test("go out and come back with nothing new in them", () => {
    const csv = textsAsCsv(textRows(described(), "de"), "de");
    expect(csv).toContain("Antrag prüfen");
    expect(commands(csv)).toEqual({ commands: [], unknown: [] });
  });

  test("what was filled in is taken over, what is empty stays, what is not here is told", () => {
    const { commands: made, unknown } = commands(filled("de", { approve: "Freigeben", check: "", none: "Nichts" }));
    expect(made).toEqual([{ type: "nameIn", id: "approve", language: "de", name: "Freigeben" }]);
    expect(unknown).toEqual(["none"]);
    const model = performAll(described(), ...(made as never[]));
    const [approve, check] = [model.elements.get("approve"), model.elements.get("check")];
    expect(approve && nameIn(approve, "de")).toBe("Freigeben");
    expect(approve && ownName(approve)).not.toBe("Freigeben");
    expect(check && nameIn(check, "de")).toBe("Antrag prüfen");
  });

  test("a table of another language, or of something else, is refused in words", () => {
    const read = textsFromCsv(described(), "de", filled("fr", { check: "Vérifier" }));
    expect(read.ok).toBe(false);
    expect(!read.ok && read.problems[0]?.message).toContain("“Name (de)”");
  });
});
