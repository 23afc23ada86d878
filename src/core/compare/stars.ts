import type { Id } from "../model";
import type { Relation } from "./succession";

/** Steps that now stand otherwise to one another. Ids are of the new side. */
export interface Regrouped {
  readonly kind: "parallel" | "sequential" | "alternative" | "reordered";
  readonly step: Id;
  readonly others: readonly Id[];
  readonly is: Relation;
}

export function orderKind(was: Relation, is: Relation): Regrouped["kind"] {
  if (is === "parallel") return "parallel";
  if (is === "alternative") return "alternative";
  return was === "before" || was === "after" ? "reordered" : "sequential";
}

interface Star {
  readonly kind: Regrouped["kind"];
  readonly is: Relation;
  readonly step: Id;
  readonly others: Set<Id>;
}

const turned = (relation: Relation): Relation =>
  relation === "before" ? "after" : relation === "after" ? "before" : relation;

/**
 * Pairs of steps that stand otherwise to one another, told by as few steps as possible: of "A and B are after C now" and "A and D are",
 * the one change is A's. The step that most pairs are about is taken first, with its pairs, and so on until none is left.
 * O(pairs + steps²).
 */
export class Stars {
  readonly #stars = new Map<string, Star>();

  add(kind: Regrouped["kind"], is: Relation, a: Id, b: Id): void {
    this.#star(kind, is, a).others.add(b);
    this.#star(kind, turned(is), b).others.add(a);
  }

  #star(kind: Regrouped["kind"], is: Relation, step: Id): Star {
    const key = `${kind} ${is} ${step}`;
    let star = this.#stars.get(key);
    if (!star) {
      star = { kind, is, step, others: new Set() };
      this.#stars.set(key, star);
    }
    return star;
  }

  /** @param isChanged whether a step changed otherwise as well: among equals it is the one to tell of */
  *taken(isChanged: (step: Id) => boolean): Generator<Regrouped> {
    const rank = ({ step, is, others }: Star) => others.size * 4 + (isChanged(step) ? 2 : 0) + (is === "after" ? 1 : 0);
    for (;;) {
      let best: Star | undefined;
      for (const star of this.#stars.values())
        if (
          star.others.size > 0 &&
          (!best || rank(star) > rank(best) || (rank(star) === rank(best) && star.step < best.step))
        )
          best = star;
      if (!best) return;
      const { kind, is, step } = best;
      const others = [...best.others];
      yield { kind, is, step, others };
      best.others.clear();
      for (const other of others) this.#stars.get(`${kind} ${turned(is)} ${other}`)?.others.delete(step);
    }
  }
}
