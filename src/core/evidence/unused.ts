import { type Said, say } from "../messages";
import { flowNodesIn, type Id, isActivity, isScope, type Model, nameOf, outgoingOf } from "../model";
import { modelsOf } from "../tokens";
import type { Automaton } from "./automaton";
import type { Held } from "./holding";

/** What the model allows and no case ever did: the log fits with or without it, so that it is no difference that costs anything. */
export interface Unused {
  readonly kind: "order" | "loop";
  readonly statement: Said;
  readonly elements: readonly Id[];
  /** In how many cases it could have been. */
  readonly traces: number;
}

/**
 * So many cases have to be there before what never happens in them says anything: if an order were open, that all of twenty go the same
 * way has a chance below one in five hundred thousand.
 */
const leastCases = 20;

/** What is modelled as open, and is always done the same way. O(moves + pairs of steps). */
export const unusedIn = (held: Held): Unused[] =>
  [...fixedOrders(held), ...loopsLeftOut(held)].sort((one, other) => other.traces - one.traces);

/** Steps that can be done in either order, and are always done in one. */
function fixedOrders(held: Held): Unused[] {
  const open = openPairs(held.automaton);
  if (open.size === 0) return [];
  const before = new Map<string, { first: number; traces: number }>();
  for (const { traces, alignment } of held.variants) {
    const run = alignment.moves.flatMap((move) => (move.kind === "both" ? [move.step] : []));
    const once = run.filter((step) => run.indexOf(step) === run.lastIndexOf(step));
    for (const [one, other] of [...open.values()]) {
      const [at, of] = [once.indexOf(one), once.indexOf(other)];
      if (at < 0 || of < 0) continue;
      const key = pairKey(one, other);
      const known = before.get(key) ?? { first: 0, traces: 0 };
      before.set(key, { first: known.first + (at < of ? traces.length : 0), traces: known.traces + traces.length });
    }
  }
  return [...open].flatMap(([key, [one, other]]): Unused[] => {
    const { first, traces } = before.get(key) ?? { first: 0, traces: 0 };
    if (traces < leastCases || (first > 0 && first < traces)) return [];
    const elements = first > 0 ? [one, other] : [other, one];
    const [name, behind] = elements.map((id) => nameIn(held, id));
    return [
      {
        kind: "order",
        elements,
        traces,
        statement: say`“${name ?? ""}” is always done before “${behind ?? ""}”, in all ${traces} traces with both; the model leaves their order open.`,
      },
    ];
  });
}

const pairKey = (one: Id, other: Id) => JSON.stringify([one, other]);

/** So many states are looked at for steps whose order is open. */
const mostStates = 2_000;

/** Pairs of steps of which, in some state, each can be done before the other, and both ways lead to the same state. O(states × edges²). */
function openPairs(automaton: Automaton): Map<string, readonly [Id, Id]> {
  const found = new Map<string, readonly [Id, Id]>();
  const seen = new Set(automaton.starts);
  for (const state of seen) {
    const edges = automaton.edges(state);
    for (const { to } of edges) if (seen.size < mostStates) seen.add(to);
    for (const [place, { step: one, to: after }] of edges.entries())
      for (const { step: other, to: behind } of edges.slice(place + 1)) {
        if (one === undefined || other === undefined || one === other || found.has(pairKey(one, other))) continue;
        const ends = automaton.edges(after).flatMap(({ step, to }) => (step === other ? [to] : []));
        if (automaton.edges(behind).some(({ step, to }) => step === one && ends.includes(to)))
          found.set(pairKey(one, other), [one, other]);
      }
  }
  return found;
}

/** Ways back that no case ever took. */
function loopsLeftOut(held: Held): Unused[] {
  const models = modelsOf(held.world);
  return models.flatMap((model) =>
    [...model.elements]
      .filter(({ type }) => isScope(type))
      .flatMap((scope) => loopsIn(model, scope.id))
      .flatMap(({ flow, steps, entry }): Unused[] => {
        const inside = new Set(steps);
        let traces = 0;
        for (const variant of held.variants) {
          const run = variant.alignment.moves.flatMap((move) => (move.kind === "both" ? [move.step] : []));
          const own = run.filter((step) => inside.has(step));
          // Done twice: somebody went back.
          if (new Set(own).size < own.length) return [];
          if (own.length > 0) traces += variant.traces.length;
        }
        if (traces < leastCases) return [];
        const name = nameIn(held, entry) || nameOf(model, flow);
        return [
          {
            kind: "loop",
            elements: [flow],
            traces,
            statement: say`Nobody ever goes back to “${name}”: the way back is taken in none of ${traces} traces.`,
          },
        ];
      }),
  );
}

const nameIn = ({ world }: Held, id: Id): string => {
  const model = modelsOf(world).find(({ elements }) => elements.has(id));
  return (model && nameOf(model, id)) || id;
};

interface Loop {
  readonly flow: Id;
  /** The activities on it. */
  readonly steps: readonly Id[];
  /** The first activity that one comes to behind the way back. */
  readonly entry: Id;
}

/** Flows that lead back, in the order a walk in depth meets them, with the activities between. O(loops × flows). */
function loopsIn(model: Model, scope: Id): Loop[] {
  const nodes = flowNodesIn(model, scope);
  const state = new Map<Id, "open" | "done">();
  const back: { flow: Id; from: Id; to: Id }[] = [];
  const walk = (start: Id) => {
    const stack: { node: Id; flows: ReturnType<typeof outgoingOf> }[] = [
      { node: start, flows: outgoingOf(model, start) },
    ];
    state.set(start, "open");
    while (stack.length > 0) {
      const top = stack.at(-1) as (typeof stack)[number];
      const flow = top.flows.shift();
      if (!flow) {
        state.set(top.node, "done");
        stack.pop();
        continue;
      }
      const to = String(flow.targetRef);
      if (state.get(to) === "open") back.push({ flow: flow.id, from: top.node, to });
      else if (!state.has(to) && model.elements.has(to)) {
        state.set(to, "open");
        stack.push({ node: to, flows: outgoingOf(model, to) });
      }
    }
  };
  const starts = nodes.filter(({ type }) => type === "startEvent");
  for (const { id } of [...starts, ...nodes]) if (!state.has(id)) walk(id);
  return back.flatMap(({ flow, from, to }): Loop[] => {
    const ahead = reachable(model, to, (id) => outgoingOf(model, id).map(({ targetRef }) => String(targetRef)));
    const steps = [...ahead].filter((id) =>
      reachable(model, id, (one) => outgoingOf(model, one).map(({ targetRef }) => String(targetRef))).has(from),
    );
    const activities = steps.filter((id) => isActivity(model.elements.get(id)?.type ?? "definitions"));
    const entry = [...ahead].find((id) => activities.includes(id));
    return entry === undefined ? [] : [{ flow, steps: activities, entry }];
  });
}

/** What can be come to from a node, itself first. */
function reachable(model: Model, from: Id, next: (id: Id) => readonly Id[]): Set<Id> {
  const seen = new Set([from]);
  for (const id of seen) for (const to of next(id)) if (model.elements.has(to)) seen.add(to);
  return seen;
}
