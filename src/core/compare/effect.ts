import { type Finding, measurable, measuresOf } from "../check";
import { handoversOf, rolesOf, stepsOf } from "../directory";
import { type Element, isGateway, isTask, type Model, outgoingOf, systemsOf } from "../model";
import { isCompared, isFlow } from "./compared";

export type EffectId =
  | "steps"
  | "byHand"
  | "bySystem"
  | "roles"
  | "systems"
  | "handovers"
  | "decisions"
  | "elements"
  | "complexity"
  | "errors"
  | "warnings";

/** One figure on both sides. All are counts. */
export interface Effect {
  readonly id: EffectId;
  readonly from: number;
  readonly to: number;
  readonly difference: number;
  /** The difference as a share of the old figure; undefined where that is 0. */
  readonly share: number | undefined;
  /** Whether less of it is better; undefined where neither is. */
  readonly less: "better" | undefined;
}

/** Steps a person does, and steps a system does by itself (common practice: a task without a type is done by hand). */
const byHand = new Set(["task", "userTask", "manualTask"]);
const bySystem = new Set(["serviceTask", "scriptTask", "businessRuleTask", "sendTask", "receiveTask"]);

const better: ReadonlySet<EffectId> = new Set(["byHand", "handovers", "complexity", "errors", "warnings"]);

/**
 * What a change comes to in figures, side by side. Findings are counted where both sides have been checked.
 * O(elements), and the hand-overs.
 */
export function effectOf(
  from: Model,
  to: Model,
  findings?: { readonly from: readonly Finding[]; readonly to: readonly Finding[] },
): Effect[] {
  const [before, after] = [figuresOf(from, findings?.from), figuresOf(to, findings?.to)];
  return [...before].map(([id, value]) => {
    const now = after.get(id) ?? 0;
    return {
      id,
      from: value,
      to: now,
      difference: now - value,
      share: value === 0 ? undefined : (now - value) / value,
      less: better.has(id) ? "better" : undefined,
    };
  });
}

function figuresOf(model: Model, findings: readonly Finding[] | undefined): Map<EffectId, number> {
  const steps = stepsOf(model);
  const tasks = steps.filter((step) => isTask(step.type));
  const count = (elements: readonly Element[], of: ReadonlySet<string>) =>
    elements.filter((element) => of.has(element.type)).length;
  const names = (of: (step: Element) => readonly { readonly name: string }[]) =>
    new Set(steps.flatMap((step) => of(step).map(({ name }) => name))).size;
  const decisions = [...model.elements].filter(
    (element) =>
      isGateway(element.type) && element.type !== "parallelGateway" && outgoingOf(model, element.id).length > 1,
  );
  const complexity = measurable(model)
    .flatMap((process) => measuresOf(model, process))
    .filter((measure) => measure.id === "complexity")
    .reduce((sum, measure) => sum + measure.value, 0);
  const figures = new Map<EffectId, number>([
    ["steps", steps.length],
    ["byHand", count(tasks, byHand)],
    ["bySystem", count(tasks, bySystem)],
    ["roles", names((step) => rolesOf(model, step.id).filter(({ part }) => part === "responsible"))],
    ["systems", names(systemsOf)],
    ["handovers", handoversOf(model, "roles").length],
    ["decisions", decisions.length],
    [
      "elements",
      [...model.elements].filter(
        (element) => isCompared(element) && !isFlow(element.type) && element.type !== "property",
      ).length,
    ],
    ["complexity", complexity],
  ]);
  if (findings) {
    figures.set("errors", findings.filter(({ severity }) => severity === "error").length);
    figures.set("warnings", findings.filter(({ severity }) => severity === "warning").length);
  }
  return figures;
}
