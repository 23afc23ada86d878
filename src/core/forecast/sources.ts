import { type Element, flowNodesIn, type Id, type Model, nameOf, triggerOf } from "../model";
import type { Distribution, Given } from "../scenario";
import { compiledScope } from "../tokens";
import { type DrawnPlan, drawnFor } from "./caseData";
import { takenWords } from "./gaps";
import type { Plan } from "./plan";
import type { Stream } from "./random";
import { type TimerPlan, timerOf } from "./timers";

/** Where cases come from. */
export interface Source {
  readonly start: Id;
  readonly name: string;
  readonly process: Id;
  readonly interval: readonly Given<Distribution>[] | undefined;
  readonly count: number | undefined;
  readonly timer: TimerPlan | undefined;
  readonly stream: Stream;
  /** Data that is drawn for each of its cases. */
  readonly drawn: readonly DrawnPlan[];
}

/** Where cases begin: the start events an interval or a count is said of, else those that no other process of the model sets off. */
export function sourcesOf(plan: Plan): Source[] {
  const { world, scenario, gaps } = plan;
  const all = processStarts(world.model);
  const said = all.filter(({ start }) => {
    const of = scenario.of.get(start.id);
    return of?.interval !== undefined || of?.count !== undefined;
  });
  const free = all.filter(({ start, process }) => {
    const compiled = compiledScope(world, world.model, process);
    const at = compiled.nodeAt.get(start.id);
    return at === undefined || (compiled.expects[at] as readonly Id[]).length === 0;
  });
  const from = said.length > 0 ? said : free.length > 0 ? free.slice(0, 1) : all.slice(0, 1);
  return from.map(({ start, process }) => {
    const of = scenario.of.get(start.id);
    const name = nameOf(world.model, start.id) || nameOf(world.model, process) || process;
    const timer =
      of?.interval === undefined && triggerOf(world.model, start) === "timerEventDefinition"
        ? timerOf(world.model, start, scenario.start, scenario.zone)
        : undefined;
    if (of?.interval === undefined && timer === undefined) gaps.add("arrivals", start.id, name, takenWords.oneByOne);
    return {
      start: start.id,
      name,
      process,
      interval: of?.interval,
      count: of?.count,
      timer,
      stream: plan.stream(start.id, "arrivals"),
      drawn: drawnFor(scenario, start.id, process).map((one) => ({ ...one, stream: plan.stream("data", one.path) })),
    };
  });
}

/** The start events of all processes of a model; a process without one begins with itself. */
function processStarts(model: Model): { readonly start: Element; readonly process: Id }[] {
  const found: { start: Element; process: Id }[] = [];
  for (const process of model.elements) {
    if (process.type !== "process") continue;
    const nodes = flowNodesIn(model, process.id);
    const starts = nodes.filter(({ type }) => type === "startEvent");
    if (starts.length > 0) for (const start of starts) found.push({ start, process: process.id });
    else if (nodes.length > 0) found.push({ start: process, process: process.id });
  }
  return found;
}
