import { describe, expect, test } from "vitest";
import { bpmnWith, clerks, end, flow, modelOf, of, resource, start, task } from "@/core/forecast/testing/models";
import type { Model } from "@/core/model";
import { type Scenario, scenariosOf } from "@/core/scenario";
import { performAll } from "@/core/testing/models";
import { commandsFor, shown, spreadIn } from "./figureText";
import { type CellName, rowsOf, type SheetRow, sheetRows, siteRows } from "./sheetRows";

const model = performAll(
  modelOf(
    bpmnWith(
      `<bpmn:laneSet id="ls"><bpmn:lane id="l" name="Desk" partitionElementRef="desk"><bpmn:flowNodeRef>s</bpmn:flowNodeRef><bpmn:flowNodeRef>a</bpmn:flowNodeRef><bpmn:flowNodeRef>g</bpmn:flowNodeRef></bpmn:lane></bpmn:laneSet>${start}${task("a")}<bpmn:exclusiveGateway id="g" name="Fine?"/>${task("b")}${end}${flow("f1", "s", "a")}${flow("f2", "a", "g")}<bpmn:sequenceFlow id="yes" name="yes" sourceRef="g" targetRef="b"/><bpmn:sequenceFlow id="no" name="no" sourceRef="g" targetRef="e"/>${flow("f3", "b", "e")}`,
      of("a", "") + resource("desk", 2) + resource("depot", 1),
      "",
      clerks("desk", "depot"),
    ),
  ),
  { type: "useSystem", step: "a", system: { entry: "archive", name: "Archive" }, use: "reads" },
);
const scenarioOf = (one: Model) => scenariosOf(one)[0] as Scenario;
const rowFor = (one: Model, element: string): SheetRow => {
  const found = [...sheetRows(one), ...siteRows(one, scenarioOf(one))].find((row) => row.element === element);
  if (!found) throw new Error(`There is no row for ${element}.`);
  return found;
};
/** Types into a cell, and gives the model then and what the cell says. */
function typed(before: Model, element: string, name: CellName, words: string): { model: Model; says: string } {
  const commands = commandsFor(rowFor(before, element), name, words, scenarioOf(before));
  if (typeof commands === "string") throw new Error(commands);
  const after = performAll(before, ...commands);
  const kept = [...sheetRows(after), ...siteRows(after, scenarioOf(after))].find((row) => row.element === element);
  return { model: after, says: kept ? shown(kept, name, scenarioOf(after)) : "" };
}

describe("figures of one element, for its tray", () => {
  test.each([
    ["s", [["s", ["interval"]]]],
    ["a", [["a", ["processing", "wait", "fixedCost", "selection"]]]],
    [
      "g",
      [
        ["yes", ["probability"]],
        ["no", ["probability"]],
      ],
    ],
    ["no", [["no", ["probability"]]]],
    ["f1", []],
    ["l", [["desk", ["quantity", "unitCost", "availability", "site"]]]],
    ["e", []],
  ])("%s", (id, rows) => {
    const element = model.elements.get(id);
    if (!element) throw new Error(id);
    expect(rowsOf(model, element).map((row) => [row.element, row.says])).toEqual(rows);
  });
});

describe("sites in the sheet", () => {
  test("systems that are used have a row; ways come with the first two sites, and go with them", () => {
    expect(siteRows(model, scenarioOf(model)).map(({ kind }) => kind)).toEqual(["system"]);
    const one = typed(model, "desk", "site", "Office");
    expect(one.says).toBe("Office");
    expect(siteRows(one.model, scenarioOf(one.model)).map(({ kind }) => kind)).toEqual(["system"]);
    const two = typed(one.model, "depot", "site", "Harbour");
    expect(siteRows(two.model, scenarioOf(two.model)).map(({ name }) => name)).toEqual(["Archive", "Office → Harbour"]);
    const third = typed(two.model, "archive", "site", "Hill");
    expect(third.says).toBe("Hill");
    expect(siteRows(third.model, scenarioOf(third.model)).filter(({ kind }) => kind === "way")).toHaveLength(3);
    const none = typed(typed(two.model, "depot", "site", "").model, "desk", "site", "");
    expect(siteRows(none.model, scenarioOf(none.model)).map(({ kind }) => kind)).toEqual(["system"]);
    // How many can use a system at once is said there as well.
    const narrow = typed(model, "archive", "capacity", "2");
    expect([narrow.says, scenarioOf(narrow.model).sites.roomOf.get("archive")]).toEqual(["2", 2]);
    expect(scenarioOf(typed(narrow.model, "archive", "capacity", "").model).sites.roomOf.size).toBe(0);
    expect(typeof commandsFor(rowFor(narrow.model, "archive"), "capacity", "0", scenarioOf(narrow.model))).toBe(
      "string",
    );
  });

  test("what lies between is said in words, and taken off again", () => {
    const apart = typed(typed(model, "desk", "site", "Office").model, "depot", "site", "Harbour").model;
    const way = "Office > Harbour";
    const delayed = typed(apart, way, "delay", "usually 4 h, 9 of 10 within 1 day");
    expect(delayed.says).toBe("usually 4 h, 9 of 10 within 1 day");
    expect(spreadIn(rowFor(delayed.model, way), "delay", scenarioOf(delayed.model))?.kind).toBe("logNormal");
    const narrow = typed(delayed.model, way, "capacity", "2");
    expect(narrow.says).toBe("2");
    expect(scenarioOf(narrow.model).sites.links).toHaveLength(1);
    expect(typed(narrow.model, way, "delay", "").says).toBe("");
    for (const [name, words] of [
      ["capacity", "none"],
      ["capacity", "0"],
      ["delay", "soon"],
    ] as const)
      expect(typeof commandsFor(rowFor(narrow.model, way), name, words, scenarioOf(narrow.model))).toBe("string");
    expect(typeof commandsFor(rowFor(narrow.model, "desk"), "site", "A > B", scenarioOf(narrow.model))).toBe("string");
  });
});

