import { escapeAttribute } from "../xml";
import { countsIn, doneIn, type EventLog } from "./logs/eventLog";
import { medianOf } from "./overview";

/** An activity of a map, by its number. */
export interface MapNode {
  readonly name: string;
  readonly times: number;
}

/** What directly followed what; `start` and `end` stand for where cases begin and end. */
export interface MapEdge {
  readonly from: string | undefined;
  readonly to: string | undefined;
  readonly times: number;
  /** Milliseconds between the two, half of them; NaN without times, or from the start or to the end. */
  readonly median: number;
}

/** What happened, without a model: activities, and what directly followed what. */
export interface FollowMap {
  readonly nodes: readonly MapNode[];
  readonly edges: readonly MapEdge[];
  /** How many there are beside those that are shown. */
  readonly nodesLeft: number;
  readonly edgesLeft: number;
}

/** So many activities can be taken in at once. */
const mostNodes = 60;

/**
 * The map of a log. Of activities the commonest share is kept; cases are followed from one that is kept to the next, whatever lies between.
 * Of what follows what the commonest share is kept, and always what follows each activity most often and what it follows most often, so that
 * the map hangs together. O(events log events).
 * @param activities 0 to 1: of all activities
 * @param paths 0 to 1: of all pairs
 */
export function followMap(log: EventLog, activities: number, paths: number): FollowMap {
  const counts = countsIn(log);
  const { words } = log.activity;
  const times = new Uint32Array(words.length);
  for (let trace = 0; trace < log.from.length; trace++)
    for (const event of doneIn(log, trace, counts)) {
      const activity = log.activity.of[event] as number;
      times[activity] = (times[activity] as number) + 1;
    }
  const ranked = [...times.keys()]
    .filter((activity) => (times[activity] as number) > 0)
    .sort((one, other) => (times[other] as number) - (times[one] as number));
  const kept = ranked.slice(0, Math.min(mostNodes, Math.max(1, Math.ceil(ranked.length * activities))));
  const isKept = new Uint8Array(words.length);
  for (const activity of kept) isKept[activity] = 1;
  // One place beyond all activities stands for both the beginning and the end.
  const edge = words.length;
  const pairs = new Map<number, { times: number; took: number[] }>();
  const follow = (from: number, to: number, took: number) => {
    const key = from * (edge + 1) + to;
    const own = pairs.get(key) ?? { times: 0, took: [] };
    own.times++;
    if (!Number.isNaN(took)) own.took.push(took);
    pairs.set(key, own);
  };
  for (let trace = 0; trace < log.from.length; trace++) {
    let [before, at] = [edge, Number.NaN];
    for (const event of doneIn(log, trace, counts)) {
      const activity = log.activity.of[event] as number;
      if (!isKept[activity]) continue;
      const now = log.at[event] as number;
      follow(before, activity, now - at);
      [before, at] = [activity, now];
    }
    if (before !== edge) follow(before, edge, Number.NaN);
  }
  const all = [...pairs]
    .map(([key, own]) => ({ from: Math.floor(key / (edge + 1)), to: key % (edge + 1), ...own }))
    .sort((one, other) => other.times - one.times);
  const shown = new Set(all.slice(0, Math.ceil(all.length * paths)));
  for (const activity of kept) {
    const out = all.find(({ from, to }) => from === activity && to !== activity);
    const into = all.find(({ from, to }) => to === activity && from !== activity);
    for (const one of [out, into]) if (one) shown.add(one);
  }
  const nameOf = (place: number) => (place === edge ? undefined : words[place]);
  return {
    nodes: kept.map((activity) => ({ name: words[activity] as string, times: times[activity] as number })),
    edges: all
      .filter((one) => shown.has(one))
      .map(({ from, to, times: often, took }) => ({
        from: nameOf(from),
        to: nameOf(to),
        times: often,
        median: medianOf(took),
      })),
    nodesLeft: ranked.length - kept.length,
    edgesLeft: all.length - shown.size,
  };
}

/** The ids that a map has as a process: of its activities and of what follows what, by their places. */
export const mapIds = { node: (place: number) => `done-${place + 1}`, edge: (place: number) => `then-${place + 1}` };

/** A map as a process without a drawing, for the layout that every drawing has. It is looked at, and not played. */
export function mapFile({ nodes, edges }: FollowMap): string {
  const places = new Map(nodes.map(({ name }, place) => [name, mapIds.node(place)]));
  const tasks = nodes.map(({ name }, place) => `<task id="${mapIds.node(place)}" name="${escapeAttribute(name)}"/>`);
  const flows = edges.map(({ from, to }, place) => {
    const source = from === undefined ? "begin" : places.get(from);
    const target = to === undefined ? "end" : places.get(to);
    return `<sequenceFlow id="${mapIds.edge(place)}" sourceRef="${source}" targetRef="${target}"/>`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>
<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="definitions" targetNamespace="urn:map"><process id="map"><startEvent id="begin"/>${tasks.join("")}<endEvent id="end"/>${flows.join("")}</process></definitions>
`;
}
