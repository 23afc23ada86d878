import { type Element, eventDefinitionsOf, type Id, type Model, processOf } from "../model";
import {
  type CaseState,
  type Instance,
  insideOf,
  instancesOf,
  isAdHoc,
  isInstanceOver,
  loopOf,
  type World,
} from "./caseState";
import type { NetNode } from "./scopeNet";
import { isOver, type Move, movesOf } from "./scopeState";

/**
 * What a node can do:
 * - `pass`: tokens go through it; `begin`: it comes under way; `finish`: it ends, and tokens go on;
 * - `again`: one more round of a repeated activity, the last one being over;
 * - `fire`: an event at an edge, or the start of an event sub-process, goes off;
 * - `pick`: a step of an ad-hoc sub-process is done next.
 */
export type Deed = "pass" | "begin" | "finish" | "again" | "fire" | "pick";

/** One thing that can happen next in a case. Acts of one node in one scope are alternatives. */
export interface Act {
  /** The scope it happens in, by key, and the node. */
  readonly at: string;
  readonly node: Id;
  readonly does: Deed;
  /** The sequence flows that get a token; none where it only begins or where a link is followed. */
  readonly flows: readonly Id[];
  readonly move: Move;
}

/** Everything that can happen next, outer scopes first, in the order of the file. O(nodes + acts) in each scope under way. */
export function actsOf(world: World, state: CaseState): Act[] {
  return instancesOf(state).flatMap((instance) => actsIn(world, state, instance));
}

function actsIn(world: World, state: CaseState, instance: Instance): Act[] {
  const { net, model } = instance;
  const picks = isAdHoc(model, net.scope) ? pickable(instance) : [];
  const acts = movesOf(net, instance.state).flatMap((move): Act[] => {
    const node = net.nodes[move.node] as NetNode;
    const element = model.elements.get(node.id) as Element;
    const act = (does: Deed): Act => ({
      at: instance.key,
      node: node.id,
      does,
      flows: move.give.flatMap((flow) => net.flows[flow]?.id ?? []),
      move,
    });
    if (!mayReceive(world, state, model, element)) return [];
    if (element.type === "eventBasedGateway" && !raceIsWon(world, state, instance, move)) return [];
    if (node.kind === "called") return move.stop === move.node ? finishing(world, instance, move, act) : [act("fire")];
    if (move.start !== undefined) return [act("begin")];
    if (move.stop !== undefined) return finishing(world, instance, move, act);
    return [act("pass")];
  });
  return [...distinct(acts), ...picks];
}

/** Of two tokens that could go through a node the same way, it does not matter which goes first. */
function distinct(acts: readonly Act[]): Act[] {
  const known = new Set<string>();
  return acts.filter(({ node, does, move }) => {
    const key = `${node} ${does} ${move.give.join(" ")}`;
    return !known.has(key) && known.add(key);
  });
}

/** What is under way ends when its inside is over, and not before its rounds are done. */
function finishing(world: World, instance: Instance, move: Move, act: (does: Deed) => Act): Act[] {
  const { model, underWay } = instance;
  const node = move.node;
  const id = instance.net.nodes[node]?.id as Id;
  const one = underWay.get(node);
  if (one?.instances.some((inner) => !isInstanceOver(inner))) return [];
  const loop = loopOf(model, id);
  if (!one || !loop) return [act("finish")];
  const done = one.finished + 1;
  const inside = insideOf(world, model, model.elements.get(id) as Element) !== undefined;
  const allAtOnce = inside && loop.type === "multiInstanceLoopCharacteristics" && loop.isSequential !== true;
  if (allAtOnce) return [act("finish")];
  if (one.times !== undefined) return [act(done < one.times ? "again" : "finish")];
  const most = typeof loop.loopMaximum === "number" ? loop.loopMaximum : Number.POSITIVE_INFINITY;
  return done < most ? [act("finish"), act("again")] : [act("finish")];
}

/** In an ad-hoc sub-process any step may be next that nothing leads to, in a sequential one when no other is under way. */
function pickable(instance: Instance): Act[] {
  const { net, state, model } = instance;
  const isSequential = model.elements.get(net.scope)?.ordering === "Sequential";
  if (isSequential && !isOver(net, state)) return [];
  return net.entries.flat().flatMap((flow) => {
    const at = net.flows[flow]?.to ?? -1;
    const node = net.nodes[at];
    return node
      ? [
          {
            at: instance.key,
            node: node.id,
            does: "pick" as const,
            flows: [],
            move: { node: at, take: [], give: [flow] },
          },
        ]
      : [];
  });
}

/** Message flows that come from a step of another process that is played with this one: their message has to be sent. */
export function expectedFrom(world: World, model: Model, element: Element): Id[] {
  if (!world.together || model !== world.model) return [];
  if (!isReceiving(model, element)) return [];
  return [...model.elements].flatMap((flow) => {
    if (flow.type !== "messageFlow" || flow.targetRef !== element.id) return [];
    return processOf(model, flow.sourceRef as Id) ? [flow.id] : [];
  });
}

/** A step may get messages while it is done; it waits for one only if that is what it is for. */
const isReceiving = (model: Model, element: Element) =>
  element.type === "receiveTask" ||
  eventDefinitionsOf(model, element.id).some((one) => one.type === "messageEventDefinition");

function mayReceive(world: World, state: CaseState, model: Model, element: Element): boolean {
  if (element.type === "startEvent") return true;
  const expected = expectedFrom(world, model, element);
  return expected.length === 0 || expected.some((flow) => (state.sent.get(flow) ?? 0) > 0);
}

/** An event-based gateway lets the token go on to an event that has come or may come from outside. */
function raceIsWon(world: World, state: CaseState, { net, model }: Instance, move: Move): boolean {
  const to = net.nodes[net.flows[move.give[0] ?? -1]?.to ?? -1];
  const element = to && model.elements.get(to.id);
  return element === undefined || mayReceive(world, state, model, element);
}
