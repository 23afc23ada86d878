import { type Decided, type Decision, type DecisionModel, decide } from "../decisions";
import type { CaseData } from "../feel";
import { type DecidedBy, decidedBy, type Element, fieldUsesOf, type Id } from "../model";
import type { WalkStep } from "./player";
import { modelsOf, type World } from "./world";

/** A decision that was taken in a case. */
export interface Taken {
  readonly step: number;
  readonly element: Id;
  readonly by: DecidedBy;
  readonly decided: Decided;
}

/** The decision a step decides by, with the file it stands in, where that is known. */
export function decisionOf(
  world: World,
  step: Element,
): { readonly by: DecidedBy; readonly model: DecisionModel; readonly decision: Decision } | undefined {
  const by = step.type === "businessRuleTask" ? decidedBy(step) : undefined;
  const model = by && world.decisions?.get(by.file);
  const decision = model?.decisions.get(by?.decision ?? "");
  return by && model && decision ? { by, model, decision } : undefined;
}

/**
 * The data of a case as it grows: what it is given, and what the decisions on its way come to. What a decision needs is found by its name,
 * by what the step says it is, or as the one part of that name in what there is.
 */
export class CaseDataSoFar {
  #data: CaseData;
  #read = 0;
  readonly taken: Taken[] = [];
  readonly #steps: ReadonlyMap<Id, Element>;

  constructor(
    readonly world: World,
    readonly given: CaseData,
  ) {
    this.#data = given;
    const steps = world.decisions?.size
      ? modelsOf(world).flatMap((model) => [...model.elements].filter((one) => one.type === "businessRuleTask"))
      : [];
    this.#steps = new Map(steps.map((step) => [step.id, step]));
  }

  /** The data behind what has happened so far. The log only grows. O(new lines). */
  after(log: readonly WalkStep[]): CaseData {
    for (; this.#read < log.length; this.#read++) {
      const line = log[this.#read] as WalkStep;
      // It is over when it is left; one that nothing can interrupt is entered and over at once.
      const isOver = line.event === "left" || (line.event === "entered" && line.flows.length > 0);
      const step = isOver ? this.#steps.get(line.element) : undefined;
      const known = step && decidedAt(this.world, step, this.#data);
      if (!step || !known) continue;
      this.taken.push({ step: line.step, element: step.id, by: known.by, decided: known.decided });
      this.#data = known.data;
    }
    return this.#data;
  }
}

/** What a step decides for some data, and the data behind it; undefined where it decides nothing. */
export function decidedAt(
  world: World,
  step: Element,
  data: CaseData,
): { readonly by: DecidedBy; readonly decided: Decided; readonly data: CaseData } | undefined {
  const known = decisionOf(world, step);
  if (!known) return undefined;
  const decided = decide(known.model, known.decision, dataFor(known.model, step, data));
  return { by: known.by, decided, data: { ...data, [known.by.result]: decided.result } };
}

/** The data of a case as the inputs of a file of decisions name it. */
function dataFor(model: DecisionModel, step: Element, data: CaseData): CaseData {
  const said = new Map(fieldUsesOf(step).flatMap((use) => (use.direction === "in" ? [[use.field, use.is]] : [])));
  const found = [...model.inputs.values()].flatMap(({ name }) => {
    const at = said.get(name);
    if (at !== undefined) return [[name, valueAt(data, at)] as const];
    return name in data ? [] : partsNamed(data, name);
  });
  return { ...data, ...Object.fromEntries(found) };
}

/** Whether a step says itself what an input of its decision is. */
export const isGivenFor = (step: Element, input: string): boolean =>
  fieldUsesOf(step).some((use) => use.direction === "in" && use.field === input);

/** The value at a path such as "Connection application.rated power". */
function valueAt(data: CaseData, path: string): unknown {
  if (path in data) return data[path];
  for (let dot = path.indexOf("."); dot >= 0; dot = path.indexOf(".", dot + 1)) {
    const inside = data[path.slice(0, dot)];
    if (isRecord(inside)) return valueAt(inside, path.slice(dot + 1).trim());
  }
  return undefined;
}

/** The part of that name in the data, where there is just one. */
function partsNamed(data: CaseData, name: string): (readonly [string, unknown])[] {
  const parts = Object.values(data).flatMap((held) => (isRecord(held) && name in held ? [held[name]] : []));
  return parts.length === 1 ? [[name, parts[0]]] : [];
}
const isRecord = (value: unknown): value is CaseData =>
  typeof value === "object" && value !== null && !Array.isArray(value);
