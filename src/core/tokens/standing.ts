import type { Id, Model } from "../model";
import type { Act } from "./acts";
import type { Case } from "./case";
import type { Happened, Place } from "./place";
import { Play } from "./play";
import type { ScopeNet } from "./scopeNet";
import type { ScopeState } from "./scopeState";
import type { World } from "./world";

/** A scope under way, as one looks at it: not to be changed. */
export interface Instance {
  readonly key: string;
  readonly model: Model;
  readonly net: ScopeNet;
  readonly state: ScopeState;
  /** Activities under way that have an inside or are done several times, by node. */
  readonly underWay: ReadonlyMap<number, { readonly times: number | undefined; readonly finished: number }>;
}

// A case that is looked at is opened once. One that is gone on with is opened by who goes on.
const opened = new WeakMap<World, WeakMap<Case, Play>>();
function lookAt(world: World, state: Case): Play {
  let ofWorld = opened.get(world);
  if (!ofWorld) {
    ofWorld = new WeakMap();
    opened.set(world, ofWorld);
  }
  let play = ofWorld.get(state);
  if (!play) {
    play = Play.load(world, state);
    ofWorld.set(state, play);
  }
  return play;
}

const instanceOf = ({ key, scope, state, underWay }: Place): Instance => ({
  key,
  model: scope.model,
  net: scope.net,
  state,
  underWay,
});

/** A case of a process at its beginning. */
export const beginCase = (world: World, process: Id, start?: Id): Case => Play.begin(world, process, start).saved();

/** Everything that can happen next, outer scopes first, in the order of the file. */
export const actsOf = (world: World, state: Case): readonly Act[] => lookAt(world, state).acts();

/** Every scope under way, outer ones first. */
export const instancesOf = (world: World, state: Case): Instance[] => lookAt(world, state).places().map(instanceOf);

/** Whether every process of a case has come to its end. */
export const isCaseOver = (world: World, state: Case): boolean => lookAt(world, state).isOver();

/** The nodes that tokens stand before, or that are under way, in all scopes. */
export function standingAt(
  world: World,
  state: Case,
): { readonly instance: Instance; readonly node: Id; readonly tokens: number }[] {
  return instancesOf(world, state).flatMap((instance) => {
    const { net } = instance;
    const count = new Map<Id, number>();
    const add = (node: Id | undefined, tokens: number) => {
      if (node !== undefined && tokens > 0) count.set(node, (count.get(node) ?? 0) + tokens);
    };
    for (const [flow, { to }] of net.flows.entries()) add(net.nodes[to]?.id, instance.state[flow] as number);
    for (const [at, node] of net.nodes.entries()) add(node.id, instance.state[net.flows.length + at] as number);
    return [...count].map(([node, tokens]) => ({ instance, node, tokens }));
  });
}

/**
 * A case after one act, and what happened by it; the case before stays what it was.
 * @param times for an activity with several instances: how many
 * @throws RangeError for an act of a scope that is not under way
 */
export function step(
  world: World,
  state: Case,
  act: Act,
  times?: number,
): { readonly state: Case; readonly happened: readonly Happened[] } {
  const play = Play.load(world, state);
  const happened = play.step(act, times);
  return { state: play.saved(), happened };
}
