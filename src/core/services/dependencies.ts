import { childrenOf, type Id, isActivity, type Model } from "../model";
import { bindingOf } from "./bindings";
import { keptCandidates } from "./kept";

/** That one service needs another: work of the one is followed by work of the other, tells it something, or calls it. */
export interface Dependency {
  /** The id of a kept candidate. */
  readonly from: Id;
  /** The id of a kept candidate, or of an interface that exists outside. */
  readonly to: Id;
  readonly kind: "flow" | "message" | "call";
  /** Steps by which it is so: of the one, and of the other. */
  readonly steps: readonly (readonly [from: Id, to: Id])[];
}

/**
 * What kept candidates depend on, from the model's flows and messages and from what their steps are bound to. A flow counts from step to
 * step, whatever gateways and events stand between. O(elements × steps of candidates).
 */
export function dependenciesOf(model: Model): Dependency[] {
  const candidates = keptCandidates(model);
  const of = new Map<Id, Id[]>();
  for (const { id, operations } of candidates)
    for (const { from } of operations) if (from !== undefined) of.set(from, [...(of.get(from) ?? []), id]);
  const found = new Map<string, { from: Id; to: Id; kind: Dependency["kind"]; steps: [Id, Id][] }>();
  const add = (from: Id, to: Id, kind: Dependency["kind"], step: Id, other: Id) => {
    if (from === to) return;
    const key = JSON.stringify([from, to, kind]);
    const known = found.get(key) ?? { from, to, kind, steps: [] };
    known.steps.push([step, other]);
    found.set(key, known);
  };
  const outs = new Map<Id, Id[]>();
  for (const flow of model.elements) {
    if (flow.type !== "sequenceFlow" && flow.type !== "messageFlow") continue;
    const [source, target] = [String(flow.sourceRef ?? ""), String(flow.targetRef ?? "")];
    if (flow.type === "sequenceFlow") outs.set(source, [...(outs.get(source) ?? []), target]);
    else
      for (const from of of.get(source) ?? [])
        for (const to of of.get(target) ?? []) add(from, to, "message", source, target);
  }
  for (const element of model.elements)
    if (element.type === "boundaryEvent" && typeof element.attachedToRef === "string")
      outs.set(element.attachedToRef, [...(outs.get(element.attachedToRef) ?? []), element.id]);
  for (const [step, services] of of) {
    for (const next of stepsAfter(model, outs, step))
      for (const from of services) for (const to of of.get(next) ?? []) add(from, to, "flow", step, next);
    const element = model.elements.get(step);
    const bound = element && bindingOf(model, element);
    if (bound) for (const from of services) add(from, bound.interface.id, "call", step, bound.operation.id);
  }
  return [...found.values()];
}

/** The steps that come next, with nothing but gateways and events between. */
function stepsAfter(model: Model, outs: ReadonlyMap<Id, readonly Id[]>, step: Id): Id[] {
  const seen = new Set<Id>();
  const queue = [...(outs.get(step) ?? [])];
  const steps: Id[] = [];
  for (const id of queue) {
    if (seen.has(id)) continue;
    seen.add(id);
    const element = model.elements.get(id);
    if (!element) continue;
    if (isActivity(element.type) && childrenOf(model, id, "flowElements").length === 0) steps.push(id);
    else if (isActivity(element.type))
      // Into a sub-process, from where it begins.
      queue.push(
        ...childrenOf(model, id, "flowElements")
          .filter((one) => one.type === "startEvent")
          .map((one) => one.id),
      );
    else queue.push(...(outs.get(id) ?? []));
  }
  return steps;
}
