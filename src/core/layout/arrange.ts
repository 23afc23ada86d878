import {
  type Bounds,
  boundaryEventsOf,
  childrenOf,
  type Element,
  flowNodesIn,
  type Id,
  incomingOf,
  isActivity,
  isDataNode,
  isEvent,
  isGateway,
  isSubProcess,
  laneOf,
  lanesOf,
  type Model,
  outgoingOf,
  type Point,
  referrersOf,
} from "../model";
import { placeInBands } from "./align";
import { placeColumns } from "./columns";
import { coursesOf } from "./courses";
import { type LayoutFlow, type LayoutNode, networkOf } from "./network";
import { orderLayers } from "./order";
import { bandWidth, closedPoolHeight, eventSize, onGrid, sizeOf } from "./sizes";

/** Bounds for everything that lies on a page, by element. Lanes, pools and sub-processes are as large as their content. */
export type Arrangement = Map<Id, Bounds>;

export interface ArrangeOptions {
  /** Sizes people gave to shapes; others get the usual ones. */
  readonly sizes: ReadonlyMap<Id, { readonly width: number; readonly height: number }>;
  /** Whether a sub-process shows its content in place. */
  readonly isExpanded: (element: Element) => boolean;
  /** Where only some of a scope's nodes are to be arranged. */
  readonly only?: ReadonlySet<Id> | undefined;
  /** The room a name needs beside its shape or flow; undefined where it stands inside or there is none. */
  readonly labelSize: (id: Id) => { readonly width: number; readonly height: number } | undefined;
}

const lanePadding = 18;
const minimumLane = 96;
const poolGap = 44;

interface ArrangedScope {
  readonly places: Arrangement;
  /** The courses of the sequence flows between what was placed. */
  readonly courses: ReadonlyMap<Id, readonly Point[]>;
  readonly width: number;
  readonly height: number;
}

/**
 * Arranges the content of a process or sub-process around 0,0. Passes: the inside of sub-processes; layers and the places that
 * flows pass; order within layers; heights; columns and the spaces between them; courses; what hangs above; lanes.
 * Source: the layered method of Sugiyama, Tagawa and Toda (1981), with lanes as bands that no item leaves.
 */
