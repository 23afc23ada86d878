import type { Id } from "../model";
import type { Draft } from "./draft";

/** Lets a way end for now: a new end behind a step, with the flow to it. On the page the step is drawn on, unless another is meant. */
export function appendEnd(draft: Draft, from: Id, diagram: Id = draft.pageOf(from)): { end: Id; flow: Id } {
  const made = { end: draft.newId("endEvent"), flow: draft.newId("flow") };
  const { end: id, flow } = made;
  draft.do({ type: "append", diagram, from, id, flow, kind: { type: "endEvent" } });
  return made;
}
