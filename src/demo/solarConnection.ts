import type { Model } from "@/core/model";
import { handleConnection } from "./data";
import { Drawing } from "./drawing";
import { tellInGerman } from "./german";

const entries = {
  frontDesk: { entry: "role-front-desk", name: "Front desk" },
  engineer: { entry: "role-network-engineer", name: "Network engineer" },
  crew: { entry: "role-field-crew", name: "Field crew" },
  billing: { entry: "role-billing", name: "Billing" },
  caseRegister: { entry: "system-case-register", name: "Case register" },
  networkMap: { entry: "system-network-map", name: "Network map" },
  crewPlanner: { entry: "system-crew-planner", name: "Crew planner" },
  meterPlatform: { entry: "system-meter-platform", name: "Meter platform" },
  ledger: { entry: "system-billing-ledger", name: "Billing ledger" },
} as const;

/** Draws the cooperative's pool with its four lanes, each tied to its role. */
function drawCooperative(
  draw: Drawing,
  lanes: readonly (readonly [id: string, role: { entry: string; name: string }])[],
): void {
  const { diagram } = draw;
  draw.do({
    type: "place",
    diagram,
    id: "cooperative",
    kind: { type: "participant" },
    at: { x: 500, y: 300 },
    name: "Quillmere Power Cooperative",
  });
  lanes.forEach(([id, role], at) => {
    draw.do({
      type: "addLane",
      diagram,
      id,
      beside: at === 0 ? "cooperative" : (lanes[at - 1]?.[0] as string),
      name: role.name,
    });
    draw.do({ type: "tieLane", lane: id, role });
  });
}

