import type { Id } from "../../model";
import type { NetNode, ScopeNet } from "../../tokens";

/** A net with fewer nodes that behaves the same, and what of the process each part of it stands for. */
export interface ReducedNet {
  readonly net: ScopeNet;
  /** By node and by flow: the flow nodes that are passed there, in the order of a run, and all that can be. */
  readonly nodeRuns: readonly Passed[];
  readonly flowRuns: readonly Passed[];
  /** By flow: the first and the last sequence flow it stands for. */
  readonly ends: readonly { readonly first: number; readonly last: number }[];
}

export interface Passed {
  readonly run: readonly Id[];
  readonly covers: readonly Id[];
}

interface Edge {
  from: number;
  to: number;
  passed: Passed;
  first: number;
  last: number;
}
interface Vertex {
  readonly node: NetNode;
  passed: Passed;
  ins: Set<number>;
  outs: Set<number>;
}

const nothing: Passed = { run: [], covers: [] };
const inOrder = (...parts: readonly Passed[]): Passed => ({
  run: parts.flatMap((part) => part.run),
  covers: parts.flatMap((part) => part.covers),
});
const either = (one: Passed, other: Passed): Passed => ({ run: one.run, covers: [...one.covers, ...other.covers] });

/**
 * Takes out of a net what cannot go wrong: steps in a row, blocks whose split and join match, loops that are left where they are
 * entered. What is left is small wherever a model is made of blocks, and behaves the same: it gets stuck, runs twice, and ends
 * exactly where the whole net does.
 *
 * Rules, until none applies: a node with one way in and one way out becomes part of its flow; two flows between the same two
 * gateways of one kind become one; two gateways of one kind in a row, of which the first only joins or the second only splits,
 * become one (parallel joins stay apart); a flow from an exclusive gateway back to itself goes. They are the bottom-up reading of single-entry single-exit
 * fragments (Vanhatalo, Völzer, Leymann, "Faster and more focused control-flow analysis for business process models through SESE
 * decomposition", ICSOC 2007). O(flows × log flows) on models made of blocks.
 */
export function reduced(net: ScopeNet): ReducedNet {
  const edges = new Map<number, Edge>(
    net.flows.map(({ from, to }, at) => [at, { from, to, passed: nothing, first: at, last: at }]),
  );
  const vertices = new Map<number, Vertex>(
    net.nodes.map((node, at) => [
      at,
      { node, passed: { run: [node.id], covers: [node.id] }, ins: new Set(node.ins), outs: new Set(node.outs) },
    ]),
  );
  const queue = [...vertices.keys()];
  const queued = new Set(queue);
  const again = (...ids: readonly number[]) => {
    for (const id of ids)
      if (id >= 0 && !queued.has(id)) {
        queued.add(id);
        queue.push(id);
      }
  };
  for (let head = 0; head < queue.length; head++) {
    const at = queue[head] as number;
    queued.delete(at);
    const vertex = vertices.get(at);
    if (vertex) shrinkAt(at, vertex, vertices, edges, again);
  }
  return rebuilt(
    net,
    vertices,
    edges,
    net.entries.map((entry) => endedAtOnce(entry, vertices, edges)),
  );
}

/** What takes a single token and gives none: an end, or a step nothing follows. */
const isSink = ({ node, ins, outs }: Vertex) =>
  ins.size === 1 && outs.size === 0 && (node.kind === "end" || node.kind === "each") && node.host === undefined;

/** Of steps that begin together and end there, one stands for all. */
function endedAtOnce(entry: readonly number[], vertices: Map<number, Vertex>, edges: Map<number, Edge>): number[] {
  const kept: number[] = [];
  let first: { edge: Edge; sink: Vertex } | undefined;
  for (const flow of entry) {
    const edge = edges.get(flow) as Edge;
    const sink = vertices.get(edge.to);
    if (!sink || !isSink(sink)) kept.push(flow);
    else if (!first) {
      first = { edge, sink };
      kept.push(flow);
    } else {
      first.edge.passed = inOrder(first.edge.passed, edge.passed, sink.passed);
      edges.delete(flow);
      vertices.delete(edge.to);
    }
  }
  return kept;
}