export function arrangeScope(model: Model, scope: Id, options: ArrangeOptions): ArrangedScope {
  const places: Arrangement = new Map();
  const courses = new Map<Id, readonly Point[]>();
  const nodes = flowNodesIn(model, scope).filter(
    (node) => (node.type !== "boundaryEvent" || !hostOf(model, node)) && (options.only?.has(node.id) ?? true),
  );
  const sizes = new Map<Id, { width: number; height: number }>();
  const inner = new Map<Id, ArrangedScope>();
  for (const node of nodes) {
    if (isSubProcess(node.type) && options.isExpanded(node)) {
      const content = arrangeScope(model, node.id, { ...options, only: undefined });
      sizes.set(node.id, {
        width: Math.max(200, onGrid(content.width + 40)),
        height: Math.max(120, onGrid(content.height + 56)),
      });
      inner.set(node.id, content);
    } else sizes.set(node.id, options.sizes.get(node.id) ?? sizeOf(node.type));
  }
  const leaves = laneLeaves(model, scope);
  const laneIndex = new Map(leaves.map((lane, at) => [lane.id, at]));
  const satellites = satellitesOf(model, scope, nodes);
  const size = (id: Id) => sizes.get(id) as { width: number; height: number };
  const network = networkOf(
    nodes.map((node) => layoutNode(model, node, size(node.id), laneIndex, satellites.get(node.id) ?? [], options)),
    flowsBetween(model, nodes, size, options),
  );
  orderLayers(network);
  const bands = placeInBands(network, {
    laneCount: Math.max(1, leaves.length),
    padding: lanePadding,
    minimum: leaves.length > 0 ? minimumLane : 0,
    onGrid,
  });
  const columns = placeColumns(network, bands, { padding: lanePadding, onGrid });
  const width = Math.max(columns.width, 160);
  const lines = coursesOf(network, bands, columns);
  network.flows.forEach((flow, at) => {
    courses.set(flow.id, lines[at] as readonly Point[]);
  });

  for (const item of network.items) {
    if (!item.node) continue;
    const { id } = item.node;
    const own = size(id);
    const centre = columns.centres[item.layer] as number;
    const bounds = { x: centre - own.width / 2, y: (bands.y[item.at] as number) - own.height / 2, ...own };
    places.set(id, bounds);
    boundaryEventsOf(model, id).forEach((event, at) => {
      places.set(event.id, { ...edgeEventAt(bounds, at), ...eventSize });
    });
    const content = inner.get(id);
    for (const [part, place] of content?.places ?? [])
      places.set(part, { ...place, x: place.x + bounds.x + 20, y: place.y + bounds.y + 36 });
    for (const [flow, line] of content?.courses ?? [])
      courses.set(
        flow,
        line.map((point) => ({ x: point.x + bounds.x + 20, y: point.y + bounds.y + 36 })),
      );
    const hanging = satellites.get(id) ?? [];
    const total = hanging.reduce((sum, one) => sum + satelliteSlot(model, one, options), 12 * (hanging.length - 1));
    let left = centre - total / 2;
    for (const one of hanging) {
      const satellite = satelliteSize(model, one, options);
      const slot = satelliteSlot(model, one, options);
      places.set(one, {
        x: left + (slot - satellite.width) / 2,
        y: onGrid(bounds.y - 28 - satellite.height),
        ...satellite,
      });
      left += slot + 12;
    }
  }
  let y = bands.lanes.at(-1)?.bottom ?? 0;
  let loose = lanePadding;
  for (const id of satellites.get("") ?? []) {
    const own = satelliteSize(model, id, options);
    places.set(id, { x: loose, y: y + 8, ...own });
    loose += Math.max(own.width, satelliteSlot(model, id, options)) + 40;
  }
  const below = loose > lanePadding ? 96 : 0;
  y += below;
  const lanes = bands.lanes.map((lane, at) =>
    at === bands.lanes.length - 1 ? { ...lane, bottom: lane.bottom + below } : lane,
  );
  placeLanes(model, scope, places, lanes, laneIndex, Math.max(width, loose));
  return { places, courses, width: Math.max(width, loose), height: Math.max(y, 80) };
}

const hostOf = (model: Model, event: Element): Element | undefined =>
  typeof event.attachedToRef === "string" ? model.elements.get(event.attachedToRef) : undefined;

/** Events at the lower edge stand from its right end leftwards. */
const edgeEventAt = (host: Bounds, at: number): Point => ({
  x: host.x + host.width - 36 - at * 40,
  y: host.y + host.height - 16,
});

function layoutNode(
  model: Model,
  node: Element,
  { width, height }: { readonly width: number; readonly height: number },
  laneIndex: ReadonlyMap<Id, number>,
  hanging: readonly Id[],
  options: ArrangeOptions,
): LayoutNode {
  const lane = laneOf(model, node.id);
  const label = options.labelSize(node.id);
  const events = boundaryEventsOf(model, node.id);
  const hangingWidth = hanging.reduce((sum, id) => sum + satelliteSlot(model, id, options) + 12, 0);
  const eventLabels = events.map((event) => options.labelSize(event.id)?.height ?? 0);
  const isRound = isGateway(node.type) || isEvent(node.type);
  const over = hanging.length > 0 ? satelliteHeight(model, hanging, options) + 30 : 0;
  const isAbove = isGateway(node.type);
  return {
    id: node.id,
    lane: (lane && laneIndex.get(lane.id)) ?? 0,
    width,
    height,
    above: over + (isAbove && label ? label.height + 8 : 0),
    below: events.length > 0 ? 24 + Math.max(...eventLabels) : !isAbove && label ? label.height + 8 : 0,
    columnWidth: Math.max(width, label ? label.width + 8 : 0, hangingWidth),
    topFree: hanging.length === 0,
    bottomFree: events.length === 0,
    isRound,
  };
}

