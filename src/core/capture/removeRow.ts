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
  const { type } = draft.element(step);
  if (type === "boundaryEvent") {
    const doomed = onlyBehind(draft.model, outgoingOf(draft.model, step), step);
    draft.do({ type: "delete", ids: [step, ...doomed] });
    return;
  }
  const main = rows.find((row) => row.kind === "path" && row.of === step && row.isMain);
  const flows = outgoingOf(draft.model, step);
  const kept =
    flows.find((flow) => main?.kind === "path" && flow.id === main.flow) ??
    flows.find((flow) => flow.id === draft.element(step).default) ??
    flows[0];
  for (const flow of flows) if (flow.id !== kept?.id) removeBehind(draft, flow);
  heal(draft, step);
}

/** Removes one way out of a step. A gateway that is left with a single way, and the join it needs no more, go too. */
function removePath(draft: Draft, flow: Id): void {
  const element = draft.element(flow);
  const split = element.sourceRef as Id;
  removeBehind(draft, element);
  if (isIdleGateway(draft.model, split)) heal(draft, split);
}

function removeBehind(draft: Draft, flow: Element): void {
  const target = flow.targetRef as Id;
  const doomed = onlyBehind(draft.model, [flow], flow.sourceRef as Id);
  const joins = [
    target,
    ...[...doomed].flatMap((id) => outgoingOf(draft.model, id).map((next) => next.targetRef as Id)),
  ];
  draft.do({ type: "delete", ids: [flow.id, ...doomed] });
  for (const join of joins) if (isIdleGateway(draft.model, join)) heal(draft, join);
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

/** Steps that can only be reached by these flows. O(nodes + flows) of what lies behind. */
function onlyBehind(model: Model, flows: readonly Element[], except: Id): Set<Id> {
  const gone = new Set(flows.map((flow) => flow.id));
  const doomed = new Set<Id>();
  const queue = [...flows];
  for (const flow of queue) {
    const id = flow.targetRef as Id;
    if (id === except || doomed.has(id) || !incomingOf(model, id).every((other) => gone.has(other.id))) continue;
    doomed.add(id);
    const onward = [id, ...boundaryEventsOf(model, id).map((event) => event.id)].flatMap((node) =>
      outgoingOf(model, node),
    );
    for (const next of onward) {
      gone.add(next.id);
      queue.push(next);
    }
  }
  return doomed;
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
