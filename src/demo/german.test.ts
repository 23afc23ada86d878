import { describe, expect, test } from "vitest";
import { missingIn, textRows } from "@/core/capture";
import { emptyModel, modelIn, ownName } from "@/core/model";
import { drawSolarConnection } from "./solarConnection";

const empty = emptyModel(
  { definitions: "d", process: "rooftop-solar-connection", diagram: "page" },
  "Rooftop solar connection",
);
const { model } = drawSolarConnection(empty, "page", "switch-on-and-verify");

describe("the demo in German", () => {
  test("what is kept of it is called as it says, and nothing else is changed", () => {
    const { model: german } = modelIn(model, "de");
    const called = (id: string) => ownName(german.elements.get(id) as never);
    expect(called("check-capacity")).toBe("Netzkapazität prüfen");
    expect(called("complete-to-check-documents")).toBe("ja");
    // Pages are called like what they show.
    expect([...german.diagrams].map(({ name }) => name)).toContain("Vor Ort abnehmen");
    expect([...model.diagrams].map(({ name }) => name)).toContain("Inspect on site");
    expect(german.elements.size).toBe(model.elements.size);
  });

  test("next to nothing is missing, so that a handbook in it can be shown", () => {
    const missing = textRows(model, "de").filter(({ own, told }) => own.name !== "" && told.name === "");
    expect(missing.map(({ own }) => own.name)).toEqual(["Limit: 80 % of the feeder's rating"]);
    expect(missingIn(textRows(model, "de"))).toBe(1);
  });
});
