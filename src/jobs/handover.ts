import { replacementEdits } from "@/core/merge";
import { applyEdits, type Edit, type Model, type StoredModel, toStored, trustStored } from "@/core/model";

/**
 * A model on its way to a worker: whole, or as what became otherwise since it was last handed over under that name, or not at all where
 * it is the same.
 */
export type Handed = { readonly whole: StoredModel } | { readonly edits: readonly Edit[] };

/** A worker lives as long as its page: of models that nothing was asked about for long only these many are kept. */
const mostHeld = 16;

/** Models by name, the one used last at the end. Both sides let go of the same, since both are told the same in the same order. */
class Kept extends Map<string, Model> {
  keep(name: string, model: Model): void {
    this.delete(name);
    this.set(name, model);
  }

  /** Lets go of those used longest ago, but of none of those used now. */
  letGo(used: number): void {
    const most = Math.max(mostHeld, used);
    for (const name of this.keys()) {
      if (this.size <= most) return;
      this.delete(name);
    }
  }
}

/** The sender's side: knows what the other side holds. */
export class HandingOver {
  readonly #held = new Kept();

  /** What is to be sent so that the other side holds these models. */
  hand(models: { readonly [name: string]: Model }): [string, Handed][] {
    const handed = Object.entries(models).map(([name, model]): [string, Handed] => {
      const before = this.#held.get(name);
      this.#held.keep(name, model);
      if (before === model) return [name, { edits: [] }];
      const isSameBesides =
        before && before.root === model.root && before.form === model.form && before.notes === model.notes;
      return [name, isSameBesides ? { edits: replacementEdits(before, model) } : { whole: toStored(model) }];
    });
    this.#held.letGo(handed.length);
    return handed;
  }
}

/** The receiver's side: keeps one copy of each model, and brings it up to date. */
export class Held {
  readonly #models = new Kept();

  take(handed: readonly (readonly [string, Handed])[]): { [name: string]: Model } {
    const models = Object.fromEntries(
      handed.map(([name, how]) => {
        const model = "whole" in how ? trustStored(how.whole) : this.#changed(name, how.edits);
        this.#models.keep(name, model);
        return [name, model];
      }),
    );
    this.#models.letGo(handed.length);
    return models;
  }

  /** How many models are kept. */
  get size(): number {
    return this.#models.size;
  }

  #changed(name: string, edits: readonly Edit[]): Model {
    const before = this.#models.get(name);
    const applied = before && applyEdits(before, edits);
    if (!applied?.ok) throw new Error(`The model "${name}" was handed over as changes to one that is not here.`);
    return applied.value;
  }
}
