import type { NetNode, ScopeNet } from "./scopeNet";

/**
 * Where the tokens of a scope are: how many on each flow, which activities are under way, which events have gone off in the present
 * activation. One number each, wide enough for
 * more tokens than steps can be played, in the order of the net; the same numbers are the same state.
 */
export type ScopeState = Uint32Array;

/** As many ways in of a complex gateway as one number can tell apart; it waits for those behind them like for any other. */
const mostHad = 32;

/** One thing that can happen: a node takes tokens and gives others. */
export interface Move {
  readonly node: number;
  readonly take: readonly number[];
  readonly give: readonly number[];
  /** An activity that comes under way, or ends, by it; an event that goes off. */
  readonly start?: number;
  readonly stop?: number;
  readonly fire?: number;
  /** For a complex gateway: the ways in it has had a token from since it was last at rest, a bit each. */
  readonly had?: number;
  /** All other tokens of the scope go. */
  readonly clears?: boolean;
  /** A token goes from one flow to another, and nothing else. */
  readonly goesOn: boolean;
}

/** A move. All have the same fields, whatever they do: where millions are made, what looks at them need not find out which it has. */
export function moveOf(
  node: number,
  take: readonly number[],
  give: readonly number[],
  { start, stop, fire, had, clears }: Omit<Partial<Move>, "node" | "take" | "give" | "goesOn"> = {},
): Move {
  const isMore =
    start !== undefined || stop !== undefined || fire !== undefined || had !== undefined || clears === true;
  return {
    node,
    take,
    give,
    start,
    stop,
    fire,
    had,
    clears,
    goesOn: !isMore && take.length === 1 && give.length === 1,
  };
}

/** A set of ways out has this many members at most to be looked at in all combinations. */
const mostCombined = 6;

const active = (net: ScopeNet, node: number) => net.flows.length + node;
const fired = (net: ScopeNet, node: number) => net.flows.length + net.nodes.length + node;

/** A key for tables of states: different states have different keys. Nearly all numbers are small and take one letter. */
export function keyOfState(state: ScopeState): string {
  let key = "";
  for (const count of state)
    key += count < 0xffff ? String.fromCharCode(count) : String.fromCharCode(0xffff, count >>> 16, count & 0xffff);
  return key;
}

/** The states a scope can begin in. */
export function initialStates(net: ScopeNet): ScopeState[] {
  return net.entries.map((entry) => {
    const state = new Uint32Array(net.flows.length + 2 * net.nodes.length);
    for (const flow of entry) state[flow] = 1;
    return state;
  });
}

/** Whether a scope has come to its end: no token is left, and nothing is under way. */
export function isOver(net: ScopeNet, state: ScopeState): boolean {
  for (let at = 0; at < net.flows.length + net.nodes.length; at++) if (state[at] !== 0) return false;
  return true;
}

/** Everything that can happen next. O(nodes + moves), and for inclusive gateways O(their paths). */
export function movesOf(net: ScopeNet, state: ScopeState): Move[] {
  const moves: Move[] = [];
  for (let at = 0; at < net.nodes.length; at++) for (const move of movesAt(net, state, at)) moves.push(move);
  return moves;
}

/** What a node does with the token on one of its ways in, where that depends on nothing else; undefined where it does. */
export function passesOf(net: ScopeNet, at: number, flow: number): readonly Move[] | undefined {
  const node = net.nodes[at];
  switch (node?.kind) {
    case "each":
      return waysOut(node).map((give) => moveOf(at, [flow], give));
    case "exclusive":
      return node.outs.length === 0 ? [moveOf(at, [flow], [])] : node.outs.map((way) => moveOf(at, [flow], [way]));
    case "end":
      return [moveOf(at, [flow], [])];
    case "clear":
      return [moveOf(at, [flow], [], { clears: true })];
    case "held":
      return [moveOf(at, [flow], [], { start: at })];
    default:
      return undefined;
  }
}

/** What a parallel or inclusive gateway does with a token on every way in; an inclusive one also with those on some, when no more can come. */
export function joinsOf(net: ScopeNet, at: number, waiting = net.nodes[at]?.ins ?? []): readonly Move[] {
  const node = net.nodes[at];
  if (node === undefined || waiting.length === 0) return [];
  if (node.kind === "parallel") return [moveOf(at, waiting, node.outs)];
  return node.kind === "inclusive" ? someWays(node).map((give) => moveOf(at, waiting, give)) : [];
}

/** What an event at an edge does when it goes off. */
export function firesOf(net: ScopeNet, at: number): readonly Move[] {
  const node = net.nodes[at];
  const { host } = node ?? {};
  if (node === undefined || host === undefined) return [];
  return waysOut(node).map((give) => moveOf(at, [], give, node.interrupts ? { stop: host } : { fire: at }));
}

