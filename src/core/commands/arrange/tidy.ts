import { z } from "zod";
import { besideLine, isExpanded, labelBeside } from "../../drawing";
import { arrangePage } from "../../layout";
import { say } from "../../messages";
import {
  type Bounds,
  childrenOf,
  type Diagram,
  derivedId,
  type Element,
  edgesOf,
  type Id,
  isConnection,
  isEvent,
  isFlowNode,
  isGateway,
  isSubProcess,
  type Model,
  type Point,
  participantsOf,
  processesOf,
  shapeOn,
  subtreeOf,
} from "../../model";
import { Change, refuse } from "../kernel/change";
import { placeLabels } from "../kernel/labelPlaces";
import { endsOf, shapesOnPage } from "../kernel/page";
import { reroute } from "../kernel/reroute";
import { tidySome } from "./tidySome";

export const tidySchema = z.object({
  type: z.literal("tidy"),
  diagram: z.string().min(1),
  /** The steps to be laid out among the others; without them the whole page is. */
  ids: z.array(z.string().min(1)).max(20_000).optional(),
});

/** Lays a page out anew, or some of its steps: lanes and sizes stay, places and courses are found again. */
export function tidy(change: Change, { diagram: diagramId, ids }: z.infer<typeof tidySchema>): void {
  if (ids) {
    tidySome(change, diagramId, ids);
    return;
  }
  const diagram = change.diagram(diagramId);
  const plane = diagram.element === undefined ? undefined : change.model.elements.get(diagram.element);
  if (!plane) refuse("no-plane", say`This page shows nothing that could be laid out.`);
  const sizes = new Map<Id, { width: number; height: number }>();
  const expanded = new Set<Id>();
  for (const { shape, element } of shapesOnPage(change.model, diagramId)) {
    if (isSubProcess(element.type) && isExpanded(element, shape)) expanded.add(element.id);
    else if (shape.bounds.width > 0) sizes.set(element.id, { width: shape.bounds.width, height: shape.bounds.height });
  }
  const { places, courses } = arrangePage(change.model, plane as Element, {
    sizes,
    isExpanded: (element) => expanded.has(element.id),
    labelSize: (id) => labelRoom(change.model.elements.get(id)),
  });
  change.setAll(
    shapesOnPage(change.model, diagramId).flatMap(({ shape, element }) => {
      const bounds = places.get(element.id);
      return bounds ? [["shapes", shape.id, "bounds", rounded(bounds)] as const] : [];
    }),
  );
  rerouteAll(change, diagramId, courses);
  placeLabels(change, diagramId);
}

const tidyPages = new WeakMap<Model, Map<Id, boolean>>();

/** Whether tidying a page would change nothing: then nobody arranged it by hand, and it may be kept tidy. */
export function isTidy(model: Model, diagram: Id): boolean {
  const pages = tidyPages.get(model) ?? new Map<Id, boolean>();
  tidyPages.set(model, pages);
  const known = pages.get(diagram);
  if (known !== undefined) return known;
  const change = new Change(model);
  tidy(change, { type: "tidy", diagram });
  const answer = change.edits.length === 0;
  pages.set(diagram, answer);
  return answer;
}

/** What is known of a page's tidiness without working it out. */
export const knownTidy = (model: Model, diagram: Id): boolean | undefined => tidyPages.get(model)?.get(diagram);

/** Notes that a page was just tidied, which spares working it out. */
export function noteTidy(model: Model, diagram: Id): void {
  tidyPages.set(model, new Map([[diagram, true]]));
}

const rounded = ({ x, y, width, height }: Bounds): Bounds => ({
  x: Math.round(x),
  y: Math.round(y),
  width: Math.round(width),
  height: Math.round(height),
});

/** The room an element's name needs beside its shape or flow; none where it stands inside. */
function labelRoom(element: Element | undefined): { width: number; height: number } | undefined {
  const text = element?.name?.trim() ?? "";
  if (!element || text === "") return undefined;
  const nowhere = { x: 0, y: 0, width: 0, height: 0 };
  if (element.type === "sequenceFlow") return besideLine(text, [nowhere, nowhere]).bounds;
  return isEvent(element.type) || isGateway(element.type) ? labelBeside(text, nowhere, "below").bounds : undefined;
}

/**
 * New courses for every connection of a page: those the layout has found as they are, then the rest around everything: message
 * flows, then associations.
 */
