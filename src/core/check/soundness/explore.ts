import type { Id } from "../../model";
import {
  afterMove,
  initialStates,
  isOver,
  keyOfState,
  type Move,
  movesOf,
  type ScopeNet,
  type ScopeState,
} from "../../tokens";
import type { ReducedNet } from "./reduce";
import { type FaultyRun, faultyRun } from "./sampleRuns";

/** A case that is stuck: the nodes its tokens wait at, the flows that others would have to come on, and the run that leads there. */
export interface Stuck {
  readonly waiting: readonly Id[];
  readonly awaited: readonly Id[];
  readonly witness: readonly Id[];
}

/** What a scope does, as far as its states were looked at. */
export interface Behaviour {
  readonly states: number;
  /** Whether all states were seen; where not, only what was found is known. */
  readonly complete: boolean;
  readonly canComplete: boolean;
  /** A state in which nothing moves though tokens are left. */
  readonly deadlock?: Stuck;
  readonly livelock?: { readonly within: readonly Id[]; readonly witness: readonly Id[] };
  /** Two tokens on one flow: the first such flow, by its place in the whole net, and the run. */
  readonly doubled?: { readonly flow: number; readonly witness: readonly Id[] };
  /** Flow nodes that some run passes. */
  readonly reached: ReadonlySet<Id>;
}

interface Seen {
  readonly state: ScopeState;
  readonly from: number;
  readonly move: Move | undefined;
  readonly next: number[];
}

/** More tokens on a flow than this tell nothing new. */
const mostTokens = 2;
/** Once a fault is found the answer is known; what else there is is looked for a while longer. */
const statesAfterFault = 1_000;
/** After so many states without a fault runs are played by chance as well: among many branches they come to a fault sooner. */
const statesBeforeRuns = 2_000;

/**
 * So much work on one scope, in numbers of states looked at: with thousands of flows a single state is large, and an inclusive join
 * looks along all of them.
 */
const mostWork = 120_000_000;
/** So many numbers are kept of states at most: some 150 MB with what they are found by. */
const mostKept = 24_000_000;

/**
 * Looks at every state a net can come to, nearest first, so that the runs it finds are the shortest.
 * @param bound how many states are looked at, at most
 * O(states × moves).
 */
