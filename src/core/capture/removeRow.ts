import { say } from "../messages";
import { boundaryEventsOf, type Element, type Id, incomingOf, isGateway, type Model, outgoingOf } from "../model";
import type { Draft } from "./draft";
import type { StepRow } from "./stepRow";

/** Takes a row out; what led to it leads on to what follows. A path goes with the steps that only it leads to. */
export function removeRow(draft: Draft, rows: readonly StepRow[], at: number): void {
  const row = rows[at] as StepRow;
  switch (row.kind) {
    case "stop":
      return draft.refuse("nothing-here", say`Nothing stands here. Delete the step above, or lead the path on.`);
    case "path":
      return removePath(draft, row.flow);
    case "jump": {
      const above = rows[at - 1];
      if (above?.kind === "path" && above.flow === row.flow) return removePath(draft, row.flow);
      return draft.do({ type: "delete", ids: [row.flow] });
    }
    case "step":
      return removeStep(draft, rows, row.element);
  }
}

function removeStep(draft: Draft, rows: readonly StepRow[], step: Id): void {
  if (draft.element(step).type === "boundaryEvent") return removeAtEdge(draft, step);
  for (const event of boundaryEventsOf(draft.model, step)) removeAtEdge(draft, event.id);
  const main = rows.find((row) => row.kind === "path" && row.of === step && row.isMain);
  const flows = outgoingOf(draft.model, step);
  const kept =
    flows.find((flow) => main?.kind === "path" && flow.id === main.flow) ??
    flows.find((flow) => flow.id === draft.element(step).default) ??
    flows[0];
  for (const flow of flows) if (flow.id !== kept?.id) removeBehind(draft, flow);
  heal(draft, step);
}

/** What happens at the edge of a step goes with all that only its path leads to. */
function removeAtEdge(draft: Draft, event: Id): void {
  for (const flow of outgoingOf(draft.model, event)) removeBehind(draft, flow);
  draft.do({ type: "delete", ids: [event] });
}

/** Removes one way out of a step. A gateway that is left with a single way, and the join it needs no more, go too. */
function removePath(draft: Draft, flow: Id): void {
  const element = draft.element(flow);
  const split = element.sourceRef as Id;
  removeBehind(draft, element);
  dropIdle(draft, split);
}

function removeBehind(draft: Draft, flow: Element): void {
  const target = flow.targetRef as Id;
  const doomed = onlyBehind(draft.model, [flow], flow.sourceRef as Id);
  const joins = [
    target,
    ...[...doomed].flatMap((id) => outgoingOf(draft.model, id).map((next) => next.targetRef as Id)),
  ];
  draft.do({ type: "delete", ids: [flow.id, ...doomed] });
  for (const join of joins) dropIdle(draft, join);
}

/** Takes a gateway out that neither splits nor joins any more; anything else stays. */
export function dropIdle(draft: Draft, id: Id): void {
  if (isIdleGateway(draft.model, id)) heal(draft, id);
}

/** Neither splits nor joins any more. */
function isIdleGateway(model: Model, id: Id): boolean {
  const element = model.elements.get(id);
  return (
    element !== undefined &&
    isGateway(element.type) &&
    incomingOf(model, id).length === 1 &&
    outgoingOf(model, id).length === 1
  );
}

/** Steps that can only be reached by these flows, loops among them included. O(nodes + flows) of what lies behind. */
function onlyBehind(model: Model, flows: readonly Element[], except: Id): Set<Id> {
  const cut = new Set(flows.map((flow) => flow.id));
  const onward = (id: Id) =>
    [id, ...boundaryEventsOf(model, id).map((event) => event.id)].flatMap((node) => outgoingOf(model, node));
  const behind = new Set(flows.map((flow) => flow.targetRef as Id));
  for (const id of behind) for (const flow of onward(id)) behind.add(flow.targetRef as Id);
  // What something else leads to stays, and with it all that lies behind it.
  const isLedTo = (id: Id) =>
    id === except ||
    model.elements.get(id)?.type === "startEvent" ||
    incomingOf(model, id).some((flow) => !cut.has(flow.id) && !isBehind(flow.sourceRef as Id));
  const isBehind = (id: Id): boolean => behind.has(id) || behind.has(String(model.elements.get(id)?.attachedToRef));
  const staying = new Set([...behind].filter(isLedTo));
  for (const id of staying)
    for (const flow of onward(id))
      if (!cut.has(flow.id) && behind.has(flow.targetRef as Id)) staying.add(flow.targetRef as Id);
  return new Set([...behind].filter((id) => !staying.has(id)));
}

/** Deletes a step and leads what came to it on to what followed it. */
function heal(draft: Draft, step: Id): void {
  const [next] = outgoingOf(draft.model, step);
  if (next) {
    for (const flow of incomingOf(draft.model, step)) {
      if (flow.sourceRef === next.targetRef || flow.sourceRef === step) continue;
      const to = next.targetRef as Id;
      draft.do({ type: "reconnect", diagram: draft.pageOf(flow.id), connection: flow.id, end: "target", to });
    }
  }
  draft.do({ type: "delete", ids: [step] });
}
