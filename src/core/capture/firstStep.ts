import { type Id, participantOf, shapesOf } from "../model";
import type { Draft } from "./draft";

/** The first row of an empty sheet: a start, the step, an end. Gives the step. */
export function addFirstStep(draft: Draft, process: Id, diagram: Id, name: string): Id {
  const pool = participantOf(draft.model, process);
  const bounds = pool && shapesOf(draft.model, pool.id).find((shape) => shape.diagram === diagram)?.bounds;
  const at = bounds ? { x: bounds.x + 96, y: bounds.y + bounds.height / 2 } : { x: 160, y: 160 };
  const [start, step] = [draft.newId("startEvent"), draft.newId("task")];
  draft.do({ type: "place", diagram, id: start, kind: { type: "startEvent" }, at });
  draft.do({ type: "append", diagram, from: start, id: step, flow: draft.newId("flow"), kind: { type: "task" } });
  draft.do({
    type: "append",
    diagram,
    from: step,
    id: draft.newId("endEvent"),
    flow: draft.newId("flow"),
    kind: { type: "endEvent" },
  });
  if (name) draft.do({ type: "rename", id: step, name });
  return step;
}
