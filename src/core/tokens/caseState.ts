import {
  calledProcessOf,
  callKeyOf,
  childrenOf,
  type Element,
  flowNodesIn,
  type Id,
  isSubProcess,
  type Model,
} from "../model";
import { type ScopeNet, scopeNetOf } from "./scopeNet";
import { initialStates, isOver, type ScopeState } from "./scopeState";

/** What a case is played in. */
export interface World {
  readonly model: Model;
  /** What a call activity calls, where that can be entered. */
  readonly calls?: (call: Element) => { readonly model: Model; readonly process: Id } | undefined;
  /** Whether the other pools of the model are played with it, so that their messages come when they are sent. */
  readonly together?: boolean;
}

/** A model with what its calls lead to: processes of its own, and those of other models by the ids they have there. */
export function worldWith(model: Model, called: ReadonlyMap<Id, Model>, together = false): World {
  return {
    model,
    together,
    calls: (call) => {
      const process = String(call.calledElement ?? "");
      const record = calledProcessOf(call);
      const there = called.get(callKeyOf(call)) ?? called.get(process) ?? [];
      // What the call names by its record is not what happens to have the same id here.
      const at = [...(record ? [] : [model]), ...[there].flat(), ...(record ? [model] : [])].find(
        (one) => one.elements.get(process)?.type === "process" && flowNodesIn(one, process).length > 0,
      );
      return at && { model: at, process };
    },
  };
}

/** The model of a world and all those that its calls lead to. */
export function modelsOf(world: World): Model[] {
  const found: Model[] = [world.model];
  for (const model of found)
    for (const element of model.elements) {
      const called = isCall(element) ? world.calls?.(element)?.model : undefined;
      if (called && !found.includes(called)) found.push(called);
    }
  return found;
}

/** A scope under way: a process, or the inside of a sub-process or of a called process. */
export interface Instance {
  /** Its place: the pool's number, then node and number within each scope around it. */
  readonly key: string;
  readonly model: Model;
  readonly net: ScopeNet;
  readonly state: ScopeState;
  /** Activities under way that have an inside or are done several times, by node. */
  readonly underWay: ReadonlyMap<number, UnderWay>;
  /** Activities that have finished, in that order: what compensation undoes, last first. */
  readonly finished: readonly Id[];
}

export interface UnderWay {
  /** How often it is to be done; undefined for a loop, which is told when it ends. */
  readonly times: number | undefined;
  readonly finished: number;
  readonly instances: readonly Instance[];
}

/** Where one case stands: a value that never changes; the same value is the same standing. */
export interface CaseState {
  /** The process that is played, and those of other pools that it set going. */
  readonly pools: readonly Instance[];
  /** Messages on their way, by message flow. */
  readonly sent: ReadonlyMap<Id, number>;
}

const nets = new WeakMap<World, Map<Model, Map<Id, ScopeNet>>>();

/** The net of a scope as it is played: what has an inside, or is done several times, stays under way. */
function playedNet(world: World, model: Model, scope: Id): ScopeNet {
  const ofWorld = nets.get(world) ?? new Map<Model, Map<Id, ScopeNet>>();
  nets.set(world, ofWorld);
  const ofModel = ofWorld.get(model) ?? new Map<Id, ScopeNet>();
  ofWorld.set(model, ofModel);
  const known = ofModel.get(scope);
  if (known) return known;
  const staysIn = (activity: Element) =>
    isSubProcess(activity.type) ||
    loopOf(model, activity.id) !== undefined ||
    (isCall(activity) && world.calls?.(activity) !== undefined);
  const net = scopeNetOf(model, scope, () => true, staysIn);
  ofModel.set(scope, net);
  return net;
}

export const isCall = (element: Element) => element.type === "callActivity";
/** The standard loop or the multi-instance of an activity. */
export const loopOf = (model: Model, activity: Id): Element | undefined =>
  childrenOf(model, activity, "loopCharacteristics")[0];

/** A scope with the tokens it begins with. An ad-hoc one begins with none: what is done in it is picked. */
export function openInstance(world: World, model: Model, scope: Id, key: string, start?: Id): Instance {
  const net = playedNet(world, model, scope);
  const blank = new Uint32Array(net.flows.length + 2 * net.nodes.length);
  const states = isAdHoc(model, scope) ? [blank] : initialStates(net);
  const at =
    start === undefined
      ? 0
      : net.entries.findIndex(([flow]) => net.nodes[net.flows[flow as number]?.to ?? -1]?.id === start);
  const state = states[Math.max(0, at)] ?? blank;
  return { key, model, net, state, underWay: new Map(), finished: [] };
}

export const isAdHoc = (model: Model, scope: Id) => model.elements.get(scope)?.type === "adHocSubProcess";

/** A case of a process at its beginning. */
export function beginCase(world: World, process: Id, start?: Id): CaseState {
  return { pools: [openInstance(world, world.model, process, "0", start)], sent: new Map() };
}

export const isInstanceOver = ({ net, state }: Instance) => isOver(net, state);

/** Whether every process of a case has come to its end. */
export const isCaseOver = (state: CaseState) => state.pools.every(isInstanceOver);

/** Every scope under way, outer ones first. */
export function instancesOf(state: CaseState): Instance[] {
  const within = (instance: Instance): Instance[] => [
    instance,
    ...[...instance.underWay.values()].flatMap((one) => one.instances.flatMap(within)),
  ];
  return state.pools.flatMap(within);
}

/** The case with one scope replaced. */
export function withInstance(state: CaseState, changed: Instance): CaseState {
  const replaced = (instance: Instance): Instance => {
    if (instance.key === changed.key) return changed;
    if (!changed.key.startsWith(`${instance.key}/`)) return instance;
    const underWay = new Map(
      [...instance.underWay].map(([node, one]) => [node, { ...one, instances: one.instances.map(replaced) }] as const),
    );
    return { ...instance, underWay };
  };
  return { ...state, pools: state.pools.map(replaced) };
}

/** The scope around one, and the node of it that stands for it. */
export function around(
  state: CaseState,
  { key }: Instance,
): { readonly instance: Instance; readonly node: number } | undefined {
  const cut = key.lastIndexOf("/");
  if (cut < 0) return undefined;
  const instance = instancesOf(state).find((one) => one.key === key.slice(0, cut));
  return instance && { instance, node: Number(key.slice(cut + 1).split(":")[0]) };
}

/** The nodes that tokens stand before, or that are under way, in all scopes. */
export function standingAt(
  state: CaseState,
): { readonly instance: Instance; readonly node: Id; readonly tokens: number }[] {
  return instancesOf(state).flatMap((instance) => {
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

/** Whether something can be played inside an activity. */
export function insideOf(
  world: World,
  model: Model,
  activity: Element,
): { readonly model: Model; readonly scope: Id } | undefined {
  if (isSubProcess(activity.type)) {
    return flowNodesIn(model, activity.id).length > 0 ? { model, scope: activity.id } : undefined;
  }
  if (!isCall(activity)) return undefined;
  const called = world.calls?.(activity);
  return called && { model: called.model, scope: called.process };
}
