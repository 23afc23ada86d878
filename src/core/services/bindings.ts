import { childrenOf, type DataField, dataFieldsOf, type Element, type Id, type Model, referrersOf } from "../model";

/** An element and the operation it is bound to. */
export interface Bound {
  readonly element: Element;
  readonly interface: Element;
  readonly operation: Element;
}

/** The operation an element is bound to; undefined where it is bound to none that is there. */
export function bindingOf(model: Model, element: Element): Bound | undefined {
  const named = typeof element.operationRef === "string" ? model.elements.get(element.operationRef) : undefined;
  // A message event is bound by its definition.
  const definition = named
    ? undefined
    : childrenOf(model, element.id).find((child) => child.type === "messageEventDefinition" && child.operationRef);
  const operation = named ?? (definition && model.elements.get(definition.operationRef as Id));
  const service = operation?.parent == null ? undefined : model.elements.get(operation.parent);
  return operation?.type === "operation" && service ? { element, interface: service, operation } : undefined;
}

/** All that is bound in a model, in its order. O(elements). */
export function bindingsOf(model: Model): Bound[] {
  return [...model.elements].flatMap((element) =>
    element.type === "messageEventDefinition" ? [] : (bindingOf(model, element) ?? []),
  );
}

/** What is bound to an operation. */
export function boundTo(model: Model, operation: Id): Element[] {
  return referrersOf(model, operation, "operationRef").flatMap((referrer) => {
    const holder = referrer.type === "messageEventDefinition" ? model.elements.get(referrer.parent ?? "") : referrer;
    return holder ?? [];
  });
}

/** The data of a message that an operation names, by the definition of what it holds. */
export function messageFields(model: Model, message: unknown): readonly DataField[] {
  const found = typeof message === "string" ? model.elements.get(message) : undefined;
  const item = typeof found?.itemRef === "string" ? model.elements.get(found.itemRef) : undefined;
  return item ? dataFieldsOf(item) : [];
}
