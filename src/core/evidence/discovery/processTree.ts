/** A process made of blocks alone: what is sound by how it is made. */
export type ProcessTree =
  | { readonly kind: "step"; readonly name: string }
  | { readonly kind: "nothing" }
  /** One after the other; one of them; all of them in any order; of a loop the first is done, then any number of times one of the others and the first again. */
  | { readonly kind: "sequence" | "choice" | "parallel" | "loop"; readonly parts: readonly ProcessTree[] };

export const nothing: ProcessTree = { kind: "nothing" };
export const step = (name: string): ProcessTree => ({ kind: "step", name });

/** A block of some parts; of one part that part alone, blocks of the same kind in one. */
export function block(kind: "sequence" | "choice" | "parallel", parts: readonly ProcessTree[]): ProcessTree {
  const flat = parts.flatMap((part) => (part.kind === kind ? part.parts : [part]));
  const kept = kind === "choice" ? flat : flat.filter((part) => part.kind !== "nothing");
  const [only] = kept;
  if (!only) return nothing;
  return kept.length === 1 ? only : { kind, parts: kept };
}
