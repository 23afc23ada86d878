import {
  boundaryEventsOf,
  type Element,
  eventDefinitionsOf,
  type Id,
  isActivity,
  isSubProcess,
  type Model,
  processOf,
  triggerOf,
} from "../model";
import { type ScopeNet, scopeNetOf } from "./scopeNet";
import { finishesOf, firesOf, type Move, passesOf } from "./scopeState";
import { insideOf, isAdHoc, isCall, loopOf, type World } from "./world";

/** A message that a node sends: along which flow, to which element of which process of the model. */
export interface Sends {
  readonly flow: Id;
  readonly target: Element;
  readonly process: Id;
}

/**
 * One scope as it is played: its net, and by node all that is asked of it while tokens move, looked up once. Flat tables by index; the
 * net's own flows and nodes give the indices.
 */
export interface Compiled {
  readonly net: ScopeNet;
  readonly model: Model;
  readonly elements: readonly Element[];
  /** By flow: the node it leads to; and what a case calls it, which stays the same while the model does. */
  readonly to: Int32Array;
  readonly flowKeys: readonly string[];
  readonly flowAt: ReadonlyMap<string, number>;
  readonly nodeAt: ReadonlyMap<Id, number>;
  /** By flow: what the node it leads to can do with a token on it, where that depends on nothing else. */
  readonly passes: readonly (readonly Move[] | undefined)[];
  /** By node: how an activity that is under way can end; what an event at an edge does. */
  readonly finishes: readonly (readonly Move[])[];
  readonly fires: readonly (readonly Move[])[];
  /** By node: the nodes of the events at its edge. */
  readonly edges: readonly (readonly number[])[];
  /** Nodes that may do something else whenever any token of the scope moves: joins that look around, event sub-processes. */
  readonly watchful: readonly number[];
  /** By flow: whether it leads to one of them; and whether one of them has no way in, and is to be looked at whatever moves. */
  readonly isWatched: Uint8Array;
  readonly watchesAll: boolean;
  /** By node: message flows it waits for; a message from elsewhere may always come. */
  readonly expects: readonly (readonly Id[])[];
  /** Nodes that may do something else when a message is sent or taken. */
  readonly expecting: readonly number[];
  /** By node: whether messages decide what it can do. */
  readonly asks: Uint8Array;
  readonly sends: readonly (readonly Sends[])[];
  /** By node: what an event throws; empty for what throws nothing. */
  readonly throws: readonly string[];
  /** By node: whether it is an activity whose work can be undone; its loop; what is played inside of it. */
  readonly undoable: Uint8Array;
  readonly loops: readonly (Element | undefined)[];
  readonly insides: readonly ReturnType<typeof insideOf>[];
  /**
   * By node: whether nothing follows from what it does but where its tokens go. It sends and throws nothing, waits for no message, and
   * cannot be undone.
   */
  readonly isPlain: Uint8Array;
  /** By node: whether what it does is a matter of the tokens before it alone, each for itself. */
  readonly isFree: Uint8Array;
  readonly isAdHoc: boolean;
}

const compiled = new WeakMap<World, Map<Model, Map<Id, Compiled>>>();

/** A scope of a world, compiled once. O(nodes + flows) the first time, O(1) afterwards. */
export function compiledScope(world: World, model: Model, scope: Id): Compiled {
  const known = compiled.get(world)?.get(model)?.get(scope);
  if (known) return known;
  const ofWorld = compiled.get(world) ?? new Map<Model, Map<Id, Compiled>>();
  compiled.set(world, ofWorld);
  const ofModel = ofWorld.get(model) ?? new Map<Id, Compiled>();
  ofWorld.set(model, ofModel);
  const made = compile(world, model, scope);
  ofModel.set(scope, made);
  return made;
}

