import { boundaryEventsOf, type Element, flowNodesIn, type Id, incomingOf, type Model, outgoingOf } from "../model";

/** What a plain search through all states of a process finds. */
export interface BruteFacts {
  readonly deadlock: boolean;
  readonly livelock: boolean;
  readonly doubled: boolean;
  readonly reached: readonly Id[];
}

interface Tokens {
  readonly on: { readonly [flow: Id]: number };
  readonly active: readonly Id[];
  readonly fired: readonly Id[];
}

/**
 * The behaviour of a process without sub-processes, by trying everything. Written apart from what is under test: straight from the
 * model, with no net, no reduction, and states as text.
 * @returns undefined where there are more states than the bound
 */
export function bruteForce(model: Model, process: Id, bound: number): BruteFacts | undefined {
  const nodes = flowNodesIn(model, process);
  const reached = new Set<Id>();
  const starts = nodes.filter((node) => node.type === "startEvent");
  const first: Tokens[] = starts.flatMap((start) => {
    reached.add(start.id);
    return [
      add(
        { on: {}, active: [], fired: [] },
        outgoingOf(model, start.id).map((flow) => flow.id),
      ),
    ];
  });
  const key = (state: Tokens) =>
    JSON.stringify([Object.entries(state.on).sort(), [...state.active].sort(), [...state.fired].sort()]);
  const known = new Map<string, number>();
  const states: Tokens[] = [];
  const next: number[][] = [];
  const visit = (state: Tokens) => {
    const old = known.get(key(state));
    if (old !== undefined) return old;
    known.set(key(state), states.length);
    states.push(state);
    next.push([]);
    return states.length - 1;
  };
  first.forEach(visit);
  let doubled = first.some((state) => Object.values(state.on).some((count) => count > 1));
  for (let at = 0; at < states.length; at++) {
    if (states.length > bound) return undefined;
    for (const node of nodes)
      for (const after of allAfter(model, node, states[at] as Tokens)) {
        reached.add(node.id);
        if (Object.values(after.on).some((count) => count > 1)) doubled = true;
        if (Object.values(after.on).some((count) => count > 2)) continue;
        (next[at] as number[]).push(visit(after));
      }
  }
  const isOver = (state: Tokens) => Object.keys(state.on).length === 0 && state.active.length === 0;
  const settled = states.map((_, at) => (next[at] as number[]).length === 0);
  const settles = [...settled];
  for (let changed = true; changed; ) {
    changed = false;
    for (const [at, to] of next.entries())
      if (!settles[at] && to.some((one) => settles[one])) {
        settles[at] = true;
        changed = true;
      }
  }
  return {
    deadlock: states.some((state, at) => settled[at] && !isOver(state)),
    livelock: settles.some((one) => !one),
    doubled,
    reached: [...reached].sort(),
  };
}

const add = (state: Tokens, flows: readonly Id[]): Tokens => {
  const on = { ...state.on };
  for (const flow of flows) on[flow] = (on[flow] ?? 0) + 1;
  return { ...state, on };
};
const take = (state: Tokens, flows: readonly Id[]): Tokens => {
  const on = { ...state.on };
  for (const flow of flows) {
    const left = (on[flow] as number) - 1;
    if (left === 0) delete on[flow];
    else on[flow] = left;
  }
  return { ...state, on };
};

