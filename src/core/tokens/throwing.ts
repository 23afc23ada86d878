import {
  childrenOf,
  type Element,
  eventDefinitionsOf,
  flowNodesIn,
  type Id,
  type Model,
  processesOf,
  triggerOf,
} from "../model";
import type { Sends } from "./compiled";
import { type Happened, movesOfPlace, type Place } from "./place";
import type { Play } from "./play";
import { moveOf } from "./scopeState";

/**
 * What follows at once when a node has acted: its messages are sent, and an event that throws is caught where it is caught
 * (BPMN 2.0, 10.5.7 "Handling Events" and 13.4; from memory). Errors, cancellations and escalations go outwards to the nearest
 * scope that catches them; signals go to everybody who listens; compensation undoes what has finished, last first.
 */
export function throwFrom(play: Play, place: Place, node: number, element: Element, happened: Happened[]): void {
  for (const sends of place.scope.sends[node] as readonly Sends[]) send(play, sends);
  const thrown = place.scope.throws[node];
  if (!thrown || !place.isOpen) return;
  switch (thrown) {
    case "signalEventDefinition":
      broadcast(play, place.scope.model, element, happened);
      return;
    case "compensateEventDefinition":
      compensate(place, element, happened);
      return;
    case "cancelEventDefinition":
      compensate(place, element, happened);
      raise(play, place, element, "cancelEventDefinition", happened);
      return;
    case "errorEventDefinition":
      raise(play, place, element, "errorEventDefinition", happened);
      return;
    case "escalationEventDefinition":
      raise(play, place, element, "escalationEventDefinition", happened);
  }
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
function raise(play: Play, from: Place, event: Element, trigger: string, happened: Happened[]): void {
  const thrown = refOf(from.scope.model, event, trigger);
  const ends = trigger !== "escalationEventDefinition";
  for (let here: Place | undefined = from; here; here = here.outer) {
    const { model, net } = here.scope;
    const inHere = flowNodesIn(model, net.scope).find(
      (node) =>
        node.triggeredByEvent === true &&
        node.id !== from.scope.net.scope &&
        flowNodesIn(model, node.id).some(
          (start) => start.type === "startEvent" && catches(model, start, trigger, thrown),
        ),
    );
    if (inHere && goOff(play, here, inHere.id, true, happened)) return;
    if (ends) {
      play.endAll(here);
      here.clear(true);
    }
    const { outer } = here;
    if (!outer) {
      if (trigger === "errorEventDefinition") play.uncaught.push({ at: from.key, node: event.id });
      return;
    }
    const around = outer.scope.model;
    const host = outer.scope.net.nodes[here.node]?.id as Id;
    const edge = childrenOf(around, around.elements.get(host)?.parent ?? "").find(
      (one) => one.type === "boundaryEvent" && one.attachedToRef === host && catches(around, one, trigger, thrown),
    );
    if (edge && goOff(play, outer, edge.id, false, happened)) return;
  }
}

/**
 * An activity under way fails with an error: what catches it at its edge or around it goes off.
 * @param code of the error; one that names no code catches any
 * @returns whether anything caught it
 */
export function failWith(play: Play, place: Place, node: number, code: string, happened: Happened[]): boolean {
  const catchesCode = (model: Model, catcher: Element) => {
    if (triggerOf(model, catcher) !== "errorEventDefinition") return false;
    const ref = refOf(model, catcher, "errorEventDefinition");
    const wanted = typeof ref === "string" ? model.elements.get(ref) : undefined;
    return ref === undefined || wanted?.errorCode === code || wanted?.name === code || ref === code;
  };
  let host = place.scope.net.nodes[node]?.id;
  for (let here: Place | undefined = place; here; here = here.outer) {
    const { model, net, elements } = here.scope;
    const edge = elements.find(
      (one) => one.type === "boundaryEvent" && one.attachedToRef === host && catchesCode(model, one),
    );
    if (edge && goOff(play, here, edge.id, false, happened)) return true;
    const inHere = elements.find(
      (one) =>
        one.triggeredByEvent === true &&
        flowNodesIn(model, one.id).some((start) => start.type === "startEvent" && catchesCode(model, start)),
    );
    if (inHere && goOff(play, here, inHere.id, false, happened)) return true;
    host = here.outer?.scope.net.nodes[here.node]?.id ?? net.scope;
  }
  return false;
}

/** An event at an edge or an event sub-process goes off in a scope, if it can. */
function goOff(play: Play, place: Place, node: Id, evenIfOver: boolean, happened: Happened[]): boolean {
  const { net, nodeAt } = place.scope;
  const at = nodeAt.get(node) ?? -1;
  const found = movesOfPlace(place, at).find((move) => move.stop !== at);
  // The error has taken the last token of the scope, which is alive for its handler all the same.
  const move =
    found ?? (evenIfOver && place.busy === 0 ? moveOf(at, [], [], { start: at, fire: at, clears: true }) : undefined);
  if (!move) return false;
  play.moved(place, move);
  happened.push({
    at: place.key,
    node,
    event: "entered",
    flows: move.give.flatMap((flow) => net.flows[flow]?.id ?? []),
  });
  return true;
}

/** Everybody who waits for a signal, or listens to it at an edge, hears it. */
function broadcast(play: Play, model: Model, event: Element, happened: Happened[]): void {
  const trigger = "signalEventDefinition";
  const thrown = refOf(model, event, trigger);
  for (const place of [...play.places()])
    for (const [at, element] of place.scope.elements.entries()) {
      if (play.placeAt(place.key) !== place) break;
      if (element.type === "startEvent") continue;
      const here = place.scope.model;
      const heard = [element, ...(element.triggeredByEvent === true ? flowNodesIn(here, element.id) : [])].some(
        (one) => /^(boundary|intermediateCatch|start)/.test(one.type) && catches(here, one, trigger, thrown),
      );
      if (heard) goOff(play, place, place.scope.net.nodes[at]?.id as Id, false, happened);
    }
  if (!play.world.isRun) return;
  // A process that a signal begins, begins; one that is under way, once more.
  for (const process of processesOf(play.world.model))
    for (const start of flowNodesIn(play.world.model, process.id))
      if (start.type === "startEvent" && catches(play.world.model, start, trigger, thrown))
        play.enter(process.id, start.id);
}

/** What has finished in a scope is undone by its handlers, the last first; or only the activity that the event names. */
function compensate(from: Place, event: Element, happened: Happened[]): void {
  const { model, net } = from.scope;
  const definition = eventDefinitionsOf(model, event.id).find((one) => one.type === "compensateEventDefinition");
  const only = definition?.activityRef;
  // A handler in an event sub-process undoes what was done around it.
  const done = (model.elements.get(net.scope)?.triggeredByEvent === true ? from.outer : undefined) ?? from;
  const undone = [...done.finished].reverse().filter((activity) => only === undefined || activity === only);
  for (const activity of undone) {
    const handler = handlerOf(model, activity);
    if (handler !== undefined) happened.push({ at: done.key, node: handler, event: "undone", flows: [] });
  }
  const left = done.finished.filter((activity) => !undone.includes(activity));
  done.finished.splice(0, done.finished.length, ...left);
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

/** A message to another process that is played along; one that starts such a process sets it going. */
function send(play: Play, { flow, target, process }: Sends): void {
  if (target.type !== "startEvent") return play.send(flow, 1);
  if (play.world.isRun) {
    const { parent } = target;
    if (parent === process) return play.enter(process, target.id);
    // The start of an event sub-process: it goes off where its scope is alive.
    for (const place of [...play.places()])
      if (parent !== null && place.scope.nodeAt.has(parent) && goOff(play, place, parent, false, [])) return;
    return;
  }
  const isUnderWay = play.pools.some((pool) => pool.scope.net.scope === process && pool.busy > 0);
  if (isUnderWay) play.unheard++;
  else play.enter(process, target.id);
}