/** How an activity that is under way can end. */
export function finishesOf(net: ScopeNet, at: number): readonly Move[] {
  const node = net.nodes[at];
  if (node?.kind !== "held" || !node.canComplete) return [];
  return waysOut(node).map((give) => moveOf(at, [], give, { stop: at }));
}

/** What one node can do. O(its ways), for inclusive and complex gateways O(their paths). */
export function movesAt(net: ScopeNet, state: ScopeState, at: number): readonly Move[] {
  const node = net.nodes[at];
  if (!node) return [];
  const waiting = node.ins.filter((flow) => state[flow] !== 0);
  switch (node.kind) {
    case "each":
    case "exclusive":
    case "end":
    case "clear":
      return waiting.flatMap((flow) => passesOf(net, at, flow) ?? []);
    case "held":
      return state[active(net, at)] === 0
        ? waiting.flatMap((flow) => passesOf(net, at, flow) ?? [])
        : finishesOf(net, at);
    case "parallel":
      return waiting.length === node.ins.length ? joinsOf(net, at) : [];
    case "inclusive":
      return waiting.length > 0 && noMoreCanCome(net, state, node.ins, at, waiting) ? joinsOf(net, at, waiting) : [];
    case "complex":
      return complexMoves(net, state, node, at, waiting);
    case "called":
      return calledMoves(net, state, node, at);
  }
}

/**
 * A complex gateway at rest goes off on the ways in that have a token. After that it takes one from each other way, as soon as no
 * more can come, and is at rest again; a second token on a way it has had waits until then.
 */
function complexMoves(net: ScopeNet, state: ScopeState, node: NetNode, at: number, waiting: readonly number[]): Move[] {
  if (waiting.length === 0) return [];
  const had = state[fired(net, at)] as number;
  if (had === 0) {
    if (waiting.length < Math.min(node.needs ?? 1, node.ins.length)) return [];
    const all = waiting.length === node.ins.length;
    const now = all
      ? 0
      : node.ins.reduce((bits, flow, bit) => bits | (bit < mostHad && waiting.includes(flow) ? 1 << bit : 0), 0) >>> 0;
    return someWays(node).map((give) => moveOf(at, waiting, give, { had: now }));
  }
  const open = node.ins.filter((_, bit) => bit >= mostHad || ((had >>> bit) & 1) === 0);
  const late = open.filter((flow) => waiting.includes(flow));
  return noMoreCanCome(net, state, open, at, late) ? [moveOf(at, late, [], { had: 0 })] : [];
}

/** Boundary events go off while their host is under way, event sub-processes while their scope is alive; each once. */
function calledMoves(net: ScopeNet, state: ScopeState, node: NetNode, at: number): readonly Move[] {
  const { host } = node;
  if (host !== undefined) {
    return state[active(net, host)] === 0 || state[fired(net, at)] !== 0 ? [] : firesOf(net, at);
  }
  if (state[active(net, at)] !== 0) return node.canComplete ? [moveOf(at, [], [], { stop: at })] : [];
  if (state[fired(net, at)] !== 0 || isOver(net, state)) return [];
  return [moveOf(at, [], [], { start: at, fire: at, ...(node.interrupts && { clears: true }) })];
}

/** What a node that sends a token on every way gives: all but those a condition may leave out. */
function waysOut(node: NetNode): readonly (readonly number[])[] {
  if (node.conditional.length === 0) return [node.outs];
  const always = node.outs.filter((way) => !node.conditional.includes(way) && way !== node.fallback);
  const none = node.fallback !== undefined ? [[node.fallback]] : always.length > 0 ? [[]] : [];
  return [...none, ...someOf(node.conditional)].map((chosen) => [...always, ...chosen]);
}

/** What a gateway that chooses some of its ways may give. */
const someWays = ({ outs }: NetNode): readonly (readonly number[])[] => (outs.length === 0 ? [[]] : someOf(outs));

const sets = new WeakMap<readonly number[], readonly (readonly number[])[]>();

/** All non-empty sets of some ways; of very many, each alone, each two, and all together. Found out once for a list of ways. */
function someOf(ways: readonly number[]): readonly (readonly number[])[] {
  const known = sets.get(ways) ?? setsOf(ways);
  sets.set(ways, known);
  return known;
}

function setsOf(ways: readonly number[]): number[][] {
  if (ways.length <= mostCombined)
    return Array.from({ length: 2 ** ways.length - 1 }, (_, at) => ways.filter((__, bit) => ((at + 1) >> bit) & 1));
  const pairs = ways.flatMap((one, at) => ways.slice(at + 1).map((other) => [one, other]));
  return [...ways.map((way) => [way]), ...pairs, [...ways]];
}

