import { components, type FollowGraph, type Names } from "./followGraph";

/** How a log falls apart: the kind of block, and the activities of each of its parts. */
export interface Cut {
  readonly kind: "choice" | "sequence" | "parallel" | "loop";
  readonly parts: readonly (readonly string[])[];
}

const followsIn =
  ({ follows }: FollowGraph) =>
  (one: string, other: string) =>
    follows.get(one)?.has(other) === true;

/**
 * The cut of a graph into parts, the first that there is of: a choice, a sequence, parallel parts, a loop (S. Leemans, D. Fahland, W. van
 * der Aalst, "Discovering Block-Structured Process Models from Event Logs: A Constructive Approach", 2013). O(activities³).
 */
export const cutOf = (graph: FollowGraph): Cut | undefined =>
  choiceCut(graph) ?? sequenceCut(graph) ?? parallelCut(graph) ?? loopCut(graph);

function choiceCut(graph: FollowGraph): Cut | undefined {
  const follows = followsIn(graph);
  const parts = components(graph.activities, (one, other) => follows(one, other) || follows(other, one));
  return parts.length > 1 ? { kind: "choice", parts } : undefined;
}

function sequenceCut(graph: FollowGraph): Cut | undefined {
  const reach = reachable(graph);
  const comesTo = (one: string, other: string) => reach.get(one)?.has(other) === true;
  // What leads to each other, or of which neither leads to the other, stands in one part.
  const parts = components(graph.activities, (one, other) => comesTo(one, other) === comesTo(other, one));
  if (parts.length < 2) return undefined;
  const first = (part: readonly string[]) => part[0] as string;
  parts.sort((a, b) => (comesTo(first(a), first(b)) ? -1 : 1));
  return { kind: "sequence", parts };
}

function reachable({ activities, follows }: FollowGraph): Map<string, Set<string>> {
  return new Map(
    activities.map((activity) => {
      const found = new Set<string>();
      const pending = [...(follows.get(activity)?.keys() ?? [])];
      for (let next = pending.pop(); next !== undefined; next = pending.pop()) {
        if (found.has(next)) continue;
        found.add(next);
        pending.push(...(follows.get(next)?.keys() ?? []));
      }
      return [activity, found] as const;
    }),
  );
}

function parallelCut(graph: FollowGraph): Cut | undefined {
  const follows = followsIn(graph);
  const parts = components(graph.activities, (one, other) => !(follows(one, other) && follows(other, one)));
  if (parts.length < 2) return undefined;
  // Each part begins and ends by itself: those that do not go to one that does.
  const isWhole = (part: readonly string[]) =>
    part.some((one) => graph.starts.has(one)) && part.some((one) => graph.ends.has(one));
  const whole = parts.filter(isWhole).map((part) => [...part]);
  const rest = parts.filter((part) => !isWhole(part)).flat();
  if (whole.length < 2) return undefined;
  (whole[0] as string[]).push(...rest);
  return { kind: "parallel", parts: whole };
}

function loopCut(graph: FollowGraph): Cut | undefined {
  const { activities, starts, ends } = graph;
  const follows = followsIn(graph);
  const body = new Set([...starts, ...ends]);
  const outside = activities.filter((one) => !body.has(one));
  const redo: string[][] = [];
  for (const part of components(outside, (one, other) => follows(one, other) || follows(other, one))) {
    const isLedInto = (from: ReadonlySet<string>) => (one: string) => [...from].some((other) => follows(other, one));
    const leadsOn = (to: ReadonlySet<string>) => (one: string) => [...to].some((other) => follows(one, other));
    // It is come to from ends alone, each of them; and leads to starts alone, each of them.
    const notEnds = new Set([...body].filter((one) => !ends.has(one)));
    const notStarts = new Set([...body].filter((one) => !starts.has(one)));
    const entered = part.filter(isLedInto(ends));
    const left = part.filter(leadsOn(starts));
    const isRedo =
      !part.some(isLedInto(notEnds)) &&
      !part.some(leadsOn(notStarts)) &&
      entered.length > 0 &&
      left.length > 0 &&
      entered.every((one) => [...ends].every((end) => follows(end, one))) &&
      left.every((one) => [...starts].every((start) => follows(one, start)));
    if (isRedo) redo.push(part);
    else for (const one of part) body.add(one);
  }
  return redo.length > 0 ? { kind: "loop", parts: [[...body], ...redo] } : undefined;
}

/** The log of each part of a cut. What does not keep to the cut, which was too seldom to count, is put where it does least harm. */
export function splitLog(traces: readonly Names[], { kind, parts }: Cut): Names[][] {
  const partOf = new Map(parts.flatMap((part, at) => part.map((name) => [name, at] as const)));
  const at = (name: string) => partOf.get(name) ?? 0;
  const found: Names[][] = parts.map(() => []);
  for (const trace of traces) {
    switch (kind) {
      case "choice": {
        // The part that most of it is of.
        const counts = parts.map((_, part) => trace.filter((name) => at(name) === part).length);
        const part = counts.indexOf(Math.max(...counts));
        (found[part] as Names[]).push(trace.filter((name) => at(name) === part));
        break;
      }
      case "sequence":
      case "parallel":
        for (const [part] of parts.entries()) (found[part] as Names[]).push(trace.filter((name) => at(name) === part));
        break;
      case "loop": {
        let [part, stretch] = [0, [] as string[]];
        const close = () => (found[part] as Names[]).push(stretch);
        for (const name of trace) {
          if (at(name) !== part) {
            close();
            // Between two that are done again the first is done once, seen or not.
            if (part !== 0 && at(name) !== 0) (found[0] as Names[]).push([]);
            [part, stretch] = [at(name), []];
          }
          stretch.push(name);
        }
        close();
        if (part !== 0) (found[0] as Names[]).push([]);
      }
    }
  }
  return found;
}