type Again = (...ids: readonly number[]) => void;

function shrinkAt(
  at: number,
  vertex: Vertex,
  vertices: Map<number, Vertex>,
  edges: Map<number, Edge>,
  again: Again,
): void {
  for (const out of [...vertex.outs]) {
    const edge = edges.get(out) as Edge;
    if (edge.to === at && vertex.node.kind === "exclusive" && vertex.outs.size > 1 && vertex.ins.size > 1) {
      vertex.passed = either(vertex.passed, edge.passed);
      vertex.outs.delete(out);
      vertex.ins.delete(out);
      edges.delete(out);
      again(at);
    }
  }
  joinSinks(vertex, vertices, edges, again, at);
  joinDoubled(vertex, vertices, edges, again, at);
  if (absorbed(at, vertex, vertices, edges, again)) return;
  passedThrough(at, vertex, vertices, edges, again);
}

/** Ways that end right behind one node: tokens on them come together and go by themselves, so one way stands for all. */
function joinSinks(
  vertex: Vertex,
  vertices: Map<number, Vertex>,
  edges: Map<number, Edge>,
  again: Again,
  at: number,
): void {
  if (vertex.node.conditional.length > 0) return;
  let kept: { edge: Edge; sink: Vertex } | undefined;
  for (const out of [...vertex.outs]) {
    const edge = edges.get(out) as Edge;
    const sink = vertices.get(edge.to);
    if (!sink || !isSink(sink)) continue;
    if (!kept) {
      kept = { edge, sink };
      continue;
    }
    const isOne = vertex.node.kind === "exclusive";
    const passed = inOrder(edge.passed, sink.passed);
    kept.edge.passed = isOne ? either(kept.edge.passed, passed) : inOrder(kept.edge.passed, passed);
    vertex.outs.delete(out);
    vertices.delete(edge.to);
    edges.delete(out);
    again(at);
  }
}

const isBlock = (kind: NetNode["kind"]) => kind === "exclusive" || kind === "parallel" || kind === "inclusive";

/** Two flows from one gateway to another of its kind. */
function joinDoubled(
  vertex: Vertex,
  vertices: Map<number, Vertex>,
  edges: Map<number, Edge>,
  again: Again,
  at: number,
): void {
  if (!isBlock(vertex.node.kind)) return;
  const byTarget = new Map<number, number>();
  for (const out of [...vertex.outs]) {
    const edge = edges.get(out) as Edge;
    const target = vertices.get(edge.to);
    if (!target || edge.to === at || target.node.kind !== vertex.node.kind) continue;
    const kept = byTarget.get(edge.to);
    if (kept === undefined) {
      byTarget.set(edge.to, out);
      continue;
    }
    const twin = edges.get(kept) as Edge;
    twin.passed =
      vertex.node.kind === "exclusive" ? either(twin.passed, edge.passed) : inOrder(twin.passed, edge.passed);
    vertex.outs.delete(out);
    target.ins.delete(out);
    edges.delete(out);
    again(at, edge.to);
  }
}

