import { type Said, say } from "../messages";
import { type Element, type Id, isActivity, type LiveTarget, type Model, nameOf, spanWords, targetsOf } from "../model";
import { modelsOf } from "../tokens";
import { spanOf } from "./filters";
import type { Held } from "./holding";
import { begunIn, countsIn, doneIn, type EventLog } from "./logs/eventLog";

/** Cases in which something takes longer than its target allows. */
export interface Late {
  readonly element: Id;
  readonly target: LiveTarget;
  /** Which traces. */
  readonly traces: readonly number[];
  /** Of how many cases in which it was done. */
  readonly of: number;
  readonly statement: Said;
  /** Whether more keep it than are asked to. */
  readonly isKept: boolean;
}

/**
 * Held against the targets of a model: the whole process by how long its cases took, a step by what passed from when what came before it was
 * complete until it was (its duration), or until it began (its waiting). Targets of money, rework and paths are of runs alone. O(events + moves).
 */
export function lateIn(log: EventLog, held: Held): Late[] {
  const found: Late[] = [];
  for (const model of modelsOf(held.world))
    for (const element of model.elements)
      for (const target of targetsOf(element)) {
        const isTime = target.what === "duration" || target.what === "waiting";
        if (!isTime || target.until !== undefined) continue;
        const spans = isActivity(element.type)
          ? spansOfStep(log, held, element.id, target.what)
          : element.id === held.process
            ? spansOfCases(log)
            : new Map<number, number>();
        const traces = [...spans].flatMap(([trace, took]) => (took > target.seconds * 1_000 ? [trace] : []));
        if (traces.length === 0) continue;
        const share = traces.length / spans.size;
        const isKept = 1 - share >= target.share;
        found.push({
          element: element.id,
          target,
          traces,
          of: spans.size,
          isKept,
          statement: sentence(model, element, target, share),
        });
      }
  return found;
}

function sentence(model: Model, element: Element, { what, seconds }: LiveTarget, share: number): Said {
  const name = nameOf(model, element.id) || element.id;
  const often = `${share * 100 < 1 ? "less than 1" : Math.round(share * 100)} %`;
  const time = spanWords(seconds);
  if (element.type === "process") return say`A case takes longer than ${time} in ${often} of the traces.`;
  return what === "waiting"
    ? say`“${name}” is waited for longer than ${time} in ${often} of the traces.`
    : say`“${name}” takes longer than ${time} in ${often} of the traces.`;
}

function spansOfCases(log: EventLog): Map<number, number> {
  const found = new Map<number, number>();
  for (const trace of log.cases.keys()) {
    const [from, until] = spanOf(log, trace);
    if (!Number.isNaN(until - from)) found.set(trace, until - from);
  }
  return found;
}

/** The longest a step took in each case, from when what came before it was complete. */
function spansOfStep(log: EventLog, held: Held, step: Id, what: "duration" | "waiting"): Map<number, number> {
  const counts = countsIn(log);
  const found = new Map<number, number>();
  for (const { traces, alignment } of held.variants) {
    const places = alignment.moves.flatMap((move) => (move.kind === "both" && move.step === step ? [move.at] : []));
    if (places.length === 0) continue;
    for (const trace of traces) {
      const done = doneIn(log, trace, counts);
      const begun = begunIn(log, trace);
      for (const place of places) {
        const event = done[place] as number;
        const before = place === 0 ? Number.NaN : (log.at[done[place - 1] as number] as number);
        const began = begun.get(log.activity.of[event] as number)?.find((moment) => place === 0 || moment >= before);
        const end = what === "waiting" ? (began ?? (log.at[event] as number)) : (log.at[event] as number);
        const from = Number.isNaN(before) ? (began ?? Number.NaN) : before;
        if (end >= from) found.set(trace, Math.max(found.get(trace) ?? 0, end - from));
      }
    }
  }
  return found;
}
