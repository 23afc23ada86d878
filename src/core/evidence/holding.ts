import { foldedName } from "../directory";
import { begunWith, roleOf, runWorld } from "../live";
import { flowNodesIn, type Id, type Model } from "../model";
import { modelsOf, type World } from "../tokens";
import { type Alignment, align, distancesToEnd, shortestRun } from "./align";
import { Automaton } from "./automaton";
import { countsIn, doneIn, type EventLog, type LoggedEvent } from "./logs/eventLog";
import { processesMeant, stepsFor } from "./matching";

/** Traces that show the same activities in the same order. */
export interface Variant {
  readonly activities: readonly string[];
  /** Which traces of the log they are. */
  readonly traces: readonly number[];
  readonly alignment: Alignment;
}

/** A step that was done by somebody else than whose lane it stands in: how often by whom. */
export interface ByOthers {
  readonly step: Id;
  readonly role: string;
  readonly traces: readonly number[];
}

/** A log held against a model. */
export interface Held {
  readonly world: World;
  readonly process: Id;
  /** What was done in each trace, in order: what the moves of its alignment are about. */
  readonly done: readonly (readonly LoggedEvent[])[];
  readonly meant: ReadonlyMap<string, readonly Id[]>;
  readonly variants: readonly Variant[];
  readonly byOthers: readonly ByOthers[];
  readonly fitting: number;
  /** 1 − cost ÷ cost at worst, over all traces; 1 where there is nothing to pay. */
  readonly fitness: number;
  /** Whether a bound was met, so that costs may be too high. */
  readonly isCut: boolean;
}

/** Tells how far it is, from 0 to 1. */
type Tell = (share: number) => void;

/**
 * Holds a log against a model: traces of the same activities are aligned once, at the least cost. The cost at worst of a trace is that of
 * moving it on the log alone and a shortest run on the model alone (A. Adriansyah, 2014). Activities are the steps of their name.
 * O(variants × alignment).
 * @param called models of what is called, as a run would have them
 */
export function holdAgainst(
  model: Model,
  log: EventLog,
  called: ReadonlyMap<Id, Model> = new Map(),
  tell: Tell = () => undefined,
): Held {
  const together = runWorld(model, called);
  const counts = countsIn(log);
  const done = log.traces.map((trace) => doneIn(trace, counts));
  const meant = stepsFor(
    done.flatMap((events) => events.map(({ activity }) => activity)),
    modelsOf(together),
  );
  const processes = processesMeant(model, meant);
  const [process = ""] = processes;
  const others = begunWith(model, process);
  // Other pools are played only where the log tells of them: else nobody would have done what they do.
  const isTogether = processes.length > 1 && processes.slice(1).every((one) => isPlayedWith(model, process, one));
  const world: World = isTogether ? together : { ...together, together: false };
  const starts = flowNodesIn(model, process).filter(({ type }) => type === "startEvent");
  const automaton = new Automaton(
    world,
    process,
    starts.map(({ id }) => id),
    isTogether ? others : [],
  );
  const distances = distancesToEnd(automaton);
  const run = shortestRun(automaton, distances);
  const gathered = new Map<string, { activities: readonly string[]; traces: number[] }>();
  for (const [number, events] of done.entries()) {
    const activities = events.map(({ activity }) => activity);
    const key = activities.join("\u0000");
    const known = gathered.get(key) ?? { activities, traces: [] };
    known.traces.push(number);
    gathered.set(key, known);
  }
  const variants: Variant[] = [];
  let [cost, worst, fitting] = [0, 0, 0];
  for (const { activities, traces } of gathered.values()) {
    const labels = activities.map((activity) => meant.get(activity) ?? []);
    const alignment = align(automaton, labels, distances, run);
    variants.push({ activities, traces, alignment });
    cost += alignment.cost * traces.length;
    worst += (activities.length + run.length) * traces.length;
    if (alignment.cost === 0) fitting += traces.length;
    tell(variants.length / gathered.size);
  }
  variants.sort((a, b) => b.traces.length - a.traces.length);
  return {
    world,
    process,
    done,
    meant,
    variants,
    byOthers: doneByOthers(variants, done, modelsOf(world)),
    fitting,
    fitness: worst === 0 ? 1 : 1 - cost / worst,
    isCut: automaton.isCut || variants.some(({ alignment }) => !alignment.isOptimal),
  };
}

const isPlayedWith = (model: Model, process: Id, other: Id): boolean =>
  begunWith(model, process).includes(other) ||
  [...model.elements].some(
    ({ type, sourceRef, targetRef }) =>
      type === "messageFlow" &&
      [sourceRef, targetRef].some((end) => isWithin(model, String(end), other)) &&
      [sourceRef, targetRef].some((end) => isWithin(model, String(end), process)),
  );

function isWithin(model: Model, id: Id, process: Id): boolean {
  for (let element = model.elements.get(id); element; element = model.elements.get(element.parent ?? ""))
    if (element.id === process || element.processRef === process) return true;
  return false;
}

/** Steps that the log has another role for than the lane they stand in. */
function doneByOthers(
  variants: readonly Variant[],
  done: readonly (readonly LoggedEvent[])[],
  models: readonly Model[],
): ByOthers[] {
  const found = new Map<string, { step: Id; role: string; traces: Set<number> }>();
  const lanes = new Map<Id, string>();
  const laneFor = (step: Id): string => {
    const known = lanes.get(step);
    if (known !== undefined) return known;
    const model = models.find((one) => one.elements.has(step));
    const role = model ? roleOf(model, step) : "";
    lanes.set(step, role);
    return role;
  };
  for (const { traces, alignment } of variants)
    for (const move of alignment.moves) {
      if (move.kind !== "both") continue;
      const lane = laneFor(move.step);
      if (lane === "") continue;
      for (const trace of traces) {
        const role = done[trace]?.[move.at]?.role ?? "";
        if (role === "" || foldedName(role) === foldedName(lane)) continue;
        const key = `${move.step}\u0000${role}`;
        const known = found.get(key) ?? { step: move.step, role, traces: new Set<number>() };
        known.traces.add(trace);
        found.set(key, known);
      }
    }
  return [...found.values()].map(({ traces, ...one }) => ({ ...one, traces: [...traces].sort((a, b) => a - b) }));
}
