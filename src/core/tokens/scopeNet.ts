import {
  boundaryEventsOf,
  type Element,
  eventDefinitionsOf,
  flowNodesIn,
  type Id,
  incomingOf,
  isActivity,
  isSubProcess,
  type Model,
  outgoingOf,
  triggerOf,
} from "../model";

/**
 * How a node treats tokens (BPMN 2.0, chapter 13 "BPMN Execution Semantics"):
 * - `each`: every token on any way in goes through by itself (activities, events: 13.2, 13.4);
 * - `exclusive`: so too, but on one way out (13.3.2; an event-based gateway's race is such a choice, 13.3.4);
 * - `parallel`: one token from every way in, one on every way out (13.3.1);
 * - `inclusive`: one token from every way in that has one, when no other can come; a chosen set of ways out (13.3.3);
 * - `complex`: goes off once enough ways in have a token, and then takes what else can still come, giving nothing for it (13.3.5);
 * - `end`: takes a token; `clear`: takes all tokens of the scope (13.4.6, terminate and error end events);
 * - `held`: an activity that can be under way, since events hang at its edge;
 * - `called`: an event sub-process, which begins by itself while its scope is alive (13.4.4).
 */
export type NodeKind =
  | "each"
  | "exclusive"
  | "parallel"
  | "inclusive"
  | "complex"
  | "end"
  | "clear"
  | "held"
  | "called";

export interface NetNode {
  readonly id: Id;
  readonly kind: NodeKind;
  readonly ins: readonly number[];
  readonly outs: readonly number[];
  /** Ways out that may be left out, and the one taken where none of them is. */
  readonly conditional: readonly number[];
  readonly fallback?: number;
  /** For a boundary event: its host, and whether it ends that. For an event sub-process: whether it ends its scope. */
  readonly host?: number;
  readonly interrupts?: boolean;
  /** For a complex gateway: how many ways in must have a token before it may go off. */
  readonly needs?: number;
  /** A sub-process whose inside can never come to its normal end is only left by its edge. */
  readonly canComplete: boolean;
}

/** One scope, a process or the inside of a sub-process, as a net that tokens move in. */
export interface ScopeNet {
  readonly scope: Id;
  readonly nodes: readonly NetNode[];
  /** Sequence flows by index: id (virtual ones have none), the nodes they join; -1 where tokens enter the scope. */
  readonly flows: readonly { readonly id: Id | undefined; readonly from: number; readonly to: number }[];
  /** Ways to begin, each a set of flows that get a token: one for each start event, since these are alternatives. */
  readonly entries: readonly (readonly number[])[];
}

/**
 * The net of a scope. Nodes that take no part in the flow (compensation handlers, boundary events of compensation, what stands in
 * an ad-hoc sub-process) are left out. O(nodes + flows).
 */
export function scopeNetOf(
  model: Model,
  scope: Id,
  canComplete: (subProcess: Id) => boolean = () => true,
  /** Activities that are played inside, or several times, and so are under way for a while. */
  staysIn: (activity: Element) => boolean = () => false,
): ScopeNet {
  const taking = flowNodesIn(model, scope).filter((node) => takesPart(model, node));
  const at = new Map(taking.map((node, index) => [node.id, index]));
  const flows: { id: Id | undefined; from: number; to: number }[] = [];
  const ins: number[][] = taking.map(() => []);
  const outs: number[][] = taking.map(() => []);
  const flowAt = new Map<Id, number>();
  const connect = (id: Id | undefined, from: number, to: number) => {
    const index = flows.length;
    flows.push({ id, from, to });
    if (from >= 0) outs[from]?.push(index);
    ins[to]?.push(index);
    if (id !== undefined) flowAt.set(id, index);
    return index;
  };
  for (const [from, node] of taking.entries())
    for (const flow of outgoingOf(model, node.id)) {
      const to = at.get(flow.targetRef as Id);
      if (to !== undefined) connect(flow.id, from, to);
    }
  joinLinks(model, taking, connect);
  const entries = entriesOf(model, taking, ins, connect);
  const nodes = taking.map((node, index): NetNode => {
    const ways = outs[index] as number[];
    const fallback = typeof node.default === "string" ? flowAt.get(node.default) : undefined;
    const isChoice = node.type.endsWith("Gateway");
    const conditional = isChoice ? [] : ways.filter((way) => way !== fallback && hasCondition(model, flows[way]?.id));
    const host = typeof node.attachedToRef === "string" ? at.get(node.attachedToRef) : undefined;
    return {
      id: node.id,
      kind:
        isActivity(node.type) && (staysIn(node) || !canComplete(node.id)) && !node.triggeredByEvent
          ? "held"
          : kindOfNode(model, node, host, (ins[index] as number[]).length),
      ins: ins[index] as number[],
      outs: ways,
      conditional,
      ...(!isChoice && fallback !== undefined && conditional.length > 0 && { fallback }),
      ...(host !== undefined && { host, interrupts: node.cancelActivity !== false }),
      ...(node.triggeredByEvent === true && { interrupts: startInterrupts(model, node) }),
      ...(node.type === "complexGateway" && { needs: neededBy(node) }),
      canComplete: !isSubProcess(node.type) || canComplete(node.id),
    };
  });
  return { scope, nodes, flows, entries };
}

