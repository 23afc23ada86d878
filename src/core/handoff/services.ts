import type { Description } from "../descriptions";
import { addressOf, childrenOf, descriptionOf, type Model, nameOf } from "../model";
import { boundTo, dependenciesOf, keptCandidates, mappingOf, messageFields } from "../services";
import { escapeText } from "../xml";

/** A description that was read, by the name of its file. */
export interface UsedDescription {
  readonly name: string;
  readonly description: Description;
}

/**
 * What a package says of services: each interface that exists with the operations that steps are bound to, and each candidate with what it
 * comes from, what it needs and what was decided. Undefined where a model has neither. O(elements).
 */
export function servicesOf(model: Model) {
  const called = (id: string) => ({ id, name: nameOf(model, id) || id });
  const interfaces = childrenOf(model, model.root).flatMap((service) => {
    const source = descriptionOf(service);
    if (service.type !== "interface" || !source) return [];
    const operations = childrenOf(model, service.id, "operations").map((operation) => ({
      name: operation.name ?? operation.id,
      address: addressOf(operation),
      in: messageFields(model, operation.inMessageRef),
      out: messageFields(model, operation.outMessageRef),
      steps: boundTo(model, operation.id).map((step) => ({
        ...called(step.id),
        data: mappingOf(model, step).map(({ direction, name, is }) => ({ direction, field: name, is: is ?? null })),
      })),
    }));
    return [{ name: service.name ?? service.id, ...source, operations }];
  });
  const dependencies = dependenciesOf(model);
  const candidates = keptCandidates(model).map(({ id, name, from, operations, decision }) => ({
    name,
    from: called(from),
    operations: operations.map((operation) => ({
      name: operation.name,
      from: operation.from === undefined ? null : called(operation.from),
    })),
    needs: dependencies
      .filter((dependency) => dependency.from === id)
      .map(({ to, kind }) => ({ kind, name: model.elements.get(to)?.name ?? to })),
    decision: decision ?? null,
  }));
  return interfaces.length + candidates.length === 0 ? undefined : { interfaces, candidates };
}
export type PackedServices = NonNullable<ReturnType<typeof servicesOf>>;

/** Of some descriptions those that steps of a model are bound to. */
export function usedDescriptions(model: Model, all: readonly UsedDescription[]): UsedDescription[] {
  const sources = new Set((servicesOf(model)?.interfaces ?? []).map(({ source }) => source));
  return all.filter(({ name }) => sources.has(name));
}

/** The part of a report that a developer reads first: what calls what, and what is to be built. */
export function servicesHtml(services: PackedServices | undefined): string {
  if (!services) return "";
  const text = escapeText;
  const bound = services.interfaces.flatMap((service) =>
    service.operations.flatMap((operation) =>
      operation.steps.map(
        (step) =>
          `<tr><td>${text(step.name)}</td><td><code>${text(operation.name)}</code> of ${text(service.name)}</td><td>${text(operation.address)}</td><td>${text(service.source)}${service.version === "" ? "" : `, version ${text(service.version)}`}</td></tr>`,
      ),
    ),
  );
  const kept = services.candidates.map(
    ({ name, operations, decision }) =>
      `<li><strong>${text(name)}</strong>: ${operations.map((operation) => `<code>${text(operation.name)}</code>`).join(", ")}${decision ? `<br>To ${decision.what}: ${text(decision.reason)} (${text(decision.member)}, ${text(decision.date)})` : ""}</li>`,
  );
  return `<h2>Services</h2>${bound.length === 0 ? "" : `<table><thead><tr><th>Step</th><th>Operation</th><th>Reached by</th><th>Description</th></tr></thead><tbody>${bound.join("")}</tbody></table>`}
${kept.length === 0 ? "" : `<h3>Candidates</h3><ul>${kept.join("")}</ul>`}`;
}
