import { boundaryEventsOf, flowNodesIn, type Id, incomingOf, isSubProcess, type Model, outgoingOf } from "../model";
import type { Act } from "./acts";
import type { WalkChoices } from "./choices";
import { Player } from "./player";
import { reach, type Way } from "./reach";
import { standingAt } from "./standing";
import type { World } from "./world";

export interface SuggestedWalk {
  readonly choices: WalkChoices;
  readonly outcome: "completed" | "stuck" | "stopped";
  /** The sequence flows it goes along, and the first of them that no walk before it does. */
  readonly covers: readonly Id[];
  readonly because: Id;
}

export interface Suggestion {
  readonly walks: readonly SuggestedWalk[];
  /** Sequence flows that none of them goes along. */
  readonly missed: readonly Id[];
  /** Whether no case at all can go along those; false where a case can be in more states than were looked at. */
  readonly isKnown: boolean;
}

/** A walk that has not ended by then goes in circles. */
const mostSteps = 2_000;

/**
 * A set of walks that together go along every sequence flow of a process (branch coverage, common practice in testing). The first
 * takes the usual way; each further one heads for the nearest flow not yet passed; what none comes to that way is searched for
 * among all that a case can do (`reach`), so that a flow is missed only where no case goes along it, or the bound of that search
 * was met. Those that others make needless are left out. The set is small but not proven to be the smallest.
 * O(walks × steps × nodes), and the search.
 */
export function suggestWalks(model: Model, process: Id): Suggestion {
  const world: World = { model };
  const graph = graphOf(model, process);
  const all = new Set(graph.flows);
  const open = new Set(all);
  const found: SuggestedWalk[] = [];
  const take = (walked: ReturnType<typeof headFor>) => {
    const covers = [...new Set(walked.playing.log.flatMap((line) => line.flows))].filter((flow) => all.has(flow));
    const because = covers.find((flow) => open.has(flow));
    if (because === undefined) return false;
    found.push({ choices: walked.playing.told, outcome: walked.outcome, covers, because });
    for (const flow of covers) open.delete(flow);
    return true;
  };
  while (open.size > 0) if (!take(headFor(world, process, graph, found.length === 0 ? new Set() : open))) break;
  const searched = open.size > 0 ? reach(world, process, graph.starts, open) : undefined;
  for (const [flow, way] of searched?.ways ?? []) if (open.has(flow)) take(headFor(world, process, graph, open, way));
  return { walks: withoutNeedless(found), missed: [...open], isKnown: searched?.isKnown ?? true };
}

/** Later walks often pass all that an earlier one was made for. */
function withoutNeedless(walks: readonly SuggestedWalk[]): SuggestedWalk[] {
  const kept = [...walks];
  for (const walk of [...walks].reverse()) {
    const others = kept.filter((one) => one !== walk);
    const byOthers = new Set(others.flatMap((one) => one.covers));
    if (others.length > 0 && walk !== walks[0] && walk.covers.every((flow) => byOthers.has(flow)))
      kept.splice(kept.indexOf(walk), 1);
  }
  return kept;
}

interface Graph {
  readonly flows: readonly Id[];
  readonly starts: readonly Id[];
  /** By node: the nodes from which it can be next. */
  readonly before: ReadonlyMap<Id, readonly Id[]>;
}

/** What can come after what, in a process and all sub-processes inside it. */
function graphOf(model: Model, process: Id): Graph {
  const flows: Id[] = [];
  const before = new Map<Id, Id[]>();
  const lead = (from: Id, to: Id) => before.set(to, [...(before.get(to) ?? []), from]);
  const entries = (scope: Id) => flowNodesIn(model, scope).filter((node) => incomingOf(model, node.id).length === 0);
  const look = (scope: Id) => {
    for (const node of flowNodesIn(model, scope)) {
      for (const flow of outgoingOf(model, node.id)) {
        flows.push(flow.id);
        lead(node.id, flow.targetRef as Id);
      }
      for (const event of boundaryEventsOf(model, node.id)) lead(node.id, event.id);
      if (!isSubProcess(node.type)) continue;
      for (const entry of entries(node.id)) lead(node.id, entry.id);
      for (const end of flowNodesIn(model, node.id))
        if (outgoingOf(model, end.id).length === 0)
          for (const flow of outgoingOf(model, node.id)) lead(end.id, flow.targetRef as Id);
      if (node.triggeredByEvent === true)
        for (const other of flowNodesIn(model, scope)) if (other !== node) lead(other.id, node.id);
      look(node.id);
    }
  };
  look(process);
  const starts = entries(process).filter((node) => node.type === "startEvent");
  return { flows, starts: starts.map((node) => node.id), before };
}

