import { isActivity, type Model } from "../model";
import { scenariosOf } from "../scenario";

/** How much a model's first scenario says: nothing, something, or how often cases come and what every step takes. */
export type Assumed = "nothing" | "something" | "enough";

/** O(elements). */
export function howAssumed(model: Model): Assumed {
  const [scenario] = scenariosOf(model);
  if (!scenario || scenario.of.size === 0) return "nothing";
  const comes = [...scenario.of.values()].some(({ interval, count }) => interval !== undefined || count !== undefined);
  let isMissing = false;
  for (const element of model.elements) {
    if (!isActivity(element.type) || element.type.endsWith("ubProcess") || element.isForCompensation === true) continue;
    if (Object.keys(scenario.of.get(element.id)?.times ?? {}).length === 0) isMissing = true;
  }
  return comes && !isMissing ? "enough" : "something";
}
