import { say } from "../messages";
import { type Id, incomingOf } from "../model";
import type { Draft } from "./draft";
import { flowInto } from "./rowFlows";
import type { StepRow } from "./stepRow";

/**
 * Closes a path: at another step, earlier or later, or (`"end"`) at an end of its own. The row is the path's last one: a jump, a
 * stop, an end event, or the heading of a path that has no rows.
 */
export function leadTo(draft: Draft, rows: readonly StepRow[], at: number, to: Id | "end"): void {
  const row = rows[at] as StepRow;
  const flow = row.kind === "jump" || row.kind === "path" ? draft.element(row.flow) : undefined;
  if (row.kind === "stop") {
    if (to === "end") appendEnd(draft, row.element);
    else
      draft.do({
        type: "connect",
        diagram: draft.pageOf(row.element),
        id: draft.newId("flow"),
        source: row.element,
        target: to,
      });
    return;
  }
  if (flow) {
    redirect(draft, flow.id, to);
    return;
  }
  const into = flowInto(draft.model, rows, at);
  if (row.kind !== "step" || draft.element(row.element).type !== "endEvent" || !into)
    return draft.refuse("not-a-path-end", say`Choose the last row of a path; it can then lead to another step.`);
  if (to === "end") return;
  redirect(draft, into.id, to);
  if (incomingOf(draft.model, row.element).length === 0) draft.do({ type: "delete", ids: [row.element] });
}

function redirect(draft: Draft, flow: Id, to: Id | "end"): void {
  const diagram = draft.pageOf(flow);
  if (to !== "end") return draft.do({ type: "reconnect", diagram, connection: flow, end: "target", to });
  // The flow keeps its name and condition: it is led to the new end, and the way there goes.
  const made = appendEnd(draft, draft.element(flow).sourceRef as Id);
  draft.do({ type: "reconnect", diagram, connection: flow, end: "target", to: made.end });
  draft.do({ type: "delete", ids: [made.flow] });
}

function appendEnd(draft: Draft, from: Id): { end: Id; flow: Id } {
  const made = { end: draft.newId("endEvent"), flow: draft.newId("flow") };
  draft.do({
    type: "append",
    diagram: draft.pageOf(from),
    from,
    id: made.end,
    flow: made.flow,
    kind: { type: "endEvent" },
  });
  return made;
}