function compile(world: World, model: Model, scope: Id): Compiled {
  // What has an inside, or is done several times, stays under way.
  const staysIn = (activity: Element) =>
    isSubProcess(activity.type) ||
    loopOf(model, activity.id) !== undefined ||
    (isCall(activity) && world.calls?.(activity) !== undefined);
  const net = scopeNetOf(model, scope, () => true, staysIn);
  const elements = net.nodes.map((node) => model.elements.get(node.id) as Element);
  const messages = world.together && model === world.model ? messagesIn(model, world.isRun) : undefined;
  const expects = elements.map((element) => messages?.expected(element) ?? []);
  const nameOfNode = (node: number) => net.nodes[node]?.id ?? "";
  const flowKeys = net.flows.map(({ id, from, to }) =>
    id !== undefined
      ? `flow ${id}`
      : from < 0
        ? `start ${nameOfNode(to)}`
        : `link ${nameOfNode(from)} ${nameOfNode(to)}`,
  );
  const leadsToMessage = (node: number) =>
    net.nodes[node]?.outs.some((flow) => (expects[net.flows[flow]?.to ?? -1] ?? []).length > 0) ?? false;
  const asks = Uint8Array.from(net.nodes, (_, at) =>
    (expects[at] as readonly Id[]).length > 0 || (elements[at]?.type === "eventBasedGateway" && leadsToMessage(at))
      ? 1
      : 0,
  );
  const sends = elements.map((element) => messages?.sent(element) ?? []);
  const throws = elements.map((element) =>
    element.type === "endEvent" || element.type === "intermediateThrowEvent" ? triggerOf(model, element) : "",
  );
  const undoable = Uint8Array.from(elements, (element) =>
    isActivity(element.type) &&
    boundaryEventsOf(model, element.id).some((event) => triggerOf(model, event) === "compensateEventDefinition")
      ? 1
      : 0,
  );
  const watchful = net.nodes.flatMap(({ kind, host, ins }, at) =>
    (kind === "inclusive" && ins.length > 1) || kind === "complex" || (kind === "called" && host === undefined)
      ? [at]
      : [],
  );
  const watching = new Set(watchful);
  return {
    net,
    model,
    elements,
    to: Int32Array.from(net.flows, (flow) => flow.to),
    flowKeys,
    flowAt: new Map(flowKeys.map((key, at) => [key, at])),
    nodeAt: new Map(net.nodes.map((node, at) => [node.id, at])),
    passes: net.flows.map((flow, at) => passesOf(net, flow.to, at)),
    finishes: net.nodes.map((_, at) => finishesOf(net, at)),
    fires: net.nodes.map((_, at) => firesOf(net, at)),
    edges: net.nodes.map((_, at) => net.nodes.flatMap((node, other) => (node.host === at ? [other] : []))),
    watchful,
    isWatched: Uint8Array.from(net.flows, ({ to }) => (watching.has(to) ? 1 : 0)),
    watchesAll: watchful.some((at) => net.nodes[at]?.ins.length === 0),
    expects,
    asks,
    expecting: net.nodes.flatMap((_, at) => (asks[at] === 1 ? [at] : [])),
    sends,
    throws,
    undoable,
    loops: elements.map((element) => (isActivity(element.type) ? loopOf(model, element.id) : undefined)),
    insides: elements.map((element) => insideOf(world, model, element)),
    isPlain: Uint8Array.from(elements, (_, at) =>
      asks[at] === 0 && undoable[at] === 0 && throws[at] === "" && (sends[at] as readonly Sends[]).length === 0 ? 1 : 0,
    ),
    isFree: Uint8Array.from(net.nodes, ({ kind }, at) =>
      asks[at] === 0 && (kind === "each" || kind === "exclusive" || kind === "end") ? 1 : 0,
    ),
    isAdHoc: isAdHoc(model, scope),
  };
}

/**
 * Messages between the processes that a model holds. From a closed pool, or nobody, a message may always come.
 * @param byName whether one that no flow leads from goes to those that wait for a message of that name, where no flow leads to them
 */
export function messagesIn(model: Model, byName = false) {
  const bySource = new Map<Id, Sends[]>();
  const byTarget = new Map<Id, Id[]>();
  for (const flow of model.elements) {
    if (flow.type !== "messageFlow") continue;
    const target = model.elements.get(flow.targetRef as Id);
    const process = target && processOf(model, target.id);
    if (target && process) {
      const source = flow.sourceRef as Id;
      bySource.set(source, [...(bySource.get(source) ?? []), { flow: flow.id, target, process: process.id }]);
    }
    if (target && processOf(model, flow.sourceRef as Id))
      byTarget.set(target.id, [...(byTarget.get(target.id) ?? []), flow.id]);
  }
  if (byName) {
    const led = new Set(
      [...model.elements].flatMap((one) => (one.type === "messageFlow" ? [one.targetRef as Id] : [])),
    );
    for (const [message, { senders, targets }] of messagesByName(model)) {
      const open = targets.filter((target) => !led.has(target.id));
      const starting = open.filter((target) => target.type === "startEvent");
      const flow = `message ${message}`;
      const heard = starting.length > 0 ? starting : open.slice(0, 1);
      for (const sender of senders) {
        if (bySource.has(sender.id)) continue;
        const sends = heard.flatMap((target) => {
          const process = processOf(model, target.id);
          return process ? [{ flow, target, process: process.id }] : [];
        });
        if (sends.length === 0) continue;
        bySource.set(sender.id, sends);
        for (const target of open) byTarget.set(target.id, [flow]);
      }
    }
  }
  // A step may get messages while it is done; it waits for one only if that is what it is for.
  const isReceiving = (element: Element) =>
    element.type === "receiveTask" ||
    eventDefinitionsOf(model, element.id).some((one) => one.type === "messageEventDefinition");
  return {
    sent: (element: Element): readonly Sends[] => bySource.get(element.id) ?? [],
    expected: (element: Element): readonly Id[] => (isReceiving(element) ? (byTarget.get(element.id) ?? []) : []),
  };
}

/** Who sends and who waits for each message that has a name of its own. */
function messagesByName(model: Model): ReadonlyMap<Id, { readonly senders: Element[]; readonly targets: Element[] }> {
  const found = new Map<Id, { senders: Element[]; targets: Element[] }>();
  for (const element of model.elements) {
    const isSending = /^(?:sendTask|endEvent|intermediateThrowEvent)$/.test(element.type);
    const isReceiving = /^(?:receiveTask|startEvent|intermediateCatchEvent|boundaryEvent)$/.test(element.type);
    if (!isSending && !isReceiving) continue;
    const event = eventDefinitionsOf(model, element.id).find((one) => one.type === "messageEventDefinition");
    const message = element.messageRef ?? event?.messageRef;
    if (typeof message !== "string") continue;
    const both = found.get(message) ?? { senders: [], targets: [] };
    (isSending ? both.senders : both.targets).push(element);
    found.set(message, both);
  }
  return found;
}
