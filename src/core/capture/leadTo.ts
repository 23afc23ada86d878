import { say } from "../messages";
import { called, type Element, type Id, incomingOf, isGateway, type Model, outgoingOf } from "../model";
import { appendEnd } from "./appendEnd";
import type { Draft } from "./draft";
import { dropIdle } from "./removeRow";
import { flowInto } from "./rowFlows";
import type { StepRow } from "./stepRow";

/** Where a path can go on: at the step of another row, or at an end of its own, with its name. */
export type PathGoal = { readonly step: Id } | { readonly end: string };

/**
 * Closes a path: at another step, earlier or later, or at an end of its own. The row is the path's last one: a jump, a stop, an
 * end event, a last step, or the heading of a path that has no rows. An end that nothing leads to afterwards goes, and so does a
 * gateway that neither splits nor joins any more; steps that nothing would lead to are no price anybody means to pay.
 */
export function leadTo(draft: Draft, rows: readonly StepRow[], at: number, goal: PathGoal): void {
  const row = rows[at] as StepRow;
  if (row.kind === "jump" || row.kind === "path") return redirect(draft, row.flow, goal);
  const element = draft.element(row.element);
  if (element.type === "endEvent") {
    if ("end" in goal) return nameEnd(draft, element.id, goal.end);
    const into = flowInto(draft.model, rows, at);
    if (into) return redirect(draft, into.id, goal);
    return draft.refuse("not-a-path-end", say`No step leads to this end. Delete it, or lead a path to it.`);
  }
  const [flow, second] = outgoingOf(draft.model, element.id);
  if (second)
    return draft.refuse("several-ways", say`Several ways leave this row. Choose one of them, and say where it leads.`);
  if (flow) return redirect(draft, flow.id, goal);
  if ("end" in goal) nameEnd(draft, appendEnd(draft, element.id).end, goal.end);
  else connect(draft, element.id, goal.step);
}

function connect(draft: Draft, source: Id, target: Id): void {
  draft.do({ type: "connect", diagram: draft.pageOf(source), id: draft.newId("flow"), source, target });
}

function redirect(draft: Draft, flow: Id, goal: PathGoal): void {
  const was = draft.element(flow).targetRef as Id;
  const isEnd = draft.element(was).type === "endEvent";
  if ("end" in goal && isEnd && incomingOf(draft.model, was).length === 1) return nameEnd(draft, was, goal.end);
  if ("step" in goal && goal.step === was) return;
  const diagram = draft.pageOf(flow);
  if ("step" in goal) draft.do({ type: "reconnect", diagram, connection: flow, end: "target", to: goal.step });
  else {
    // The flow keeps its name and condition: it is led to the new end, and the way there goes.
    const made = appendEnd(draft, draft.element(flow).sourceRef as Id);
    draft.do({ type: "reconnect", diagram, connection: flow, end: "target", to: made.end });
    draft.do({ type: "delete", ids: [made.flow] });
    nameEnd(draft, made.end, goal.end);
  }
  leaveBehind(draft, was);
}

/** What the path led to before, and whether something still leads there. */
function leaveBehind(draft: Draft, was: Id): void {
  const element = draft.element(was);
  if (reachedFrom(draft.model, was)) return dropIdle(draft, was);
  if (element.type === "endEvent") return draft.do({ type: "delete", ids: [was] });
  const [next] = outgoingOf(draft.model, was);
  // A join whose last way went says nothing any more; what it led to may yet be reached from elsewhere.
  if (isGateway(element.type) && next && outgoingOf(draft.model, was).length === 1) {
    draft.do({ type: "delete", ids: [was] });
    return leaveBehind(draft, next.targetRef as Id);
  }
  draft.refuse(
    "left-behind",
    say`Nothing would lead to ${called(draft.model, element)} any more. Choose the last row of the path, or delete the rows behind this one first.`,
  );
}

/** Whether anything but the steps behind it leads to a step. O(nodes + flows). */
function reachedFrom(model: Model, step: Id): boolean {
  const seen = new Set<Id>([step]);
  const before = (id: Id): Id[] => {
    const element = model.elements.get(id) as Element;
    const host = element.type === "boundaryEvent" ? [String(element.attachedToRef)] : [];
    return [...incomingOf(model, id).map((flow) => flow.sourceRef as Id), ...host];
  };
  for (const id of seen) {
    const { type } = model.elements.get(id) as Element;
    if (type === "startEvent") return true;
    const sources = before(id);
    if (id !== step && sources.length === 0) return true;
    for (const source of sources) seen.add(source);
  }
  return false;
}

function nameEnd(draft: Draft, end: Id, name: string): void {
  if (name) draft.do({ type: "rename", id: end, name });
}

/** Whether a step can be gone on with where a path ends: no beginning, and nothing that happens at an edge. */
export function canBeLedTo(model: Model, id: Id): boolean {
  const element = model.elements.get(id);
  return element !== undefined && element.type !== "startEvent" && element.type !== "boundaryEvent";
}
