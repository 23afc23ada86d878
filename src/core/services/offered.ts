import type { Description, Operation } from "../descriptions";
import { documentsOf, nameSimilarity } from "../directory";
import { type Element, type Model, nameOf } from "../model";
import { wordsOfName } from "./naming";

/** An operation that a step could be bound to. */
export interface Offered {
  readonly source: string;
  readonly format: string;
  readonly version: string;
  readonly interface: string;
  readonly operation: Operation;
  /** 0 to 1: how alike its name and data are to those of the step. */
  readonly likeness: number;
}

/**
 * The operations of some descriptions as a step's own, the likeliest first: by the words of the names, and a little by its documents.
 * O(operations × words).
 */
export function offeredTo(
  model: Model,
  step: Element,
  descriptions: readonly { readonly name: string; readonly description: Description }[],
): Offered[] {
  const name = nameOf(model, step.id);
  const documents = documentsOf(model, step.id).map((document) => spelled(document.name));
  return descriptions
    .flatMap(({ name: source, description }) =>
      description.interfaces.flatMap((service) =>
        service.operations.map((operation): Offered => {
          const fields = [...operation.in, ...operation.out].map((field) => spelled(field.name));
          const shared = documents.filter((document) => fields.includes(document)).length;
          const byName = likeness(name, operation.name);
          return {
            source,
            format: description.format,
            version: description.version,
            interface: service.name,
            operation,
            likeness: Math.min(1, byName + (documents.length > 0 ? (0.2 * shared) / documents.length : 0)),
          };
        }),
      ),
    )
    .sort((a, b) => b.likeness - a.likeness);
}

const spelled = (name: string) => wordsOfName(name).join(" ").toLowerCase();

/** The share of words two names have in common (Jaccard 1901), or how alike they are as a whole, whichever is more. */
function likeness(one: string, other: string): number {
  const [a, b] = [new Set(spelled(one).split(" ")), new Set(spelled(other).split(" "))];
  const both = [...a].filter((word) => b.has(word)).length;
  return Math.max(both / (a.size + b.size - both), nameSimilarity(spelled(one), spelled(other)));
}
