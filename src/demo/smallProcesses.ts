import type { Id, Model } from "@/core/model";
import { handleComplaint, handleReadings, handleSwitchOn } from "./data";
import { Drawing } from "./drawing";

const frontDesk = { entry: "role-front-desk", name: "Front desk" };
const engineer = { entry: "role-network-engineer", name: "Network engineer" };
const crew = { entry: "role-field-crew", name: "Field crew" };
const billing = { entry: "role-billing", name: "Billing" };

type Role = typeof frontDesk;

/** The cooperative's pool with its lanes, each tied to its role. */
export function pool(draw: Drawing, lanes: readonly (readonly [id: Id, role: Role])[]): void {
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
      beside: at === 0 ? "cooperative" : (lanes[at - 1]?.[0] as Id),
      name: role.name,
    });
    draw.do({ type: "tieLane", lane: id, role });
  });
}

/** What the crew and billing do on the day a plant is switched on; called by the connection process. */
export function drawSwitchOn(start: Model, diagram: Id): Drawing {
  const draw = new Drawing(start, diagram);
  pool(draw, [
    ["lane-crew", crew],
    ["lane-engineer", engineer],
  ]);
  draw.node("ready", { type: "startEvent" }, "lane-crew", "Plant ready to switch on");
  draw.node("close-breaker", { type: "manualTask" }, "lane-crew", "Close the breaker");
  draw.node("watch-feed-in", { type: "userTask" }, "lane-engineer", "Watch the feed-in");
  draw.node("stable", { type: "exclusiveGateway" }, "lane-engineer", "Voltage stable?");
  draw.node("open-breaker", { type: "manualTask" }, "lane-crew", "Open the breaker");
  draw.node("adjust", { type: "manualTask" }, "lane-crew", "Adjust the inverter");
  draw.node("record-values", { type: "userTask" }, "lane-engineer", "Record the values");
  draw.node("verified", { type: "endEvent" }, "lane-engineer", "Plant verified");
  draw.chain("ready", "close-breaker", "watch-feed-in", "stable");
  draw.flow("stable", "record-values", "yes");
  draw.flow("stable", "open-breaker", "no");
  draw.chain("open-breaker", "adjust");
  draw.flow("adjust", "close-breaker");
  draw.chain("record-values", "verified");
  draw.defaultFlow("stable", "record-values");
  draw.condition("stable", "open-breaker", "voltage deviation > 3");
  draw.do({
    type: "useSystem",
    step: "watch-feed-in",
    system: { entry: "system-meter-platform", name: "Meter platform" },
    use: "reads",
  });
  draw.do({
    type: "useSystem",
    step: "record-values",
    system: { entry: "system-case-register", name: "Case register" },
    use: "writes",
  });
  handleSwitchOn(draw);
  draw.do({ type: "tidy", diagram });
  return draw;
}

/** Every night all meters are read: a process of its own, one instance of its sub-process for each meter. */
export function drawMeterReading(start: Model, diagram: Id): Drawing {
  const draw = new Drawing(start, diagram);
  pool(draw, [["lane-billing", billing]]);
  const lane = "lane-billing";
  draw.node("every-night", { type: "startEvent", trigger: "timerEventDefinition" }, lane, "Every night at 2:00");
  draw.do({ type: "setTimer", event: "every-night", kind: "timeCycle", text: "R/2026-01-01T02:00:00/P1D" });
  draw.node("list-meters", { type: "serviceTask" }, lane, "List the meters due");
  draw.node("read-meter", { type: "serviceTask" }, lane, "Read one meter");
  draw.do({ type: "setRepetition", activity: "read-meter", id: "read-meter.each", repetition: "parallel" });
  draw.node("check-gaps", { type: "businessRuleTask" }, lane, "Find gaps in the readings");
  draw.node("gaps", { type: "exclusiveGateway" }, lane, "Gaps found?");
  draw.node("estimate", { type: "scriptTask" }, lane, "Estimate missing values");
  draw.node("join", { type: "exclusiveGateway" }, lane, "");
  draw.node("store", { type: "serviceTask" }, lane, "Store the readings");
  draw.node("read", { type: "endEvent" }, lane, "Readings stored");
  draw.chain("every-night", "list-meters", "read-meter", "check-gaps", "gaps");
  draw.flow("gaps", "join", "no");
  draw.flow("gaps", "estimate", "yes");
  draw.flow("estimate", "join");
  draw.chain("join", "store", "read");
  draw.defaultFlow("gaps", "join");
  draw.condition("gaps", "estimate", "count(gaps) > 0");
  for (const step of ["list-meters", "read-meter"])
    draw.do({
      type: "useSystem",
      step,
      system: { entry: "system-meter-platform", name: "Meter platform" },
      use: "runs on",
    });
  draw.do({
    type: "useSystem",
    step: "store",
    system: { entry: "system-billing-ledger", name: "Billing ledger" },
    use: "writes",
  });
  handleReadings(draw);
  draw.do({ type: "tidy", diagram });
  return draw;
}

