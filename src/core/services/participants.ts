import type { Id, Model } from "../model";
import { bindingsOf } from "./bindings";
import { dependenciesOf } from "./dependencies";
import { doerOf } from "./doer";
import { keptCandidates } from "./kept";

/** Who provides which service, and who uses it (SoaML 1.0: participants with services and requests; from memory). */
export interface Participation {
  readonly participants: readonly { readonly id: string; readonly name: string; readonly isOutside: boolean }[];
  readonly services: readonly { readonly id: Id; readonly name: string; readonly isCandidate: boolean }[];
  readonly links: readonly {
    readonly participant: string;
    readonly service: Id;
    readonly kind: "provides" | "uses";
  }[];
}

/**
 * Participants and services of a model: a candidate is provided by those whose steps it does, and used by those whose candidates need it or
 * who send it messages; a service that exists is used by those whose steps call it. O(elements).
 */
export function participationOf(model: Model): Participation {
  const participants = new Map<string, { id: string; name: string; isOutside: boolean }>();
  const links = new Map<string, Participation["links"][number]>();
  const who = (id: Id): string | undefined => {
    if (!model.elements.has(id)) return undefined;
    const { key: own, name, isOutside } = doerOf(model, id);
    const key = `${isOutside ? "outside" : "inside"} ${own}`;
    if (!participants.has(key)) participants.set(key, { id: key, name, isOutside });
    return key;
  };
  const link = (participant: string | undefined, service: Id, kind: "provides" | "uses") => {
    if (participant === undefined) return;
    const key = JSON.stringify([participant, service]);
    // Who provides a service does not have to be told to use it.
    if (links.get(key)?.kind !== "provides") links.set(key, { participant, service, kind });
  };
  const candidates = keptCandidates(model);
  for (const { id, operations } of candidates)
    for (const { from } of operations) if (from !== undefined) link(who(from), id, "provides");
  for (const { to, steps } of dependenciesOf(model)) for (const [from] of steps) link(who(from), to, "uses");
  const servedAt = new Map(
    candidates.flatMap(({ id, operations }) => operations.map(({ from }) => [from, id] as const)),
  );
  for (const flow of model.elements) {
    if (flow.type !== "messageFlow") continue;
    const service = servedAt.get(String(flow.targetRef ?? ""));
    if (service !== undefined) link(who(String(flow.sourceRef ?? "")), service, "uses");
  }
  const existing = new Map<Id, string>();
  for (const bound of bindingsOf(model)) {
    existing.set(bound.interface.id, bound.interface.name ?? bound.interface.id);
    link(who(bound.element.id), bound.interface.id, "uses");
  }
  return {
    participants: [...participants.values()],
    services: [
      ...candidates.map(({ id, name }) => ({ id, name, isCandidate: true })),
      ...[...existing].map(([id, name]) => ({ id, name, isCandidate: false })),
    ],
    links: [...links.values()],
  };
}
