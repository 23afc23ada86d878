import type { ChangeGroup, Reason } from "@/core/compare";
import type { Id, Model } from "@/core/model";
import { Drawing } from "./drawing";

/** How a rooftop plant could be connected: two checks at once, no telephone, nothing copied by hand. */
export function improveConnection(start: Model, diagram: Id): Drawing {
  const draw = new Drawing(start, diagram);
  checkAtOnce(draw);
  letHouseholdChoose(draw);
  tellBilling(draw);
  draw.do({ type: "moveToLane", diagram, ids: ["inspect"], lane: "lane-engineer" });
  draw.do({ type: "tidy", diagram });
  return draw;
}

/** The front desk's check of the documents and the engineer's of the feeder no longer wait for each other. */
function checkAtOnce(draw: Drawing): void {
  const { diagram } = draw;
  draw.do({
    type: "insertOnFlow",
    diagram,
    onFlow: "complete-to-check-documents",
    id: "both-checks",
    flow: "both-checks-to-check-documents",
    kind: { type: "parallelGateway" },
  });
  draw.do({
    type: "insertOnFlow",
    diagram,
    onFlow: "check-capacity-to-capacity",
    id: "both-checked",
    flow: "both-checked-to-capacity",
    kind: { type: "parallelGateway" },
  });
  draw.do({ type: "moveToLane", diagram, ids: ["both-checked"], lane: "lane-engineer" });
  draw.do({
    type: "reconnect",
    diagram,
    connection: "check-documents-to-check-capacity",
    end: "target",
    to: "both-checked",
  });
  draw.flow("both-checks", "check-capacity");
  draw.do({ type: "dropSystem", step: "check-capacity", entry: "system-case-register" });
}

function letHouseholdChoose(draw: Drawing): void {
  const { diagram } = draw;
  draw.do({
    type: "append",
    diagram,
    from: "site-ready",
    id: "offer-days",
    flow: "site-ready-to-offer-days",
    kind: { type: "serviceTask" },
    name: "Offer visit days",
  });
  draw.do({ type: "moveToLane", diagram, ids: ["offer-days"], lane: "lane-front-desk" });
  draw.do({
    type: "useSystem",
    step: "offer-days",
    system: { entry: "system-crew-planner", name: "Crew planner" },
    use: "runs on",
  });
  draw.do({ type: "delete", ids: ["book-visit"] });
  draw.do({ type: "setDataUse", step: "offer-days", data: "visit", use: "creates" });
  draw.flow("offer-days", "inspect");
  draw.flow("offer-days", "household", "visit days");
}

function tellBilling(draw: Drawing): void {
  const { diagram } = draw;
  draw.do({
    type: "insertOnFlow",
    diagram,
    onFlow: "switch-on-to-set-tariff",
    id: "tell-billing",
    flow: "tell-billing-to-set-tariff",
    kind: { type: "serviceTask" },
  });
  draw.do({ type: "rename", id: "tell-billing", name: "Tell billing" });
  draw.do({ type: "moveToLane", diagram, ids: ["tell-billing"], lane: "lane-billing" });
  draw.do({
    type: "useSystem",
    step: "tell-billing",
    system: { entry: "system-case-register", name: "Case register" },
    use: "runs on",
  });
}

const reasons: readonly (readonly [subject: Id, reason: Reason])[] = [
  [
    "check-capacity",
    {
      pains: ["waiting", "rework"],
      note: "Half of the papers are right at once, and the figures were copied from the map into the register.",
      effect: "the engineer starts a week earlier",
      state: "agreed",
    },
  ],
  [
    "offer-days",
    {
      pains: ["cost", "waiting"],
      note: "Most calls are made twice, since nobody is at home during the day.",
      effect: "12 minutes less a case at the front desk",
      state: "agreed",
    },
  ],
  [
    "inspect",
    {
      pains: ["waiting"],
      note: "The engineer is on site anyway for plants above 10 kW.",
      effect: "one visit instead of two for larger plants",
      state: "proposed",
    },
  ],
  [
    "tell-billing",
    {
      pains: ["error"],
      note: "Tariffs were forgotten where the crew's report came late.",
      effect: "no plant without a tariff",
      state: "proposed",
    },
  ],
];

/** Why each change of the improvement is made. */
export function reasonsFor(groups: readonly ChangeGroup[]): { change: string; words: string; reason: Reason }[] {
  return reasons.map(([subject, reason]) => {
    const group = groups.find((one) => one.to[0] === subject || one.key === subject);
    if (!group) throw new Error(`Demo: nothing changes about "${subject}".`);
    return { change: group.key, words: group.words, reason };
  });
}
