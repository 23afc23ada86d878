import { foldedName, roleOfLane, rolesOf } from "../directory";
import {
  type Element,
  flowNodesIn,
  type Id,
  incomingOf,
  isActivity,
  laneOf,
  leafLanesOf,
  nameOf,
  outgoingOf,
  participantOf,
  processOf,
  scopeOf,
  shapeOn,
} from "../model";
import type { Draft } from "./draft";

export interface NamedEntry {
  readonly entry: Id;
  readonly name: string;
}

/**
 * Says who does a step: it goes into the lane of that role, which is made where the pool has none. Steps inside a sub-process,
 * whose page has no lanes, carry the role themselves.
 */
export function giveRole(draft: Draft, step: Id, role: NamedEntry): void {
  const process = processOf(draft.model, step);
  for (const own of rolesOf(draft.model, step)) {
    if (own.part === "responsible" && own.from === "step") draft.do({ type: "unassignRole", assignment: own.element });
  }
  if (!process || scopeOf(draft.model, step)?.id !== process.id) {
    draft.do({ type: "assignRole", step, role, part: "responsible", id: draft.newId("role") });
    return;
  }
  const diagram = draft.pageOf(step);
  const lane = laneFor(draft, diagram, process, step, role);
  for (const id of [step, ...goingAlong(draft, step)]) {
    if (laneOf(draft.model, id)?.id !== lane) draft.do({ type: "moveToLane", diagram, ids: [id], lane });
  }
}

/** The start right before a step and the end right after it, if they are its alone: nobody does them by themselves. */
function goingAlong(draft: Draft, step: Id): Id[] {
  const before = incomingOf(draft.model, step).map((flow) => flow.sourceRef as Id);
  const after = outgoingOf(draft.model, step).map((flow) => flow.targetRef as Id);
  return [
    ...before.filter((id) => draft.element(id).type === "startEvent" && outgoingOf(draft.model, id).length === 1),
    ...after.filter((id) => draft.element(id).type === "endEvent" && incomingOf(draft.model, id).length === 1),
  ];
}

function laneFor(draft: Draft, diagram: Id, process: Element, step: Id, role: NamedEntry): Id {
  const lanes = leafLanesOf(draft.model, process.id);
  for (const lane of lanes) {
    const known = roleOfLane(draft.model, lane);
    if (known && (known.entry === role.entry || (!known.entry && foldedName(known.name) === foldedName(role.name)))) {
      if (!known.entry) draft.do({ type: "tieLane", lane: lane.id, role });
      return lane.id;
    }
  }
  const pool = participantOf(draft.model, process.id)?.id ?? addPool(draft, diagram, process);
  const id = draft.newId("lane");
  if (lanes.length === 0) {
    // The first lane takes in everything. Others that somebody may do already keep a lane without a name.
    const others = flowNodesIn(draft.model, process.id).some((node) => node.id !== step && isActivity(node.type));
    const first = others ? draft.newId("lane") : id;
    draft.do({ type: "addLane", diagram, id: first, beside: pool });
    if (others) draft.do({ type: "addLane", diagram, id, beside: first });
  } else {
    const nameless = lanes.find((lane) => !nameOf(draft.model, lane.id) && !roleOfLane(draft.model, lane));
    const alone =
      nameless &&
      flowNodesIn(draft.model, process.id).every(
        (node) => node.id === step || !isActivity(node.type) || laneOf(draft.model, node.id)?.id !== nameless.id,
      );
    if (nameless && alone) {
      draft.do({ type: "tieLane", lane: nameless.id, role });
      return nameless.id;
    }
    draft.do({ type: "addLane", diagram, id, beside: (lanes[lanes.length - 1] as Element).id });
  }
  draft.do({ type: "tieLane", lane: id, role });
  return id;
}

function addPool(draft: Draft, diagram: Id, process: Element): Id {
  const id = draft.newId("participant");
  const first = flowNodesIn(draft.model, process.id)[0];
  const bounds = first && shapeOn(draft.model, diagram, first.id)?.bounds;
  const at = bounds ? { x: bounds.x, y: bounds.y } : { x: 400, y: 200 };
  draft.do({ type: "place", diagram, id, kind: { type: "participant" }, at });
  return id;
}