/** The flows among nodes, those of events at their edge included; the way most cases take is the main path. */
function flowsBetween(
  model: Model,
  nodes: readonly Element[],
  size: (id: Id) => { readonly width: number; readonly height: number },
  options: ArrangeOptions,
): LayoutFlow[] {
  const known = new Set(nodes.map((node) => node.id));
  const main = mainPath(model, nodes, known);
  return nodes.flatMap((node) => {
    const own = outgoingOf(model, node.id)
      .filter((flow) => known.has(flow.targetRef as Id))
      .map(
        (flow): LayoutFlow => ({
          id: flow.id,
          from: node.id,
          to: flow.targetRef as Id,
          isMain: main.has(flow.id),
          label: options.labelSize(flow.id),
        }),
      );
    const atEdge = boundaryEventsOf(model, node.id).flatMap((event, at) =>
      outgoingOf(model, event.id)
        .filter((flow) => known.has(flow.targetRef as Id))
        .map((flow): LayoutFlow => {
          const { width, height } = size(node.id);
          const x = width / 2 - 20 - at * 40;
          // The rightmost leaves on its own right; others first go down, past those beside them.
          const exit = { x, y: at === 0 ? height / 2 : height / 2 + 16 + 12 * at, bottom: height / 2 + 16 };
          return {
            id: flow.id,
            from: node.id,
            to: flow.targetRef as Id,
            exit,
            isMain: false,
            label: options.labelSize(flow.id),
          };
        }),
    );
    return [...own, ...atEdge];
  });
}

/** From the first start along the defaults, else the first ways, as far as they lead. */
function mainPath(model: Model, nodes: readonly Element[], known: ReadonlySet<Id>): Set<Id> {
  const main = new Set<Id>();
  const start =
    nodes.find((node) => node.type === "startEvent") ?? nodes.find((node) => incomingOf(model, node.id).length === 0);
  const seen = new Set<Id>();
  for (let at = start; at && !seen.has(at.id); ) {
    seen.add(at.id);
    const flows = outgoingOf(model, at.id).filter((flow) => known.has(flow.targetRef as Id));
    const next = flows.find((flow) => flow.id === at?.default) ?? flows[0];
    if (!next) break;
    main.add(next.id);
    at = model.elements.get(next.targetRef as Id);
  }
  return main;
}

function laneLeaves(model: Model, container: Id): Element[] {
  return lanesOf(model, container).flatMap((lane) => {
    const inner = laneLeaves(model, lane.id);
    return inner.length > 0 ? inner : [lane];
  });
}

/** Data and notes hang above the first step they belong to; what belongs to none stands by itself, under the key "". */
function satellitesOf(model: Model, scope: Id, nodes: readonly Element[]): Map<Id, Id[]> {
  const hosts = new Set(nodes.map((node) => node.id));
  const found = new Map<Id, Id[]>();
  for (const element of childrenOf(model, scope)) {
    const isData = element.type === "dataObjectReference" || element.type === "dataStoreReference";
    if (!isData && element.type !== "textAnnotation") continue;
    const hosted = referrersOf(model, element.id)
      .flatMap((link) =>
        link.type === "association" ? [link.sourceRef as Id, link.targetRef as Id] : [link.parent as Id],
      )
      .map((id) =>
        model.elements.get(id)?.type === "boundaryEvent" ? (model.elements.get(id)?.attachedToRef as Id) : id,
      )
      .find((id) => hosts.has(id) && isActivityLike(model, id));
    const key = hosted ?? "";
    found.set(key, [...(found.get(key) ?? []), element.id]);
  }
  return found;
}

const isActivityLike = (model: Model, id: Id) => {
  const type = model.elements.get(id)?.type;
  return isActivity(type) || isEvent(type) || type?.endsWith("Gateway") === true;
};

function satelliteSize(model: Model, id: Id, options: ArrangeOptions): { width: number; height: number } {
  return options.sizes.get(id) ?? sizeOf((model.elements.get(id) as Element).type);
}

/** Data is narrow but its name is not. */
function satelliteSlot(model: Model, id: Id, options: ArrangeOptions): number {
  const { width } = satelliteSize(model, id, options);
  return isDataNode((model.elements.get(id) as Element).type) ? Math.max(width, 112) : width;
}

function satelliteHeight(model: Model, ids: readonly Id[], options: ArrangeOptions): number {
  return Math.max(
    ...ids.map(
      (id) =>
        satelliteSize(model, id, options).height + (isDataNode((model.elements.get(id) as Element).type) ? 22 : 0),
    ),
  );
}

