import { type Element, flowNodesIn, type Id, isGateway, type Model, outgoingOf } from "../../model";
import { isShownStep } from "../automaton";
import { spanOf } from "../filters";
import type { Held, Variant } from "../holding";
import { begunIn, countsIn, doneIn, type EventLog, wordAt } from "../logs/eventLog";
import { hoursIn, type MeasuredHours } from "./hours";

/** What a log says of one step: seconds, each time it was done as modelled. */
export interface MeasuredWork {
  readonly step: Id;
  /** From its beginning to its completion, where the log tells both. */
  readonly working: readonly number[];
  /** From when what came before it in its case was complete until it began; was complete, where no beginning is told. */
  readonly waiting: readonly number[];
}

export interface MeasuredWay {
  readonly flow: Id;
  readonly gateway: Id;
  readonly times: number;
  /** Of all times that the gateway was come to; of an inclusive one, shares of several ways come to more than 1. */
  readonly share: number;
}

/** What a scenario can be filled with from a log. */
export interface MeasuredLog {
  readonly cases: number;
  /** When the first case began, milliseconds since 1970; undefined in a log without times. */
  readonly first: number | undefined;
  /** Seconds between the beginnings of cases. */
  readonly intervals: readonly number[];
  /** Seconds from the first event of a case to its last. */
  readonly durations: readonly number[];
  readonly steps: readonly MeasuredWork[];
  readonly ways: readonly MeasuredWay[];
  /** Who did something, by role. */
  readonly people: readonly { readonly role: string; readonly count: number }[];
  /** When they were seen to work, by role. */
  readonly hours: readonly MeasuredHours[];
}

/** What took how long, how often which way was taken, and who worked. O(events + moves). */
export function measuredIn(log: EventLog, held: Held): MeasuredLog {
  const spans = log.cases.map((_, trace) => spanOf(log, trace)).filter(([from]) => !Number.isNaN(from));
  const began = spans.map(([from]) => from).sort((a, b) => a - b);
  return {
    cases: log.cases.length,
    first: began[0],
    intervals: began.slice(1).map((at, place) => (at - (began[place] as number)) / 1_000),
    durations: spans.map(([from, until]) => (until - from) / 1_000),
    steps: worksIn(log, held.variants),
    ways: waysIn(held.world.model, held.process, held.variants),
    people: peopleIn(log),
    hours: hoursIn(log),
  };
}

function worksIn(log: EventLog, variants: readonly Variant[]): MeasuredWork[] {
  const counts = countsIn(log);
  const found = new Map<Id, { working: number[]; waiting: number[] }>();
  for (const { traces, alignment } of variants)
    for (const trace of traces) {
      const done = doneIn(log, trace, counts);
      const begun = begunIn(log, trace);
      const began = done.map((event) => begun.get(log.activity.of[event] as number)?.shift());
      let before = Number.NaN;
      const stepAt = new Map(alignment.moves.flatMap((move) => (move.kind === "both" ? [[move.at, move.step]] : [])));
      for (const [place, event] of done.entries()) {
        const at = log.at[event] as number;
        const begin = began[place] ?? at;
        const step = stepAt.get(place) as Id | undefined;
        if (step !== undefined && !Number.isNaN(at)) {
          const own = found.get(step) ?? { working: [], waiting: [] };
          found.set(step, own);
          if (began[place] !== undefined && at >= begin) own.working.push((at - begin) / 1_000);
          if (begin >= before) own.waiting.push((begin - before) / 1_000);
        }
        if (!Number.isNaN(at)) before = Number.isNaN(before) ? at : Math.max(before, at);
      }
    }
  return [...found].map(([step, own]) => ({ step, ...own }));
}

/** What comes next behind a flow that a log would show: steps, and whether the process may end unseen. */
interface Behind {
  readonly steps: ReadonlySet<Id>;
  readonly ends: boolean;
}

/**
 * How often each way out of an exclusive or inclusive gateway was taken, by the steps that were done: behind a step that leads there unseen,
 * the next step that stands behind one of its ways tells which. What could be either is not counted.
 */
