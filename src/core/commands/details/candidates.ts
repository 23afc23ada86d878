import { z } from "zod";
import { documentsOf } from "../../directory";
import { say } from "../../messages";
import {
  candidateSourceOf,
  childrenOf,
  decisions,
  type Element,
  type Id,
  withCandidateSource,
  withTrace,
  withWeights,
} from "../../model";
import { candidateFrom } from "../../services/candidates";
import { type Change, refuse } from "../kernel/change";
import { freeId, slug } from "../kernel/freeId";
import { describeMessage, removeOperation } from "./operations";

const id = z.string().min(1).max(200);
const name = z.string().trim().min(1).max(2_000);
const figure = z.number().finite();

export const keepCandidateSchema = z.object({ type: z.literal("keepCandidate"), of: id });
export const dropCandidateSchema = z.object({ type: z.literal("dropCandidate"), id });
/** Names of candidates and of their operations, several at once. */
export const nameCandidatesSchema = z.object({
  type: z.literal("nameCandidates"),
  names: z.array(z.object({ id, name })).min(1).max(5_000),
});
export const addCandidateOperationSchema = z.object({
  type: z.literal("addCandidateOperation"),
  candidate: id,
  /** The activity it comes from; null for one that no step of the model asks for. */
  of: id.nullable(),
  name,
});
export const dropCandidateOperationSchema = z.object({ type: z.literal("dropCandidateOperation"), id });
export const decideCandidateSchema = z.object({
  type: z.literal("decideCandidate"),
  id,
  decision: z
    .object({
      what: z.enum(decisions),
      reason: z.string().trim().min(1).max(2_000),
      member: z.string().max(200),
      date: z.iso.date(),
    })
    .nullable(),
});
/** A figure that nothing tells but somebody who knows; null takes it off. */
export const setCandidateFigureSchema = z.object({
  type: z.literal("setCandidateFigure"),
  id,
  criterion: z.string().trim().min(1).max(200),
  value: figure.nullable(),
});
export const setWeightsSchema = z.object({
  type: z.literal("setWeights"),
  weights: z
    .array(
      z.object({
        criterion: z.string().trim().min(1).max(200),
        weight: figure.min(0).max(1_000_000),
        isLessBetter: z.boolean(),
      }),
    )
    .max(50),
});

/**
 * Keeps a candidate with the model, in the standard's places: an interface with an operation for each activity, its documents as the data of
 * its messages; each knows what it comes from. Source of the terms: SoaML 1.0; of the places: BPMN 2.0, 8.4.3 (from memory).
 */
export function keepCandidate(change: Change, { of }: z.infer<typeof keepCandidateSchema>): void {
  change.element(of);
  const { model } = change;
  const known = childrenOf(model, model.root).find((one) => candidateSourceOf(one)?.of === of);
  if (known) refuse("kept-already", say`This candidate is kept already, as "${known.name ?? known.id}".`, [known.id]);
  const candidate = candidateFrom(model, of);
  if (!candidate) refuse("no-activities", say`There is no activity in it that a service could do.`, [of]);
  const service = freeId(change, `candidate.${slug(candidate.name)}`);
  change.insert("interface", service, model.root, { name: candidate.name });
  change.set(
    "elements",
    service,
    "extension",
    withCandidateSource(change.element(service), { of, decision: undefined, figures: {} }),
  );
  for (const operation of candidate.operations) addOperation(change, service, operation.name, operation.from);
}

export function dropCandidate(change: Change, { id }: z.infer<typeof dropCandidateSchema>): void {
  candidate(change, id);
  for (const { id: operation } of childrenOf(change.model, id, "operations")) removeOperation(change, operation);
  change.remove("elements", id);
}

export function nameCandidates(change: Change, { names }: z.infer<typeof nameCandidatesSchema>): void {
  for (const { id, name } of names) {
    const element = change.element(id);
    if (element.type === "operation") operationOf(change, id);
    else candidate(change, id);
    change.set("elements", id, "name", name);
  }
}

export function addCandidateOperation(
  change: Change,
  { candidate: service, of, name }: z.infer<typeof addCandidateOperationSchema>,
): void {
  candidate(change, service);
  if (of !== null) change.element(of);
  addOperation(change, service, name, of);
}

export function dropCandidateOperation(change: Change, { id }: z.infer<typeof dropCandidateOperationSchema>): void {
  operationOf(change, id);
  removeOperation(change, id);
}

export function decideCandidate(change: Change, { id, decision }: z.infer<typeof decideCandidateSchema>): void {
  const { element, source } = candidate(change, id);
  const next = withCandidateSource(element, { ...source, decision: decision ?? undefined });
  change.set("elements", id, "extension", next);
}

export function setCandidateFigure(change: Change, command: z.infer<typeof setCandidateFigureSchema>): void {
  const { element, source } = candidate(change, command.id);
  const { [command.criterion]: _before, ...others } = source.figures;
  const figures = command.value === null ? others : { ...others, [command.criterion]: command.value };
  change.set("elements", command.id, "extension", withCandidateSource(element, { ...source, figures }));
}

export function setWeights(change: Change, { weights }: z.infer<typeof setWeightsSchema>): void {
  const { root } = change.model;
  change.set("elements", root, "extension", withWeights(change.element(root), weights));
}

function candidate(change: Change, id: Id) {
  const element = change.element(id);
  const source = candidateSourceOf(element);
  if (!source) refuse("no-candidate", say`"${element.name ?? id}" is no candidate service.`, [id]);
  return { element, source: source as NonNullable<typeof source> };
}

function operationOf(change: Change, id: Id): Element {
  const operation = change.element(id);
  candidate(change, operation.parent ?? "");
  return operation;
}

function addOperation(change: Change, service: Id, name: string, of: Id | null): void {
  const operation = freeId(change, `${service}.${slug(name)}`);
  change.insert("operation", operation, service, { name });
  if (of !== null) change.set("elements", operation, "extension", withTrace(change.element(operation), of));
  const documents = of === null ? [] : documentsOf(change.model, of);
  const data = (direction: "in" | "out") =>
    documents
      .filter((document) => document.direction === direction)
      .map((document) => ({ name: document.name, type: "", isRequired: true }));
  // An operation has to take a message, and need not give one.
  describeMessage(change, operation, "inMessageRef", `${name} request`, data("in"));
  if (data("out").length > 0) describeMessage(change, operation, "outMessageRef", `${name} answer`, data("out"));
}
