import type { useCases } from "..";

/** Inputs that a window sends, by use case: what hostile ones are made from. */
export const usualInputs: { readonly [name in keyof typeof useCases]: object } = {
  adaptRule: { profile: "draft", rule: "deadlock", level: "warning" },
  adoptToBe: { version: "v-to-be" },
  applyCommands: {
    version: "v",
    batch: "b",
    base: 1,
    generation: 0,
    label: "rename",
    commands: [{ type: "rename", id: "check", name: "Check" }],
  },
  buildProcesses: {
    version: "v",
    frames: ["t1"],
    leave: ["a1"],
    rename: ["a2"],
    drop: [{ version: "v", element: "check" }],
  },
  previewBuild: { version: "v", frames: ["t1"] },
  changeEntry: {
    id: "desk",
    name: "Desk",
    description: "d",
    unit: null,
    headcount: 2,
    costPerHour: 30,
    hoursPerWeek: 38,
  },
  changesSince: { version: "v", base: 0, generation: 0 },
  changeWalkTest: { version: "v", test: "t", name: "n" },
  chooseProfile: { version: "v", profile: "draft" },
  copyProcess: { id: "connect", name: "Copy", area: "area" },
  createArea: { id: "a", name: "A", parent: null },
  createDecisionFile: { id: "d", name: "Inspections" },
  decisionTexts: { ids: ["d"] },
  deleteDecisionFile: { id: "d" },
  listDecisionFiles: {},
  openDecisionFile: { id: "d" },
  restoreDecisionFile: { id: "d" },
  saveDecisionFile: { id: "d", base: 1, save: "s", unanswered: [], content: "<definitions/>" },
  createEntry: { id: "map", kind: "system", name: "Network map", description: "" },
  createProcess: { name: "P", area: "area", processId: "p", versionId: "p-v", bpmnId: "p-b" },
  createToBe: { source: "v", name: "To-be", aim: "Sooner", versionId: "v-to-be" },
  deleteArea: { id: "a" },
  deleteEntry: { id: "map" },
  deleteProcess: { id: "p" },
  deleteVersion: { id: "v-to-be" },
  deleteWalkTest: { version: "v", test: "t" },
  describeVersion: { id: "v", name: "As-is", aim: "" },
  assignWork: { version: "v", run: "r", number: 1, wait: 1, act: "a", to: null },
  beginLiveCase: { version: "v", run: "r", act: "a", values: { power: 5 } },
  cancelCase: { version: "v", run: "r", number: 1, act: "a", reason: "no longer wanted" },
  completeWork: { version: "v", run: "r", number: 1, wait: 1, act: "a", values: { power: 5 } },
  endRun: { version: "v", run: "r" },
  leadOn: { version: "v", run: "r", number: 1, wait: 1, act: "a", flows: ["f"], reason: "decided by hand" },
  letHappen: { version: "v", run: "r", number: 1, wait: 1, act: "a" },
  listCases: { version: "v", run: "r" },
  listMembers: {},
  listRuns: { version: "v" },
  acknowledgeAlert: { version: "v", run: "r", alert: "x", reason: "seen" },
  listTargets: { version: "v", run: "r" },
  listKeys: {},
  makeKey: { id: "k", name: "Portal" },
  withdrawKey: { id: "k" },
  listWaits: { version: "v", run: "r", kinds: ["message"] },
  listWork: {},
  moveToken: { version: "v", run: "r", number: 1, wait: 1, act: "a", to: "check", reason: "once more" },
  openCase: { version: "v", run: "r", number: 1 },
  openRun: { version: "v", run: "r" },
  openWork: { version: "v", run: "r", number: 1, wait: 1 },
  retryIncident: { version: "v", run: "r", number: 1, wait: 1, act: "a" },
  runModel: { version: "v", run: "r" },
  runStaff: { version: "v", run: "r", days: 5, most: 5 },
  saveWork: { version: "v", run: "r", number: 1, wait: 1, act: "a", values: { power: 5 } },
  setCaseData: { version: "v", run: "r", number: 1, act: "a", values: { power: 5 }, reason: "mistyped" },
  setClock: { version: "v", run: "r", pace: 10 },
  setMember: { id: "m", name: "Ines Orr", roles: [] },
  setStandIn: { version: "v", run: "r", element: "check", standIn: null },
  skipStep: { version: "v", run: "r", number: 1, wait: 1, act: "a", reason: "not needed" },
  startRun: { version: "v", run: "r2", name: "Trial" },
  suspendCase: { version: "v", run: "r", number: 1, act: "a", isSuspended: true, reason: "waits for a decision" },
  changeDays: { version: "v", groups: { g: ["check"] } },
  elementHistory: { version: "v", element: "check" },
  extractProcess: { version: "v", diagram: "page", ids: ["check"], name: "Part" },
  find: { text: "check" },
  giveReason: {
    version: "v",
    against: "v-to-be",
    change: "c",
    words: "w",
    reason: { pains: ["waiting"], note: "n", effect: "e", state: "proposed" },
  },
  handOff: { version: "v" },
  importDirectory: { text: "kind,name\nrole,Front desk" },
  keepWalkTests: {
    version: "v",
    tests: [{ name: "n", content: { process: "p", told: {}, outcome: "completed", path: null } }],
  },
  labelRevision: { version: "v", number: 1, reason: "r" },
  listCallable: {},
  listCallers: { version: "v" },
  listCounterparts: { version: "v", element: "check" },
  listHandoffs: { version: "v" },
  importDescription: { name: "meters.yaml", text: "openapi: 3.1.0\ninfo: { title: Meters, version: '1' }\npaths: {}" },
  listDescriptions: {},
  removeDescription: { name: "meters.yaml" },
  askDeveloper: { version: "v", copy: "copy" },
  openBuildCopy: { version: "v", copy: "copy" },
  lookAtBuildCopies: { version: "v" },
  sendToBuildCopy: { version: "v", copy: "copy" },
  takeOverBuildCopy: { version: "v", copy: "copy", take: "all", decisions: {} },
  tieBuildCopy: { version: "v", place: "folder:/nowhere", branch: "", path: "connect.bpmn" },
  untieBuildCopy: { version: "v", copy: "copy" },
  listHistory: { version: "v", after: 0, upTo: 5 },
  listReasons: { version: "v", against: "v-to-be" },
  listRevisions: { version: "v" },
  listTypes: {},
  listWalkTests: { version: "v" },
  mergeEntries: { from: "map", into: "desk" },
  moveArea: { id: "a", parent: "area" },
  moveProcess: { id: "p", area: "area" },
  nameRevision: { version: "v", reason: "r" },
  openBrief: { process: "connect" },
  openCalled: { version: "v" },
  openCheck: { version: "v" },
  openDirectory: {},
  openHome: {},
  openMap: { unfolded: ["a"] },
  openRevision: { version: "v", number: 1 },
  openVersion: { version: "v" },
  renameArea: { id: "a", name: "B" },
  renameProcess: { id: "p", name: "Q" },
  restoreEntry: { id: "map" },
  restoreRevision: { version: "v", number: 1 },
  saveBrief: {
    process: "connect",
    brief: "b",
    base: 0,
    save: "s",
    unanswered: ["x"],
    content: {
      organisation: "",
      document: { type: "doc", content: [{ type: "paragraph", content: [{ type: "text", text: "t" }] }] },
      frames: [],
      parts: [],
      shared: [],
      refused: [],
      built: {},
    },
  },
  searchElements: { text: "check", type: "user task", role: "desk", system: "map" },
  signVerdict: { version: "v" },
  takeBackDirectory: {
    gone: ["desk"],
    made: ["map"],
    changed: [{ id: "desk", fields: { name: "Desk" } }],
    batches: [{ version: "v", batch: "b" }],
  },
  undelete: { at: "2026-11-27T09:00:00.000Z" },
  waive: { version: "v", finding: "deadlock:check", reason: "for now" },
  whereUsed: { id: "desk" },
  withdrawWaiver: { version: "v", finding: "deadlock:check" },
};

