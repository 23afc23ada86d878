import { formFromData } from "@/core/data";
import {
  type DecisionEdit,
  documentText,
  edited,
  emptyDocumentText,
  modelOf,
  openDocument,
  suggestedTestCases,
  type TableSheet,
  withTestCases,
} from "@/core/decisions";
import type { Id, Model } from "@/core/model";
import { type DrawnKind, readSaid, readSpread } from "@/core/scenario";
import { field, handle } from "./data";
import { Drawing } from "./drawing";
import { pool } from "./smallProcesses";

export const inspectionFile = "decisions-inspections";
const file = { name: "Inspections", question: "Which inspection does this plant need?" };

const input = (expression: string, type: string, allowed = "") => ({ expression, type, allowed, label: "" });
const table = (
  inputs: TableSheet["inputs"],
  output: { readonly label: string; readonly type: string; readonly allowed?: string },
  rules: readonly (readonly [inputs: readonly string[], output: string, note?: string])[],
): TableSheet => ({
  hitPolicy: "UNIQUE",
  aggregator: undefined,
  inputs,
  outputs: [{ name: "", usual: "", allowed: "", ...output }],
  notes: [{ name: "Why" }],
  rules: rules.map(([cells, result, why = ""]) => ({ inputs: cells, outputs: [result], notes: [why] })),
});

/** "Which inspection does this plant need", with the risk it depends on and the formula both fees share. */
export function inspectionDecisions(): string {
  const edits: readonly DecisionEdit[] = [
    { type: "add", what: "knowledge", id: "voltage-rise", name: "voltage rise" },
    { type: "parameters", id: "voltage-rise", names: ["power", "distance"] },
    { type: "expression", id: "voltage-rise", text: "power * distance / 16000" },
    { type: "add", what: "input", id: "rated-power", name: "rated power" },
    { type: "retype", id: "rated-power", to: "number" },
    { type: "add", what: "input", id: "distance", name: "distance to the transformer" },
    { type: "retype", id: "distance", to: "number" },
    { type: "add", what: "input", id: "roof", name: "roof" },
    { type: "retype", id: "roof", to: "string" },
    { type: "add", what: "input", id: "certified", name: "installer certified" },
    { type: "retype", id: "certified", to: "boolean" },
    { type: "add", what: "expression", id: "expected-rise", name: "expected voltage rise" },
    { type: "retype", id: "expected-rise", to: "number" },
    { type: "question", id: "expected-rise", text: "By how many per cent does the voltage rise at noon?" },
    { type: "expression", id: "expected-rise", text: "voltage rise(rated power, distance to the transformer)" },
    { type: "add", what: "table", id: "grid-risk", name: "grid risk" },
    { type: "retype", id: "grid-risk", to: "string" },
    {
      type: "table",
      id: "grid-risk",
      sheet: table(
        [input("expected voltage rise", "number", ">= 0"), input("rated power", "number", "> 0")],
        { label: "Grid risk", type: "string", allowed: '"low", "raised", "high"' },
        [
          [["< 2", "<= 10"], '"low"', "A small plant near the transformer"],
          [["< 2", "> 10"], '"raised"'],
          [["[2..3)", "-"], '"raised"'],
          [[">= 3", "-"], '"high"', "3 % is the limit of the network code"],
        ],
      ),
    },
    { type: "add", what: "table", id: "inspection", name: "inspection" },
    { type: "retype", id: "inspection", to: "string" },
    { type: "question", id: "inspection", text: file.question },
    {
      type: "table",
      id: "inspection",
      sheet: table(
        [
          input("grid risk", "string", '"low", "raised", "high"'),
          input("installer certified", "boolean"),
          input("roof", "string", '"pitched", "flat", "ground"'),
        ],
        { label: "Inspection", type: "string", allowed: '"none", "by photo", "on site"' },
        [
          [['"low"', "true", "-"], '"none"', "The installer signs for it"],
          [['"low"', "false", '"pitched", "flat"'], '"by photo"'],
          [['"low"', "false", '"ground"'], '"on site"', "Earthing cannot be seen in a photo"],
          [['"raised"', "true", "-"], '"by photo"'],
          [['"raised"', "false", "-"], '"on site"'],
          [['"high"', "-", "-"], '"on site"'],
        ],
      ),
    },
  ];
  let document = must(openDocument(new TextEncoder().encode(emptyDocumentText(inspectionFile, file.name))));
  for (const edit of edits) document = must(edited(document, edit));
  const model = modelOf(document);
  const risk = model.decisions.get("inspection");
  const case1 = (
    name: string,
    power: number,
    distance: number,
    roof: string,
    isCertified: boolean,
    expected: string,
  ) => ({
    name,
    given: { "rated power": power, "distance to the transformer": distance, roof, "installer certified": isCertified },
    expected,
  });
  if (risk)
    document = withTestCases(document, "inspection", [
      case1("Small, near, certified", 8, 400, "pitched", true, "none"),
      case1("Small, near, not certified", 8, 400, "flat", false, "by photo"),
      case1("Large and far", 30, 2000, "ground", true, "on site"),
      ...suggestedTestCases(model, risk),
    ]);
  return documentText(document);
}

function must<Value>(
  result:
    | { readonly ok: true; readonly value: Value }
    | { readonly ok: false; readonly problems: readonly { readonly message: string }[] },
): Value {
  if (!result.ok) throw new Error(`Demo: ${result.problems.map(({ message }) => message).join(" ")}`);
  return result.value;
}

