import type { NodePlan, Plan } from "./plan";
import type { Crossing } from "./resources";
import type { Running } from "./running";

/** Ways between sites to a step: from where the case was worked on last on its way here, then to the systems the step uses elsewhere. */
export function waysTo(plan: Plan, run: Running, step: NodePlan): readonly Crossing[] {
  let [latest, from] = [0, step.before?.orLast ? run.lastSite : undefined];
  for (const one of step.before?.steps ?? []) {
    const at = run.doneAs[one] ?? 0;
    if (at > latest) [latest, from] = [at, plan.siteOf(one)];
  }
  const way = plan.crossing(from, step.site);
  return way ? [way, ...step.calls] : step.calls;
}

/** A step is done: from here the case goes on to what comes next. */
export function doneAt(run: Running, { element, site }: NodePlan): void {
  if (site === undefined) return;
  run.done++;
  run.doneAs[element] = run.done;
  run.lastSite = site;
}
