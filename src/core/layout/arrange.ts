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
  isSubProcess,
  laneOf,
  lanesOf,
  type Model,
  outgoingOf,
  referrersOf,
} from "../model";
import { layersOf } from "./layers";
import { bandWidth, closedPoolHeight, onGrid, sizeOf } from "./sizes";

/** Bounds for everything that lies on a page, by element. Lanes, pools and sub-processes are as large as their content. */
export type Arrangement = Map<Id, Bounds>;

export interface ArrangeOptions {
  /** Sizes people gave to shapes; others get the usual ones. */
  readonly sizes: ReadonlyMap<Id, { readonly width: number; readonly height: number }>;
  /** Whether a sub-process shows its content in place. */
  readonly isExpanded: (element: Element) => boolean;
}

const columnGap = 40;
const rowGap = 36;
const lanePadding = 18;
const minimumLane = 96;
const poolGap = 44;

/** Arranges the content of a process or sub-process around 0,0. Passes: layers, rows, columns, satellites, lanes. */
export function arrangeScope(
  model: Model,
  scope: Id,
  options: ArrangeOptions,
): { places: Arrangement; width: number; height: number } {
  const places: Arrangement = new Map();
  const nodes = flowNodesIn(model, scope).filter((node) => node.type !== "boundaryEvent");
  const sizes = new Map<Id, { width: number; height: number }>();
  const inner = new Map<Id, Arrangement>();
  for (const node of nodes) {
    if (isSubProcess(node.type) && options.isExpanded(node)) {
      const content = arrangeScope(model, node.id, options);
      sizes.set(node.id, {
        width: Math.max(200, onGrid(content.width + 40)),
        height: Math.max(120, onGrid(content.height + 56)),
      });
      inner.set(node.id, content.places);
    } else sizes.set(node.id, options.sizes.get(node.id) ?? sizeOf(node.type));
  }
  const size = (id: Id) => sizes.get(id) as { width: number; height: number };

  // Columns: a boundary event's flows leave its host as far as layers go.
  const edges = nodes.flatMap((node) =>
    [node, ...boundaryEventsOf(model, node.id)].flatMap((source) =>
      outgoingOf(model, source.id).map((flow) => ({ from: node.id, to: flow.targetRef as Id })),
    ),
  );
  const { layer, order } = layersOf(
    nodes.map((node) => node.id),
    edges,
  );

  // Rows: each lane has its own; the main path keeps its row, branches go below.
  const leaves = laneLeaves(model, scope);
  const laneIndex = new Map(leaves.map((lane, at) => [lane.id, at]));
  const laneAt = (id: Id) => {
    const lane = laneOf(model, id);
    return (lane && laneIndex.get(lane.id)) ?? 0;
  };
  const rows = assignRows(model, order, layer, laneAt);

  // Heights of rows and widths of columns, with room for labels, edge events and what hangs above.
  const satellites = satellitesOf(model, scope, nodes);
  const columns = new Map<number, number>();
  const rowHeights = new Map<string, { above: number; height: number; below: number }>();
  for (const node of nodes) {
    const column = layer.get(node.id) as number;
    const hanging = satellites.get(node.id) ?? [];
    const hangingWidth = hanging.reduce((sum, id) => sum + satelliteSlot(model, id, options) + 12, 0);
    columns.set(
      column,
      Math.max(
        columns.get(column) ?? 0,
        size(node.id).width,
        isEvent(node.type) ? 72 : 0,
        node.type.endsWith("Gateway") ? 64 : 0,
        hangingWidth,
      ),
    );
    const key = rowKey(laneAt(node.id), rows.get(node.id) as number);
    const row = rowHeights.get(key) ?? { above: 0, height: 0, below: 0 };
    row.height = Math.max(row.height, size(node.id).height);
    row.above = Math.max(
      row.above,
      hanging.length > 0 ? satelliteHeight(model, hanging, options) + 30 : 0,
      node.type.endsWith("Gateway") ? 14 : 0,
    );
    row.below = Math.max(
      row.below,
      boundaryEventsOf(model, node.id).length > 0 ? 46 : 0,
      isEvent(node.type) ? 12 : 0,
      node.type.endsWith("Gateway") ? 22 : 0,
    );
    rowHeights.set(key, row);
  }
  const laneCount = Math.max(1, leaves.length);
  const rowTops = new Map<string, number>();
  const laneBounds: { top: number; bottom: number }[] = [];
  let y = 0;
  for (let lane = 0; lane < laneCount; lane++) {
    const top = y;
    const count =
      1 + Math.max(-1, ...nodes.filter((node) => laneAt(node.id) === lane).map((node) => rows.get(node.id) as number));
    y += lanePadding;
    for (let row = 0; row < count; row++) {
      const found = rowHeights.get(rowKey(lane, row));
      if (!found) continue;
      rowTops.set(rowKey(lane, row), y + found.above);
      y += found.above + found.height + found.below + (row + 1 < count ? rowGap : 0);
    }
    y = onGrid(Math.max(top + (leaves.length > 0 ? minimumLane : 0), y + lanePadding));
    laneBounds.push({ top, bottom: y });
  }
  const columnCentres = new Map<number, number>();
  let x = lanePadding;
  for (const column of [...columns.keys()].sort((a, b) => a - b)) {
    const width = columns.get(column) as number;
    columnCentres.set(column, onGrid(x + width / 2));
    x += width + columnGap;
  }
  const width = onGrid(Math.max(x - columnGap + lanePadding + 12, 160));

  for (const node of nodes) {
    const key = rowKey(laneAt(node.id), rows.get(node.id) as number);
    const row = rowHeights.get(key) as { height: number };
    const own = size(node.id);
    const middle = (rowTops.get(key) as number) + row.height / 2;
    const centre = columnCentres.get(layer.get(node.id) as number) as number;
    const bounds = { x: centre - own.width / 2, y: middle - own.height / 2, ...own };
    places.set(node.id, bounds);
    boundaryEventsOf(model, node.id).forEach((event, at) => {
      places.set(event.id, {
        x: bounds.x + own.width - 36 - at * 40,
        y: bounds.y + own.height - 16,
        width: 32,
        height: 32,
      });
    });
    for (const [id, part] of inner.get(node.id) ?? [])
      places.set(id, { ...part, x: part.x + bounds.x + 20, y: part.y + bounds.y + 36 });
    const hanging = satellites.get(node.id) ?? [];
    const total = hanging.reduce((sum, id) => sum + satelliteSlot(model, id, options), 12 * (hanging.length - 1));
    let left = centre - total / 2;
    for (const id of hanging) {
      const satellite = satelliteSize(model, id, options);
      const slot = satelliteSlot(model, id, options);
      places.set(id, {
        x: left + (slot - satellite.width) / 2,
        y: onGrid(bounds.y - 28 - satellite.height),
        ...satellite,
      });
      left += slot + 12;
    }
  }
  let loose = lanePadding;
  for (const id of satellites.get("") ?? []) {
    const own = satelliteSize(model, id, options);
    places.set(id, { x: loose, y: y + 8, ...own });
    loose += own.width + 40;
  }
  if (loose > lanePadding) y += 96;
  placeLanes(model, scope, places, laneBounds, laneIndex, width);
  return { places, width, height: Math.max(y, 80) };
}

