import { z } from "zod";
import { say } from "../../messages";
import {
  boundaryEventsOf,
  childrenOf,
  connectionsOf,
  type Element,
  edgesOf,
  type Id,
  incomingOf,
  isConnection,
  type Model,
  nameOf,
  outgoingOf,
  referrersOf,
  shapesOf,
  subtreeOf,
  termFor,
  typeInfo,
  wordFor,
} from "../../model";
import { removeDataAssociation } from "../details/dataAssociations";
import { forgetEstimate } from "../details/setEstimate";
import { type Change, refuse } from "../kernel/change";

export const deleteSchema = z.object({ type: z.literal("delete"), ids: z.array(z.string().min(1)).min(1) });

/** Deletes elements with what hangs on them: flows, events at their edge, content, pages of their own. What passed through is named. */
export function remove(change: Change, { ids }: z.infer<typeof deleteSchema>): void {
  for (const id of ids) {
    const type = change.model.elements.get(id)?.type;
    if (type === "process" || type === "collaboration" || type === "definitions") {
      refuse(
        "whole-model",
        say`The process itself cannot be deleted from its own page; delete its pools and steps, or the process on Home.`,
        [id],
      );
    }
  }
  const doomed = new Set<Id>();
  for (const id of ids) if (change.model.elements.has(id)) collect(change.model, id, doomed);
  namePassage(change, new Set(ids), doomed);

  // Drawings first, then those that name others, then the named: an edit list reads like the deletion it is.
  for (const id of doomed) {
    for (const edge of edgesOf(change.model, id)) change.remove("edges", edge.id);
    for (const shape of shapesOf(change.model, id)) change.remove("shapes", shape.id);
  }
  for (const diagram of [...change.model.diagrams]) {
    if (diagram.element !== undefined && doomed.has(diagram.element)) {
      for (const shape of [...change.model.shapes]) if (shape.diagram === diagram.id) change.remove("shapes", shape.id);
      for (const edge of [...change.model.edges]) if (edge.diagram === diagram.id) change.remove("edges", edge.id);
      change.remove("diagrams", diagram.id);
    }
  }
  for (const id of doomed) forgetEstimate(change, id);
  for (const id of doomed) forgetReferences(change, id, doomed);
  const ordered = [...doomed]
    .flatMap((id) => change.model.elements.get(id) ?? [])
    .sort((a, b) => depthOf(change.model, b) - depthOf(change.model, a));
  for (const element of ordered) {
    if (!change.model.elements.has(element.id)) continue;
    if (element.type === "dataInputAssociation" || element.type === "dataOutputAssociation") {
      removeDataAssociation(change, change.element(element.id));
    } else change.remove("elements", element.id);
  }
}

function depthOf(model: Model, element: Element): number {
  let depth = 0;
  for (let parent = element.parent; parent !== null; depth++) parent = model.elements.get(parent)?.parent ?? null;
  return depth;
}

/** The element, its content, and what cannot be without any of it. */
function collect(model: Model, id: Id, doomed: Set<Id>): void {
  if (doomed.has(id)) return;
  const element = model.elements.get(id);
  if (!element || element.type === "definitions") return;
  for (const inner of subtreeOf(model, id)) doomed.add(inner.id);
  for (const inner of subtreeOf(model, id)) {
    for (const connection of connectionsOf(model, inner.id))
      if (isConnection(connection.type)) collect(model, connection.id, doomed);
    for (const event of boundaryEventsOf(model, inner.id)) collect(model, event.id, doomed);
  }
  if (element.type === "participant" && typeof element.processRef === "string") {
    const others = referrersOf(model, element.processRef, "processRef").filter((other) => other.id !== id);
    if (others.length === 0) collect(model, element.processRef, doomed);
  }
  if (element.type === "dataObjectReference" && typeof element.dataObjectRef === "string") {
    const others = referrersOf(model, element.dataObjectRef, "dataObjectRef").filter((other) => !doomed.has(other.id));
    if (others.length === 0) collect(model, element.dataObjectRef, doomed);
  }
  if (element.type === "lane") {
    // The last lane of a set takes the set along, so that no empty one stays.
    const parent = element.parent === null ? undefined : model.elements.get(element.parent);
    if (parent?.type === "laneSet" && childrenOf(model, parent.id).every((lane) => doomed.has(lane.id)))
      doomed.add(parent.id);
  }
}

/** Takes the deleted out of every list and field that named them. */
function forgetReferences(change: Change, id: Id, doomed: ReadonlySet<Id>): void {
  for (const referrer of referrersOf(change.model, id)) {
    if (doomed.has(referrer.id)) continue;
    for (const { field, many } of typeInfo(referrer.type).references) {
      const value = change.element(referrer.id)[field] as Id | readonly Id[] | undefined;
      if (many && (value as readonly Id[] | undefined)?.includes(id)) {
        const left = (value as readonly Id[]).filter((target) => target !== id);
        change.set("elements", referrer.id, field, left.length > 0 ? left : undefined);
      } else if (!many && value === id) change.set("elements", referrer.id, field, undefined);
    }
  }
}

/** Says what was led through a deleted step, so that the hole in the flow is no surprise. */
function namePassage(change: Change, chosen: ReadonlySet<Id>, doomed: ReadonlySet<Id>): void {
  const { model } = change;
  for (const id of chosen) {
    const element = model.elements.get(id);
    if (!element) continue;
    const before = incomingOf(model, id)
      .map((flow) => flow.sourceRef as Id)
      .filter((other) => !doomed.has(other));
    const after = outgoingOf(model, id)
      .map((flow) => flow.targetRef as Id)
      .filter((other) => !doomed.has(other));
    if (before.length === 0 || after.length === 0) continue;
    const words = (list: Id[]) =>
      list.map((other) => nameOf(model, other) || wordFor(model.elements.get(other)?.type ?? "")).join(", ");
    change.remarks.push(
      say`The flow from ${words(before)} to ${words(after)} ran through ${nameOf(model, id) || termFor(element.type)} and is now open.`,
    );
  }
}
