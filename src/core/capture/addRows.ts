import type { Kind } from "../commands";
import { say } from "../messages";
import { type Id, incomingOf, isGateway, laneOf, outgoingOf, scopeOf } from "../model";
import { appendEnd } from "./appendEnd";
import { branchingOf } from "./branching";
import type { Draft } from "./draft";
import { flowBehind, flowInto, stepOf } from "./rowFlows";
import type { StepRow } from "./stepRow";

const task: Kind = { type: "task" };

/** Puts something new behind a row: on the flow that leads on, or at the end of the path. */
export function addBehind(draft: Draft, rows: readonly StepRow[], at: number, kind: Kind, name: string): Id {
  const row = rows[at] as StepRow;
  const flow = flowBehind(draft.model, rows, at);
  const id = draft.newId(kind.type);
  const from = stepOf(draft.model, row);
  if (flow) {
    insertOn(draft, flow.id, id, kind);
    standLike(draft, id, from);
  } else {
    if (draft.element(from).type === "endEvent")
      draft.refuse("after-end", say`Nothing can follow an end that no step leads to. Write the step before it.`);
    draft.do({ type: "append", diagram: draft.pageOf(from), from, id, flow: draft.newId("flow"), kind });
  }
  if (name) draft.do({ type: "rename", id, name });
  return id;
}

/** Puts a step behind one that has a single way out: what a list does row by row. */
export function addAfter(draft: Draft, step: Id, kind: Kind, name: string): Id {
  const [flow, other] = outgoingOf(draft.model, step);
  const id = draft.newId(kind.type);
  if (flow && !other) {
    insertOn(draft, flow.id, id, kind);
    standLike(draft, id, step);
  } else draft.do({ type: "append", diagram: draft.pageOf(step), from: step, id, flow: draft.newId("flow"), kind });
  if (name) draft.do({ type: "rename", id, name });
  return id;
}

/** Puts a step before a row's step: whatever led to that now leads to the new one. */
export function addBefore(draft: Draft, rows: readonly StepRow[], at: number, kind: Kind, name: string): Id {
  const row = rows[at] as StepRow;
  if (row.kind !== "step") return addBehind(draft, rows, Math.max(0, at - 1), kind, name);
  const flow = flowInto(draft.model, rows, at) ?? incomingOf(draft.model, row.element)[0];
  if (!flow) {
    if (row.lead === "edge" || draft.element(row.element).type === "startEvent")
      draft.refuse("before-start", say`Nothing comes before what begins a process or a path. Write the step after it.`);
    return putInFront(draft, row.element, kind, name);
  }
  const others = incomingOf(draft.model, row.element).filter((other) => other.id !== flow.id);
  const id = draft.newId(kind.type);
  insertOn(draft, flow.id, id, kind);
  // Where ways join, they go on joining behind the new step.
  if (!isGateway(draft.element(row.element).type)) {
    for (const other of others)
      draft.do({ type: "reconnect", diagram: draft.pageOf(other.id), connection: other.id, end: "target", to: id });
  }
  if (name) draft.do({ type: "rename", id, name });
  return id;
}

/** Behind a step a question with two answers: the usual one goes on as before, the other ends for now. */
export function addDecision(
  draft: Draft,
  rows: readonly StepRow[],
  at: number,
  words: { readonly question: string; readonly usual: string; readonly other: string },
): Id {
  const gateway = addBehind(draft, rows, at, { type: "exclusiveGateway" }, words.question);
  let [usual] = outgoingOf(draft.model, gateway);
  if (!usual) {
    appendNamed(draft, gateway, words.usual);
    [usual] = outgoingOf(draft.model, gateway) as [ReturnType<typeof outgoingOf>[number]];
  } else draft.do({ type: "rename", id: usual.id, name: words.usual });
  draft.do({ type: "setField", id: gateway, field: "default", value: usual.id });
  appendNamed(draft, gateway, words.other);
  return gateway;
}

/** One more way out of a step; it ends until it is led somewhere. Gives its flow. */
export function addPath(draft: Draft, split: Id, name: string): Id {
  return appendNamed(draft, split, name);
}

/** A step at the same time as another: both between a parallel split and a parallel join. Gives the new step. */
export function addParallel(draft: Draft, rows: readonly StepRow[], at: number, name: string): Id {
  const row = rows[at] as StepRow;
  if (row.kind !== "step" || outgoingOf(draft.model, row.element).length > 1)
    return draft.refuse("parallel-to-what", say`Choose a single step; the new one is then done at the same time.`);
  const beside = row.element;
  if (["startEvent", "endEvent", "boundaryEvent"].includes(draft.element(beside).type))
    return draft.refuse(
      "parallel-to-what",
      say`What begins or ends a process has nothing at the same time. Choose a step.`,
    );
  const fork = { type: "parallelGateway" } as const;
  const join = addBehind(draft, rows, at, fork, "");
  const split = addBefore(draft, rows, at, fork, "");
  const page = draft.pageOf(beside);
  const id = draft.newId("task");
  draft.do({ type: "append", diagram: page, from: split, id, flow: draft.newId("flow"), kind: task });
  draft.do({ type: "connect", diagram: page, id: draft.newId("flow"), source: id, target: join });
  if (name) draft.do({ type: "rename", id, name });
  return id;
}

/** Lets a split's ways be chosen one, chosen several, or all go at the same time; the join in which they meet goes with it. */
export function changeSplit(
  draft: Draft,
  split: Id,
  to: "exclusiveGateway" | "inclusiveGateway" | "parallelGateway",
): void {
  const was = draft.element(split).type;
  const branching = branchingOf(draft.model, draft.element(split), outgoingOf(draft.model, split), new Set());
  const join = branching.kind === "block" ? branching.join : undefined;
  if (draft.element(split).default && to === "parallelGateway")
    draft.do({ type: "setField", id: split, field: "default", value: null });
  draft.do({ type: "retype", id: split, to });
  if (join !== undefined && draft.element(join).type === was && outgoingOf(draft.model, join).length < 2)
    draft.do({ type: "retype", id: join, to });
}

function appendNamed(draft: Draft, from: Id, name: string): Id {
  const { flow } = appendEnd(draft, from);
  if (name) draft.do({ type: "rename", id: flow, name });
  return flow;
}

function insertOn(draft: Draft, onFlow: Id, id: Id, kind: Kind): void {
  draft.do({ type: "insertOnFlow", diagram: draft.pageOf(onFlow), onFlow, id, flow: draft.newId("flow"), kind });
}

/** The next row is offered the role of the row above: it stands in the same lane, wherever the flow was split. */
function standLike(draft: Draft, id: Id, above: Id): void {
  const lane = laneOf(draft.model, above);
  if (lane && laneOf(draft.model, id)?.id !== lane.id && scopeOf(draft.model, id) === scopeOf(draft.model, above))
    draft.do({ type: "moveToLane", diagram: draft.pageOf(id), ids: [id], lane: lane.id });
}

/** A step in front of one that nothing leads to. */
function putInFront(draft: Draft, before: Id, kind: Kind, name: string): Id {
  const id = draft.newId(kind.type);
  const diagram = draft.pageOf(before);
  const page = [...draft.model.shapes].find((shape) => shape.element === before && shape.diagram === diagram);
  const { x, y, height } = page?.bounds ?? { x: 200, y: 200, height: 64 };
  draft.do({ type: "place", diagram, id, kind, at: { x: x - 104, y: y + height / 2 }, name });
  draft.do({ type: "connect", diagram, id: draft.newId("flow"), source: id, target: before });
  return id;
}
