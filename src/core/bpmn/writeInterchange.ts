import {
  type Diagram,
  dcNamespace,
  diNamespace,
  type Edge,
  type FileBounds,
  interchangeNamespace,
  type Label,
  type Shape,
  type Waypoint,
} from "../model";
import { writtenNumber } from "./interchangeBuilder";
import { ForeignNodes, type WriteContext } from "./writeContext";
import type { WrittenAttribute } from "./xmlWriter";

/** Writes the diagram interchange. `written` is told of each diagram, for what stood between them. */
export function writeDiagrams(context: WriteContext, written: (id: string) => void): void {
  const { model, out, prefixOf } = context;
  const byDiagram = new Map<string, (Shape | Edge)[]>();
  for (const item of [...model.shapes, ...model.edges]) {
    const items = byDiagram.get(item.diagram);
    if (items) items.push(item);
    else byDiagram.set(item.diagram, [item]);
  }
  for (const diagram of [...model.diagrams].sort((a, b) => a.order - b.order)) {
    const attributes: WrittenAttribute[] = [];
    putId(context, attributes, diagram);
    if (diagram.name !== undefined) attributes.push(["name", diagram.name]);
    if (diagram.documentation !== undefined) attributes.push(["documentation", diagram.documentation]);
    if (diagram.resolution !== undefined)
      attributes.push(["resolution", spelledNumber(diagram, "resolution", diagram.resolution)]);
    attributes.push(...(diagram.foreignAttributes ?? []));
    out.start(`${prefixOf(interchangeNamespace)}BPMNDiagram`, attributes);
    const foreign = new ForeignNodes(out, diagram.foreign);
    foreign.after("");
    writePlane(context, diagram, byDiagram.get(diagram.id) ?? []);
    foreign.rest();
    out.end();
    written(diagram.id);
  }
}

function writePlane(context: WriteContext, diagram: Diagram, items: (Shape | Edge)[]): void {
  const { out, prefixOf } = context;
  const attributes: WrittenAttribute[] = [];
  if (diagram.plane.id !== undefined) attributes.push(["id", diagram.plane.id]);
  putReference(context, attributes, "bpmnElement", diagram, "element");
  attributes.push(...(diagram.plane.foreignAttributes ?? []));
  out.start(`${prefixOf(interchangeNamespace)}BPMNPlane`, attributes);
  const foreign = new ForeignNodes(out, diagram.plane.foreign);
  foreign.after("");
  for (const item of items.sort((a, b) => a.order - b.order)) {
    if ("bounds" in item) writeShape(context, item);
    else writeEdge(context, item);
    foreign.after(item.id);
  }
  foreign.rest();
  out.end();
}

function writeShape(context: WriteContext, shape: Shape): void {
  const { out, prefixOf } = context;
  const attributes: WrittenAttribute[] = [];
  putId(context, attributes, shape);
  putReference(context, attributes, "bpmnElement", shape, "element");
  for (const field of ["isHorizontal", "isExpanded", "isMarkerVisible", "isMessageVisible"] as const) {
    const value = shape[field];
    if (value === undefined) continue;
    const spelled = shape.spelling?.[field];
    const same = spelled !== undefined && (spelled === "1" || spelled.trim() === "true") === value;
    attributes.push([field, same ? spelled : String(value)]);
  }
  if (shape.participantBandKind !== undefined) attributes.push(["participantBandKind", shape.participantBandKind]);
  if (shape.choreographyActivityShape !== undefined)
    attributes.push(["choreographyActivityShape", shape.choreographyActivityShape]);
  attributes.push(...(shape.foreignAttributes ?? []));
  out.start(`${prefixOf(interchangeNamespace)}BPMNShape`, attributes);
  const foreign = new ForeignNodes(out, shape.foreign);
  foreign.after("");
  writeBounds(context, shape.bounds);
  foreign.after("bounds");
  if (shape.label) writeLabel(context, shape.label);
  foreign.rest();
  out.end();
}

function writeEdge(context: WriteContext, edge: Edge): void {
  const { out, prefixOf } = context;
  const attributes: WrittenAttribute[] = [];
  putId(context, attributes, edge);
  putReference(context, attributes, "bpmnElement", edge, "element");
  putReference(context, attributes, "sourceElement", edge, "sourceElement");
  putReference(context, attributes, "targetElement", edge, "targetElement");
  if (edge.messageVisibleKind !== undefined) attributes.push(["messageVisibleKind", edge.messageVisibleKind]);
  attributes.push(...(edge.foreignAttributes ?? []));
  out.start(`${prefixOf(interchangeNamespace)}BPMNEdge`, attributes);
  const foreign = new ForeignNodes(out, edge.foreign);
  foreign.after("");
  edge.waypoints.forEach((waypoint: Waypoint, at) => {
    out.start(`${prefixOf(diNamespace)}waypoint`, [
      ["x", spelledNumber(waypoint, "x", waypoint.x)],
      ["y", spelledNumber(waypoint, "y", waypoint.y)],
    ]);
    out.end();
    foreign.after(`waypoint#${at + 1}`);
  });
  if (edge.label) writeLabel(context, edge.label);
  foreign.rest();
  out.end();
}

function writeLabel(context: WriteContext, label: Label): void {
  const { out, prefixOf } = context;
  const attributes: WrittenAttribute[] = [];
  if (label.id !== undefined) attributes.push(["id", label.id]);
  if (label.labelStyle !== undefined) attributes.push(["labelStyle", label.labelStyle]);
  attributes.push(...(label.foreignAttributes ?? []));
  out.start(`${prefixOf(interchangeNamespace)}BPMNLabel`, attributes);
  if (label.bounds) writeBounds(context, label.bounds);
  new ForeignNodes(out, label.foreign).rest();
  out.end();
}

function writeBounds({ out, prefixOf }: WriteContext, bounds: FileBounds): void {
  out.start(
    `${prefixOf(dcNamespace)}Bounds`,
    (["x", "y", "width", "height"] as const).map(
      (field) => [field, spelledNumber(bounds, field, bounds[field])] as const,
    ),
  );
  out.end();
}

type Spelled = { readonly spelling?: { readonly [field: string]: string } };

function spelledNumber(record: Spelled, field: string, value: number): string {
  const spelled = record.spelling?.[field];
  if (spelled !== undefined && (Number(spelled) === value || (value === 0 && !Number.isFinite(Number(spelled)))))
    return spelled;
  return writtenNumber(value);
}

function putId(context: WriteContext, attributes: WrittenAttribute[], record: Spelled & { readonly id: string }): void {
  const id = context.fileId(record.id, record.spelling?.id);
  if (id !== undefined) attributes.push(["id", id]);
}

function putReference(
  context: WriteContext,
  attributes: WrittenAttribute[],
  name: string,
  record: Spelled & { readonly [key in "element" | "sourceElement" | "targetElement"]?: string },
  field: "element" | "sourceElement" | "targetElement",
): void {
  const target = record[field];
  if (target === undefined) return;
  const written = context.fileId(target) ?? target;
  const spelled = record.spelling?.[field];
  const same = spelled !== undefined && spelled.slice(spelled.indexOf(":") + 1).trim() === written;
  attributes.push([name, same ? spelled : written]);
}