/** Every state that one node can make of a state. */
function allAfter(model: Model, node: Element, state: Tokens): Tokens[] {
  const ins = incomingOf(model, node.id).map((flow) => flow.id);
  const outs = outgoingOf(model, node.id).map((flow) => flow.id);
  const waiting = ins.filter((flow) => (state.on[flow] ?? 0) > 0);
  switch (node.type) {
    case "startEvent":
      return [];
    case "exclusiveGateway":
      return waiting.flatMap((flow) =>
        outs.length === 0 ? [take(state, [flow])] : outs.map((out) => add(take(state, [flow]), [out])),
      );
    case "parallelGateway":
      return ins.length > 0 && waiting.length === ins.length ? [add(take(state, ins), outs)] : [];
    case "inclusiveGateway": {
      if (waiting.length === 0 || !mayJoin(model, node, state, ins, waiting)) return [];
      const taken = take(state, waiting);
      return outs.length === 0 ? [taken] : subsets(outs).map((chosen) => add(taken, chosen));
    }
    case "complexGateway":
      return afterComplex(model, node, state, ins, outs);
    case "boundaryEvent": {
      const host = String(node.attachedToRef);
      if (!state.active.includes(host) || state.fired.includes(node.id)) return [];
      if (node.cancelActivity === false) return [add({ ...state, fired: [...state.fired, node.id] }, outs)];
      return [add(ended(model, state, host), outs)];
    }
  }
  if (boundaryEventsOf(model, node.id).length === 0) return waiting.map((flow) => add(take(state, [flow]), outs));
  if (state.active.includes(node.id)) return [add(ended(model, state, node.id), outs)];
  return waiting.map((flow) => ({ ...take(state, [flow]), active: [...state.active, node.id] }));
}

/** BPMN 2.0, 13.3.5: waiting for start, then waiting for reset; what it has had stands among what has gone off. */
function afterComplex(model: Model, node: Element, state: Tokens, ins: readonly Id[], outs: readonly Id[]): Tokens[] {
  const mark = (flow: Id) => `${node.id} had ${flow}`;
  const waiting = ins.filter((flow) => (state.on[flow] ?? 0) > 0);
  if (waiting.length === 0) return [];
  const others = state.fired.filter((one) => !ins.some((flow) => one === mark(flow)));
  if (others.length === state.fired.length) {
    const gone = take(state, waiting);
    const marked = waiting.length === ins.length ? gone : { ...gone, fired: [...state.fired, ...waiting.map(mark)] };
    return outs.length === 0 ? [marked] : subsets(outs).map((chosen) => add(marked, chosen));
  }
  const open = ins.filter((flow) => !state.fired.includes(mark(flow)));
  const late = open.filter((flow) => waiting.includes(flow));
  return mayJoin(model, node, state, open, late) ? [{ ...take(state, late), fired: others }] : [];
}

function ended(model: Model, state: Tokens, host: Id): Tokens {
  const edge = boundaryEventsOf(model, host).map((event) => event.id);
  return {
    ...state,
    active: state.active.filter((one) => one !== host),
    fired: state.fired.filter((one) => !edge.includes(one)),
  };
}

const subsets = (flows: readonly Id[]): Id[][] =>
  Array.from({ length: 2 ** flows.length - 1 }, (_, at) => flows.filter((__, bit) => ((at + 1) >> bit) & 1));

/** BPMN 2.0, 13.3.3, as it is written there: for every token, a way to an empty flow needs a way to one with a token. */
function mayJoin(model: Model, gateway: Element, state: Tokens, ins: readonly Id[], waiting: readonly Id[]): boolean {
  const leadsTo = (from: Id, targets: readonly Id[]): boolean => {
    const seen = new Set<Id>();
    const queue = [from];
    for (let at = 0; at < queue.length; at++) {
      const flow = queue[at] as Id;
      if (targets.includes(flow)) return true;
      const node = String(model.elements.get(flow)?.targetRef);
      if (node === gateway.id || seen.has(node)) continue;
      seen.add(node);
      queue.push(...outgoingOf(model, node).map((one) => one.id));
    }
    return false;
  };
  const empty = ins.filter((flow) => !waiting.includes(flow));
  const tokens = [
    ...Object.keys(state.on).map((flow) => [flow]),
    ...state.active.map((host) => outgoingOf(model, host).map((flow) => flow.id)),
  ];
  return tokens.every(
    (from) => !from.some((flow) => leadsTo(flow, empty)) || from.some((flow) => leadsTo(flow, waiting)),
  );
}
