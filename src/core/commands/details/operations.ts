import { type DataField, type Id, withDataFields } from "../../model";
import type { Change } from "../kernel/change";
import { freeId, isUsed } from "../kernel/freeId";

/** The message of an operation, and the definition of what it holds. */
export function describeMessage(
  change: Change,
  operation: Id,
  field: "inMessageRef" | "outMessageRef",
  title: string,
  data: readonly DataField[],
): void {
  const { root } = change.model;
  const end = field === "inMessageRef" ? "in" : "out";
  let message = change.element(operation)[field] as Id | undefined;
  if (message === undefined || !change.model.elements.has(message)) {
    message = freeId(change, `${operation}.${end}`);
    change.insert("message", message, root, { name: title });
    change.set("elements", operation, field, message);
  }
  let item = change.element(message).itemRef as Id | undefined;
  if (item === undefined || !change.model.elements.has(item)) {
    item = freeId(change, `${message}.data`);
    change.insert("itemDefinition", item, root, { itemKind: "Information" });
    change.set("elements", message, "itemRef", item);
  }
  change.set("elements", item, "extension", withDataFields(change.element(item), data));
}

/** Takes an operation away, with its messages, what they hold and its errors, where nothing else uses them. */
export function removeOperation(change: Change, operation: Id): void {
  const { inMessageRef, outMessageRef, errorRef } = change.element(operation);
  change.remove("elements", operation);
  for (const id of [inMessageRef, outMessageRef, ...((errorRef as readonly Id[] | undefined) ?? [])]) {
    const part = typeof id === "string" ? change.model.elements.get(id) : undefined;
    if (!part || isUsed(change, part.id)) continue;
    const item = part.itemRef as Id | undefined;
    change.remove("elements", part.id);
    if (item !== undefined && !isUsed(change, item)) change.remove("elements", item);
  }
}
