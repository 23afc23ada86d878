import { dataTypeOf, inputsNeeded } from "../decisions";
import { type DataType, readCondition, typesAsked } from "../feel";
import { dataInReach, type Model } from "../model";
import { decisionOf, isGivenFor } from "./deciding";
import { modelsOf, type World } from "./world";

const remembered = new WeakMap<World, ReadonlyMap<string, DataType | undefined>>();

/**
 * The data that the conditions and the decisions of a world ask for, by name, with the kind of value where it is told: conditions at flows
 * and of loops, in the process and in all that it calls, and what business rule tasks decide by. What a decision comes to is not asked
 * for. In the order of the alphabet. O(elements).
 */
export function dataAsked(world: World): ReadonlyMap<string, DataType | undefined> {
  const known = remembered.get(world);
  if (known) return known;
  const found = new Map<string, DataType | undefined>();
  const results = new Set<string>();
  for (const model of modelsOf(world)) {
    for (const step of model.elements) {
      const decided = decisionOf(world, step);
      if (!decided) continue;
      results.add(decided.by.result);
      for (const { name, type } of inputsNeeded(decided.model, decided.decision))
        if (!isGivenFor(step, name)) found.set(name, found.get(name) ?? dataTypeOf(decided.model, type));
    }
    for (const [name, type] of askedIn(model)) found.set(name, found.get(name) ?? type);
  }
  for (const name of results) found.delete(name);
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