/** How many nodes lie between each node and the nearest open flow; none where no open flow can be reached. */
const distances = (model: Model, graph: Graph, open: ReadonlySet<Id>): ReadonlyMap<Id, number> =>
  distancesTo(graph, [...new Set([...open].map((flow) => model.elements.get(flow)?.sourceRef as Id))]);

function headFor(
  world: World,
  process: Id,
  graph: Graph,
  wanted: ReadonlySet<Id>,
  along?: Way,
): { readonly playing: Player; readonly outcome: SuggestedWalk["outcome"] } {
  const { model } = world;
  const open = new Set(wanted);
  let far = distances(model, graph, open);
  // From every node the way out is known as well, so that nobody goes in circles once there is nothing left to head for.
  const ends = [...graph.before.keys(), ...graph.starts].filter((node) => outgoingOf(model, node).length === 0);
  const toEnd = distancesTo(graph, ends);
  const nearness = (node: Id) => far.get(node) ?? Number.POSITIVE_INFINITY;
  const start = along?.start ?? [...graph.starts].sort((a, b) => nearness(a) - nearness(b))[0];
  const playing = Player.begin(world, process, start);
  const worth = (act: Act) => {
    const fresh = act.flows.filter((flow) => open.has(flow)).length;
    const targets = act.flows.map((flow) => String(model.elements.get(flow)?.targetRef));
    return {
      fresh,
      far: Math.min(...targets.map(nearness), Number.POSITIVE_INFINITY),
      end: Math.min(...targets.map((node) => toEnd.get(node) ?? 1e9), 1e9),
      width: act.flows.length,
    };
  };
  const go = (act: Act) => {
    playing.do(act);
    const passed = act.flows.filter((flow) => open.delete(flow));
    if (passed.length > 0) far = distances(model, graph, open);
  };
  for (const act of along?.acts ?? []) go(act);
  while (playing.step < mostSteps) {
    const acts = playing.play.acts();
    const fire = acts.find((act) => act.does === "fire" && isWorthFiring(playing, act, open, nearness));
    const usual = fire ? { act: fire } : playing.next({});
    if (!usual) break;
    const others = acts.filter(
      (act) => act.at === usual.act.at && act.node === usual.act.node && act.does === usual.act.does,
    );
    const isHeading = open.size > 0 && others.length > 1 && !fire && usual.act.does !== "pick";
    const best = isHeading
      ? others
          .map((act) => ({ act, ...worth(act) }))
          .sort((a, b) => b.fresh - a.fresh || compare(a.far, b.far) || a.width - b.width || a.end - b.end)[0]?.act
      : wanted.size === 0 || others.length < 2
        ? usual.act
        : [...others].sort((a, b) => worth(a).width - worth(b).width || worth(a).end - worth(b).end)[0];
    go(best ?? usual.act);
  }
  const { play } = playing;
  return { playing, outcome: play.isOver() ? "completed" : play.acts().length === 0 ? "stuck" : "stopped" };
}

const compare = (a: number, b: number) => (a === b ? 0 : a < b ? -1 : 1);

function distancesTo({ before }: Graph, targets: readonly Id[]): ReadonlyMap<Id, number> {
  const far = new Map<Id, number>(targets.map((node) => [node, 0]));
  const queue = [...targets];
  for (let at = 0; at < queue.length; at++)
    for (const node of before.get(queue[at] as Id) ?? [])
      if (!far.has(node)) {
        far.set(node, (far.get(queue[at] as Id) as number) + 1);
        queue.push(node);
      }
  return far;
}

/** An event goes off where the way from it leads sooner to an open flow than what else is under way, or costs nothing. */
function isWorthFiring({ world, play }: Player, act: Act, open: ReadonlySet<Id>, reach: (node: Id) => number): boolean {
  const { model } = world;
  const event = model.elements.get(act.node);
  if (!event || open.size === 0) return false;
  const along = (node: Id) =>
    Math.min(
      ...outgoingOf(model, node).map((flow) => (open.has(flow.id) ? 0 : 1 + reach(flow.targetRef as Id))),
      Number.POSITIVE_INFINITY,
    );
  if (event.type === "boundaryEvent") {
    const way = along(event.id);
    if (event.cancelActivity === false) return way < Number.POSITIVE_INFINITY;
    return way < along(event.attachedToRef as Id);
  }
  const within = new Set(
    flowNodesIn(model, event.id)
      .flatMap((node) => outgoingOf(model, node.id))
      .map((flow) => flow.id),
  );
  if (![...within].some((flow) => open.has(flow))) return false;
  const interrupts = act.move.clears === true;
  return (
    !interrupts ||
    standingAt(world, play.saved()).every(
      ({ node }) => along(node) === Number.POSITIVE_INFINITY || outgoingOf(model, node).length === 0,
    )
  );
}