function waysIn(model: Model, process: Id, variants: readonly Variant[]): MeasuredWay[] {
  const found: MeasuredWay[] = [];
  for (const gateway of flowNodesIn(model, process)) {
    const isExclusive = gateway.type === "exclusiveGateway" || gateway.type === "eventBasedGateway";
    const flows = outgoingOf(model, gateway.id);
    if (flows.length < 2 || (!isExclusive && gateway.type !== "inclusiveGateway")) continue;
    const behind = new Map(flows.map(({ id, targetRef }) => [id, behindNode(model, String(targetRef))]));
    const before = beforeNode(model, gateway.id);
    const common = commonSteps(
      model,
      gateway.id,
      flows.map(({ targetRef }) => String(targetRef)),
    );
    const times = new Map<Id, number>();
    let passed = 0;
    for (const { alignment, traces } of variants) {
      const run = alignment.moves.flatMap((move) => (move.kind === "log" ? [] : [move.step]));
      for (const [place, step] of [undefined, ...run].entries()) {
        if (step === undefined ? !before.begins : !before.steps.has(step)) continue;
        const taken = waysTaken(run.slice(place), behind, isExclusive ? undefined : common);
        if (taken.length === 0) continue;
        passed += traces.length;
        for (const flow of taken) times.set(flow, (times.get(flow) ?? 0) + traces.length);
      }
    }
    for (const { id } of flows) {
      const own = times.get(id) ?? 0;
      if (passed > 0) found.push({ flow: id, gateway: gateway.id, times: own, share: own / passed });
    }
  }
  return found;
}

/**
 * Which ways a run took out of a gateway, from what it did after: of an exclusive one the first that is told; of an inclusive one all that
 * are, until something is done that comes behind each of them.
 */
function waysTaken(after: readonly Id[], behind: ReadonlyMap<Id, Behind>, common: ReadonlySet<Id> | undefined): Id[] {
  const taken = new Set<Id>();
  for (const step of after) {
    const ways = [...behind].filter(([, { steps }]) => steps.has(step));
    const [only] = ways;
    if (common?.has(step)) return taken.size > 0 || ways.length !== 1 || !only ? [...taken] : [only[0]];
    if (ways.length > 1 && !common) return [];
    if (ways.length === 1 && only) taken.add(only[0]);
    if (!common && ways.length > 0) return [...taken];
  }
  if (taken.size > 0) return [...taken];
  const ending = [...behind].filter(([, { ends }]) => ends);
  return ending.length === 1 ? [(ending[0] as [Id, Behind])[0]] : [];
}

/** Steps that come behind every one of some nodes, without a way through the gateway they stand behind. */
function commonSteps(model: Model, gateway: Id, nodes: readonly Id[]): ReadonlySet<Id> {
  const reached = nodes.map((node) => {
    const seen = new Set<Id>([gateway]);
    const pending = [node];
    for (let id = pending.pop(); id !== undefined; id = pending.pop()) {
      const element = model.elements.get(id);
      if (!element || seen.has(id)) continue;
      seen.add(id);
      pending.push(...targetsOf(model, element));
    }
    return seen;
  });
  return new Set([...(reached[0] ?? [])].filter((id) => id !== gateway && reached.every((seen) => seen.has(id))));
}

/** What comes next from a node that a log would show, the node itself included. */
function behindNode(model: Model, node: Id): Behind {
  const steps = new Set<Id>();
  let ends = false;
  const seen = new Set<Id>();
  const pending = [node];
  for (let id = pending.pop(); id !== undefined; id = pending.pop()) {
    const element = model.elements.get(id);
    if (!element || seen.has(id)) continue;
    seen.add(id);
    if (isShownStep(element)) steps.add(id);
    else if (element.type === "endEvent") ends = true;
    else pending.push(...targetsOf(model, element));
  }
  return { steps, ends };
}

/** Steps that lead to a node without another between, and whether the process leads there from its beginning. */
function beforeNode(model: Model, node: Id): { readonly steps: ReadonlySet<Id>; readonly begins: boolean } {
  const steps = new Set<Id>();
  let begins = false;
  const seen = new Set<Id>();
  const pending = [node];
  for (let id = pending.pop(); id !== undefined; id = pending.pop()) {
    if (seen.has(id)) continue;
    seen.add(id);
    for (const { sourceRef } of [...model.elements].filter(
      ({ type, targetRef }) => type === "sequenceFlow" && targetRef === id,
    )) {
      const source = model.elements.get(String(sourceRef));
      if (!source) continue;
      if (isShownStep(source)) steps.add(source.id);
      else if (source.type === "startEvent") begins = true;
      // What comes from an edge of a step did not finish it: it says nothing here.
      else if (isGateway(source.type) || source.type.startsWith("intermediate")) pending.push(source.id);
    }
  }
  return { steps, begins };
}

const targetsOf = (model: Model, { id }: Element): Id[] =>
  outgoingOf(model, id).map(({ targetRef }) => String(targetRef));

function peopleIn(log: EventLog): { role: string; count: number }[] {
  const people = new Map<string, Set<number>>();
  for (let trace = 0; trace < log.from.length; trace++)
    for (let event = log.from[trace] as number; event < (log.until[trace] as number); event++) {
      const [role, who] = [wordAt(log.role, event), log.who.of[event] as number];
      if (role === "" || who === 0) continue;
      const own = people.get(role) ?? new Set<number>();
      people.set(role, own.add(who));
    }
  return [...people]
    .map(([role, own]) => ({ role, count: own.size }))
    .sort((one, other) => one.role.localeCompare(other.role));
}
