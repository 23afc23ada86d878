import { cutOf, splitLog } from "./cuts";
import { followGraph, type Names } from "./followGraph";
import { block, nothing, type ProcessTree, step } from "./processTree";

/**
 * A process that a log tells of, made of blocks, so that it is sound whatever the log is: the inductive miner (S. Leemans, D. Fahland, W.
 * van der Aalst, 2013), with a threshold below which what seldom follows is not looked at (2014; here at first, and not only where nothing else helps). Without a threshold every trace fits it.
 * @param threshold 0 to 1: the share of what follows most often that the rest has to reach
 * O(levels × (events + activities³)).
 */
export function discover(traces: readonly Names[], threshold = 0): ProcessTree {
  const done = traces.filter((trace) => trace.length > 0);
  const empty = traces.length - done.length;
  if (done.length === 0) return nothing;
  if (empty > traces.length * threshold) return block("choice", [discover(done, threshold), nothing]);
  const activities = new Set(done.flat());
  const [only] = activities;
  if (activities.size === 1 && only !== undefined)
    return done.every(({ length }) => length === 1) ? step(only) : { kind: "loop", parts: [step(only), nothing] };
  const cut = (threshold > 0 ? cutOf(followGraph(done, threshold)) : undefined) ?? cutOf(followGraph(done));
  if (cut) {
    const parts = splitLog(done, cut).map((part) => discover(part, threshold));
    return cut.kind === "loop" ? { kind: "loop", parts } : block(cut.kind, parts);
  }
  return onceEach(done, threshold) ?? again(done, threshold) ?? anything(activities);
}

/** What each trace has just once is done beside all else. */
function onceEach(traces: readonly Names[], threshold: number): ProcessTree | undefined {
  const [first = []] = traces;
  const once = first.find((name) => traces.every((trace) => trace.filter((one) => one === name).length === 1));
  if (once === undefined) return undefined;
  const rest = traces.map((trace) => trace.filter((name) => name !== once));
  return block("parallel", [step(once), discover(rest, threshold)]);
}

/** Traces that begin anew in their midst are several rounds of the same. */
function again(traces: readonly Names[], threshold: number): ProcessTree | undefined {
  const { starts, ends } = followGraph(traces);
  const rounds = traces.flatMap((trace) => {
    const found: string[][] = [[]];
    for (const [at, name] of trace.entries()) {
      if (at > 0 && starts.has(name) && ends.has(trace[at - 1] as string)) found.push([]);
      (found.at(-1) as string[]).push(name);
    }
    return found;
  });
  return rounds.length > traces.length ? { kind: "loop", parts: [discover(rounds, threshold), nothing] } : undefined;
}

/** Where no order is to be seen: any of them, any number of times. */
const anything = (activities: ReadonlySet<string>): ProcessTree => ({
  kind: "loop",
  parts: [block("choice", [...activities].map(step)), nothing],
});
