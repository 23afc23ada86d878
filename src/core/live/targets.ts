import { type Id, isActivity, type LiveTarget, type Model } from "../model";
import type { CaseHistory } from "./measuring";

/** What a target came to in its days. */
export interface Measured {
  /** How many were looked at. */
  readonly count: number;
  /** The share that kept it; of rework the share that was done again. */
  readonly share: number;
  readonly isKept: boolean;
}

/**
 * Holds times, amounts, or counts of how often a step was done, against a target. Nothing to look at keeps it.
 * @param values seconds of each case or wait; amounts of money; of rework and the first time how often something was done in each case
 */
export function measured({ what, seconds, amount = 0, share }: LiveTarget, values: readonly number[]): Measured {
  const count = values.length;
  if (what === "rework") {
    const again = count === 0 ? 0 : values.filter((times) => times > 1).length / count;
    return { count, share: again, isKept: again <= share };
  }
  const most = { duration: seconds, waiting: seconds, cost: amount, firstTime: 1 }[what];
  const within = count === 0 ? 1 : values.filter((value) => value <= most).length / count;
  return { count, share: within, isKept: within >= share };
}

interface Looked {
  /** What the target is of: a step, or the process, of which whole cases are meant. */
  readonly element: Id;
  readonly models: readonly Model[];
  /** What a second of work at a step costs. */
  readonly rateOf: (step: Id) => number;
}

/** What a target is held against: of each case, or of each time a step was done. O(events). */
export const targetValues = (
  target: LiveTarget,
  cases: readonly CaseHistory[],
  { element, models, rateOf }: Looked,
): number[] => {
  const isStep = (id: Id) => models.some((model) => isActivity(model.elements.get(id)?.type ?? ""));
  return isStep(element)
    ? cases.flatMap((one) => valuesAtStep(target, one, element, rateOf))
    : cases.flatMap((one) => valuesOfCase(target, one, isStep, rateOf));
};

function valuesOfCase(
  { what }: LiveTarget,
  history: CaseHistory,
  isStep: (id: Id) => boolean,
  rateOf: (step: Id) => number,
): number[] {
  const { began, ended, events } = history;
  if (ended === null) return [];
  switch (what) {
    case "duration":
      return [(ended - began) / 1000];
    case "waiting": {
      const first = events.find(({ kind }) => kind === "start");
      return first ? [(first.at - began) / 1000] : [];
    }
    case "cost":
      return [workOf(history).reduce((sum, { step, seconds }) => sum + seconds * rateOf(step), 0)];
    default: {
      const times = new Map<Id, number>();
      for (const { kind, element } of events)
        if (kind === "enter" && element !== undefined && isStep(element))
          times.set(element, (times.get(element) ?? 0) + 1);
      return [Math.max(0, ...times.values())];
    }
  }
}

function valuesAtStep(
  { what, until }: LiveTarget,
  history: CaseHistory,
  step: Id,
  rateOf: (step: Id) => number,
): number[] {
  const own = history.events.filter(({ element }) => element === step);
  const came = own.filter(({ kind }) => kind === "enter").map(({ at }) => at);
  switch (what) {
    case "duration":
    case "waiting": {
      const kind = what === "waiting" ? "start" : "leave";
      const last = until === undefined ? own : history.events.filter(({ element }) => element === until);
      const gone = last.filter((event) => event.kind === kind).map(({ at }) => at);
      // A path is gone once a case, from where it is first come to until where it is first left after that.
      const [first] = came;
      if (until !== undefined) {
        const at = first === undefined ? undefined : gone.find((moment) => moment >= first);
        return first === undefined || at === undefined ? [] : [(at - first) / 1000];
      }
      return gone.flatMap((at, nth) => (came[nth] === undefined ? [] : [(at - (came[nth] as number)) / 1000]));
    }
    case "cost":
      return workOf(history)
        .filter((work) => work.step === step)
        .map(({ seconds }) => seconds * rateOf(step));
    default:
      return came.length > 0 ? [came.length] : [];
  }
}

/** Every piece of work of a case, with how long it was worked. */
function workOf({ events }: CaseHistory): { readonly step: Id; readonly seconds: number }[] {
  const begun = new Map<number, number>();
  return events.flatMap(({ kind, at, element, wait }) => {
    if (wait === undefined || element === undefined) return [];
    if (kind === "start") begun.set(wait, at);
    const since = begun.get(wait);
    return kind === "complete" && since !== undefined ? [{ step: element, seconds: (at - since) / 1000 }] : [];
  });
}
