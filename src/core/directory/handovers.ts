import {
  boundaryEventsOf,
  type Element,
  type Id,
  isActivity,
  type Model,
  outgoingOf,
  processesOf,
  subtreeOf,
  systemsOf,
} from "../model";
import { rolesOf } from "./assignments";

/** Work that goes from one hand to another: between two steps that follow each other, whatever gateways and events lie between. */
export interface Handover {
  readonly from: string;
  readonly to: string;
  readonly source: Id;
  readonly target: Id;
  /** The flows it goes along, for showing it. */
  readonly flows: readonly Id[];
}

/** The activities of a model, in the order of the file, sub-processes before what is inside them. */
export function stepsOf(model: Model): Element[] {
  return processesOf(model).flatMap((process) =>
    subtreeOf(model, process.id).filter((element) => isActivity(element.type)),
  );
}

const responsibleFor = (model: Model, step: Id) =>
  rolesOf(model, step)
    .filter((role) => role.part === "responsible")
    .map((role) => role.name);
const systemsFor = (model: Model, step: Id) => systemsOf(model.elements.get(step) as Element).map(({ name }) => name);

/**
 * Hand-overs between the roles responsible for steps, or between the systems that steps use. Two steps count once for each pair of
 * hands, however many flows join them; what stays in the same hand is none. O(steps × flows up to the next steps).
 */
export function handoversOf(model: Model, between: "roles" | "systems"): Handover[] {
  const handsOf = between === "roles" ? responsibleFor : systemsFor;
  return stepsOf(model).flatMap((step) => {
    const here = handsOf(model, step.id);
    return nextSteps(model, step.id).flatMap(({ target, flows }) => {
      const there = handsOf(model, target);
      return here
        .filter((from) => !there.includes(from))
        .flatMap((from) =>
          there.filter((to) => !here.includes(to)).map((to) => ({ from, to, source: step.id, target, flows })),
        );
    });
  });
}

/** The activities that can come next after a step, each by the shortest way through gateways and events. */
function nextSteps(model: Model, step: Id): { target: Id; flows: Id[] }[] {
  const found = new Map<Id, Id[]>();
  const seen = new Set<Id>([step]);
  const queue: { node: Id; flows: Id[] }[] = [
    { node: step, flows: [] },
    ...boundaryEventsOf(model, step).map((event) => ({ node: event.id, flows: [] })),
  ];
  for (let at = 0; at < queue.length; at++) {
    const { node, flows } = queue[at] as (typeof queue)[number];
    for (const flow of outgoingOf(model, node)) {
      const target = model.elements.get(flow.targetRef as Id);
      if (!target || seen.has(target.id)) continue;
      seen.add(target.id);
      const along = [...flows, flow.id];
      if (isActivity(target.type)) found.set(target.id, along);
      else queue.push({ node: target.id, flows: along });
    }
  }
  return [...found].map(([target, flows]) => ({ target, flows }));
}

/** How often work goes from each hand to each other one. */
export function handoverMatrix(handovers: readonly Handover[]): {
  readonly hands: readonly string[];
  readonly count: (from: string, to: string) => number;
} {
  const counts = new Map<string, number>();
  const hands = new Set<string>();
  for (const { from, to } of handovers) {
    hands.add(from).add(to);
    counts.set(`${from}\n${to}`, (counts.get(`${from}\n${to}`) ?? 0) + 1);
  }
  return { hands: [...hands].sort(), count: (from, to) => counts.get(`${from}\n${to}`) ?? 0 };
}