const deep = (levels: number) => {
  let value: unknown = "x";
  for (let at = 0; at < levels; at++) value = at % 2 ? [value] : { a: value };
  return value;
};

/** What nobody means, and everybody may send. */
export const hostileValues: readonly unknown[] = [
  null,
  undefined,
  "",
  " ",
  "a\u0000b",
  "\ud800",
  "x".repeat(301),
  "x".repeat(20_000),
  "__proto__",
  "constructor",
  "'; drop table heads; --",
  "%",
  "2026-13-45",
  "infinity",
  "../../etc/passwd",
  0,
  -1,
  1.5,
  2 ** 31,
  2 ** 53,
  1e308,
  true,
  [],
  {},
  [null],
  { type: "edits", label: "x", edits: [] },
  deep(600),
  deep(20_000),
  "v",
  "connect",
  "area",
];

/** Every place of a value that can be replaced. */
function* places(value: unknown, path: readonly (string | number)[] = []): Generator<readonly (string | number)[]> {
  yield path;
  if (value !== null && typeof value === "object")
    for (const [key, field] of Object.entries(value))
      yield* places(field, [...path, Array.isArray(value) ? Number(key) : key]);
}

function replaced(value: unknown, [first, ...rest]: readonly (string | number)[], by: unknown): unknown {
  if (first === undefined) return by;
  const copy = (Array.isArray(value) ? [...value] : { ...(value as object) }) as { [key: string | number]: unknown };
  copy[first] = replaced(copy[first], rest, by);
  return copy;
}

/** One hostile value in each place of each usual input. */
export function* hostileInputs(): Generator<{ readonly name: keyof typeof useCases; readonly input: unknown }> {
  for (const name of Object.keys(usualInputs) as (keyof typeof useCases)[])
    for (const path of places(usualInputs[name]))
      for (const value of hostileValues) yield { name, input: replaced(usualInputs[name], path, value) };
}
