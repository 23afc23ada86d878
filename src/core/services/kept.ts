import { candidateSourceOf, childrenOf, type Decision, type Id, type Model, tracedTo } from "../model";
import { type CandidateOperation, candidateFrom } from "./candidates";

/** An operation of a kept candidate; `from` is the step it comes from, undefined where somebody added it. */
export interface KeptOperation {
  readonly id: Id;
  readonly name: string;
  readonly from: Id | undefined;
  /** The step it came from is not there any more. */
  readonly isSourceGone: boolean;
}

/** A candidate service that is kept with the model. */
export interface KeptCandidate {
  readonly id: Id;
  readonly name: string;
  readonly from: Id;
  readonly isSourceGone: boolean;
  readonly operations: readonly KeptOperation[];
  /** Steps of what it was derived from that none of its operations stands for: left out, or added to the model since. */
  readonly left: readonly CandidateOperation[];
  readonly decision: Decision | undefined;
  readonly figures: { readonly [criterion: string]: number };
}

/** The candidates kept with a model, in the order in which they were. O(elements). */
export function keptCandidates(model: Model): KeptCandidate[] {
  return childrenOf(model, model.root).flatMap((element) => {
    const source = candidateSourceOf(element);
    if (element.type !== "interface" || !source) return [];
    const operations = childrenOf(model, element.id, "operations").map((operation): KeptOperation => {
      const from = tracedTo(operation);
      const isSourceGone = from !== undefined && !model.elements.has(from);
      return { id: operation.id, name: operation.name ?? operation.id, from, isSourceGone };
    });
    const traced = new Set(operations.map(({ from }) => from));
    return {
      id: element.id,
      name: element.name ?? element.id,
      from: source.of,
      isSourceGone: !model.elements.has(source.of),
      operations,
      left: (candidateFrom(model, source.of)?.operations ?? []).filter(({ from }) => !traced.has(from)),
      decision: source.decision,
      figures: source.figures,
    };
  });
}

/** The operations of kept candidates that stand for a step: the way back from the step. */
export const servedBy = (
  model: Model,
  step: Id,
): { readonly candidate: KeptCandidate; readonly operation: KeptOperation }[] =>
  keptCandidates(model).flatMap((candidate) =>
    candidate.operations.flatMap((operation) => (operation.from === step ? [{ candidate, operation }] : [])),
  );
