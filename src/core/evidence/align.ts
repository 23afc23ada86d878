import type { Id } from "../model";
import type { Automaton } from "./automaton";

/** One move of an alignment: done as modelled, only in the log, or only in the model. */
export type AlignedMove =
  | { readonly kind: "both"; readonly step: Id; readonly at: number }
  | { readonly kind: "log"; readonly at: number }
  | { readonly kind: "model"; readonly step: Id };

export interface Alignment {
  readonly moves: readonly AlignedMove[];
  /** Moves on the log only and on visible steps of the model only. */
  readonly cost: number;
  /** Whether it is known to be the cheapest: false where the bound on what is looked at was met. */
  readonly isOptimal: boolean;
}

/** So many pairs of a state and a place in the trace are looked at. */
const mostLooked = 500_000;

/**
 * The cheapest way to lead a trace and a run of the model together: each move on one side only costs one, what both do and what nobody
 * sees costs nothing. A* over the product of the states of the model and the places of the trace (A. Adriansyah, "Aligning Observed and
 * Modeled Behavior", 2014), by buckets since costs are whole; the rest is bounded from below by the events that no step is called like,
 * and by how much longer the shortest way to an end is than what is left of the trace. Of moves that cost the same, what both do comes
 * first, then the model's. O(states × length) at worst.
 * @param labels the steps each event of the trace may be; none for an activity that the model does not have
 * @param distances by state: the fewest steps to an end, or fewer
 * @param run a shortest run, which stands for the model where the bound on what is looked at is met
 */
export function align(
  automaton: Automaton,
  labels: readonly (readonly Id[])[],
  distances: (state: number) => number,
  run: readonly Id[],
): Alignment {
  const length = labels.length;
  const strange = new Int32Array(length + 1);
  for (let at = length - 1; at >= 0; at--)
    strange[at] = (strange[at + 1] as number) + ((labels[at] as readonly Id[]).length === 0 ? 1 : 0);
  const bound = (state: number, at: number): number => {
    const unknown = strange[at] as number;
    const left = distances(state);
    return unknown + (Number.isFinite(left) ? Math.max(0, left - (length - at - unknown)) : 0);
  };
  const width = length + 1;
  const best = new Map<number, number>();
  const from = new Map<number, { readonly before: number; readonly move: AlignedMove | undefined }>();
  const buckets: number[][] = [];
  const put = (node: number, cost: number, before: number, move: AlignedMove | undefined) => {
    if (cost >= (best.get(node) ?? Number.POSITIVE_INFINITY)) return;
    best.set(node, cost);
    from.set(node, { before, move });
    const rank = cost + bound(Math.floor(node / width), node % width);
    buckets[rank] ??= [];
    (buckets[rank] as number[]).push(node);
  };
  for (const start of automaton.starts) if (start >= 0) put(start * width, 0, -1, undefined);
  const done = new Set<number>();
  let looked = 0;
  for (let rank = 0; rank < buckets.length; rank++) {
    const bucket = buckets[rank];
    while (bucket && bucket.length > 0) {
      const node = bucket.pop() as number;
      if (done.has(node)) continue;
      done.add(node);
      const [state, at] = [Math.floor(node / width), node % width];
      const cost = best.get(node) as number;
      if (at === length && automaton.isFinal(state)) return { moves: wayTo(node, from), cost, isOptimal: true };
      if (++looked > mostLooked) return allApart(labels, run);
      // What is put last is looked at first: what both do, then what is unseen, then the model's, then the log's.
      if (at < length) put(node + 1, cost + 1, node, { kind: "log", at });
      const edges = automaton.edges(state);
      for (const { step, to } of edges)
        if (step !== undefined) put(to * width + at, cost + 1, node, { kind: "model", step });
      for (const { step, to } of edges) if (step === undefined) put(to * width + at, cost, node, undefined);
      if (at < length)
        for (const { step, to } of edges)
          if (step !== undefined && (labels[at] as readonly Id[]).includes(step))
            put(to * width + at + 1, cost, node, { kind: "both", step, at });
    }
  }
  return allApart(labels, run);
}

function wayTo(
  node: number,
  from: ReadonlyMap<number, { readonly before: number; readonly move: AlignedMove | undefined }>,
): AlignedMove[] {
  const moves: AlignedMove[] = [];
  for (let here = node; here >= 0; ) {
    const step = from.get(here);
    if (!step) break;
    if (step.move) moves.push(step.move);
    here = step.before;
  }
  return moves.reverse();
}

/** The trace by itself and a shortest run by itself: what is always possible, and as dear as it gets. */
function allApart(labels: readonly (readonly Id[])[], run: readonly Id[]): Alignment {
  const moves: AlignedMove[] = [
    ...labels.map((_, at): AlignedMove => ({ kind: "log", at })),
    ...run.map((step): AlignedMove => ({ kind: "model", step })),
  ];
  return { moves, cost: moves.length, isOptimal: false };
}

/** The steps of a shortest run: what a trace without an event is aligned with. */
export const shortestRun = (automaton: Automaton, distances: (state: number) => number): readonly Id[] =>
  align(automaton, [], (state) => Math.max(distances(state), automaton.due(state)), []).moves.flatMap((move) =>
    move.kind === "model" ? [move.step] : [],
  );

/** States that are all looked at beforehand; of a process with more, the way to an end is not known. */
const mostKnown = 1_000;

/**
 * By state: the fewest steps that a log would show on the way to an end; infinite where none is come to. All states are looked at once,
 * then what leads to them backwards; where there are very many, 0 stands for what is not known. O(states + edges).
 */
export function distancesToEnd(automaton: Automaton): (state: number) => number {
  const back: { readonly from: number; readonly isSeen: boolean }[][] = [];
  const pending = [...automaton.starts].filter((state) => state >= 0);
  const known = new Set(pending);
  for (let state = pending.pop(); state !== undefined; state = pending.pop()) {
    if (known.size > mostKnown) return () => 0;
    for (const { step, to } of automaton.edges(state)) {
      back[to] ??= [];
      (back[to] as { from: number; isSeen: boolean }[]).push({ from: state, isSeen: step !== undefined });
      if (known.has(to)) continue;
      known.add(to);
      pending.push(to);
    }
  }
  const distance = new Map<number, number>();
  let ring = [...known].filter(automaton.isFinal);
  for (const state of ring) distance.set(state, 0);
  for (let steps = 0; ring.length > 0; steps++) {
    const next: number[] = [];
    // Unseen moves first: they lead no farther away.
    for (let state = ring.pop(); state !== undefined; state = ring.pop())
      for (const { from, isSeen } of back[state] ?? []) {
        const far = steps + (isSeen ? 1 : 0);
        if (far >= (distance.get(from) ?? Number.POSITIVE_INFINITY)) continue;
        distance.set(from, far);
        (isSeen ? next : ring).push(from);
      }
    ring = next.filter((state) => distance.get(state) === steps + 1);
  }
  return (state) => distance.get(state) ?? Number.POSITIVE_INFINITY;
}
