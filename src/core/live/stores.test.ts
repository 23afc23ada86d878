import { describe, expect, test } from "vitest";
import { performAll, smallModel } from "../testing/models";
import { storesOf } from ".";
import { writtenBy } from "./stores";
import { chain, end, file, modelOf, processOf, start, task } from "./testing/models";

describe("what a step writes into", () => {
  test("is the IT system that it is said to write, not one that it only reads", () => {
    const model = performAll(
      smallModel(),
      { type: "useSystem", step: "check", system: { entry: "register", name: "Case register" }, use: "writes" },
      { type: "useSystem", step: "check", system: { entry: "map", name: "Grid map" }, use: "reads" },
    );
    expect(storesOf(model, "check")).toEqual(["Case register"]);
    expect(storesOf(model, "approve")).toEqual([]);
    expect(storesOf(model, "nothing")).toEqual([]);
  });

  test("is the data store that it gives data to in the drawing, by its name", () => {
    const association = (target: string) =>
      `<dataOutputAssociation id="to-${target}"><targetRef>${target}</targetRef></dataOutputAssociation>`;
    const model = modelOf(
      file(
        processOf(
          `<dataStoreReference id="store" name="Plant register"/><dataObject id="d"/><dataObjectReference id="paper" dataObjectRef="d"/>${start}${task("a", association("store"))}${task("b", association("paper"))}${end}${chain("s", "a", "b", "e")}`,
        ),
      ),
    );
    expect(storesOf(model, "a")).toEqual(["Plant register"]);
    expect(storesOf(model, "b")).toEqual([]);
  });
});

test("a step writes the fields that it hands over, as they are mapped; without a mapping what the case holds", () => {
  const model = performAll(
    smallModel(),
    { type: "retype", id: "check", to: "serviceTask" },
    { type: "mapField", id: "check", direction: "in", field: "kw", is: "plant.power * 2" },
    { type: "mapField", id: "check", direction: "in", field: "unknown", is: "nowhere.at.all" },
  );
  const data = { plant: { power: 5 }, urgent: true };
  expect(writtenBy(model, "check", data)).toEqual({ kw: 10, unknown: null });
  expect(writtenBy(model, "approve", data)).toEqual(data);
});