/**
 * The rule of the inclusive join: for every token from which a way leads to an empty flow into the gateway without visiting it,
 * there is one as well to a flow that has a token (BPMN 2.0, 13.3.3). An activity under way counts as a token before it.
 * O(flows + nodes), what leads where being found out once for a net.
 */
export function noMoreCanCome(
  net: ScopeNet,
  state: ScopeState,
  ins: readonly number[],
  at: number,
  waiting: readonly number[],
): boolean {
  if (waiting.length === ins.length) return true;
  const { ways, leads, words } = leadsInto(net, at);
  const places = net.flows.length + net.nodes.length;
  // As nearly all gateways are: their ways in fit into one number.
  if (words === 1) {
    let empty = 0;
    let there = 0;
    for (const flow of ins)
      if (waiting.includes(flow)) there |= 1 << ways.indexOf(flow);
      else empty |= 1 << ways.indexOf(flow);
    for (let place = 0; place < places; place++) {
      if (state[place] === 0) continue;
      const bits = leads[place] as number;
      if ((bits & empty) !== 0 && (bits & there) === 0) return false;
    }
    return true;
  }
  const [empty, there] = [new Uint32Array(words), new Uint32Array(words)];
  for (const flow of ins) {
    const way = ways.indexOf(flow);
    const bits = waiting.includes(flow) ? there : empty;
    bits[way >>> 5] = (bits[way >>> 5] as number) | (1 << (way & 31));
  }
  for (let place = 0; place < places; place++) {
    if (state[place] === 0) continue;
    let [toEmpty, toThere] = [0, 0];
    for (let word = 0; word < words; word++) {
      const bits = leads[place * words + word] as number;
      toEmpty |= bits & (empty[word] as number);
      toThere |= bits & (there[word] as number);
    }
    if (toEmpty !== 0 && toThere === 0) return false;
  }
  return true;
}

/** For one gateway: its ways in, and for every flow, and then every node, which of them it leads to without visiting the gateway, a bit each. */
interface Leads {
  readonly ways: readonly number[];
  readonly leads: Uint32Array;
  readonly words: number;
}
const leadsOf = new WeakMap<ScopeNet, Map<number, Leads>>();

function leadsInto(net: ScopeNet, at: number): Leads {
  const ofNet = leadsOf.get(net) ?? new Map<number, Leads>();
  leadsOf.set(net, ofNet);
  const known = ofNet.get(at);
  if (known) return known;
  const ways = net.nodes[at]?.ins ?? [];
  const words = Math.max(1, Math.ceil(ways.length / 32));
  const leads = new Uint32Array((net.flows.length + net.nodes.length) * words);
  for (const [way, flow] of ways.entries()) {
    const found = before(net, flow, at);
    const mark = (place: number) => {
      const word = place * words + (way >>> 5);
      leads[word] = (leads[word] as number) | (1 << (way & 31));
    };
    for (const one of found.flows) mark(one);
    for (const one of found.nodes) mark(net.flows.length + one);
  }
  const made = { ways, leads, words };
  ofNet.set(at, made);
  return made;
}

/** Flows and nodes from which a flow can be reached without visiting a node; the flow itself included. */
function before(net: ScopeNet, flow: number, without: number): { flows: Set<number>; nodes: Set<number> } {
  const found = { flows: new Set([flow]), nodes: new Set<number>() };
  const queue = [flow];
  for (let at = 0; at < queue.length; at++) {
    const from = net.flows[queue[at] as number]?.from ?? -1;
    if (from < 0 || from === without || found.nodes.has(from)) continue;
    found.nodes.add(from);
    for (const next of net.nodes[from]?.ins ?? [])
      if (!found.flows.has(next)) {
        found.flows.add(next);
        queue.push(next);
      }
  }
  return found;
}

/** The state after a move. */
export function afterMove(net: ScopeNet, state: ScopeState, move: Move): ScopeState {
  const next = state.slice();
  for (const flow of move.take) next[flow] = (next[flow] as number) - 1;
  if (move.clears) next.fill(0, 0, net.flows.length + net.nodes.length);
  if (move.stop !== undefined) {
    next[active(net, move.stop)] = 0;
    // Its next activation is another one, in which its events may go off again.
    for (const [at, node] of net.nodes.entries()) if (node.host === move.stop) next[fired(net, at)] = 0;
  }
  if (move.start !== undefined) next[active(net, move.start)] = 1;
  if (move.had !== undefined) next[fired(net, move.node)] = move.had;
  if (move.fire !== undefined) next[fired(net, move.fire)] = 1;
  for (const flow of move.give) next[flow] = (next[flow] as number) + 1;
  return next;
}
