import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "./bpmn";
import { stepSheetOf } from "./capture";
import { checkModel } from "./check";
import { type Command, copy, perform, undoOf } from "./commands";
import { register } from "./commands/kernel/register";
import { changeGroups, compareModels, startToBe, takeOver } from "./compare";
import { sceneOf, sceneToSvg } from "./drawing";
import { mergeModels } from "./merge";
import { brokenInvariants, childrenOf, isActivity, type Model } from "./model";
import { expectOk, performAll, smallModel } from "./testing/models";

const diagram = "page";
const minutes = (count: number) => ({ kind: "constant", value: count * 60 }) as const;
const schema = '{"type":"object","properties":{"power":{"type":"number"}}}';
const operation = {
  source: "grid.json",
  format: "openapi",
  version: "1",
  interface: "Grid",
  operation: {
    name: "check",
    in: [{ name: "power", type: "number", isRequired: true }],
    out: [],
    errors: [],
    address: "",
  },
};

/** A model in which every command finds what it is about. */
const whole = performAll(
  smallModel(),
  {
    type: "append",
    diagram,
    from: "approve",
    id: "inner",
    flow: "to-inner",
    kind: { type: "subProcess" },
    name: "Weigh it",
  },
  { type: "addPage", id: "inner-page", element: "inner" },
  { type: "place", diagram, id: "opened", kind: { type: "subProcess" }, at: { x: 500, y: 380 }, name: "Visit" },
  { type: "expand", diagram, id: "opened" },
  {
    type: "append",
    diagram,
    from: "reject",
    id: "sent",
    flow: "to-sent",
    kind: { type: "serviceTask" },
    name: "Send it",
  },
  {
    type: "append",
    diagram,
    from: "sent",
    id: "called",
    flow: "to-called",
    kind: { type: "callActivity" },
    name: "Bill",
  },
  {
    type: "append",
    diagram,
    from: "called",
    id: "judged",
    flow: "to-judged",
    kind: { type: "businessRuleTask" },
    name: "Judge",
  },
  { type: "useSystem", step: "check", system: { entry: "register", name: "Case register" }, use: "writes" },
  { type: "assignRole", step: "check", role: { entry: "clerk", name: "Clerk" }, part: "consulted", id: "asked" },
  {
    type: "giveDocument",
    diagram,
    step: "check",
    document: { entry: "plan", name: "Site plan" },
    direction: "in",
    id: "plan",
  },
  { type: "linkWords", id: "check", marks: ["t1", "t2"] },
  { type: "defineData", process: "process", id: "plant", name: "plant", schema },
  { type: "addScenario", id: "busy", name: "Busy" },
  { type: "setRepetition", activity: "remind", id: "loop", repetition: "loop" },
  { type: "keepCandidate", of: "sent" },
  { type: "bindOperation", id: "sent", to: operation },
  {
    type: "decideBy",
    id: "judged",
    to: { file: "rules", decision: "d", name: "Verdict", answers: ["yes"], needs: ["plant"] },
  },
);
const ofType = (type: string) => [...whole.elements].filter((element) => element.type === type).map(({ id }) => id);
const candidate =
  ofType("interface").find((id) => !whole.elements.get(id)?.importedFrom) ?? ofType("interface")[0] ?? "";
const offered = childrenOf(whole, candidate, "operations")[0]?.id ?? "";
const reference = ofType("dataObjectReference")[0] ?? "";

