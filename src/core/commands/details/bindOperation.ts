import { z } from "zod";
import { say } from "../../messages";
import {
  called,
  childrenOf,
  descriptionOf,
  fieldUsesOf,
  type Id,
  isA,
  withAddress,
  withDescription,
  withFieldUses,
} from "../../model";
import { type Change, refuse } from "../kernel/change";
import { freeId, isUsed, slug } from "../kernel/freeId";
import { describeMessage, removeOperation } from "./operations";

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
/** Says what a piece of data of a call is; null takes that back, so that the names tell. */
export const mapFieldSchema = z.object({
  type: z.literal("mapField"),
  id: z.string().min(1).max(200),
  direction: z.enum(["in", "out"]),
  field: name,
  is: z.string().trim().min(1).max(2_000).nullable(),
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

export function mapField(change: Change, { id, direction, field, is }: z.infer<typeof mapFieldSchema>): void {
  const step = change.element(id);
  const others = fieldUsesOf(step).filter((use) => use.direction !== direction || use.field !== field);
  const uses = is === null ? others : [...others, { direction, field, is }];
  change.set("elements", id, "extension", withFieldUses(step, uses));
}

function operationFor(change: Change, to: BoundOperation): Id {
  const service = interfaceFor(change, to);
  const { operation } = to;
  const known = childrenOf(change.model, service, "operations").find((one) => one.name === operation.name);
  const id = known?.id ?? freeId(change, `${service}.${slug(operation.name)}`);
  if (!known) change.insert("operation", id, service, { name: operation.name });
  change.set("elements", id, "extension", withAddress(change.element(id), operation.address));
  describeMessage(change, id, "inMessageRef", `${operation.name} request`, operation.in);
  if (operation.out.length > 0 || change.element(id).outMessageRef !== undefined)
    describeMessage(change, id, "outMessageRef", `${operation.name} answer`, operation.out);
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
  removeOperation(change, operation);
  if (childrenOf(change.model, service.id).length === 0 && !isUsed(change, service.id))
    change.remove("elements", service.id);
}
