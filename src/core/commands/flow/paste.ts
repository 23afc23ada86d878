import { z } from "zod";
import { boundsAround } from "../../layout";
import { say } from "../../messages";
import {
  type Edge,
  type Element,
  edgeSchema,
  elementSchema,
  type Id,
  isConnection,
  isFlowNode,
  type Model,
  type Point,
  type Shape,
  shapeOn,
  shapeSchema,
  slotFor,
  subtreeOf,
  typeInfo,
} from "../../model";
import { withWhatHangsOnThem } from "../arrange/move";
import { type Change, refuse } from "../kernel/change";
import { growAround } from "../kernel/grow";
import { connectionsTouching, endsOf, placeAt, plain } from "../kernel/page";
import { putIntoLane } from "../lanes/lanes";

const id = z.string().min(1).max(200);

/** What was copied: records as they stood, to be put down anywhere under new ids. */
export const fragmentSchema = z.object({
  elements: z.array(elementSchema).max(20_000),
  shapes: z.array(shapeSchema).max(20_000),
  edges: z.array(edgeSchema).max(20_000),
  /** The copied elements that stand in nothing else that was copied. */
  roots: z.array(id),
});
export type Fragment = z.infer<typeof fragmentSchema>;

export const pasteSchema = z.object({
  type: z.literal("paste"),
  diagram: id,
  fragment: fragmentSchema,
  /** Where the middle of what is pasted goes. */
  at: z.object({ x: z.number(), y: z.number() }),
  /** Put behind every copied id, so that the new ones are the caller's. */
  mark: z.string().regex(/^[A-Za-z0-9]+$/),
});

/** Copies elements with what hangs on them and the connections among them. */
export function copy(model: Model, diagram: Id, ids: readonly Id[]): Fragment {
  const nodes = withWhatHangsOnThem(
    model,
    diagram,
    ids.filter((elementId) => {
      const type = model.elements.get(elementId)?.type;
      return type !== undefined && type !== "participant" && type !== "lane" && !isConnection(type);
    }),
  );
  const inner = [...connectionsTouching(model, nodes)].filter((connection) => {
    const element = model.elements.get(connection);
    const ends = element && endsOf(element);
    return ends && nodes.has(ends.source) && nodes.has(ends.target) && element.type !== "messageFlow";
  });
  const elements = new Map<Id, Element>();
  for (const elementId of [...nodes, ...inner])
    for (const element of subtreeOf(model, elementId)) elements.set(element.id, element);
  for (const element of [...elements.values()]) {
    const object =
      element.type === "dataObjectReference" ? model.elements.get(String(element.dataObjectRef)) : undefined;
    if (object) elements.set(object.id, object);
  }
  const drawn = (items: Iterable<Shape | Edge>) =>
    [...items].filter((item) => item.diagram === diagram && elements.has(item.element));
  const roots = [...elements.values()]
    .filter((element) => element.parent === null || !elements.has(element.parent))
    .map((element) => element.id);
  return JSON.parse(
    JSON.stringify({ elements: [...elements.values()], shapes: drawn(model.shapes), edges: drawn(model.edges), roots }),
  ) as Fragment;
}

