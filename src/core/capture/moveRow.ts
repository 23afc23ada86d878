import { say } from "../messages";
import { type Element, type Id, incomingOf, outgoingOf, shapeOn } from "../model";
import type { Draft } from "./draft";
import { flowBehind, flowInto } from "./rowFlows";
import type { StepRow } from "./stepRow";
import { stepSheetOf } from "./stepSheet";

/**
 * Moves a step one row up or down along the flow: out of its place, which closes behind it, and onto the flow before the step
 * above, or behind the row below. Into a path and out of it, too.
 */
export function moveRow(draft: Draft, process: Id, rows: readonly StepRow[], at: number, direction: "up" | "down"): Id {
  const { below, above } = neighbours(rows, at);
  const neighbour = direction === "down" ? below : above;
  const { step, out } = movable(draft, rows, at);
  if (!neighbour)
    return draft.refuse(
      "at-the-end",
      say`There is no row ${direction === "down" ? say`below` : say`above`} to move past.`,
    );
  takeOut(draft, step, out);
  const closed = stepSheetOf(draft.model, process);
  const there = closed.findIndex((other) => other.id === neighbour.id);
  putOnto(
    draft,
    step,
    out,
    direction === "down" ? flowBehind(draft.model, closed, there) : upwards(draft, closed, there),
  );
  if (neighbour.kind === "step") swapPlaces(draft, step, neighbour.element);
  return step;
}

/** Moves a step behind another row, wherever that stands in the same flow; into a path and out of it, too. */
export function moveRowBehind(draft: Draft, process: Id, rows: readonly StepRow[], at: number, behind: string): Id {
  const target = rows.find((row) => row.id === behind);
  const { step, out } = movable(draft, rows, at);
  if (!target || target.id === step) return step;
  if (target.scope !== rows[at]?.scope)
    return draft.refuse(
      "other-scope",
      say`A step stays within its process or sub-process. Delete it here and write it there.`,
    );
  takeOut(draft, step, out);
  const closed = stepSheetOf(draft.model, process);
  const there = closed.findIndex((other) => other.id === behind);
  putOnto(draft, step, out, there < 0 ? undefined : flowBehind(draft.model, closed, there));
  return step;
}

/** The step of a row that may be moved, and the one way out of it. */
function movable(draft: Draft, rows: readonly StepRow[], at: number): { step: Id; out: Element } {
  const row = rows[at] as StepRow;
  if (row.kind !== "step" || row.lead !== "flow")
    return draft.refuse("not-movable", say`Only steps within the flow can be moved.`);
  const [out, second] = outgoingOf(draft.model, row.element);
  if (!flowInto(draft.model, rows, at) || !out || second)
    return draft.refuse(
      "not-movable",
      say`A row with several ways out, or none, stays where it is. Move the steps around it.`,
    );
  return { step: row.element, out };
}

/** Closes the flow behind a step; only its own way out still leaves it. */
function takeOut(draft: Draft, step: Id, out: Element): void {
  const target = out.targetRef as Id;
  for (const flow of incomingOf(draft.model, step)) {
    if (flow.sourceRef !== target) reconnect(draft, flow.id, "target", target);
  }
}

function putOnto(draft: Draft, step: Id, out: Element, onto: Element | undefined): void {
  if (!onto || onto.id === out.id)
    return draft.refuse("at-the-end", say`The step cannot be moved past the end of its path.`);
  const follower = onto.targetRef as Id;
  reconnect(draft, onto.id, "target", step);
  reconnect(draft, out.id, "target", follower);
}

/** What the step comes before when it goes up: the step above, or the question whose path it leaves. */
function upwards(draft: Draft, rows: readonly StepRow[], at: number) {
  const row = rows[at];
  if (row?.kind !== "path") return flowInto(draft.model, rows, at);
  const split = rows.findIndex((other) => other.kind === "step" && other.element === row.of);
  return split < 0 ? undefined : flowInto(draft.model, rows, split);
}

/** The rows next to a step that it can be moved past; what stands in between at other depths is passed over. */
function neighbours(rows: readonly StepRow[], at: number) {
  const passable = (row: StepRow | undefined) =>
    row !== undefined && (row.kind === "path" || (row.kind === "step" && row.lead === "flow"));
  const own = rows[at] as StepRow;
  const belowAt = rows.findIndex((row, index) => index > at && row.depth <= own.depth);
  const below = rows[belowAt];
  let aboveAt = at - 1;
  while (aboveAt >= 0 && (rows[aboveAt] as StepRow).depth > own.depth) aboveAt--;
  const above = rows[aboveAt];
  return { below: passable(below) ? below : undefined, above: passable(above) ? above : undefined };
}

function reconnect(draft: Draft, connection: Id, end: "source" | "target", to: Id): void {
  draft.do({ type: "reconnect", diagram: draft.pageOf(connection), connection, end, to });
}

/** So that the drawing still runs rightwards, the two trade places along the flow. */
function swapPlaces(draft: Draft, one: Id, other: Id): void {
  const diagram = draft.pageOf(one);
  const a = shapeOn(draft.model, diagram, one)?.bounds;
  const b = shapeOn(draft.model, diagram, other)?.bounds;
  if (!a || !b) return;
  const by = b.x + b.width / 2 - (a.x + a.width / 2);
  if (by === 0) return;
  draft.do({ type: "move", diagram, ids: [one], by: { x: by, y: 0 } });
  draft.do({ type: "move", diagram, ids: [other], by: { x: -by, y: 0 } });
}
