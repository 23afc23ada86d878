import { z } from "zod";
import { sizeOf } from "../../layout";
import { say } from "../../messages";
import {
  called,
  childrenOf,
  derivedId,
  type Element,
  elementsOfType,
  entryOf,
  handlesData,
  type Id,
  incomingOf,
  isActivity,
  isFlowNode,
  laneOf,
  type Model,
  outgoingOf,
  participantOf,
  referrersOf,
  scopeOf,
  shapeOn,
  systemsOf,
  withEntry,
  withSystems,
} from "../../model";
import { connect } from "../flow/connect";
import { newNode } from "../flow/create";
import { type Change, refuse } from "../kernel/change";
import { growAround } from "../kernel/grow";
import { freeSpot } from "../kernel/page";

const id = z.string().min(1).max(200);
const entry = z.object({ entry: id, name: z.string().min(1).max(200) });

export const assignRoleSchema = z.object({
  type: z.literal("assignRole"),
  step: id,
  role: entry,
  part: z.enum(["responsible", "accountable", "consulted", "informed"]),
  id,
});
export const unassignRoleSchema = z.object({ type: z.literal("unassignRole"), assignment: id });
export const tieLaneSchema = z.object({ type: z.literal("tieLane"), lane: id, role: entry.nullable() });
export const useSystemSchema = z.object({
  type: z.literal("useSystem"),
  step: id,
  system: entry,
  use: z.enum(["reads", "writes", "runs on"]),
});
export const dropSystemSchema = z.object({ type: z.literal("dropSystem"), step: id, entry: id });
export const giveDocumentSchema = z.object({
  type: z.literal("giveDocument"),
  diagram: id,
  step: id,
  document: entry,
  direction: z.enum(["in", "out"]),
  id,
});
export const renameEntrySchema = z.object({
  type: z.literal("renameEntry"),
  entry: id,
  from: z.string(),
  name: z.string().min(1).max(200),
});

/** The resource that stands for a role in this model; made where it is not there yet. */
function resourceFor(change: Change, role: z.infer<typeof entry>): Id {
  const known = elementsOfType(change.model, "resource").find((resource) => entryOf(resource) === role.entry);
  if (known) return known.id;
  // A file from elsewhere may name the same role already; it is then tied to the directory, not doubled.
  const sameName = elementsOfType(change.model, "resource").find(
    (resource) => entryOf(resource) === undefined && resource.name === role.name,
  );
  const resource =
    sameName ??
    change.insert("resource", derivedId(change.isTaken, role.entry, "role"), change.model.root, { name: role.name });
  change.set("elements", resource.id, "extension", withEntry(resource, role.entry));
  return resource.id;
}

export function assignRole(change: Change, command: z.infer<typeof assignRoleSchema>): void {
  const step = change.element(command.step);
  if (!isActivity(step.type))
    refuse("not-an-activity", say`${called(change.model, step)} is not an activity; only activities have people.`, [
      step.id,
    ]);
  const resource = resourceFor(change, command.role);
  const type = command.part === "responsible" ? "performer" : "resourceRole";
  const known = childrenOf(change.model, step.id, "resourceRoles").find(
    (role) => role.resourceRef === resource && role.name === command.part,
  );
  if (known) return;
  change.insert(type, command.id, step.id, { name: command.part, resourceRef: resource });
}

export function unassignRole(change: Change, { assignment }: z.infer<typeof unassignRoleSchema>): void {
  const role = change.element(assignment);
  if (role.slot !== "resourceRoles")
    refuse("no-role", say`${called(change.model, role)} is no role of a step, so it cannot be taken off one.`, [
      assignment,
    ]);
  for (const child of childrenOf(change.model, role.id)) change.remove("elements", child.id);
  change.remove("elements", role.id);
}

/** Ties a lane to a role: its steps then have that role, unless they say otherwise. */
export function tieLane(change: Change, { lane, role }: z.infer<typeof tieLaneSchema>): void {
  const element = change.element(lane);
  if (role === null) {
    change.set("elements", lane, "partitionElementRef", undefined);
    return;
  }
  change.set("elements", lane, "partitionElementRef", resourceFor(change, role));
  if (!element.name || element.name !== role.name) change.set("elements", lane, "name", role.name);
}

