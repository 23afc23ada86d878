import { flowNodesIn, type Id, type Model, processesOf } from "../../model";
import { type Act, type Case, messagesIn, Play, type World } from "../../tokens";
import { type Party, partiesOf } from "./parties";

/** A run after which nothing can happen any more though a pool waits for a message. */
export interface StuckRun {
  /** Where messages are waited for: the node, its pool's process, and the processes that could send one. */
  readonly waiting: readonly { readonly node: Id; readonly process: Id; readonly senders: readonly Id[] }[];
  /** Processes that are under way. */
  readonly underWay: readonly Id[];
  /** Flow nodes in the order in which they are passed. */
  readonly witness: readonly Id[];
}

/** What pools of a model do together, as far as their states were looked at. */
export interface Collaboration {
  readonly processes: readonly Id[];
  readonly stuck: readonly StuckRun[];
  readonly states: number;
  readonly complete: boolean;
  /** What was not looked into, where not all was. */
  readonly leftOut: readonly LeftOut[];
}

/** A message that would begin a process already under way; messages that pile up unread; more states than are looked at. */
export type LeftOut = "begun again" | "piled up" | "too many states";

/** So many states are looked at, at most, and so much work is done, in nodes looked at. */
const mostStates = 20_000;
const mostWork = 12_000_000;
/** More messages on one flow than this, not taken yet, are not looked into. */
const mostSent = 3;
/** So many ways to begin are looked at, at most: each process at one of its starts. */
const mostBeginnings = 64;
/** After so many different ways of getting stuck no more are looked for. */
const mostStuck = 8;

const remembered = new WeakMap<Model, readonly Collaboration[]>();

/**
 * What the pools of a model whose processes it holds do together: a message between them arrives only when it is sent, one from a closed
 * pool or an unknown sender may always arrive. Every choice is free, as in the check of one process. Nearest states first, so that the
 * runs are the shortest.
 * Soundness of processes that exchange messages after: van der Aalst, "Modeling and Analyzing Interorganizational Workflows", ACSD 1998
 * (from memory). O(states × acts × what is under way).
 */
export function collaborationsOf(model: Model): readonly Collaboration[] {
  const known = remembered.get(model);
  if (known) return known;
  const found = partiesOf(model).map((parties) => explore(model, parties));
  remembered.set(model, found);
  return found;
}

interface Seen {
  readonly state: Case;
  readonly from: number;
  readonly passed: readonly Id[];
}

function explore(model: Model, parties: readonly Party[]): Collaboration {
  const world: World = { model, together: true };
  const { expected } = messagesIn(model);
  const seen: Seen[] = [];
  const known = new Set<string>();
  const stuck = new Map<string, StuckRun>();
  const leftOut = new Set<LeftOut>();
  let complete = true;
  let work = 0;
  const visit = (play: Play, from: number, passed: readonly Id[]) => {
    const key = play.key();
    if (known.has(key)) return;
    if (seen.length >= mostStates || work > mostWork) {
      complete = false;
      leftOut.add("too many states");
      return;
    }
    known.add(key);
    seen.push({ state: play.saved(), from, passed });
  };
  const nobody = nobodyBegins(model, parties, expected);
  if (nobody) stuck.set("", nobody);
  else {
    const ways = beginnings(world, parties);
    if (ways.length > mostBeginnings) {
      complete = false;
      leftOut.add("too many states");
    }
    for (const play of ways.slice(0, mostBeginnings)) visit(play, -1, []);
  }
  for (let at = 0; at < seen.length; at++) {
    const { state } = seen[at] as Seen;
    const play = Play.load(world, state);
    const acts = play.acts();
    work += play.size() * (acts.length + 1);
    if (acts.length === 0) {
      const waiting = waitingFor(model, play, expected);
      const key = waiting.map(({ node }) => node).join("\n");
      if (waiting.length > 0 && !stuck.has(key))
        stuck.set(key, {
          waiting,
          underWay: play.pools.filter((pool) => pool.busy > 0).map((pool) => pool.scope.net.scope),
          witness: runTo(seen, at),
        });
      if (stuck.size >= mostStuck) break;
      continue;
    }
    for (const [number, act] of acts.entries()) {
      // The last of them goes on with the case that was opened; the others with copies of it.
      const next = number === acts.length - 1 ? play : Play.load(world, state);
      const happened = next.step(act as Act);
      const isBegunAgain = next.unheard > 0;
      const isPiledUp = [...next.sent.values()].some((count) => count > mostSent);
      if (isBegunAgain) leftOut.add("begun again");
      if (isPiledUp) leftOut.add("piled up");
      if (isBegunAgain || isPiledUp || hasTooMany(next)) complete = false;
      else
        visit(
          next,
          at,
          happened.filter(({ event }) => event === "entered").map(({ node }) => node),
        );
    }
  }
  return {
    processes: parties.map((party) => party.process),
    stuck: [...stuck.values()],
    states: seen.length,
    complete,
    leftOut: [...leftOut],
  };
}

