import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import type { Command } from "../commands";
import { checklistOf } from "../handoff";
import type { Model } from "../model";
import { expectOk, performAll, smallModel } from "../testing/models";
import { schemaErrors } from "../testing/xml";
import { mappingOf, unmappedOf } from ".";

const field = (name: string, isRequired = true) => ({ name, type: "string", isRequired });
const bound = performAll(
  smallModel(),
  {
    type: "giveDocument",
    step: "reject",
    diagram: "page",
    document: { entry: "meter", name: "Meter number" },
    direction: "in",
    id: "doc",
  } as Command,
  {
    type: "bindOperation",
    id: "reject",
    to: {
      source: "x.yaml",
      format: "OpenAPI 3.1",
      version: "1",
      interface: "Platform",
      operation: {
        name: "tell",
        in: [field("meterNumber"), field("reason"), field("note", false)],
        out: [field("letter")],
        errors: [],
        address: "",
      },
    },
  },
);
const step = (model: Model) => {
  const found = model.elements.get("reject");
  if (!found) throw new Error("no step");
  return found;
};
const told = (model: Model) =>
  mappingOf(model, step(model)).map(({ direction, name, is, isSaid }) => [direction, name, is, isSaid]);

describe("the data of a call", () => {
  test("is a document of the step where the names are the same words, else what somebody says", async () => {
    expect(told(bound)).toEqual([
      ["in", "meterNumber", "Meter number", false],
      ["in", "reason", undefined, false],
      ["in", "note", undefined, false],
      ["out", "letter", undefined, false],
    ]);
    expect(unmappedOf(bound, step(bound)).map(({ name }) => name)).toEqual(["reason"]);
    const said = performAll(
      bound,
      { type: "mapField", id: "reject", direction: "in", field: "reason", is: "what the engineer wrote" },
      { type: "mapField", id: "reject", direction: "out", field: "letter", is: "Rejection letter" },
    );
    expect(unmappedOf(said, step(said))).toEqual([]);
    const read = expectOk(readBpmn(writeBpmn(said)));
    expect(told(read)).toEqual(told(said));
    expect(await schemaErrors(writeBpmn(said))).toEqual([]);
    // Taken back, the names tell again.
    const back = performAll(said, { type: "mapField", id: "reject", direction: "in", field: "reason", is: null });
    expect(unmappedOf(back, step(back)).map(({ name }) => name)).toEqual(["reason"]);
    expect(mappingOf(smallModel(), step(smallModel()))).toEqual([]);
  });

  test("is on the list of what a machine needs", () => {
    const needs = (model: Model) =>
      checklistOf(model)
        .rows.find(({ element }) => element === "reject")
        ?.needs.find(({ name }) => name === "mapping");
    expect(needs(bound)).toMatchObject({ isThere: false, from: "analyst", says: { text: "what reason is" } });
    const said = performAll(bound, {
      type: "mapField",
      id: "reject",
      direction: "in",
      field: "reason",
      is: "a reason",
    });
    expect(needs(said)).toMatchObject({
      isThere: true,
      says: { text: "meterNumber: Meter number, reason: a reason" },
    });
  });
});
