import type { Model } from "@/core/model";

/** The models a job works on, by the name it knows each by. */
export type Models = { readonly [name: string]: Model };

/** Tells how far a job is, from 0 to 1. */
export type Tell = (share: number) => void;

/**
 * Long work as a function of plain data: the same body runs in a worker of the browser and in a thread of the server. What goes in and
 * comes out can be copied between threads; models are handed over apart, so that one that is known already need not be copied again.
 */
export type Job<Input, Output> = (models: Models, input: Input, tell: Tell) => Output | Promise<Output>;

/** A model that a job cannot do without. */
export function needs(models: Models, name: string): Model {
  const model = models[name];
  if (!model) throw new Error(`This job was given no model "${name}".`);
  return model;
}