/** Puts a copy down: new ids throughout, into the pool, lane or sub-process under the point. */
export function paste(change: Change, { diagram, fragment, at, mark }: z.infer<typeof pasteSchema>): void {
  const place = placeAt(change.model, change.diagram(diagram), at);
  if (!place) refuse("outside-pool", say`There is no process here to paste into; point inside a pool.`);
  const scope = (place as NonNullable<typeof place>).scope;
  const elements = fragment.elements as unknown as Element[];
  const shapes = fragment.shapes as unknown as Shape[];
  const edges = fragment.edges as unknown as Edge[];
  const depths = depthsIn(elements);
  const ids = new Map<Id, Id>();
  for (const element of elements) ids.set(element.id, freeId(change, element.id, mark));
  const box = boundsAround(shapes.map((shape) => shape.bounds)) ?? { x: at.x, y: at.y, width: 0, height: 0 };
  const by: Point = { x: at.x - box.x - box.width / 2, y: at.y - box.y - box.height / 2 };
  const depth = ({ id: copied }: Element) => depths.get(copied) ?? 0;
  for (const element of [...elements].sort((a, b) => depth(a) - depth(b) || a.order - b.order)) {
    const isRoot = element.parent === null || !ids.has(element.parent);
    const parent = isRoot ? scope.id : (ids.get(element.parent as Id) as Id);
    if (isRoot && !slotFor(scope.type, element.type)) continue;
    const { id: oldId, type, parent: _, slot, order, incoming, outgoing, spelling, ...fields } = element;
    void [_, order, incoming, outgoing, spelling];
    change.insert(
      type,
      ids.get(oldId) as Id,
      parent,
      referring(change.model, element, fields, ids),
      isRoot ? undefined : slot,
    );
  }
  for (const shape of shapes) {
    if (!change.model.elements.has(ids.get(shape.element) ?? "")) continue;
    const { id: _, order, diagram: __, element, bounds, label, spelling, ...more } = shape;
    void [_, __, order, spelling];
    change.insertShape(
      diagram,
      ids.get(element) as Id,
      { ...plain(bounds), x: bounds.x + by.x, y: bounds.y + by.y },
      {
        ...more,
        ...(label?.bounds && {
          label: { bounds: { ...plain(label.bounds), x: label.bounds.x + by.x, y: label.bounds.y + by.y } },
        }),
      },
    );
  }
  for (const edge of edges) {
    if (!change.model.elements.has(ids.get(edge.element) ?? "")) continue;
    change.insertEdge(
      diagram,
      ids.get(edge.element) as Id,
      edge.waypoints.map(({ x, y }) => ({ x: x + by.x, y: y + by.y })),
    );
  }
  for (const root of fragment.roots) {
    const pasted = ids.get(root) as Id;
    const element = change.model.elements.get(pasted);
    const shape = element && shapeOn(change.model, diagram, pasted);
    if (!element || !shape || !isFlowNode(element.type)) continue;
    const middle = { x: shape.bounds.x + shape.bounds.width / 2, y: shape.bounds.y + shape.bounds.height / 2 };
    putIntoLane(
      change,
      pasted,
      placeAt(change.model, change.diagram(diagram), middle)?.lane?.id ?? (place as NonNullable<typeof place>).lane?.id,
    );
    growAround(change, diagram, pasted);
  }
}

/** How deep elements stand in one another at most, as everywhere in a model. */
const deepest = 300;

/**
 * How deep each copied element stands in what was copied with it. A clipboard may hold anything: what does not stand in itself as the
 * standard lets it is refused whole.
 */
function depthsIn(elements: readonly Element[]): Map<Id, number> {
  const copied = new Map(elements.map((element) => [element.id, element]));
  const parentOf = ({ parent }: Element) => (parent === null ? undefined : copied.get(parent));
  const depths = new Map<Id, number>();
  for (const element of elements) {
    const parent = parentOf(element);
    const content = parent && typeInfo(parent.type).content.get(element.slot);
    let depth = 0;
    for (let at = parent; at && depth <= deepest; at = parentOf(at)) depth++;
    if (depth > deepest || (parent && (content?.kind !== "children" || !content.types.includes(element.type))))
      refuse("broken-copy", say`What was copied is not whole, and cannot be put down. Copy it anew.`);
    depths.set(element.id, depth);
  }
  return depths;
}

/** References inside the copy follow it; others stay where the model has their target, and go where it has not. */
function referring(
  model: Model,
  element: Element,
  fields: { readonly [field: string]: unknown },
  ids: ReadonlyMap<Id, Id>,
): { [field: string]: unknown } {
  const next = { ...fields } as { [field: string]: unknown };
  for (const { field, many } of typeInfo(element.type).references) {
    const value = next[field] as Id | readonly Id[] | undefined;
    if (value === undefined) continue;
    const follow = (target: Id) => ids.get(target) ?? (model.elements.has(target) ? target : undefined);
    if (many) next[field] = (value as readonly Id[]).flatMap((target) => follow(target) ?? []);
    else next[field] = follow(value as Id);
  }
  return next;
}

function freeId(change: Change, old: Id, mark: string): Id {
  const stem = old.startsWith("~") ? `copy${old.slice(1)}` : old;
  let next = `${stem}.${mark}`;
  for (let counter = 2; change.isTaken(next); counter++) next = `${stem}.${mark}${counter}`;
  return next;
}
