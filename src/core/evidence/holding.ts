import { foldedName } from "../directory";
import { begunWith, roleOf, runWorld } from "../live";
import { flowNodesIn, type Id, type Model } from "../model";
import { modelsOf, type World } from "../tokens";
import { type Alignment, align, distancesToEnd, shortestRun } from "./align";
import { Automaton } from "./automaton";
import { type Counts, countsIn, doneIn, type EventLog, type LogVariant, variantsOf, wordAt } from "./logs/eventLog";
import { processesMeant, stepsFor } from "./matching";
import { type Closeness, closeness } from "./precision";

/** A variant, and how it and a run of the model go together. */
export interface Variant extends LogVariant {
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
  /** The states of the model, as far as they were come to. */
  readonly automaton: Automaton;
  readonly process: Id;
  readonly traces: number;
  readonly meant: ReadonlyMap<string, readonly Id[]>;
  readonly variants: readonly Variant[];
  readonly byOthers: readonly ByOthers[];
  readonly fitting: number;
  /** 1 − cost ÷ cost at worst, over all traces; 1 where there is nothing to pay. */
  readonly fitness: number;
  readonly closeness: Closeness;
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
 * @param said which steps an activity is, where a person has said it; none for what is not in the model
 */
export function holdAgainst(
  model: Model,
  log: EventLog,
  {
    called = new Map(),
    said = new Map(),
    tell = () => undefined,
  }: {
    readonly called?: ReadonlyMap<Id, Model>;
    readonly said?: ReadonlyMap<string, readonly Id[]>;
    readonly tell?: Tell;
  } = {},
): Held {
  const counts = countsIn(log);
  const found = variantsOf(log, counts);
  const activities = new Set(found.flatMap(({ activities: own }) => own));
  // A process that is called, of whose steps the log tells nothing, is one step: the call.
  const looked = new Map(
    [...called].filter(([, one]) => [...stepsFor(activities, [one], said).values()].some((steps) => steps.length > 0)),
  );
  const together = runWorld(model, looked);
  const meant = stepsFor(activities, modelsOf(together), said);
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
  const variants: Variant[] = [];
  let [cost, worst, fitting] = [0, 0, 0];
  for (const { activities, traces } of found) {
    const labels = activities.map((activity) => meant.get(activity) ?? []);
    const alignment = align(automaton, labels, distances, run);
    variants.push({ activities, traces, alignment });
    cost += alignment.cost * traces.length;
    worst += (activities.length + run.length) * traces.length;
    if (alignment.cost === 0) fitting += traces.length;
    tell(variants.length / found.length);
  }
  return {
    world,
    automaton,
    process,
    traces: log.from.length,
    meant,
    variants,
    byOthers: doneByOthers(variants, log, counts, modelsOf(world)),
    fitting,
    fitness: worst === 0 ? 1 : 1 - cost / worst,
    closeness: closeness(automaton, variants),
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
  log: EventLog,
  counts: Counts,
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
  // A log that has no roles has no others.
  if (log.role.words.length <= 1) return [];
  for (const { traces, alignment } of variants) {
    const moves = alignment.moves.flatMap((move) => (move.kind === "both" && laneFor(move.step) !== "" ? [move] : []));
    for (const trace of traces) {
      const done = doneIn(log, trace, counts);
      for (const { step, at } of moves) {
        const role = wordAt(log.role, done[at] as number);
        if (role === "" || foldedName(role) === foldedName(laneFor(step))) continue;
        const key = `${step}\u0000${role}`;
        const known = found.get(key) ?? { step, role, traces: new Set<number>() };
        known.traces.add(trace);
        found.set(key, known);
      }
    }
  }
  return [...found.values()].map(({ traces, ...one }) => ({ ...one, traces: [...traces].sort((a, b) => a - b) }));
}