describe("what holds in some hours only", () => {
  const event = (rule: string, more = "") =>
    `<![CDATA[BEGIN:VEVENT\nDTSTART:20270104T080000\nDURATION:PT8H\nRRULE:${rule}\n${more}\nEND:VEVENT]]>`;
  const calendars = [
    ["office", event("FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR")],
    ["monday", event("FREQ=WEEKLY")],
    ["other weeks", event("FREQ=WEEKLY;INTERVAL=2;BYDAY=MO")],
    ["this year", event("FREQ=WEEKLY;UNTIL=20271231T000000;BYDAY=MO")],
    ["and once", event("FREQ=WEEKLY;BYDAY=MO", "RDATE:20270105T080000")],
    ["feasts", event("FREQ=YEARLY")],
  ].map(([name, text]) => `<bpsim:Calendar id="${name}" name="${name}">${text}</bpsim:Calendar>`);
  const value = (kind: string, said: string | number, during: string) =>
    `<bpsim:${kind} value="${said}"${during ? ` validFor="${during}"` : ""}/>`;
  const file = (parameters: string) =>
    modelOf(bpmnWith(`${start}${task("a")}${end}`, parameters + calendars.join(""), "", clerks("desk")));
  const ofDesk = (name: string, values: string) =>
    file(of("desk", `<bpsim:ResourceParameters><bpsim:${name}>${values}</bpsim:${name}></bpsim:ResourceParameters>`));
  const cell = (one: Model, name: CellName) => shown(rowFor(one, "desk"), name, scenarioOf(one));

  test.each<[said: [value: string, during: string][], shown: string]>([
    [[["true", "office"]], "Mon-Fri 8:00-16:00"],
    [[["true", "monday"]], "Mon 8:00-16:00"],
    // What is not every week is not told as if it were.
    [[["true", "other weeks"]], "other weeks"],
    [[["true", "this year"]], "this year"],
    [[["true", "and once"]], "and once"],
    [[["true", "office"], ["false", "feasts"]], "Mon-Fri 8:00-16:00, not feasts"], // biome-ignore format: a row of values
    [[["true", ""], ["false", "gone"]], "always, not gone"], // biome-ignore format: a row of values
    [[["false", ""]], "never"],
  ])("availability %j: %s", (said, wanted) => {
    const values = said.map(([one, during]) => value("BooleanParameter", one, during)).join("");
    expect(cell(ofDesk("Availability", values), "availability")).toBe(wanted);
  });

  test("of several numbers each is shown with its hours, and is kept until another word is said", () => {
    const shifts = value("NumericParameter", 3, "office") + value("NumericParameter", 1, "");
    const one = ofDesk("Quantity", shifts);
    expect(cell(one, "quantity")).toBe("3 (Mon-Fri 8:00-16:00), 1");
    expect(typed(one, "desk", "quantity", "4").says).toBe("4");
    expect(commandsFor(rowFor(one, "desk"), "quantity", "4 (at night)", scenarioOf(one))).toContain("no number");
  });

  test("a curve is drawn of one spread only", () => {
    const uniform = (during: string) => `<bpsim:UniformDistribution min="1" max="2"${during}/>`;
    const times = (values: string) =>
      file(
        of("a", `<bpsim:TimeParameters><bpsim:ProcessingTime>${values}</bpsim:ProcessingTime></bpsim:TimeParameters>`),
      );
    const spread = (one: Model) => spreadIn(rowFor(one, "a"), "processing", scenarioOf(one))?.kind;
    expect(spread(times(uniform("")))).toBe("uniform");
    expect(spread(times(uniform(' validFor="office"') + uniform("")))).toBeUndefined();
  });
});

describe("whom a step takes", () => {
  test.each([
    ["2 desk", "2 desk"],
    ["desk and 3 depot", "desk and 3 depot"],
    ["DESK or Depot", "desk or depot"],
    ["desk + depot", "desk and depot"],
  ])("%s", (words, says) => {
    const after = typed(model, "a", "selection", words);
    expect(after.says).toBe(says);
    expect(typed(after.model, "a", "selection", says).says).toBe(says);
    expect(typed(after.model, "a", "selection", "").says).toBe("");
  });

  test("somebody whom the model does not have, or both at once, is told", () => {
    for (const words of ["nobody", "desk and nobody", "desk and depot or desk", "0 desk"])
      expect(commandsFor(rowFor(model, "a"), "selection", words, scenarioOf(model))).toMatch(/is nobody here/);
  });

  test("several at once are what the forecast asks for", () => {
    const { model: after } = typed(model, "a", "selection", "2 desk and depot");
    expect(scenarioOf(after).of.get("a")?.needs).toEqual([
      { oneOf: ["desk"], count: 2 },
      { oneOf: ["depot"], count: 1 },
    ]);
  });
});
