import { z } from "zod";
import { say } from "../../messages";
import {
  connectionBetween,
  type Element,
  edgeOn,
  type Id,
  participantOf,
  scopeOf,
  slotFor,
  termFor,
} from "../../model";
import { addDataAssociation } from "../details/dataAssociations";
import { type Change, Refusal, refuse } from "../kernel/change";
import { forgetRecordedFlows } from "../kernel/flowLists";
import { endsOf, newCourse } from "../kernel/page";
import { addPoolAround } from "../lanes/pools";

const id = z.string().min(1).max(200);
const point = z.object({ x: z.number(), y: z.number() });

export const connectSchema = z.object({
  type: z.literal("connect"),
  diagram: id,
  id,
  source: id,
  target: id,
  name: z.string().max(2000).optional(),
});
export const reconnectSchema = z.object({
  type: z.literal("reconnect"),
  diagram: id,
  connection: id,
  end: z.enum(["source", "target"]),
  to: id,
});
export const bendSchema = z.object({
  type: z.literal("bend"),
  diagram: id,
  connection: id,
  waypoints: z.array(point).min(2).max(200),
});

/** Joins two elements with what the standard has for them: a sequence flow, message flow, association or data association. */
export function connect(change: Change, command: z.infer<typeof connectSchema>): void {
  const { diagram, source, target } = command;
  const answer = connectionBetween(change.model, source, target);
  if (!answer.ok) throw new Refusal(answer.problems);
  const name = command.name === undefined ? {} : { name: command.name };
  switch (answer.value) {
    case "sequenceFlow": {
      const scope = scopeOf(change.model, source) as Element;
      forgetRecordedFlows(change, [source, target]);
      change.insert("sequenceFlow", command.id, scope.id, { ...name, sourceRef: source, targetRef: target });
      break;
    }
    case "messageFlow": {
      const pool = participantOf(change.model, source) as Element;
      change.insert("messageFlow", command.id, pool.parent as Id, { ...name, sourceRef: source, targetRef: target });
      break;
    }
    case "association": {
      const scope = associationHome(change, diagram, source, target);
      const isCompensation = change.element(source).type === "boundaryEvent";
      change.insert("association", command.id, scope, {
        sourceRef: source,
        targetRef: target,
        ...(isCompensation && { associationDirection: "One" }),
      });
      if (isCompensation) change.set("elements", target, "isForCompensation", true);
      break;
    }
    case "dataInputAssociation":
    case "dataOutputAssociation":
      addDataAssociation(change, answer.value, command.id, source, target);
      break;
  }
  draw(change, diagram, command.id);
}

function associationHome(change: Change, diagram: Id, source: Id, target: Id): Id {
  for (const end of [source, target]) {
    const parent = change.element(end).parent;
    const type = parent === null ? undefined : change.model.elements.get(parent)?.type;
    if (parent && type && slotFor(type, "association")) return parent;
  }
  return addPoolAround(change, diagram);
}

function draw(change: Change, diagram: Id, connection: Id): void {
  const course = newCourse(change, diagram, change.element(connection));
  if (course) change.insertEdge(diagram, connection, course);
}

/** Leads one end of a connection to another element; its kind stays, and is refused where the standard has no such flow. */
export function reconnect(change: Change, { diagram, connection, end, to }: z.infer<typeof reconnectSchema>): void {
  const element = change.element(connection);
  const ends = endsOf(element);
  if (!ends) refuse("no-ends", say`This connection has lost an end; delete it and draw it again.`, [connection]);
  const { source, target } = ends as NonNullable<typeof ends>;
  const next = end === "source" ? { source: to, target } : { source, target: to };
  const answer = connectionBetween(change.model, next.source, next.target);
  if (!answer.ok) throw new Refusal(answer.problems);
  if (answer.value !== element.type) {
    refuse(
      "other-connection",
      say`There, the connection would be a ${termFor(answer.value)}, not a ${termFor(element.type)}. Delete it and draw a new one.`,
      [connection],
    );
  }
  if (element.type.startsWith("data")) {
    refuse(
      "data-association-moved",
      say`Delete this data association and draw a new one: the data it carries belongs to its activity.`,
      [connection],
    );
  }
  if (element.type === "sequenceFlow") {
    forgetRecordedFlows(change, [source, target, to]);
    if (end === "source") dropDefault(change, source, connection);
  }
  change.set("elements", connection, end === "source" ? "sourceRef" : "targetRef", to);
  const edge = edgeOn(change.model, diagram, connection);
  const course = newCourse(change, diagram, change.element(connection));
  if (edge && course) {
    change.set("edges", edge.id, "waypoints", course);
    change.set("edges", edge.id, "label", undefined);
  }
}

export function dropDefault(change: Change, node: Id, flow: Id): void {
  if (change.model.elements.get(node)?.default === flow) change.set("elements", node, "default", undefined);
}

/** Gives a connection a course drawn by hand. */
export function bend(change: Change, { diagram, connection, waypoints }: z.infer<typeof bendSchema>): void {
  const edge =
    edgeOn(change.model, diagram, connection) ?? refuse("not-drawn", say`This connection is not drawn on this page.`);
  change.set("edges", edge.id, "waypoints", waypoints);
}