export function explore({ net, nodeRuns, flowRuns, ends }: ReducedNet, whole: ScopeNet, bound: number): Behaviour {
  const seen: Seen[] = [];
  const known = new Map<string, number>();
  const reached = new Set<Id>();
  let complete = true;
  let canComplete = false;
  let deadlock: number | undefined;
  let doubled: { at: number; flow: number } | undefined;
  let sampled: FaultyRun | undefined;
  const settled: number[] = [];
  const stateLength = net.flows.length + 2 * net.nodes.length;
  let limit = Math.min(bound, Math.max(100, Math.floor(mostKept / Math.max(1, stateLength))));
  const visit = (state: ScopeState, from: number, move: Move | undefined): number => {
    const key = keyOfState(state);
    const old = known.get(key);
    if (old !== undefined) return old;
    if (seen.length >= limit) {
      complete = false;
      return -1;
    }
    known.set(key, seen.length);
    seen.push({ state, from, move, next: [] });
    return seen.length - 1;
  };
  for (const state of initialStates(net)) {
    visit(state, -1, undefined);
    for (let flow = 0; flow < net.flows.length; flow++)
      if (state[flow] !== 0) for (const id of flowRuns[flow]?.covers ?? []) reached.add(id);
  }
  const inclusive = net.nodes.filter(({ kind }) => kind === "inclusive" || kind === "complex").length;
  let work = 0;
  for (let at = 0; at < seen.length; at++) {
    if (work > mostWork) {
      complete = false;
      break;
    }
    const { state, next } = seen[at] as Seen;
    const moves = movesOf(net, state);
    work += state.length * (moves.length + 1 + 4 * inclusive);
    if (at === statesBeforeRuns && deadlock === undefined && !doubled) {
      sampled = faultyRun(net);
      if (sampled) limit = Math.min(limit, at + statesAfterFault);
    }
    if (moves.length === 0) {
      settled.push(at);
      if (isOver(net, state)) canComplete = true;
      else {
        deadlock ??= at;
        limit = Math.min(limit, at + statesAfterFault);
      }
    }
    for (const move of moves) {
      for (const id of nodeRuns[move.node]?.covers ?? []) reached.add(id);
      for (const flow of move.give) for (const id of flowRuns[flow]?.covers ?? []) reached.add(id);
      const after = afterMove(net, state, move);
      const crowded = move.give.find((flow) => (after[flow] as number) > 1);
      if (crowded !== undefined && (after[crowded] as number) > mostTokens) continue;
      const index = visit(after, at, move);
      if (index < 0) continue;
      next.push(index);
      if (crowded !== undefined && !doubled) {
        doubled = { at: index, flow: crowded };
        limit = Math.min(limit, index + statesAfterFault);
      }
    }
  }
  /** A run in the elements of the whole net. */
  const run = (begin: ScopeState, moves: readonly Move[]): Id[] => [
    ...net.flows.flatMap((_, flow) => (begin[flow] !== 0 ? (flowRuns[flow]?.run ?? []) : [])),
    ...moves.flatMap((move) => [
      ...(nodeRuns[move.node]?.run ?? []),
      ...move.give.flatMap((flow) => flowRuns[flow]?.run ?? []),
    ]),
  ];
  const runTo = (at: number): Id[] => {
    const moves: Move[] = [];
    let first = at;
    for (let here = at; here >= 0; here = (seen[here] as Seen).from) {
      const { move } = seen[here] as Seen;
      if (move) moves.unshift(move);
      first = here;
    }
    return run((seen[first] as Seen).state, moves);
  };
  const lost = complete ? neverSettling(seen, settled) : undefined;
  const byChance = deadlock === undefined && !doubled ? sampled : undefined;
  return {
    states: seen.length,
    complete,
    canComplete: canComplete || !complete,
    ...(deadlock !== undefined && {
      deadlock: { ...stuckIn(net, whole, ends, (seen[deadlock] as Seen).state), witness: runTo(deadlock) },
    }),
    ...(byChance &&
      byChance.doubled === undefined && {
        deadlock: {
          ...stuckIn(net, whole, ends, stateAfter(net, byChance)),
          witness: run(byChance.begin, byChance.moves),
        },
      }),
    ...(doubled && { doubled: { flow: ends[doubled.flow]?.first ?? 0, witness: runTo(doubled.at) } }),
    ...(byChance?.doubled !== undefined && {
      doubled: { flow: ends[byChance.doubled]?.first ?? 0, witness: run(byChance.begin, byChance.moves) },
    }),
    ...(lost !== undefined && {
      livelock: { within: waitingAt(net, whole, ends, (seen[lost] as Seen).state), witness: runTo(lost) },
    }),
    reached,
  };
}

/** The state a sampled run ends in. */
const stateAfter = (net: ScopeNet, { begin, moves }: FaultyRun): ScopeState =>
  moves.reduce((state, move) => afterMove(net, state, move), begin);

/** The nearest state from which none is reached in which nothing moves any more. */
function neverSettling(seen: readonly Seen[], settled: readonly number[]): number | undefined {
  const back: number[][] = seen.map(() => []);
  for (const [at, { next }] of seen.entries()) for (const to of next) back[to]?.push(at);
  const settles = new Uint8Array(seen.length);
  const queue = [...settled];
  for (const at of queue) settles[at] = 1;
  for (let head = 0; head < queue.length; head++)
    for (const before of back[queue[head] as number] as number[])
      if (settles[before] === 0) {
        settles[before] = 1;
        queue.push(before);
      }
  const at = settles.indexOf(0);
  return at < 0 ? undefined : at;
}

/** The nodes that tokens of a state stand before. */
function waitingAt(net: ScopeNet, whole: ScopeNet, ends: ReducedNet["ends"], state: ScopeState): Id[] {
  const found = new Set<Id>();
  for (let flow = 0; flow < net.flows.length; flow++) {
    const last = whole.flows[ends[flow]?.last ?? -1];
    const node = last && whole.nodes[last.to];
    if (state[flow] !== 0 && node) found.add(node.id);
  }
  return [...found];
}

/** Where a state that is stuck waits, and on which flows nothing has come there. */
function stuckIn(net: ScopeNet, whole: ScopeNet, ends: ReducedNet["ends"], state: ScopeState): Omit<Stuck, "witness"> {
  const awaited = net.nodes.flatMap(({ ins }) =>
    ins.some((flow) => state[flow] !== 0) ? ins.filter((flow) => state[flow] === 0) : [],
  );
  return {
    waiting: waitingAt(net, whole, ends, state),
    awaited: awaited.flatMap((flow) => whole.flows[ends[flow]?.last ?? -1]?.id ?? []),
  };
}