/** A complaint about a bill: a parallel block, decisions, and a loop until the answer is accepted; with estimates. */
export function drawComplaint(start: Model, diagram: Id): Drawing {
  const draw = new Drawing(start, diagram);
  pool(draw, [
    ["lane-front-desk", frontDesk],
    ["lane-billing", billing],
  ]);
  draw.do({
    type: "place",
    diagram,
    id: "household",
    kind: { type: "participant", closed: true },
    at: { x: 400, y: 0 },
    name: "Household",
  });
  const desk = "lane-front-desk";
  draw.node("complaint", { type: "startEvent", trigger: "messageEventDefinition" }, desk, "Complaint received");
  draw.node("record", { type: "userTask" }, desk, "Record the complaint");
  draw.node("split", { type: "parallelGateway" }, desk, "");
  draw.node("thank", { type: "sendTask" }, desk, "Confirm receipt");
  draw.node("review-bill", { type: "userTask" }, "lane-billing", "Review the bill");
  draw.node("together", { type: "parallelGateway" }, desk, "");
  draw.node("justified", { type: "exclusiveGateway" }, "lane-billing", "Complaint justified?");
  draw.node("correct", { type: "userTask" }, "lane-billing", "Correct the bill");
  draw.node("answer", { type: "sendTask" }, desk, "Explain the outcome");
  draw.node("content", { type: "exclusiveGateway" }, desk, "Answer accepted?");
  draw.node("clear-up", { type: "userTask" }, desk, "Clear it up by telephone");
  draw.node("closed", { type: "endEvent" }, desk, "Complaint closed");
  draw.chain("complaint", "record", "split", "thank", "together", "justified");
  draw.chain("split", "review-bill", "together");
  draw.flow("justified", "answer", "no");
  draw.flow("justified", "correct", "yes");
  draw.chain("correct", "answer", "content");
  draw.flow("content", "closed", "yes");
  draw.flow("content", "clear-up", "no");
  draw.flow("clear-up", "answer");
  draw.defaultFlow("content", "closed");
  draw.condition("content", "clear-up", "answer.objection != null");
  draw.defaultFlow("justified", "answer");
  draw.condition("justified", "correct", "bill.amount != bill.amount by readings");
  draw.flow("household", "complaint", "complaint");
  draw.flow("thank", "household");
  draw.flow("answer", "household");
  draw.do({
    type: "useSystem",
    step: "record",
    system: { entry: "system-case-register", name: "Case register" },
    use: "writes",
  });
  draw.do({
    type: "useSystem",
    step: "review-bill",
    system: { entry: "system-billing-ledger", name: "Billing ledger" },
    use: "reads",
  });
  for (const [id, time, cost] of [
    ["record", "10 min", 8],
    ["thank", "5 min", 4],
    ["review-bill", "45 min", 40],
    ["correct", "20 min", 18],
    ["answer", "15 min", 12],
    ["clear-up", "25 min", 20],
  ] as const)
    draw.do({ type: "setEstimate", id, time, cost });
  handleComplaint(draw);
  draw.do({ type: "tidy", diagram });
  return draw;
}
