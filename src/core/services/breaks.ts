import type { Description, Field } from "../descriptions";
import { descriptionOf, type Element, type Id, type Model } from "../model";
import { bindingsOf, messageFields } from "./bindings";

/** What a newer description of a service breaks for an operation that a model is bound to. */
export interface Break {
  readonly kind: "operation gone" | "asks for more" | "takes no more" | "gives no more" | "other type";
  readonly interface: string;
  readonly operation: string;
  /** The piece of data it is about; "" for the whole operation. */
  readonly field: string;
  /** Its type before and after, where it is another one. */
  readonly from: string;
  readonly to: string;
  /** What is bound to the operation. */
  readonly elements: readonly Id[];
}

/**
 * What a description breaks for what a model is bound to. More that comes out, and more that may go in, breaks nothing.
 * @param source the file's name: a model's interfaces know which they were read from. O(bindings × fields).
 */
export function breaksOf(model: Model, source: string, description: Description): Break[] {
  const byOperation = new Map<
    Id,
    { readonly service: Element; readonly operation: Element; readonly elements: Id[] }
  >();
  for (const { element, interface: service, operation } of bindingsOf(model)) {
    if (descriptionOf(service)?.source !== source) continue;
    const known = byOperation.get(operation.id);
    if (known) known.elements.push(element.id);
    else byOperation.set(operation.id, { service, operation, elements: [element.id] });
  }
  return [...byOperation.values()].flatMap(({ service, operation, elements }): Break[] => {
    const about = {
      interface: service.name ?? "",
      operation: operation.name ?? "",
      field: "",
      from: "",
      to: "",
      elements,
    };
    const now = description.interfaces
      .find(({ name }) => name === service.name)
      ?.operations.find(({ name }) => name === operation.name);
    if (!now) return [{ ...about, kind: "operation gone" }];
    const [asked, given] = [
      messageFields(model, operation.inMessageRef),
      messageFields(model, operation.outMessageRef),
    ];
    return [
      ...otherTypes(asked, now.in).map((one) => ({ ...about, ...one })),
      ...now.in
        .filter((field) => field.isRequired && asked.find(({ name }) => name === field.name)?.isRequired !== true)
        .map(({ name }): Break => ({ ...about, kind: "asks for more", field: name })),
      ...gone(asked, now.in).map(({ name }): Break => ({ ...about, kind: "takes no more", field: name })),
      ...otherTypes(given, now.out).map((one) => ({ ...about, ...one })),
      ...gone(given, now.out).map(({ name }): Break => ({ ...about, kind: "gives no more", field: name })),
    ];
  });
}

const gone = (before: readonly Field[], now: readonly Field[]) =>
  before.filter(({ name }) => !now.some((field) => field.name === name));

const otherTypes = (before: readonly Field[], now: readonly Field[]) =>
  before.flatMap(({ name, type }) => {
    const other = now.find((field) => field.name === name);
    return other && other.type !== type
      ? [{ kind: "other type" as const, field: name, from: type, to: other.type }]
      : [];
  });
