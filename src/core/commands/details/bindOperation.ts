import { z } from "zod";
import { say } from "../../messages";
import {
  called,
  childrenOf,
  descriptionOf,
  type Id,
  isA,
  referrersOf,
  withAddress,
  withDataFields,
  withDescription,
} from "../../model";
import { type Change, refuse } from "../kernel/change";

const name = z.string().min(1).max(2_000);
const fields = z.array(z.object({ name, type: z.string().max(500), isRequired: z.boolean() })).max(2_000);

/** An operation of a service that exists, as its description says it. */
export const boundOperationSchema = z.object({
  source: name,
  format: z.string().max(40),
  version: z.string().max(200),
  interface: name,
  operation: z.object({
    name,
    in: fields,
    out: fields,
    errors: z.array(z.string().max(500)).max(200),
    address: z.string().max(2_000),
  }),
});
export const bindOperationSchema = z.object({
  type: z.literal("bindOperation"),
  id: z.string().min(1).max(200),
  /** Null where it is bound to none any more. */
  to: boundOperationSchema.nullable(),
});
type BoundOperation = z.infer<typeof boundOperationSchema>;

/**
 * Binds a task to an operation of a service, in the standard's places: the operation stands in an interface of the definitions, with
 * its messages and what they hold. One interface serves all tasks bound to it; what nobody is bound to any more goes.
 * Source: BPMN 2.0, 8.4.3 (interfaces), 8.4.11 (messages), 10.3.3 (service, send and receive tasks), from memory.
 */
export function bindOperation(change: Change, { id, to }: z.infer<typeof bindOperationSchema>): void {
  const task = change.element(id);
  if (!isA(task, "serviceTask", "sendTask", "receiveTask"))
    refuse(
      "not-bindable",
      say`${called(change.model, task)} cannot be bound: only service, send and receive tasks call an operation. Make it one first.`,
      [id],
    );
  const before = task.operationRef as Id | undefined;
  const operation = to ? operationFor(change, to) : undefined;
  change.set("elements", id, "operationRef", operation);
  if (to && change.element(id).implementation === undefined)
    change.set("elements", id, "implementation", "##WebService");
  if (before !== undefined && before !== operation) sweep(change, before);
}

function operationFor(change: Change, to: BoundOperation): Id {
  const service = interfaceFor(change, to);
  const { operation } = to;
  const known = childrenOf(change.model, service, "operations").find((one) => one.name === operation.name);
  const id = known?.id ?? freeId(change, `${service}.${slug(operation.name)}`);
  if (!known) change.insert("operation", id, service, { name: operation.name });
  change.set("elements", id, "extension", withAddress(change.element(id), operation.address));
  describe(change, id, "inMessageRef", `${operation.name} request`, operation.in);
  if (operation.out.length > 0 || change.element(id).outMessageRef !== undefined)
    describe(change, id, "outMessageRef", `${operation.name} answer`, operation.out);
  const errors = operation.errors.map((code) => errorFor(change, code));
  change.set("elements", id, "errorRef", errors.length > 0 ? errors : undefined);
  return id;
}

/** The interface of that name which was read from the same file, or one that a file brought without saying where it comes from. */
function interfaceFor(change: Change, to: BoundOperation): Id {
  const { root } = change.model;
  const named = childrenOf(change.model, root).filter((one) => one.type === "interface" && one.name === to.interface);
  const known = named.find((one) => (descriptionOf(one)?.source ?? to.source) === to.source);
  const id = known?.id ?? freeId(change, `service.${slug(to.interface)}`);
  if (!known) change.insert("interface", id, root, { name: to.interface });
  change.set("elements", id, "extension", withDescription(change.element(id), to));
  return id;
}

/** The message of an operation, and the definition of what it holds. */
function describe(
  change: Change,
  operation: Id,
  field: "inMessageRef" | "outMessageRef",
  title: string,
  data: BoundOperation["operation"]["in"],
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

function errorFor(change: Change, code: string): Id {
  const { root } = change.model;
  const known = childrenOf(change.model, root).find((one) => one.type === "error" && one.errorCode === code);
  if (known) return known.id;
  const id = freeId(change, `error.${slug(code)}`);
  change.insert("error", id, root, { name: code, errorCode: code });
  return id;
}

/** Takes an operation out that nobody is bound to, with what only it needed; one that no description brought stays. */
function sweep(change: Change, operation: Id): void {
  const element = change.model.elements.get(operation);
  const service = element?.parent == null ? undefined : change.model.elements.get(element.parent);
  if (!element || !service || !descriptionOf(service) || isUsed(change, operation)) return;
  const errors = (element.errorRef as readonly Id[] | undefined) ?? [];
  const messages = [element.inMessageRef, element.outMessageRef] as readonly (Id | undefined)[];
  change.remove("elements", operation);
  for (const id of [...messages, ...errors]) {
    const part = id === undefined ? undefined : change.model.elements.get(id);
    if (!part || isUsed(change, part.id)) continue;
    const item = part.itemRef as Id | undefined;
    change.remove("elements", part.id);
    if (item !== undefined && !isUsed(change, item)) change.remove("elements", item);
  }
  if (childrenOf(change.model, service.id).length === 0 && !isUsed(change, service.id))
    change.remove("elements", service.id);
}

const isUsed = (change: Change, id: Id) => referrersOf(change.model, id).length > 0;

/** An id made of a name, as an XML name has to be. */
export const slug = (text: string): string =>
  text
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 60) || "unnamed";

function freeId(change: Change, wish: string): Id {
  let id = wish;
  for (let at = 2; change.isTaken(id); at++) id = `${wish}.${at}`;
  return id;
}