/** Two gateways in a row that are one. */
function absorbed(
  at: number,
  vertex: Vertex,
  vertices: Map<number, Vertex>,
  edges: Map<number, Edge>,
  again: Again,
): boolean {
  const { kind } = vertex.node;
  if (kind !== "exclusive" && kind !== "parallel") return false;
  for (const out of vertex.outs) {
    const edge = edges.get(out) as Edge;
    const next = vertices.get(edge.to);
    if (!next || edge.to === at || next.node.kind !== kind || next.outs.size === 0) continue;
    // A parallel join fires before what it leads to can: whoever cannot be reached behind it, it can itself.
    if (next.ins.size > 1 && (vertex.outs.size > 1 || kind === "parallel")) continue;
    // The ways between the two would be a way from the one to itself, which an exclusive gateway has and a parallel one must keep.
    if (kind === "parallel" && [...next.outs].some((way) => edges.get(way)?.to === at)) continue;
    // What is a delay before a complex gateway stays one; see `passedThrough`.
    if ([...next.outs].some((way) => vertices.get((edges.get(way) as Edge).to)?.node.kind === "complex")) continue;
    vertex.outs.delete(out);
    edges.delete(out);
    next.ins.delete(out);
    if (next.ins.size > 0) {
      // Who comes by another way into the second has not passed the first.
      for (const way of vertex.ins) {
        const into = edges.get(way) as Edge;
        into.passed = inOrder(into.passed, vertex.passed, edge.passed);
      }
      vertex.passed = next.passed;
    } else vertex.passed = inOrder(vertex.passed, edge.passed, next.passed);
    for (const way of next.ins) {
      (edges.get(way) as Edge).to = at;
      vertex.ins.add(way);
    }
    for (const way of next.outs) {
      (edges.get(way) as Edge).from = at;
      vertex.outs.add(way);
    }
    vertices.delete(edge.to);
    again(
      at,
      ...[...vertex.ins].map((way) => (edges.get(way) as Edge).from),
      ...[...vertex.outs].map((way) => (edges.get(way) as Edge).to),
    );
    return true;
  }
  return false;
}

/** A node that lets each token through becomes part of its flow. */
function passedThrough(
  at: number,
  vertex: Vertex,
  vertices: Map<number, Vertex>,
  edges: Map<number, Edge>,
  again: Again,
): void {
  const { kind, host } = vertex.node;
  if ((kind !== "each" && !isBlock(kind)) || host !== undefined) return;
  if (vertex.ins.size !== 1 || vertex.outs.size !== 1) return;
  const [into] = vertex.ins as unknown as [number];
  const [out] = vertex.outs as unknown as [number];
  if (into === out) return;
  const first = edges.get(into) as Edge;
  const second = edges.get(out) as Edge;
  // A complex gateway goes off on what has come by then: a step before it is a delay that makes a difference.
  if (vertices.get(second.to)?.node.kind === "complex") return;
  first.passed = inOrder(first.passed, vertex.passed, second.passed);
  first.to = second.to;
  first.last = second.last;
  const target = vertices.get(second.to);
  target?.ins.delete(out);
  target?.ins.add(into);
  edges.delete(out);
  vertices.delete(at);
  again(first.from, second.to);
}

function rebuilt(
  net: ScopeNet,
  vertices: ReadonlyMap<number, Vertex>,
  edges: ReadonlyMap<number, Edge>,
  entries: readonly (readonly number[])[],
): ReducedNet {
  const nodeAt = new Map([...vertices.keys()].map((old, at) => [old, at]));
  const flowAt = new Map([...edges.keys()].map((old, at) => [old, at]));
  const flowsOf = (old: Iterable<number>) => [...old].map((flow) => flowAt.get(flow) as number);
  const left = [...edges.values()];
  return {
    net: {
      scope: net.scope,
      flows: left.map(({ from, to, last }) => ({
        id: net.flows[last]?.id,
        from: from < 0 ? -1 : (nodeAt.get(from) as number),
        to: nodeAt.get(to) as number,
      })),
      nodes: [...vertices.values()].map(({ node, ins, outs }) => {
        const { host, fallback, ...rest } = node;
        return {
          ...rest,
          ins: flowsOf(ins),
          outs: flowsOf(outs),
          conditional: flowsOf(node.conditional.filter((flow) => flowAt.has(flow))),
          ...(fallback !== undefined && flowAt.has(fallback) && { fallback: flowAt.get(fallback) as number }),
          ...(host !== undefined && { host: nodeAt.get(host) as number }),
        };
      }),
      entries: entries.map((entry) => flowsOf(entry)),
    },
    nodeRuns: [...vertices.values()].map(({ passed }) => passed),
    flowRuns: left.map(({ passed }) => passed),
    ends: left.map(({ first, last }) => ({ first, last })),
  };
}
