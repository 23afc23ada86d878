import { type DataType, readCondition, typesAsked } from "../feel";
import { dataInReach, type Model } from "../model";
import { modelsOf, type World } from "./world";

const remembered = new WeakMap<World, ReadonlyMap<string, DataType | undefined>>();

/**
 * The data that the conditions of a world ask for, by name, with the kind of value where the conditions tell it: those at flows and
 * those of loops, in the process and in all that it calls. In the order of the alphabet. O(elements).
 */
export function dataAsked(world: World): ReadonlyMap<string, DataType | undefined> {
  const known = remembered.get(world);
  if (known) return known;
  const found = new Map<string, DataType | undefined>();
  for (const model of modelsOf(world))
    for (const [name, type] of askedIn(model)) found.set(name, found.get(name) ?? type);
  const sorted = new Map([...found].sort(([one], [other]) => one.localeCompare(other)));
  remembered.set(world, sorted);
  return sorted;
}

function* askedIn(model: Model): Iterable<readonly [string, DataType | undefined]> {
  for (const element of model.elements)
    for (const condition of [element.conditionExpression, element.loopCondition]) {
      const text = (condition as { readonly text?: string } | undefined)?.text;
      if (!text) continue;
      const reach = dataInReach(model, element.id);
      const read = readCondition(text, reach);
      if (read.kind !== "executable") continue;
      const types = typesAsked(text, reach);
      for (const name of read.asks) yield [name, types.get(name)];
    }
}