/** How a household's rooftop plant is connected today. `called` is the process id of "Switch on and verify". */
export function drawSolarConnection(start: Model, diagram: string, called: string): Drawing {
  const draw = new Drawing(start, diagram);
  drawCooperative(draw, [
    ["lane-front-desk", entries.frontDesk],
    ["lane-engineer", entries.engineer],
    ["lane-crew", entries.crew],
    ["lane-billing", entries.billing],
  ]);
  draw.do({
    type: "place",
    diagram,
    id: "household",
    kind: { type: "participant", closed: true },
    at: { x: 400, y: 0 },
    name: "Household",
  });
  draw.do({
    type: "place",
    diagram,
    id: "installer",
    kind: { type: "participant", closed: true },
    at: { x: 400, y: 2000 },
    name: "Installer",
  });

  const desk = "lane-front-desk";
  const engineer = "lane-engineer";
  const crew = "lane-crew";
  draw.node(
    "application-received",
    { type: "startEvent", trigger: "messageEventDefinition" },
    desk,
    "Application received",
  );
  draw.node("register", { type: "userTask" }, desk, "Register application");
  draw.node("complete", { type: "exclusiveGateway" }, desk, "Application complete?");
  draw.node("request-papers", { type: "sendTask" }, desk, "Request missing papers");
  draw.node("await-papers", { type: "receiveTask" }, desk, "Receive missing papers");
  draw.node("check-documents", { type: "userTask" }, desk, "Check documents");
  draw.node("check-capacity", { type: "userTask" }, engineer, "Check feeder capacity");
  draw.node("capacity", { type: "exclusiveGateway" }, engineer, "Capacity on the feeder?");
  draw.node("reject", { type: "sendTask" }, desk, "Explain the rejection");
  draw.node("rejected", { type: "endEvent" }, desk, "Application rejected");
  draw.node("approve", { type: "userTask" }, engineer, "Approve connection design");
  draw.node("needed", { type: "inclusiveGateway" }, engineer, "What is needed on site?");
  draw.node("change-meter", { type: "manualTask" }, crew, "Change the meter");
  draw.node("upgrade-fuse", { type: "manualTask" }, crew, "Upgrade the fuse");
  draw.node("site-ready", { type: "inclusiveGateway" }, engineer, "");
  draw.node("book-visit", { type: "userTask" }, desk, "Book visit by telephone");
  draw.node("inspect", { type: "subProcess" }, crew, "Inspect on site");
  draw.node("switch-on", { type: "callActivity" }, crew, "Switch on and verify");
  draw.node("set-tariff", { type: "serviceTask" }, "lane-billing", "Set feed-in tariff");
  draw.node("connected", { type: "endEvent", trigger: "messageEventDefinition" }, "lane-billing", "Plant connected");

  draw.chain("application-received", "register", "complete");
  draw.flow("complete", "check-documents", "yes");
  draw.flow("check-documents", "check-capacity");
  draw.flow("complete", "request-papers", "no");
  draw.chain("request-papers", "await-papers");
  draw.flow("await-papers", "register");
  draw.flow("check-capacity", "capacity");
  draw.flow("capacity", "approve", "yes");
  draw.flow("capacity", "reject", "no");
  draw.flow("reject", "rejected");
  draw.flow("approve", "needed");
  draw.flow("needed", "site-ready", "nothing");
  draw.flow("needed", "change-meter", "old meter");
  draw.flow("needed", "upgrade-fuse", "fuse under 35 A");
  draw.flow("change-meter", "site-ready");
  draw.flow("upgrade-fuse", "site-ready");
  draw.chain("site-ready", "book-visit", "inspect", "switch-on", "set-tariff", "connected");
  draw.defaultFlow("complete", "check-documents");
  draw.defaultFlow("capacity", "approve");
  draw.condition("complete", "request-papers", "count(missing papers) > 0");
  draw.condition("capacity", "reject", "load after connection > 0.8 * feeder limit");
  draw.condition("needed", "change-meter", "meter.two way = false");
  draw.condition("needed", "upgrade-fuse", "meter.fuse < 35");
  draw.defaultFlow("needed", "site-ready");

  // What can go wrong: papers that never come.
  draw.do({
    type: "attach",
    diagram,
    host: "await-papers",
    id: "papers-late",
    kind: { type: "boundaryEvent", trigger: "timerEventDefinition" },
  });
  draw.do({ type: "rename", id: "papers-late", name: "10 working days" });
  draw.do({ type: "setTimer", event: "papers-late", kind: "timeDuration", text: "P14D" });
  draw.node("lapsed", { type: "endEvent", trigger: "messageEventDefinition" }, desk, "Application lapsed");
  draw.flow("papers-late", "lapsed");

  // Messages with the two outside parties.
  draw.flow("household", "application-received", "application");
  draw.flow("request-papers", "household");
  draw.flow("household", "await-papers");
  draw.flow("reject", "household");
  draw.flow("lapsed", "household");
  draw.flow("installer", "inspect", "test protocol");
  draw.flow("connected", "installer", "tariff notice");

  describeWork(draw);
  assignSystems(draw);
  assignPapers(draw);
  drawInspection(draw);
  handleConnection(draw);
  draw.do({ type: "tidy", diagram });
  draw.do({ type: "setField", id: "switch-on", field: "calledElement", value: called });
  tellInGerman(draw);
  return draw;
}

function describeWork(draw: Drawing): void {
  const guidance: readonly (readonly [step: string, text: string])[] = [
    ["register", "Give it a case number, scan the paper, thank the household for it."],
    ["request-papers", "List every missing paper in one letter."],
    ["check-documents", "Compare each paper with the list for the plant's size, and note what is out of date."],
    [
      "check-capacity",
      "Open the feeder in the network map. Add the plant's rated power to the reserved load; above 80 % of the limit, ask for a study.",
    ],
    ["approve", "Compare the single-line drawing with the study note, then sign the agreement."],
    ["inspect", "The crew checks the plant before it is switched on."],
    ["set-tariff", "The tariff follows from the rated power and the day of switching on."],
  ];
  for (const [id, text] of guidance) draw.do({ type: "describe", id, text });
}

