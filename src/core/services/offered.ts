import type { Description, Operation } from "../descriptions";
import { documentsOf, nameSimilarity } from "../directory";
import { type Element, type Model, nameOf } from "../model";
import { wordsOfName } from "./naming";

/** An operation of a description that a step can be bound to. */
export interface Offer {
  readonly source: string;
  readonly format: Description["format"];
  readonly version: string;
  readonly interface: string;
  readonly operation: Operation;
  /** The words of its name, and its data as it is compared: worked out once for all steps. */
  readonly words: readonly string[];
  readonly fields: ReadonlySet<string>;
}

export interface Offered extends Offer {
  /** 0 to 1: how alike its name and data are to those of the step. */
  readonly likeness: number;
}

/** An operation of a description as a step is bound to it (the command `bindOperation`). */
export function boundAs(
  source: string,
  { format, version }: Pick<Description, "format" | "version">,
  service: string,
  { documentation: _, ...operation }: Operation,
) {
  const lists = { in: [...operation.in], out: [...operation.out], errors: [...operation.errors] };
  return { source, format, version, interface: service, operation: { ...operation, ...lists } };
}

/** The operations of some descriptions. O(operations and their data). */
export function offersOf(
  descriptions: readonly { readonly name: string; readonly description: Description }[],
): Offer[] {
  return descriptions.flatMap(({ name: source, description: { format, version, interfaces } }) =>
    interfaces.flatMap((service) =>
      service.operations.map((operation) => ({
        source,
        format,
        version,
        interface: service.name,
        operation,
        words: words(operation.name),
        fields: new Set([...operation.in, ...operation.out].map((field) => words(field.name).join(" "))),
      })),
    ),
  );
}

/**
 * Operations as a step's own, the likeliest first: by the words of the names, and a little by its documents.
 * O(operations × words, and n log n).
 */
export function offeredTo(model: Model, step: Element, offers: readonly Offer[]): Offered[] {
  const name = words(nameOf(model, step.id));
  const documents = documentsOf(model, step.id).map((document) => words(document.name).join(" "));
  return offers
    .map((offer): Offered => {
      const shared = documents.filter((document) => offer.fields.has(document)).length;
      const byData = documents.length > 0 ? (0.2 * shared) / documents.length : 0;
      return { ...offer, likeness: Math.min(1, likeness(name, offer.words) + byData) };
    })
    .sort((a, b) => b.likeness - a.likeness);
}

const words = (name: string) => wordsOfName(name).map((word) => word.toLowerCase());

/** The share of words two names have in common (Jaccard 1901), or how alike they are as a whole, whichever is more; 0 without one. */
function likeness(one: readonly string[], other: readonly string[]): number {
  const both = one.filter((word) => other.includes(word)).length;
  if (both === 0) return 0;
  const all = new Set([...one, ...other]).size;
  return Math.max(both / all, nameSimilarity(one.join(" "), other.join(" ")));
}