export function useSystem(change: Change, { step, system, use }: z.infer<typeof useSystemSchema>): void {
  const element = change.element(step);
  if (!isFlowNode(element.type))
    refuse("not-a-step", say`${called(change.model, element)} is no step; systems are used by steps.`, [step]);
  const others = systemsOf(element).filter((used) => used.entry !== system.entry);
  change.set("elements", step, "extension", withSystems(element, [...others, { ...system, use }]));
}

export function dropSystem(change: Change, { step, entry: dropped }: z.infer<typeof dropSystemSchema>): void {
  const element = change.element(step);
  change.set(
    "elements",
    step,
    "extension",
    withSystems(
      element,
      systemsOf(element).filter((used) => used.entry !== dropped),
    ),
  );
}

/** Says that a step needs or gives a document: a data object beside it, joined by a data association. */
export function giveDocument(change: Change, command: z.infer<typeof giveDocumentSchema>): void {
  const step = change.element(command.step);
  if (!handlesData(step.type, command.direction))
    refuse(
      "data-association-ends",
      command.direction === "in"
        ? say`${called(change.model, step)} takes no documents; activities do, and events that throw.`
        : say`${called(change.model, step)} gives no documents; activities do, and events that catch.`,
      [step.id],
    );
  const scope = scopeOf(change.model, step.id) as Element;
  const shape = shapeOn(change.model, command.diagram, step.id);
  const references = childrenOf(change.model, scope.id).filter(
    (element) => element.type === "dataObjectReference" && entryOf(element) === command.document.entry,
  );
  // Where the next use is far away, the document is shown once more, instead of a line across the page.
  let data = references.find((reference) => isNearUse(change.model, reference.id, step.id))?.id;
  const object = references[0]?.dataObjectRef;
  if (!data) {
    data = `${command.id}.paper`;
    const size = sizeOf("dataObjectReference");
    const around = shape?.bounds ?? { x: 0, y: 0, width: 112, height: 64 };
    const x = command.direction === "in" ? around.x + 8 : around.x + around.width - size.width - 8;
    // Above its step, or below where that would lie outside of the step's lane.
    const holder = laneOf(change.model, step.id) ?? participantOf(change.model, step.id);
    const floor = holder && shapeOn(change.model, command.diagram, holder.id)?.bounds;
    const above = around.y - size.height - 40;
    const y = floor && above < floor.y + 20 ? around.y + around.height + 28 : above;
    const spot = freeSpot(change.model, command.diagram, { x, y, ...size }, floor);
    newNode(
      change,
      command.diagram,
      data,
      { type: "dataObjectReference" },
      scope.id,
      { x: spot.x + size.width / 2, y: spot.y + size.height / 2 },
      command.document.name,
      object === undefined ? {} : { dataObjectRef: object },
    );
    change.set("elements", data, "extension", withEntry(change.element(data), command.document.entry));
    growAround(change, command.diagram, data);
  }
  const [source, target] = command.direction === "in" ? [data, step.id] : [step.id, data];
  connect(change, { type: "connect", diagram: command.diagram, id: command.id, source, target });
}

/** Whether a step, or one right before or behind it, uses a data object shown somewhere. */
function isNearUse(model: Model, reference: Id, step: Id): boolean {
  const near = new Set([
    step,
    ...outgoingOf(model, step).map((flow) => flow.targetRef),
    ...incomingOf(model, step).map((flow) => flow.sourceRef),
  ]);
  return referrersOf(model, reference).some((association) => near.has(association.parent as Id));
}

/** A directory entry's new name, everywhere this model uses it. */
export function renameEntry(change: Change, { entry: entryId, from, name }: z.infer<typeof renameEntrySchema>): void {
  for (const element of [...change.model.elements]) {
    const systems = systemsOf(element);
    if (systems.some((used) => used.entry === entryId && used.name !== name)) {
      const renamed = systems.map((used) => (used.entry === entryId ? { ...used, name } : used));
      change.set("elements", element.id, "extension", withSystems(element, renamed));
    }
    if (entryOf(element) !== entryId) continue;
    change.set("elements", element.id, "name", name);
    if (typeof element.dataObjectRef === "string" && change.model.elements.get(element.dataObjectRef)?.name === from) {
      change.set("elements", element.dataObjectRef, "name", name);
    }
    for (const lane of elementsOfType(change.model, "lane")) {
      if (lane.partitionElementRef === element.id && lane.name === from) change.set("elements", lane.id, "name", name);
    }
  }
}
