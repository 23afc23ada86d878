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

/** A run that ends in a fault: the state it begins in and its moves; a flow that holds two tokens then, or nothing moves any more. */
export interface FaultyRun {
  readonly begin: ScopeState;
  readonly moves: readonly Move[];
  readonly doubled?: number;
}

/** How many moves are made in all before giving up. */
const mostMoves = 30_000;
/** And fewer where each of them is a look at thousands of flows. */
const mostWork = 60_000_000;
/** A run as long as this goes round somewhere; another one is begun. */
const longestRun = 3_000;

/**
 * Plays runs by chance until one comes to a fault. Where states are too many to look at one by one, a part that runs twice, or a join
 * that waits for ever, is met by nearly every run that enters it, however many branches go on beside it. Finding none says nothing.
 * The choices are those of a fixed seed ("mulberry32", a public-domain generator; from memory), so the same net gives the same run.
 * Random testing of concurrent behaviour after: West, "Protocol validation by random state exploration", PSTV 1986; from memory.
 * O(moves × nodes).
 */
export function faultyRun(net: ScopeNet): FaultyRun | undefined {
  let seed = 0x1a2b3c4d;
  const random = (count: number) => {
    seed = (seed + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) % count;
  };
  const starts = initialStates(net);
  const inclusive = net.nodes.filter(({ kind }) => kind === "inclusive" || kind === "complex").length;
  const most = Math.min(mostMoves, Math.ceil(mostWork / ((net.flows.length + net.nodes.length) * (1 + 4 * inclusive))));
  for (let made = 0; made < most && starts.length > 0; ) {
    const begin = starts[random(starts.length)] as ScopeState;
    const moves: Move[] = [];
    let state = begin;
    for (; moves.length < longestRun && made < most; made++) {
      const possible = movesOf(net, state);
      if (possible.length === 0) {
        if (isOver(net, state)) break;
        return straightened(net, begin, moves);
      }
      const move = possible[random(possible.length)] as Move;
      state = afterMove(net, state, move);
      moves.push(move);
      const doubled = move.give.find((flow) => (state[flow] as number) > 1);
      if (doubled !== undefined) return { ...straightened(net, begin, moves), doubled };
    }
  }
  return undefined;
}

/** The same run without the rounds that lead back to where it was. */
function straightened(net: ScopeNet, begin: ScopeState, moves: readonly Move[]): FaultyRun {
  const path: { readonly key: string; readonly move: Move | undefined }[] = [
    { key: keyOfState(begin), move: undefined },
  ];
  const at = new Map([[path[0]?.key as string, 0]]);
  let state = begin;
  for (const move of moves) {
    state = afterMove(net, state, move);
    const key = keyOfState(state);
    const before = at.get(key);
    if (before === undefined) {
      at.set(key, path.length);
      path.push({ key, move });
    } else for (const gone of path.splice(before + 1)) at.delete(gone.key);
  }
  return { begin, moves: path.flatMap((one) => one.move ?? []) };
}
