import type { Id } from "../model";
import { layersOf } from "./layers";

/** A shape to be placed: its size, its lane, and the room that what belongs to it needs around it. */
export interface LayoutNode {
  readonly id: Id;
  readonly lane: number;
  readonly width: number;
  readonly height: number;
  /** Room over and under the shape, for labels, data above it, events at its edge. */
  readonly above: number;
  readonly below: number;
  /** Width the column needs for it, labels and data included. */
  readonly columnWidth: number;
  /** Whether flows may leave and enter in the middle of its upper and lower side. */
  readonly topFree: boolean;
  readonly bottomFree: boolean;
  /** Diamonds and circles are left and entered at any corner; at other shapes flows keep to the left and right. */
  readonly isRound: boolean;
}

export interface LayoutFlow {
  readonly id: Id;
  readonly from: Id;
  readonly to: Id;
  /** Where it leaves, if not in the middle of the right side: at an event of the lower edge. */
  readonly exit?: { readonly x: number; readonly y: number; readonly bottom: number };
  /** Whether it belongs to the main path, which is kept straight. */
  readonly isMain: boolean;
  readonly label: { readonly width: number; readonly height: number } | undefined;
}

/** An item of a layer: a node, or a place a long flow passes. */
export interface Item {
  readonly at: number;
  readonly layer: number;
  lane: number;
  readonly node: LayoutNode | undefined;
  readonly flow: number;
  readonly above: number;
  readonly below: number;
  /** For places where a flow back meets its own shape: the shape, and on which side of it. */
  readonly host: number;
  readonly side: "above" | "below" | undefined;
}

/** A piece of a flow between neighbouring layers. */
export interface Piece {
  readonly flow: number;
  readonly left: number;
  readonly right: number;
  /** How far below the middle of the left item it leaves. */
  readonly offset: number;
}

export interface Network {
  readonly items: Item[];
  readonly layers: number[][];
  readonly pieces: Piece[];
  readonly flows: readonly LayoutFlow[];
  /** The items a flow passes, from its source to its target. */
  readonly courses: number[][];
  /** Flows that close a loop: they run to the left. */
  readonly isBack: boolean[];
  readonly itemOf: ReadonlyMap<Id, number>;
}

const labelRoom = 9;

/**
 * Nodes in layers, with a place in every layer that a flow passes. A flow that closes a loop begins above or below its source
 * and ends above or below its target, right beside them, so that it reaches both by an upright piece and runs back between.
 * Passes: layers; places; sides of flows back.
 */