/** Lanes around their rows; a lane with lanes inside spans them and is one band further left. */
function placeLanes(
  model: Model,
  container: Id,
  places: Arrangement,
  bounds: readonly { top: number; bottom: number }[],
  index: ReadonlyMap<Id, number>,
  width: number,
): void {
  const depthOf = (id: Id): number => Math.max(0, ...lanesOf(model, id).map((lane) => 1 + depthOf(lane.id)));
  const levels = depthOf(container);
  const place = (lane: Element, level: number): { top: number; bottom: number } => {
    const inner = lanesOf(model, lane.id).map((child) => place(child, level + 1));
    const span =
      inner.length > 0
        ? { top: Math.min(...inner.map((part) => part.top)), bottom: Math.max(...inner.map((part) => part.bottom)) }
        : (bounds[index.get(lane.id) as number] as { top: number; bottom: number });
    // Lanes at every level reach from their own band to the pool's right edge.
    const left = -bandWidth * (levels - level);
    places.set(lane.id, { x: left, y: span.top, width: width - left, height: span.bottom - span.top });
    return span;
  };
  for (const lane of lanesOf(model, container)) place(lane, 0);
}

/** Arranges a whole page: the pools of a collaboration under each other, or one process by itself. */
export function arrangePage(
  model: Model,
  plane: Element,
  options: ArrangeOptions,
): { places: Arrangement; courses: ReadonlyMap<Id, readonly Point[]> } {
  if (plane.type !== "collaboration") {
    const { places, courses } = arrangeScope(model, plane.id, options);
    const x = 40 + (lanesOf(model, plane.id).length > 0 ? bandWidth : 0);
    return { places: shifted(places, x, 40), courses: shiftedCourses(courses, x, 40) };
  }
  const places: Arrangement = new Map();
  const courses = new Map<Id, readonly Point[]>();
  const pools = childrenOf(model, plane.id, "participants");
  const open = pools.filter((pool) => typeof pool.processRef === "string" && model.elements.has(pool.processRef));
  const closed = pools.filter((pool) => !open.includes(pool));
  // Closed pools stand alternately above and below, so that message flows stay short.
  const above = closed.filter((_, at) => at % 2 === 0);
  const below = closed.filter((_, at) => at % 2 === 1);
  const contents = open.map((pool) => ({
    pool,
    content: arrangeScope(model, pool.processRef as Id, options),
    levels: laneLevels(model, pool.processRef as Id),
  }));
  const width = Math.max(600, ...contents.map(({ content, levels }) => content.width + bandWidth * (levels + 1)));
  const left = 40;
  let y = 40;
  const closedPool = (pool: Element) => {
    places.set(pool.id, { x: left, y, width, height: closedPoolHeight });
    y += closedPoolHeight + poolGap;
  };
  above.forEach(closedPool);
  for (const { pool, content, levels } of contents) {
    const indent = bandWidth * (levels + 1);
    const height = onGrid(content.height);
    places.set(pool.id, { x: left, y, width, height });
    for (const [id, part] of shifted(content.places, left + indent, y)) {
      const isLane = model.elements.get(id)?.type === "lane";
      places.set(id, isLane ? { ...part, width: left + width - part.x } : part);
    }
    for (const [id, line] of shiftedCourses(content.courses, left + indent, y)) courses.set(id, line);
    y += height + poolGap;
  }
  below.forEach(closedPool);
  // Collaboration notes and groups stand under everything.
  for (const artifact of childrenOf(model, plane.id, "artifacts")) {
    if (artifact.type !== "textAnnotation") continue;
    places.set(artifact.id, { x: left, y, ...sizeOf("textAnnotation") });
    y += 60;
  }
  return { places, courses };
}

function laneLevels(model: Model, container: Id): number {
  return Math.max(0, ...lanesOf(model, container).map((lane) => 1 + laneLevels(model, lane.id)));
}

function shifted(places: Arrangement, x: number, y: number): Arrangement {
  return new Map([...places].map(([id, bounds]) => [id, { ...bounds, x: bounds.x + x, y: bounds.y + y }]));
}

function shiftedCourses(courses: ReadonlyMap<Id, readonly Point[]>, x: number, y: number): Map<Id, readonly Point[]> {
  return new Map([...courses].map(([id, line]) => [id, line.map((point) => ({ x: point.x + x, y: point.y + y }))]));
}