function assignSystems(draw: Drawing): void {
  const uses: readonly (readonly [
    step: string,
    system: { entry: string; name: string },
    use: "reads" | "writes" | "runs on",
  ])[] = [
    ["register", entries.caseRegister, "writes"],
    ["request-papers", entries.caseRegister, "reads"],
    ["await-papers", entries.caseRegister, "writes"],
    ["check-documents", entries.caseRegister, "reads"],
    ["check-capacity", entries.networkMap, "reads"],
    ["check-capacity", entries.caseRegister, "writes"],
    ["approve", entries.networkMap, "writes"],
    ["reject", entries.caseRegister, "writes"],
    ["book-visit", entries.crewPlanner, "writes"],
    ["change-meter", entries.meterPlatform, "writes"],
    ["inspect", entries.crewPlanner, "reads"],
    ["set-tariff", entries.ledger, "runs on"],
  ];
  for (const [step, system, use] of uses) draw.do({ type: "useSystem", step, system, use });
  draw.do({
    type: "assignRole",
    step: "check-capacity",
    role: entries.engineer,
    part: "responsible",
    id: "check-capacity.engineer",
  });
  draw.do({
    type: "assignRole",
    step: "check-capacity",
    role: entries.crew,
    part: "consulted",
    id: "check-capacity.crew",
  });
  draw.do({ type: "assignRole", step: "approve", role: entries.frontDesk, part: "informed", id: "approve.desk" });
}

function assignPapers(draw: Drawing): void {
  const { diagram } = draw;
  const papers: readonly (readonly [step: string, entry: string, name: string, direction: "in" | "out"])[] = [
    ["register", "document-application", "Connection application", "in"],
    ["check-capacity", "document-drawing", "Single-line drawing", "in"],
    ["check-capacity", "document-study", "Network study note", "out"],
    ["approve", "document-agreement", "Connection agreement", "out"],
    ["inspect", "document-visit-report", "Visit report", "out"],
  ];
  for (const [step, entry, name, direction] of papers) {
    draw.do({ type: "giveDocument", diagram, step, document: { entry, name }, direction, id: `${step}.${entry}` });
  }
  draw.do({
    type: "append",
    diagram,
    from: "capacity",
    id: "limit-note",
    flow: "limit-note-tie",
    kind: { type: "textAnnotation" },
    name: "Limit: 80 % of the feeder's rating",
  });
}

/** The inside of "Inspect on site", on a page of its own. */
function drawInspection(draw: Drawing): void {
  const page = "inspect-page";
  draw.do({ type: "addPage", id: page, element: "inspect" });
  const at = (x: number) => ({ x, y: 100 });
  const put = (id: string, kind: Parameters<Drawing["node"]>[1], x: number, name: string) =>
    draw.do({ type: "place", diagram: page, id, kind, at: at(x), name });
  put("crew-arrives", { type: "startEvent" }, 60, "Crew on site");
  put("check-wiring", { type: "userTask" }, 200, "Check wiring and meter");
  put("wiring-safe", { type: "exclusiveGateway" }, 340, "Wiring safe?");
  put("note-defects", { type: "userTask" }, 460, "List the defects");
  put("inspected", { type: "endEvent" }, 620, "Plant inspected");
  put("defects-noted", { type: "endEvent" }, 700, "Defects noted");
  const connect = (source: string, target: string, name?: string) =>
    draw.do({ type: "connect", diagram: page, id: `${source}-to-${target}`, source, target, ...(name && { name }) });
  connect("crew-arrives", "check-wiring");
  connect("check-wiring", "wiring-safe");
  connect("wiring-safe", "inspected", "yes");
  connect("wiring-safe", "note-defects", "no");
  connect("note-defects", "defects-noted");
  draw.defaultFlow("wiring-safe", "inspected");
  draw.condition("wiring-safe", "note-defects", "count(defects) > 0");
  draw.do({ type: "tidy", diagram: page });
}