/** One of each command there is: one that is missing here does not compile. */
const each: { readonly [Type in keyof typeof register]: Extract<Command, { type: Type }> } = {
  place: { type: "place", diagram, id: "new", kind: { type: "task" }, at: { x: 400, y: 380 }, name: "New" },
  append: { type: "append", diagram, from: "remind", id: "new", flow: "new-flow", kind: { type: "task" }, name: "New" },
  insertOnFlow: { type: "insertOnFlow", diagram, onFlow: "f2", id: "new", flow: "new-flow", kind: { type: "task" } },
  attach: {
    type: "attach",
    diagram,
    host: "approve",
    id: "new",
    kind: { type: "boundaryEvent", trigger: "errorEventDefinition" },
  },
  connect: { type: "connect", diagram, id: "new", source: "remind", target: "decide" },
  reconnect: { type: "reconnect", diagram, connection: "f4", end: "target", to: "remind" },
  bend: {
    type: "bend",
    diagram,
    connection: "f2",
    waypoints: [
      { x: 300, y: 200 },
      { x: 300, y: 150 },
      { x: 360, y: 150 },
      { x: 360, y: 200 },
    ],
  },
  rename: { type: "rename", id: "check", name: "Look through the application" },
  retype: { type: "retype", id: "remind", to: "serviceTask" },
  setField: { type: "setField", id: "process", field: "isExecutable", value: true },
  describe: { type: "describe", id: "check", text: "Every form." },
  setCondition: { type: "setCondition", flow: "f3", text: "plant.power > 3", isExecutable: true },
  setTimer: { type: "setTimer", event: "late", kind: "timeDuration", text: "P3D" },
  setRepetition: { type: "setRepetition", activity: "check", id: "new", repetition: "parallel" },
  move: { type: "move", diagram, ids: ["remind"], by: { x: 40, y: 20 } },
  moveToNeighbourLane: { type: "moveToNeighbourLane", diagram, ids: ["approve"], direction: "down" },
  moveToLane: { type: "moveToLane", diagram, ids: ["approve"], lane: "engineer" },
  resize: { type: "resize", diagram, id: "remind", bounds: { x: 280, y: 300, width: 200, height: 120 } },
  moveLabel: { type: "moveLabel", diagram, id: "start", bounds: { x: 7, y: 8, width: 90, height: 20 } },
  delete: { type: "delete", ids: ["check"] },
  addLane: { type: "addLane", diagram, id: "new", beside: "desk", name: "Office" },
  addPage: { type: "addPage", id: "new-page", element: "process" },
  assignRole: {
    type: "assignRole",
    step: "approve",
    role: { entry: "head", name: "Head" },
    part: "informed",
    id: "new",
  },
  unassignRole: { type: "unassignRole", assignment: "asked" },
  tieLane: { type: "tieLane", lane: "desk", role: { entry: "front", name: "Front office" } },
  useSystem: { type: "useSystem", step: "approve", system: { entry: "map", name: "Map" }, use: "reads" },
  dropSystem: { type: "dropSystem", step: "check", entry: "register" },
  giveDocument: {
    type: "giveDocument",
    diagram,
    step: "approve",
    document: { entry: "permit", name: "Permit" },
    direction: "out",
    id: "new",
  },
  renameEntry: { type: "renameEntry", entry: "clerk", from: "Clerk", name: "Billing clerk" },
  paste: {
    type: "paste",
    diagram,
    fragment: copy(smallModel(), diagram, ["check", "decide"]),
    at: { x: 400, y: 380 },
    mark: "c1",
  },
  setEstimate: { type: "setEstimate", id: "check", time: "20 min", cost: 4 },
  setAssumption: {
    type: "setAssumption",
    scenario: "busy",
    element: "check",
    parameter: "processing",
    value: minutes(20),
  },
  addScenario: { type: "addScenario", id: "quiet", name: "Quiet", inherits: "busy" },
  dropScenario: { type: "dropScenario", id: "busy" },
  setScenario: { type: "setScenario", id: "busy", words: { name: "Very busy", replications: 20, currency: "EUR" } },
  setSites: { type: "setSites", scenario: "busy", words: { from: "Quillmere", to: "Hall", delay: minutes(5) } },
  setTargets: {
    type: "setTargets",
    id: "process",
    targets: [{ what: "duration", seconds: 864_000, share: 0.9, days: 90 }],
  },
  nameIn: { type: "nameIn", id: "check", language: "de", name: "Antrag prüfen" },
  setDrawn: {
    type: "setDrawn",
    scenario: "busy",
    process: "process",
    path: "plant.power",
    spread: { kind: "uniform", min: 2, max: 30 },
  },
  setCalendar: {
    type: "setCalendar",
    scenario: "busy",
    id: "office",
    name: "Office hours",
    text: "BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:20270104T080000\nDTEND:20270104T160000\nRRULE:FREQ=WEEKLY;BYDAY=MO,TU\nEND:VEVENT\nEND:VCALENDAR",
  },
  linkWords: { type: "linkWords", id: "decide", marks: ["t3"] },
  unlinkWords: { type: "unlinkWords", id: "check", marks: ["t2"] },
  tidy: { type: "tidy", diagram },
  replace: { type: "replace", diagram, id: "remind", kind: { type: "subProcess" } },
  align: { type: "align", diagram, ids: ["check", "remind"], along: "left" },
  distribute: { type: "distribute", diagram, ids: ["start", "check", "approve"], axis: "across" },
  sameSize: { type: "sameSize", diagram, ids: ["check", "opened"] },
  straighten: { type: "straighten", diagram, connections: ["f7"] },
  makeRoom: { type: "makeRoom", diagram, direction: "right", line: 260, by: 60 },
  swapLanes: { type: "swapLanes", diagram, lane: "desk", direction: "down" },
  splitLane: { type: "splitLane", diagram, lane: "desk", ids: ["upper", "lower"] },
  expand: { type: "expand", diagram, id: "inner" },
  collapse: { type: "collapse", diagram, id: "opened", page: "new-page" },
  wrap: { type: "wrap", diagram, ids: ["sent", "called"], id: "new", page: "new-page", name: "Send and bill" },
  unwrap: { type: "unwrap", diagram, id: "inner" },
  callInstead: { type: "callInstead", diagram, ids: ["sent"], id: "new", calledElement: "sending", name: "Sending" },
  setDataState: { type: "setDataState", id: reference, state: "checked" },
  setMultiplicity: { type: "setMultiplicity", id: "household", isMultiple: true },
  nameReference: { type: "nameReference", id: "start", name: "Application" },
  setAttribute: { type: "setAttribute", id: "check", name: "Archive", value: "ten years" },
  setCounterparts: { type: "setCounterparts", id: "check", counterparts: ["earlier"] },
  sayTimer: { type: "sayTimer", event: "late", text: "3 working days", today: "2027-01-04" },
  setRepetitionDetail: { type: "setRepetitionDetail", activity: "remind", field: "loopMaximum", text: "3" },
  moveLane: { type: "moveLane", diagram, lane: "engineer", to: "desk" },
  mergeEntry: { type: "mergeEntry", from: { entry: "clerk", name: "Clerk" }, into: { entry: "head", name: "Head" } },
  describeIn: {
    type: "describeIn",
    id: "check",
    language: "de",
    text: { type: "doc", content: [{ type: "paragraph", content: [{ type: "text", text: "Jedes Formular." }] }] },
  },
  setLinks: {
    type: "setLinks",
    id: "check",
    links: [{ kind: "page", title: "Form", href: "https://quillmere.example/form" }],
  },
  setCalledVersion: { type: "setCalledVersion", id: "called", called: { version: "v2", name: "To-be" } },
  setCalled: { type: "setCalled", id: "called", called: { id: "billing", process: "p-billing", name: "Billing" } },
  bindOperation: { type: "bindOperation", id: "sent", to: null },
  mapField: { type: "mapField", id: "sent", direction: "in", field: "power", is: "plant.power" },
  decideBy: { type: "decideBy", id: "judged", to: null },
  setForm: { type: "setForm", id: "check", form: { items: [{ path: ["plant", "power"], label: "Rated power" }] } },
  defineData: { type: "defineData", process: "process", id: "urgent", name: "urgent", schema: '{"type":"boolean"}' },
  dropData: { type: "dropData", id: "plant" },
  renameData: { type: "renameData", id: "plant", path: ["power"], to: "rated power" },
  setDataUse: { type: "setDataUse", step: "approve", data: "plant", use: "changes" },
  renewDecisions: {
    type: "renewDecisions",
    file: "rules",
    decisions: [{ decision: "d", name: "Judgement", answers: ["yes", "no"], needs: [] }],
  },
  keepCandidate: { type: "keepCandidate", of: "judged" },
  dropCandidate: { type: "dropCandidate", id: candidate },
  nameCandidates: { type: "nameCandidates", names: [{ id: candidate, name: "Letters" }] },
  addCandidateOperation: { type: "addCandidateOperation", candidate, of: null, name: "Ask again" },
  dropCandidateOperation: { type: "dropCandidateOperation", id: offered },
  decideCandidate: {
    type: "decideCandidate",
    id: candidate,
    decision: { what: "build", reason: "Used three times.", member: "m", date: "2027-01-04" },
  },
  setCandidateFigure: { type: "setCandidateFigure", id: candidate, criterion: "Effort", value: 5 },
  setWeights: { type: "setWeights", weights: [{ criterion: "Effort", weight: 3, isLessBetter: true }] },
  edits: {
    type: "edits",
    label: "what was done elsewhere",
    edits: expectOk(perform(whole, { type: "rename", id: "check", name: "Look" })).edits as never,
  },
};
const commands = Object.values(each).map((command) => [command.type, command as Command] as const);