/** Whether something runs twice, or more often still: that is told of the process itself, and would go on without end. */
const hasTooMany = (play: Play): boolean =>
  play.places().some(({ state, scope }) => {
    for (let flow = 0; flow < scope.net.flows.length; flow++) if ((state[flow] as number) > 2) return true;
    return false;
  });

/** Every way to begin: each process that needs no message of another begins at one of its starts; one that has both kinds may also wait. */
function beginnings(world: World, parties: readonly Party[]): Play[] {
  const begun: (readonly { readonly process: Id; readonly start: Id | undefined }[])[] = [];
  const choose = (at: number, sofar: (typeof begun)[number]) => {
    if (begun.length > mostBeginnings) return;
    const party = parties[at];
    if (!party) {
      begun.push(sofar);
      return;
    }
    for (const start of party.ownStarts) choose(at + 1, [...sofar, { process: party.process, start }]);
    if (party.waitsToStart) choose(at + 1, sofar);
  };
  choose(0, []);
  return begun.map((starts) => {
    const play = new Play(world);
    for (const { process, start } of starts) play.enter(process, start);
    return play;
  });
}

/** Where each pool begins with a message of another, none of them ever begins. */
function nobodyBegins(
  model: Model,
  parties: readonly Party[],
  expected: ReturnType<typeof messagesIn>["expected"],
): StuckRun | undefined {
  if (parties.some((party) => party.ownStarts.length > 0)) return undefined;
  const processOfNode = processFinder(model);
  const waiting = parties.flatMap(({ process }) =>
    flowNodesIn(model, process)
      .filter((node) => node.type === "startEvent")
      .map((node) => ({
        node: node.id,
        process,
        senders: expected(node).flatMap((flow) => processOfNode(String(model.elements.get(flow)?.sourceRef)) ?? []),
      })),
  );
  return { waiting, underWay: [], witness: [] };
}

/** Nodes that stand before a message which has not come. */
function waitingFor(
  model: Model,
  play: Play,
  expected: ReturnType<typeof messagesIn>["expected"],
): StuckRun["waiting"] {
  const processOfNode = processFinder(model);
  return play.pools.flatMap((pool) =>
    play
      .places()
      .filter(({ key }) => key === pool.key || key.startsWith(`${pool.key}/`))
      .flatMap((place) =>
        place.waiting().flatMap((at) => {
          const { elements, net } = place.scope;
          const node = elements[at];
          if (!node) return [];
          // An event-based gateway waits for the messages of the events behind it.
          const heard =
            node.type === "eventBasedGateway"
              ? (net.nodes[at]?.outs ?? []).flatMap((flow) => elements[net.flows[flow]?.to ?? -1] ?? [])
              : [node];
          const flows = heard.flatMap((one) => expected(one));
          if (flows.length === 0 || node.type === "startEvent") return [];
          const senders = flows.flatMap((flow) => processOfNode(String(model.elements.get(flow)?.sourceRef)) ?? []);
          return [{ node: node.id, process: pool.scope.net.scope, senders: [...new Set(senders)] }];
        }),
      ),
  );
}

function processFinder(model: Model): (node: Id) => Id | undefined {
  const all = new Set(processesOf(model).map((process) => process.id));
  return (node) => {
    for (let at: Id | null | undefined = node; at; at = model.elements.get(at)?.parent) if (all.has(at)) return at;
    return undefined;
  };
}

function runTo(seen: readonly Seen[], at: number): Id[] {
  const parts: (readonly Id[])[] = [];
  for (let here = at; here >= 0; here = (seen[here] as Seen).from) parts.unshift((seen[here] as Seen).passed);
  return parts.flat();
}
