import {
  childrenOf,
  type Element,
  eventDefinitionsOf,
  flowNodesIn,
  type Id,
  type Model,
  processOf,
  triggerOf,
} from "../model";
import {
  around,
  type CaseState,
  type Instance,
  instancesOf,
  isInstanceOver,
  openInstance,
  type World,
  withInstance,
} from "./caseState";
import { type Happened, moved, type Stepped } from "./moving";
import type { NetNode } from "./scopeNet";
import { movesOf } from "./scopeState";

/**
 * What follows at once when a node has acted: its messages are sent, and an event that throws is caught where it is caught
 * (BPMN 2.0, 10.5.7 "Handling Events" and 13.4; from memory). Errors, cancellations and escalations go outwards to the nearest
 * scope that catches them; signals go to everybody who listens; compensation undoes what has finished, last first.
 */
export function thrownBy(world: World, state: CaseState, at: string, element: Element): Stepped {
  const happened: Happened[] = [];
  let next = sendMessages(world, state, element);
  const isThrower = element.type === "endEvent" || element.type === "intermediateThrowEvent";
  const instance = instancesOf(next).find((one) => one.key === at);
  if (!isThrower || !instance) return { state: next, happened };
  const trigger = triggerOf(instance.model, element);
  const apply = (stepped: Stepped) => {
    next = stepped.state;
    happened.push(...stepped.happened);
  };
  if (trigger === "signalEventDefinition") apply(broadcast(world, next, instance.model, element));
  else if (trigger === "compensateEventDefinition") apply(compensate(next, instance, element));
  else if (trigger === "cancelEventDefinition") {
    apply(compensate(next, instance, element));
    apply(raise(world, next, instance, element, trigger));
  } else if (trigger === "errorEventDefinition" || trigger === "escalationEventDefinition")
    apply(raise(world, next, instance, element, trigger));
  return { state: next, happened };
}

const refOf = (model: Model, event: Element, trigger: string): unknown => {
  const definition = eventDefinitionsOf(model, event.id).find((one) => one.type === trigger);
  return definition?.errorRef ?? definition?.escalationRef ?? definition?.signalRef;
};

/** An event that names nothing in particular catches every one of its kind. */
const catches = (model: Model, catcher: Element, trigger: string, thrown: unknown) => {
  const wanted = refOf(model, catcher, trigger);
  return triggerOf(model, catcher) === trigger && (wanted === undefined || wanted === thrown);
};

/** An error, a cancellation or an escalation goes from a scope outwards. */
function raise(world: World, state: CaseState, from: Instance, event: Element, trigger: string): Stepped {
  const thrown = refOf(from.model, event, trigger);
  const ends = trigger !== "escalationEventDefinition";
  let next = state;
  for (let here: Instance | undefined = from; here; ) {
    const inHere = flowNodesIn(here.model, here.net.scope).find(
      (node) =>
        node.triggeredByEvent === true &&
        node.id !== from.net.scope &&
        flowNodesIn(here?.model as Model, node.id).some(
          (start) => start.type === "startEvent" && catches(here?.model as Model, start, trigger, thrown),
        ),
    );
    const caught = inHere && goOff(world, next, here.key, inHere.id, true);
    if (caught) return caught;
    if (ends) next = withInstance(next, { ...here, state: new Uint32Array(here.state.length), underWay: new Map() });
    const outer = around(next, here);
    if (!outer) break;
    const { instance } = outer;
    const host = instance.net.nodes[outer.node]?.id as Id;
    const edge = childrenOf(instance.model, instance.model.elements.get(host)?.parent ?? "").find(
      (one) =>
        one.type === "boundaryEvent" && one.attachedToRef === host && catches(instance.model, one, trigger, thrown),
    );
    const atEdge = edge && goOff(world, next, instance.key, edge.id, false);
    if (atEdge) return atEdge;
    here = instancesOf(next).find((one) => one.key === instance.key);
  }
  return { state: next, happened: [] };
}