/** What a model is, whatever the order in which it came to be. */
const said = (model: Model) =>
  Object.fromEntries(
    (["elements", "shapes", "edges", "diagrams"] as const).map((table) => [
      table,
      [...model[table]].sort((a, b) => (a.id < b.id ? -1 : 1)),
    ]),
  );

/** A command once for each place where it names an element of the model, with another name there: one that is nobody's. */
function named(command: Command, other = "nowhere"): [place: string, changed: Command][] {
  const found: [string, Command][] = [];
  const walk = (value: unknown, path: readonly string[], put: (changed: unknown) => Command) => {
    if (typeof value === "string" && (whole.elements.get(value) || whole.diagrams.get(value)))
      found.push([path.join("."), put(other)]);
    if (Array.isArray(value))
      for (const [at, one] of value.entries())
        walk(one, [...path, String(at)], (changed) => put(value.map((kept, other) => (other === at ? changed : kept))));
    else if (typeof value === "object" && value !== null)
      for (const [key, one] of Object.entries(value))
        walk(one, [...path, key], (changed) => put({ ...value, [key]: changed }));
  };
  // Edits are a record of what was done, and are held to a model by a test of their own.
  if (command.type !== "edits") walk(command, [], (changed) => changed as Command);
  return found;
}

/** One of each of what is easily taken for something else. */
const strangers = [
  "household",
  "desk",
  "start",
  "decide",
  "f2",
  reference,
  "process",
  "page",
  "opened",
  "late",
  "done",
];

