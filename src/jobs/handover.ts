import { replacementEdits } from "@/core/merge";
import { applyEdits, type Edit, type Model, type StoredModel, toStored, trustStored } from "@/core/model";

/**
 * A model on its way to a worker: whole, or as what became otherwise since it was last handed over under that name, or not at all where
 * it is the same.
 */
export type Handed = { readonly whole: StoredModel } | { readonly edits: readonly Edit[] };

/** The sender's side: knows what the other side holds. */
export class HandingOver {
  readonly #held = new Map<string, Model>();

  /** What is to be sent so that the other side holds these models. */
  hand(models: { readonly [name: string]: Model }): [string, Handed][] {
    return Object.entries(models).map(([name, model]) => {
      const before = this.#held.get(name);
      this.#held.set(name, model);
      if (before === model) return [name, { edits: [] }];
      const isSameBesides =
        before && before.root === model.root && before.form === model.form && before.notes === model.notes;
      return [name, isSameBesides ? { edits: replacementEdits(before, model) } : { whole: toStored(model) }];
    });
  }
}

/** The receiver's side: keeps one copy of each model, and brings it up to date. */
export class Held {
  readonly #models = new Map<string, Model>();

  take(handed: readonly (readonly [string, Handed])[]): { [name: string]: Model } {
    return Object.fromEntries(
      handed.map(([name, how]) => {
        const model = "whole" in how ? trustStored(how.whole) : this.#changed(name, how.edits);
        this.#models.set(name, model);
        return [name, model];
      }),
    );
  }

  #changed(name: string, edits: readonly Edit[]): Model {
    const before = this.#models.get(name);
    const applied = before && applyEdits(before, edits);
    if (!applied?.ok) throw new Error(`The model "${name}" was handed over as changes to one that is not here.`);
    return applied.value;
  }
}