/** An event at an edge or an event sub-process goes off in a scope, if it can. */
function goOff(world: World, state: CaseState, key: string, node: Id, evenIfOver: boolean): Stepped | undefined {
  const instance = instancesOf(state).find((one) => one.key === key);
  if (!instance) return undefined;
  const { net } = instance;
  const at = net.nodes.findIndex((one) => one.id === node);
  const found = movesOf(net, instance.state).find((move) => move.node === at && move.stop !== at);
  const kind = net.nodes[at] as NetNode;
  // The error has taken the last token of the scope, which is alive for its handler all the same.
  const move =
    found ??
    (evenIfOver && isInstanceOver(instance)
      ? { node: at, take: [], give: [], start: at, fire: at, clears: true }
      : undefined);
  if (!move) return undefined;
  const flows = move.give.flatMap((flow) => net.flows[flow]?.id ?? []);
  return {
    state: withInstance(state, moved(world, instance, move)),
    happened: [{ at: key, node: kind.id, event: "entered", flows }],
  };
}

/** Everybody who waits for a signal, or listens to it at an edge, hears it. */
function broadcast(world: World, state: CaseState, model: Model, event: Element): Stepped {
  const trigger = "signalEventDefinition";
  const thrown = refOf(model, event, trigger);
  const happened: Happened[] = [];
  let next = state;
  for (const { key } of instancesOf(state)) {
    const listening = instancesOf(next).find((one) => one.key === key);
    if (!listening) continue;
    for (const node of listening.net.nodes) {
      const instance = instancesOf(next).find((one) => one.key === key);
      const element = listening.model.elements.get(node.id);
      if (!instance || !element) continue;
      const heard = [
        element,
        ...(element.triggeredByEvent === true ? flowNodesIn(instance.model, element.id) : []),
      ].some(
        (one) => /^(boundary|intermediateCatch|start)/.test(one.type) && catches(instance.model, one, trigger, thrown),
      );
      if (!heard || element.type === "startEvent") continue;
      const stepped = goOff(world, next, key, node.id, false);
      if (!stepped) continue;
      next = stepped.state;
      happened.push(...stepped.happened);
    }
  }
  return { state: next, happened };
}

/** What has finished in a scope is undone by its handlers, the last first; or only the activity that the event names. */
function compensate(state: CaseState, from: Instance, event: Element): Stepped {
  const { model } = from;
  const instance = instancesOf(state).find((one) => one.key === from.key) ?? from;
  const definition = eventDefinitionsOf(model, event.id).find((one) => one.type === "compensateEventDefinition");
  const only = definition?.activityRef;
  // A handler in an event sub-process undoes what was done around it.
  const outer =
    model.elements.get(from.net.scope)?.triggeredByEvent === true ? around(state, from)?.instance : undefined;
  const done = outer ?? instance;
  const undone = [...done.finished].reverse().filter((activity) => only === undefined || activity === only);
  const happened = undone.flatMap((activity) => {
    const handler = handlerOf(model, activity);
    return handler === undefined ? [] : [{ at: done.key, node: handler, event: "undone" as const, flows: [] }];
  });
  const left = done.finished.filter((activity) => !undone.includes(activity));
  return { state: withInstance(state, { ...done, finished: left }), happened };
}

/** The activity that an association leads to from an activity's compensation event. */
function handlerOf(model: Model, activity: Id): Id | undefined {
  const edge = [...model.elements].filter(
    (one) =>
      one.type === "boundaryEvent" &&
      one.attachedToRef === activity &&
      triggerOf(model, one) === "compensateEventDefinition",
  );
  const association = [...model.elements].find(
    (one) => one.type === "association" && edge.some((event) => event.id === one.sourceRef),
  );
  return association?.targetRef as Id | undefined;
}

/** Messages to other processes that are played along; one that starts such a process sets it going. */
function sendMessages(world: World, state: CaseState, element: Element): CaseState {
  if (!world.together) return state;
  const { model } = world;
  let next = state;
  for (const flow of model.elements) {
    if (flow.type !== "messageFlow" || flow.sourceRef !== element.id) continue;
    const target = model.elements.get(flow.targetRef as Id);
    const process = target && processOf(model, target.id);
    if (!target || !process) continue;
    const isUnderWay = next.pools.some((pool) => pool.net.scope === process.id && !isInstanceOver(pool));
    if (target.type === "startEvent" && !isUnderWay) {
      const pool = openInstance(world, model, process.id, String(next.pools.length), target.id);
      next = { ...next, pools: [...next.pools, pool] };
    } else if (target.type !== "startEvent")
      next = { ...next, sent: new Map([...next.sent, [flow.id, (next.sent.get(flow.id) ?? 0) + 1]]) };
  }
  return next;
}