describe("every command", () => {
  test("stands here once, and finds something to do", () => {
    expect(Object.keys(each).sort()).toEqual(Object.keys(register).sort());
    const idle = commands.filter(([, command]) => expectOk(perform(whole, command)).edits.length === 0);
    expect(idle.map(([type]) => type)).toEqual([]);
  });

  describe.each(commands)("%s", (_, command) => {
    const done = perform(whole, command);
    test("leaves a model that is one, and says what was done", () => {
      const { model, label } = expectOk(done);
      expect(brokenInvariants(model)).toEqual([]);
      expect(String(label).length).toBeGreaterThan(3);
    });
    test("is taken back whole, and done again the same", () => {
      const first = expectOk(done);
      const back = expectOk(perform(first.model, undoOf(first) as Command));
      expect(said(back.model)).toEqual(said(whole));
      expect(said(expectOk(perform(back.model, undoOf(back) as Command)).model)).toEqual(said(first.model));
      expect(expectOk(perform(whole, command)).edits).toEqual(first.edits);
    });
    test("stands in the file, and comes back from it", () => {
      const { model } = expectOk(done);
      const file = writeBpmn(model);
      expect(writeBpmn(expectOk(readBpmn(file)))).toBe(file);
    });
    // As a window sends that has not yet heard what another one deleted.
    test.each(named(command))("with %s gone is refused in words, or leaves a model that is one", (_, changed) => {
      const result = perform(whole, changed);
      if (result.ok) expect(brokenInvariants(result.value.model)).toEqual([]);
      else for (const { message } of result.problems) expect(String(message)).toMatch(/\p{L}{2,}.*[.?]$/u);
    });
    // As a hand does that drops something where it does not belong.
    test.each(strangers)("with %s in the place of each of what it names, too", (stranger) => {
      for (const [place, changed] of named(command, stranger)) {
        const result = perform(whole, changed);
        if (result.ok) expect(brokenInvariants(result.value.model), place).toEqual([]);
        else for (const { message } of result.problems) expect(String(message), place).toMatch(/\p{L}{2,}.*[.?]$/u);
      }
    });

    test("is drawn in numbers, each thing once", () => {
      const { model } = expectOk(done);
      for (const page of model.diagrams) {
        const scene = sceneOf(model, page);
        expect(new Set(scene.figures.map(({ id }) => id)).size).toBe(scene.figures.length);
        expect(sceneToSvg(scene)).not.toMatch(/NaN|Infinity|undefined|\[object/);
      }
    });
    test("is told by the check and by the sheet of steps with what is there, and nothing else", () => {
      const { model } = expectOk(done);
      const isThere = (id: string) => model.elements.has(id);
      for (const finding of checkModel(model)) expect(finding.elements.filter((id) => !isThere(id))).toEqual([]);
      // Rows that end a way or lead on say so before the id.
      const rows = stepSheetOf(model, "process").map(({ id }) => id.replace(/^(stop|to):/, ""));
      expect(rows.filter((id) => !isThere(id))).toEqual([]);
      const steps = [...model.elements].filter(
        ({ type, parent }) => parent === "process" && (isActivity(type) || type.endsWith("Event")),
      );
      expect(rows).toEqual(expect.arrayContaining(steps.map(({ id }) => id)));
    });
    test("meets what another did not change, from either side", () => {
      const { model } = expectOk(done);
      for (const merged of [mergeModels(whole, model, whole), mergeModels(whole, whole, model)]) {
        expect(merged.conflicts).toEqual([]);
        expect(said(merged.model)).toEqual(said(model));
      }
    });
    test("done in a to-be, can be taken over into the as-is, and given up again", () => {
      const toBe = expectOk(perform(startToBe(whole), command)).model;
      for (const into of ["from", "to"] as const) {
        const comparison = compareModels(whole, toBe);
        const groups = changeGroups(whole, toBe, comparison);
        const request = { from: whole, to: toBe, pairs: comparison.pairs, groups, into };
        const taken = takeOver(
          request,
          groups.map(({ key }) => key),
        );
        if (!taken.ok) throw new Error(taken.message.text);
        expect(brokenInvariants(taken.model)).toEqual([]);
        const [from, to] = into === "from" ? [taken.model, toBe] : [whole, taken.model];
        expect(changeGroups(from, to, compareModels(from, to)).map(({ words }) => words)).toEqual([]);
      }
    });
  });
});

describe("two commands made at once, each of what was there before", () => {
  const two = fc.record({ one: fc.constantFrom(...commands), other: fc.constantFrom(...commands) });
  // As two windows of one version: the later one is done on what the earlier one made.
  test("one after the other they leave a model that is one, or the later is refused in words", () => {
    fc.assert(
      fc.property(two, ({ one: [, one], other: [, other] }) => {
        const first = expectOk(perform(whole, one)).model;
        const second = perform(first, other);
        if (second.ok) expect(brokenInvariants(second.value.model)).toEqual([]);
        else for (const { message } of second.problems) expect(message).toMatch(/\p{L}{2,}.*[.?]$/u);
      }),
      { numRuns: 150 },
    );
  });
  // As two states of one process, here and in a copy of the developers'.
  test("met in a merge they leave a model that is one; what is asked names what is there", () => {
    fc.assert(
      fc.property(two, ({ one: [, one], other: [, other] }) => {
        const [ours, theirs] = [expectOk(perform(whole, one)).model, expectOk(perform(whole, other)).model];
        const { model, conflicts } = mergeModels(whole, ours, theirs);
        expect(brokenInvariants(model)).toEqual([]);
        for (const conflict of conflicts) expect(JSON.stringify(conflict).length).toBeGreaterThan(10);
      }),
      { numRuns: 100 },
    );
  });
});
