import { foldedName } from "../directory";
import {
  calledProcessOf,
  callKeyOf,
  eventDefinitionsOf,
  type Id,
  isEvent,
  type Model,
  nameOf,
  participantsOf,
  processesOf,
} from "../model";
import { type Call, resolver } from "./called";

/** What a process says of others: whom it calls, which messages it sends and waits for. */
export interface OutwardFacts {
  /** The ids its processes have in files, by which others call them. */
  readonly processIds: readonly Id[];
  readonly calls: readonly Call[];
  readonly sends: readonly string[];
  readonly receives: readonly string[];
  /** Names of closed pools it exchanges messages with, by direction. */
  readonly sendsTo: readonly string[];
  readonly receivesFrom: readonly string[];
}

export interface LandscapeProcess extends OutwardFacts {
  readonly id: string;
  readonly name: string;
}

/** How one process of the landscape leads to another. */
export interface LandscapeLink {
  readonly from: string;
  readonly to: string;
  readonly kind: "calls" | "messages";
  /** The messages, by name. */
  readonly names: readonly string[];
}

const throwing = new Set(["intermediateThrowEvent", "endEvent", "sendTask"]);

/** What one model says of other processes. O(elements). */
export function outwardFactsOf(model: Model): OutwardFacts {
  const calls = new Map<string, Call>();
  const [sends, receives, sendsTo, receivesFrom] = [0, 1, 2, 3].map(() => new Set<string>()) as [
    Set<string>,
    Set<string>,
    Set<string>,
    Set<string>,
  ];
  const closed = new Map(participantsOf(model).map((pool) => [pool.id, pool.processRef === undefined]));
  for (const element of model.elements) {
    if (element.type === "callActivity" && typeof element.calledElement === "string") {
      const process = calledProcessOf(element)?.process;
      calls.set(callKeyOf(element), { id: element.calledElement, ...(process !== undefined && { process }) });
    }
    if (element.type === "messageFlow") {
      const [source, target] = [String(element.sourceRef ?? ""), String(element.targetRef ?? "")];
      if (closed.get(target)) sendsTo.add(nameOf(model, target));
      if (closed.get(source)) receivesFrom.add(nameOf(model, source));
    }
    const holders = isEvent(element.type)
      ? eventDefinitionsOf(model, element.id)
      : element.type === "sendTask" || element.type === "receiveTask"
        ? [element]
        : [];
    for (const holder of holders) {
      if (typeof holder.messageRef !== "string") continue;
      const name = nameOf(model, holder.messageRef);
      if (name) (throwing.has(element.type) ? sends : receives).add(name);
    }
  }
  return {
    processIds: processesOf(model).map((process) => process.id),
    calls: [...calls.values()],
    sends: [...sends],
    receives: [...receives],
    sendsTo: [...sendsTo],
    receivesFrom: [...receivesFrom],
  };
}

/**
 * Which process calls which, and which sends what to which: a message by a name that one sends and the other waits for, or one to
 * or from a closed pool that carries the other's name. O(processes × (calls + messages)).
 */
export function landscapeLinks(processes: readonly LandscapeProcess[]): LandscapeLink[] {
  const links = new Map<string, { from: string; to: string; kind: LandscapeLink["kind"]; names: Set<string> }>();
  const add = (from: string, to: string, kind: LandscapeLink["kind"], name?: string) => {
    if (from === to) return;
    const key = JSON.stringify([from, to, kind]);
    const link = links.get(key) ?? { from, to, kind, names: new Set<string>() };
    if (name) link.names.add(name);
    links.set(key, link);
  };
  const resolve = resolver(processes.map(({ id, processIds }) => ({ process: id, processIds })));
  const named = new Map(processes.map((process) => [foldedName(process.name), process.id]));
  const receivers = new Map<string, string[]>();
  for (const process of processes)
    for (const message of process.receives) {
      const key = foldedName(message);
      receivers.set(key, [...(receivers.get(key) ?? []), process.id]);
    }
  for (const process of processes) {
    for (const called of process.calls) {
      const to = resolve(called);
      if (to !== undefined) add(process.id, to, "calls");
    }
    for (const message of process.sends)
      for (const to of receivers.get(foldedName(message)) ?? []) add(process.id, to, "messages", message);
    for (const pool of process.sendsTo) {
      const to = named.get(foldedName(pool));
      if (to !== undefined) add(process.id, to, "messages");
    }
    for (const pool of process.receivesFrom) {
      const from = named.get(foldedName(pool));
      if (from !== undefined) add(from, process.id, "messages");
    }
  }
  return [...links.values()].map((link) => ({ ...link, names: [...link.names].sort() }));
}
