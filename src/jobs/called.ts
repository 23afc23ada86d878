import type { Model } from "@/core/model";
import type { Models } from "./job";

/** The name of a model that is called, among the models of a job. */
const prefix = "called ";
export const calledName = (calls: string) => prefix + calls;

/** The models that a job's model calls, by what it calls them. */
export const calledModels = (models: Models): ReadonlyMap<string, Model> =>
  new Map(
    Object.entries(models).flatMap(([name, model]) =>
      name.startsWith(prefix) ? [[name.slice(prefix.length), model] as const] : [],
    ),
  );