/** What the process handles, who writes and reads it, and what its people fill in. */
function handleData(draw: Drawing): void {
  handle(
    draw,
    [
      [
        "rated-power",
        field("rated power", "number", { least: 0, most: 1000, description: "In kW, as on the data sheet" }),
      ],
      [
        "distance",
        field("distance to the transformer", "number", { least: 0, description: "In metres, along the cable" }),
      ],
      [
        "roof",
        field("roof", "choice", { choices: ["pitched", "flat", "ground"], description: "Where the modules stand" }),
      ],
      ["certified", field("installer certified", "yesNo")],
      [
        "photos",
        field("photos", "record", {
          fields: [field("earthing seen", "yesNo", { isRequired: true }), field("remarks", "text", { most: 500 })],
        }),
      ],
      [
        "visit",
        field("visit", "record", {
          fields: [
            field("day", "date", { isRequired: true }),
            field("defects", "text", { isList: true }),
            field("fee", "amount", { currency: "EUR", least: 0 }),
          ],
        }),
      ],
    ],
    [
      ["record", "creates", "rated-power", "distance", "roof", "certified"],
      ["choose", "reads", "rated-power", "distance", "roof", "certified"],
      ["look-at-photos", "reads", "roof"],
      ["look-at-photos", "creates", "photos"],
      ["go-there", "reads", "rated-power"],
      ["go-there", "creates", "visit"],
    ],
  );
  const form = formFromData(draw.model, "record");
  const items = form.items.map((item) =>
    item.path.join(".") === "distance to the transformer"
      ? { ...item, shownWhen: "rated power > 3", label: "Distance to the transformer in m" }
      : item,
  );
  draw.do({ type: "setForm", id: "record", form: { items } });
}

/** How long inspections take, and which plants are reported: what the table decides by is drawn, not how it decides. */
export function assumeInspections(start: Model, diagram: Id): Drawing {
  const draw = new Drawing(start, diagram);
  const scenario = "estimates";
  const spread = (path: string, words: string, kind: DrawnKind) => {
    const read = readSpread(words, kind);
    if (!read) throw new Error(`Demo: "${words}" says no shares.`);
    draw.do({ type: "setDrawn", scenario, process: "inspection-of-a-new-plant", path, spread: read });
  };
  const said = (element: Id, parameter: "processing" | "interval", words: string) => {
    const value = readSaid(words, "time");
    if (!value) throw new Error(`Demo: "${words}" is no time.`);
    draw.do({ type: "setAssumption", scenario, element, parameter, value });
  };
  said("reported", "interval", "6 a day");
  said("record", "processing", "usually 8 min, 9 of 10 within 20 min");
  said("look-at-photos", "processing", "15 to 40 min");
  said("go-there", "processing", "90, usually 120, at most 240 min");
  const target = { days: 30, seconds: 0 };
  draw.do({
    type: "setTargets",
    id: "inspection-of-a-new-plant",
    targets: [
      { ...target, what: "duration", seconds: 4 * 86_400, share: 0.9 },
      { ...target, what: "cost", amount: 120, share: 0.8 },
    ],
  });
  draw.do({
    type: "setTargets",
    id: "record",
    targets: [{ ...target, what: "waiting", seconds: 2 * 86_400, share: 0.95 }],
  });
  spread("rated power", "60 % 8, 25 % 15, 15 % 40", "number");
  spread("distance to the transformer", "100 to 1800", "number");
  spread("roof", "70 % pitched, 20 % flat, 10 % ground", "text");
  spread("installer certified", "65 % yes", "yesNo");
  return draw;
}

/** A plant is reported, and what has to be looked at is decided by the table. */
export function drawInspectionChoice(start: Model, diagram: Id): Drawing {
  const draw = new Drawing(start, diagram);
  const [desk, engineer, crew] = ["lane-front-desk", "lane-engineer", "lane-crew"];
  pool(draw, [
    [desk, { entry: "role-front-desk", name: "Front desk" }],
    [engineer, { entry: "role-network-engineer", name: "Network engineer" }],
    [crew, { entry: "role-field-crew", name: "Field crew" }],
  ]);
  draw.node("reported", { type: "startEvent", trigger: "messageEventDefinition" }, desk, "Plant reported");
  draw.node("record", { type: "userTask" }, desk, "Record the plant");
  draw.node("choose", { type: "businessRuleTask" }, engineer, "Choose the inspection");
  draw.node("which", { type: "exclusiveGateway" }, engineer, "Which inspection?");
  draw.node("look-at-photos", { type: "userTask" }, engineer, "Look at the photos");
  draw.node("go-there", { type: "userTask" }, crew, "Inspect the plant");
  draw.node("inspected", { type: "exclusiveGateway" }, engineer, "");
  draw.node("released", { type: "endEvent" }, engineer, "Plant released");
  draw.chain("reported", "record", "choose", "which");
  draw.flow("which", "inspected", "none");
  draw.flow("which", "look-at-photos", "by photo");
  draw.flow("which", "go-there", "on site");
  draw.condition("which", "inspected", 'inspection = "none"');
  draw.condition("which", "look-at-photos", 'inspection = "by photo"');
  draw.flow("look-at-photos", "inspected");
  draw.flow("go-there", "inspected");
  draw.flow("inspected", "released");
  draw.defaultFlow("which", "go-there");
  draw.do({
    type: "decideBy",
    id: "choose",
    to: {
      file: inspectionFile,
      decision: "inspection",
      name: "inspection",
      answers: ["none", "by photo", "on site"],
      needs: ["roof", "installer certified", "rated power", "distance to the transformer"],
    },
  });
  handleData(draw);
  draw.do({
    type: "useSystem",
    step: "record",
    system: { entry: "system-case-register", name: "Case register" },
    use: "writes",
  });
  draw.do({
    type: "useSystem",
    step: "go-there",
    system: { entry: "system-crew-planner", name: "Crew planner" },
    use: "reads",
  });
  draw.do({ type: "tidy", diagram });
  return draw;
}