const rowKey = (lane: number, row: number) => `${lane}/${row}`;

function laneLeaves(model: Model, container: Id): Element[] {
  return lanesOf(model, container).flatMap((lane) => {
    const inner = laneLeaves(model, lane.id);
    return inner.length > 0 ? inner : [lane];
  });
}

/** A row for each node within its lane, in flow order: its predecessor's where that is free, else the next free one. */
function assignRows(
  model: Model,
  order: readonly Id[],
  layer: ReadonlyMap<Id, number>,
  laneAt: (id: Id) => number,
): Map<Id, number> {
  const rows = new Map<Id, number>();
  const taken = new Set<string>();
  const cell = (id: Id, row: number) => `${laneAt(id)}/${row}/${layer.get(id)}`;
  const sorted = [...order].sort(
    (a, b) => (layer.get(a) as number) - (layer.get(b) as number) || order.indexOf(a) - order.indexOf(b),
  );
  for (const id of sorted) {
    const before = incomingOf(model, id)
      .map((flow) => {
        const source = model.elements.get(flow.sourceRef as Id) as Element;
        const host = source.type === "boundaryEvent" ? (source.attachedToRef as Id) : source.id;
        return { flow, host, fromEdge: source.type === "boundaryEvent" };
      })
      .filter(
        ({ host }) =>
          rows.has(host) && laneAt(host) === laneAt(id) && (layer.get(host) as number) < (layer.get(id) as number),
      );
    let wanted = 0;
    if (before.length > 0) {
      const own = before.map(({ host, fromEdge, flow }) => {
        const source = model.elements.get(host) as Element;
        // The path taken by default, or else the first, goes straight on; what leaves an edge event goes below.
        const main =
          source.default !== undefined ? source.default === flow.id : outgoingOf(model, host)[0]?.id === flow.id;
        return (rows.get(host) as number) + (fromEdge ? 1 : main || before.length > 1 ? 0 : 1);
      });
      wanted = Math.min(...own);
    }
    while (taken.has(cell(id, wanted))) wanted++;
    taken.add(cell(id, wanted));
    rows.set(id, wanted);
  }
  return rows;
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
export function arrangePage(model: Model, plane: Element, options: ArrangeOptions): Arrangement {
  if (plane.type !== "collaboration") {
    const { places } = arrangeScope(model, plane.id, options);
    return shifted(places, 40 + (lanesOf(model, plane.id).length > 0 ? bandWidth : 0), 40);
  }
  const places: Arrangement = new Map();
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
    y += height + poolGap;
  }
  below.forEach(closedPool);
  // Collaboration notes and groups stand under everything.
  for (const artifact of childrenOf(model, plane.id, "artifacts")) {
    if (artifact.type !== "textAnnotation") continue;
    places.set(artifact.id, { x: left, y, ...sizeOf("textAnnotation") });
    y += 60;
  }
  return places;
}

function laneLevels(model: Model, container: Id): number {
  return Math.max(0, ...lanesOf(model, container).map((lane) => 1 + laneLevels(model, lane.id)));
}

function shifted(places: Arrangement, x: number, y: number): Arrangement {
  return new Map([...places].map(([id, bounds]) => [id, { ...bounds, x: bounds.x + x, y: bounds.y + y }]));
}