function rerouteAll(change: Change, diagram: Id, courses: ReadonlyMap<Id, readonly Point[]>): void {
  const rank = (type: string) => (type === "sequenceFlow" ? 0 : type === "messageFlow" ? 1 : 2);
  const span = (edge: { element: Id }) => {
    const ends = endsOf(change.element(edge.element));
    const a = ends && shapeOn(change.model, diagram, ends.source)?.bounds;
    const b = ends && shapeOn(change.model, diagram, ends.target)?.bounds;
    return a && b
      ? Math.abs(a.x - b.x) + 3 * Math.abs(a.y + a.height / 2 - b.y - b.height / 2)
      : Number.POSITIVE_INFINITY;
  };
  const edges = [...change.model.edges]
    .filter((edge) => edge.diagram === diagram && change.model.elements.has(edge.element))
    .map((edge) => ({ edge, rank: rank(change.element(edge.element).type), span: span(edge) }))
    .sort((a, b) => a.rank - b.rank || a.span - b.span || a.edge.order - b.edge.order);
  reroute(
    change,
    diagram,
    edges.map(({ edge }) => edge),
    courses,
  );
}

/**
 * Gives a model without diagrams its pages: one for the collaboration, or one for each process. Files may come without any
 * picture; nothing of their meaning changes.
 */
export function drawMissingPages(model: Model): Model {
  if (model.diagrams.size > 0 && (model.shapes.size > 0 || !hasSomethingToDraw(model))) return model;
  const change = new Change(model);
  const pools = participantsOf(model);
  const collaboration = childrenOf(model, model.root).find(
    (element) => element.type === "collaboration" && childrenOf(model, element.id, "participants").length > 0,
  );
  const shown = new Set(pools.map((pool) => pool.processRef));
  const planes = [
    ...(collaboration ? [collaboration] : []),
    ...processesOf(model).filter((process) => !shown.has(process.id)),
  ];
  let order = 0;
  for (const plane of planes) {
    const existing = [...change.model.diagrams].find((diagram) => diagram.element === plane.id);
    const diagram: Diagram = existing ?? {
      id: derivedId(change.isTaken, plane.id, "page"),
      order: ++order,
      element: plane.id,
      plane: {},
      ...(plane.name && { name: plane.name }),
    };
    if (!existing) change.insertRecord("diagrams", diagram);
    drawPage(change, diagram.id, plane);
    tidy(change, { type: "tidy", diagram: diagram.id });
  }
  return change.model;
}

function hasSomethingToDraw(model: Model): boolean {
  for (const element of model.elements) if (isFlowNode(element.type) || element.type === "participant") return true;
  return false;
}

/** Shapes and edges for everything a plane shows; sub-processes in place. Bounds come from tidying. */
function drawPage(change: Change, diagram: Id, plane: Element): void {
  const nothing = { x: 0, y: 0, width: 0, height: 0 };
  const scopes =
    plane.type === "collaboration"
      ? childrenOf(change.model, plane.id, "participants").flatMap((pool) =>
          typeof pool.processRef === "string" ? [pool.processRef] : [],
        )
      : [plane.id];
  const elements = [plane.id, ...scopes].flatMap((scope) => subtreeOf(change.model, scope));
  const drawnInside = new Set([...new Set(elements)].map((element) => element.id));
  for (const id of drawnInside) {
    const element = change.model.elements.get(id) as Element;
    if (element.id === plane.id || shapeOn(change.model, diagram, id)) continue;
    const isPool = element.type === "participant" || element.type === "lane";
    const isNode =
      isFlowNode(element.type) ||
      element.type === "textAnnotation" ||
      element.type === "dataObjectReference" ||
      element.type === "dataStoreReference";
    if (!isPool && !isNode) continue;
    change.insertShape(diagram, id, nothing, {
      ...(isPool && { isHorizontal: true }),
      ...(isSubProcess(element.type) && { isExpanded: childrenOf(change.model, id, "flowElements").length > 0 }),
      ...(element.type === "exclusiveGateway" && { isMarkerVisible: true }),
    });
  }
  for (const id of drawnInside) {
    const element = change.model.elements.get(id) as Element;
    if (!isConnection(element.type) || edgesOf(change.model, id).length > 0) continue;
    const ends = endsOf(element);
    if (!ends || !change.model.elements.has(ends.source) || !change.model.elements.has(ends.target)) continue;
    change.insertEdge(diagram, id, [
      { x: 0, y: 0 },
      { x: 0, y: 0 },
    ]);
  }
}