export function networkOf(nodes: readonly LayoutNode[], flows: readonly LayoutFlow[]): Network {
  const layering = layersOf(
    nodes.map((node) => node.id),
    flows,
  );
  const layer = tightened(nodes, flows, layering);
  const items: Item[] = [];
  const layers: number[][] = [];
  const itemOf = new Map<Id, number>();
  const put = (item: Omit<Item, "at">): number => {
    const at = items.length;
    items.push({ ...item, at });
    while (layers.length <= item.layer) layers.push([]);
    layers[item.layer]?.push(at);
    return at;
  };
  const byId = new Map(nodes.map((node) => [node.id, node]));
  for (const id of asTold(layering.order, flows)) {
    const node = byId.get(id) as LayoutNode;
    const half = node.height / 2;
    itemOf.set(
      id,
      put({
        layer: layer.get(id) as number,
        lane: node.lane,
        node,
        flow: -1,
        above: half + node.above,
        below: half + node.below,
        host: -1,
        side: undefined,
      }),
    );
  }
  const loops = new Set(layering.loops);
  const pieces: Piece[] = [];
  const courses: number[][] = [];
  const isBack: boolean[] = [];
  flows.forEach((flow, index) => {
    const [from, to] = [itemOf.get(flow.from) as number, itemOf.get(flow.to) as number];
    const back = loops.has(flow) || flow.from === flow.to;
    isBack.push(back);
    const source = items[from] as Item;
    const target = items[to] as Item;
    const above = flow.label && !back ? labelRoom : 0;
    const dummy = (at: number, lane: number, more: { host?: number; side?: "above" | "below" } = {}) =>
      put({ layer: at, lane, node: undefined, flow: index, above, below: above, host: -1, side: undefined, ...more });
    if (!back) {
      const course = [from];
      // A split sends its ways out at once; everything else changes the lane right before its target.
      const lane = source.node?.isRound || flow.exit ? target.lane : source.lane;
      for (let at = source.layer + 1; at < target.layer; at++) course.push(dummy(at, lane));
      course.push(to);
      courses.push(course);
      for (let at = 1; at < course.length; at++)
        pieces.push({
          flow: index,
          left: course[at - 1] as number,
          right: course[at] as number,
          offset: at === 1 ? (flow.exit?.y ?? 0) : 0,
        });
      return;
    }
    const side = sideFor(source.node as LayoutNode, target.node as LayoutNode, flow);
    const course = [to];
    for (let at = target.layer; at <= source.layer; at++) {
      const host = at === target.layer ? to : at === source.layer ? from : -1;
      course.push(dummy(at, at === source.layer ? source.lane : target.lane, { host, ...(host >= 0 && { side }) }));
    }
    course.push(from);
    courses.push(course.reverse());
    for (let at = course.length - 3; at >= 1; at--)
      pieces.push({ flow: index, left: course[at + 1] as number, right: course[at] as number, offset: 0 });
  });
  return { items, layers, pieces, flows, courses, isBack, itemOf };
}

/** The side on which a flow back runs: where neither end has something in the way, below for questions, whose name is above. */
function sideFor(source: LayoutNode, target: LayoutNode, flow: LayoutFlow): "above" | "below" {
  if (flow.exit) return "below";
  const above = Number(source.topFree) + Number(target.topFree);
  const below = Number(source.bottomFree) + Number(target.bottomFree);
  if (above !== below) return above > below ? "above" : "below";
  return source.isRound ? "below" : "above";
}

/** Nodes as one would tell them: each way to its end before the next, the main one first. */
function asTold(order: readonly Id[], flows: readonly LayoutFlow[]): Id[] {
  const outgoing = new Map<Id, LayoutFlow[]>(order.map((id) => [id, []]));
  for (const flow of flows) outgoing.get(flow.from)?.push(flow);
  const told = new Set<Id>();
  for (const start of order) {
    const stack = [start];
    for (let id = stack.pop(); id !== undefined; id = stack.pop()) {
      if (told.has(id)) continue;
      told.add(id);
      const ways = [...(outgoing.get(id) ?? [])].sort((a, b) => Number(b.isMain) - Number(a.isMain));
      for (const { to } of ways.reverse()) stack.push(to);
    }
  }
  return [...told];
}

/** What begins later than it must is moved right, next to what it leads to: a second start, say. */
function tightened(
  nodes: readonly LayoutNode[],
  flows: readonly LayoutFlow[],
  { layer, order, loops }: ReturnType<typeof layersOf>,
): Map<Id, number> {
  const tight = new Map(layer);
  const incoming = new Map<Id, number>();
  const outgoing = new Map<Id, Id[]>(nodes.map((node) => [node.id, []]));
  const closing = loops as ReadonlySet<unknown>;
  for (const flow of flows) {
    if (closing.has(flow) || flow.from === flow.to) continue;
    incoming.set(flow.to, (incoming.get(flow.to) ?? 0) + 1);
    outgoing.get(flow.from)?.push(flow.to);
  }
  for (const id of [...order].reverse()) {
    const next = outgoing.get(id) ?? [];
    if (next.length <= (incoming.get(id) ?? 0) || next.length === 0) continue;
    if ((incoming.get(id) ?? 0) > 0) continue;
    tight.set(id, Math.max(layer.get(id) as number, Math.min(...next.map((to) => tight.get(to) as number)) - 1));
  }
  return tight;
}
