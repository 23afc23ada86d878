import { foldedName, nameSimilarity } from "../directory";
import { type Id, type Model, nameOf, processesOf, processOf } from "../model";
import { isShownStep } from "./automaton";

/** Steps of models that a log would show: tasks and calls. */
export function shownSteps(
  models: readonly Model[],
): { readonly id: Id; readonly name: string; readonly model: Model }[] {
  return models.flatMap((model) =>
    [...model.elements].filter(isShownStep).map(({ id }) => ({ id, name: (nameOf(model, id) || id).trim(), model })),
  );
}

/**
 * Which steps each activity of a log may be: those of its name as it is written, else as it is spoken (small and capital letters, spaces
 * and signs alike), else of its id; those a person has said go before. None for what the models do not have. O(activities + steps).
 */
export function stepsFor(
  activities: Iterable<string>,
  models: readonly Model[],
  said: ReadonlyMap<string, readonly Id[]> = new Map(),
): ReadonlyMap<string, readonly Id[]> {
  const steps = shownSteps(models);
  const gathered = (keyOf: (step: { readonly id: Id; readonly name: string }) => string) => {
    const found = new Map<string, Id[]>();
    for (const step of steps) found.set(keyOf(step), [...(found.get(keyOf(step)) ?? []), step.id]);
    return found;
  };
  const [byName, bySound, byId] = [
    gathered(({ name }) => name),
    gathered(({ name }) => foldedName(name)),
    gathered(({ id }) => id),
  ];
  // A step that was said and is not there any more is none.
  const known = new Set(steps.map(({ id }) => id));
  return new Map(
    [...new Set(activities)].map((activity) => [
      activity,
      said.get(activity)?.filter((step) => known.has(step)) ??
        byName.get(activity.trim()) ??
        bySound.get(foldedName(activity)) ??
        byId.get(activity) ??
        [],
    ]),
  );
}

/** Names less alike than this are not asked about. */
const worthAsking = 0.6;

/** The step an activity is called most like, where that is worth asking whether it is meant; undefined where none is. O(steps). */
export function stepProposed(
  activity: string,
  steps: readonly { readonly id: Id; readonly name: string }[],
): Id | undefined {
  let [best, most]: [Id | undefined, number] = [undefined, worthAsking];
  for (const { id, name } of steps) {
    const alike = nameSimilarity(activity, name);
    if (alike > most || (alike === most && best === undefined)) [best, most] = [id, alike];
  }
  return best;
}

/** The processes of a model that a log tells of: those whose steps it names, the one it names most first. */
export function processesMeant(model: Model, meant: ReadonlyMap<string, readonly Id[]>): Id[] {
  const counts = new Map<Id, number>();
  for (const [, steps] of meant)
    for (const step of steps) {
      const process = model.elements.has(step) ? processOf(model, step) : undefined;
      const id = typeof process === "string" ? process : (process as { id?: Id } | undefined)?.id;
      if (id !== undefined) counts.set(id, (counts.get(id) ?? 0) + 1);
    }
  const named = [...counts].sort(([, a], [, b]) => b - a).map(([id]) => id);
  return named.length > 0
    ? named
    : processesOf(model)
        .slice(0, 1)
        .map(({ id }) => id);
}