function takesPart(model: Model, node: Element): boolean {
  if (node.isForCompensation === true) return false;
  return !(node.type === "boundaryEvent" && triggerOf(model, node) === "compensateEventDefinition");
}

const hasCondition = (model: Model, flow: Id | undefined) =>
  flow !== undefined && model.elements.get(flow)?.conditionExpression !== undefined;

function startInterrupts(model: Model, eventSubProcess: Element): boolean {
  return flowNodesIn(model, eventSubProcess.id).some(
    (node) => node.type === "startEvent" && node.isInterrupting !== false,
  );
}

/** Ways into a complex gateway are remembered as bits of one byte; one with more ways is an inclusive one. */
const mostRemembered = 8;

/**
 * What a complex gateway waits for, where its condition counts tokens ("activationCount >= 2", the attribute the standard gives it
 * for that); any other condition may hold at any time.
 */
function neededBy(gateway: Element): number {
  const text = (gateway.activationCondition as { readonly text: string } | undefined)?.text ?? "";
  const [, sign, count] = /activationCount\s*(>=|==?|>|=)\s*(\d+)/.exec(text) ?? [];
  if (count === undefined) return 1;
  return Math.max(1, Number(count) + (sign === ">" ? 1 : 0));
}

function kindOfNode(model: Model, node: Element, host: number | undefined, waysIn: number): NodeKind {
  switch (node.type) {
    case "exclusiveGateway":
    case "eventBasedGateway":
      return "exclusive";
    case "parallelGateway":
      return "parallel";
    case "inclusiveGateway":
      return "inclusive";
    case "complexGateway":
      return waysIn <= mostRemembered ? "complex" : "inclusive";
    case "endEvent": {
      const trigger = triggerOf(model, node);
      return ["terminateEventDefinition", "errorEventDefinition", "cancelEventDefinition"].includes(trigger)
        ? "clear"
        : "end";
    }
    case "boundaryEvent":
      return host === undefined ? "each" : "called";
  }
  if (node.triggeredByEvent === true) return "called";
  const edge = boundaryEventsOf(model, node.id).filter((event) => takesPart(model, event));
  return isActivity(node.type) && edge.length > 0 ? "held" : "each";
}

/** A throwing link goes on at the catching one of the same name, as if a flow joined them (13.4.5). */
function joinLinks(
  model: Model,
  nodes: readonly Element[],
  connect: (id: undefined, from: number, to: number) => number,
): void {
  const links = nodes.flatMap((node, at) =>
    triggerOf(model, node) === "linkEventDefinition" ? [{ node, at, name: linkName(model, node) }] : [],
  );
  for (const source of links) {
    if (source.node.type !== "intermediateThrowEvent") continue;
    for (const target of links)
      if (target.node.type === "intermediateCatchEvent" && target.name === source.name)
        connect(undefined, source.at, target.at);
  }
}

function linkName(model: Model, node: Element): string {
  const definition = eventDefinitionsOf(model, node.id).find((one) => one.type === "linkEventDefinition");
  return (definition?.name ?? node.name ?? "").trim();
}

/** Start events are alternatives; where there is none, all that nothing leads to begins at once (13.1). */
function entriesOf(
  model: Model,
  nodes: readonly Element[],
  ins: readonly (readonly number[])[],
  connect: (id: undefined, from: number, to: number) => number,
): number[][] {
  const begins = (node: Element) =>
    node.type === "startEvent" ||
    (node.instantiate === true && (node.type === "eventBasedGateway" || node.type === "receiveTask"));
  const starts = nodes.flatMap((node, at) =>
    begins(node) && (node.type === "startEvent" || incomingOf(model, node.id).length === 0) ? [at] : [],
  );
  if (starts.length > 0) return starts.map((at) => [connect(undefined, -1, at)]);
  const first = nodes.flatMap((node, at) => {
    const waits =
      node.type === "boundaryEvent" ||
      node.triggeredByEvent === true ||
      (node.type === "intermediateCatchEvent" && triggerOf(model, node) === "linkEventDefinition");
    return (ins[at] as readonly number[]).length === 0 && !waits ? [at] : [];
  });
  return first.length > 0 ? [first.map((at) => connect(undefined, -1, at))] : [];
}
