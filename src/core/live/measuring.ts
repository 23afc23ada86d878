import { type Element, type Id, isActivity, type Model, outgoingOf } from "../model";
import type { Distribution } from "../scenario";
import type { LiveEvent } from "./liveCase";

/** What was measured at a step: seconds, each time it was done. */
export interface MeasuredStep {
  readonly waiting: readonly number[];
  readonly working: readonly number[];
}

export interface MeasuredRun {
  readonly cases: number;
  /** Seconds from beginning to end, of cases that came to their end. */
  readonly durations: readonly number[];
  readonly steps: ReadonlyMap<Id, MeasuredStep>;
  /** By the way out of an exclusive gateway: how often it was taken. */
  readonly ways: ReadonlyMap<Id, number>;
}

/** What has happened in one case, in order. */
export interface CaseHistory {
  readonly began: number;
  readonly ended: number | null;
  readonly events: readonly Pick<LiveEvent, "kind" | "at" | "element" | "wait">[];
}

/**
 * What took how long, and which ways were taken. A step waits from when its token came until somebody began; which way a gateway took is
 * told by where the next token came. O(events).
 */
export function measuredRun(cases: readonly CaseHistory[], models: readonly Model[]): MeasuredRun {
  const steps = new Map<Id, { waiting: number[]; working: number[] }>();
  const ways = new Map<Id, number>();
  const elementOf = (id: Id): Element | undefined => {
    for (const model of models) {
      const element = model.elements.get(id);
      if (element) return element;
    }
    return undefined;
  };
  const waysFrom = new Map<Id, ReadonlyMap<Id, Id>>();
  for (const { events } of cases) {
    const came = new Map<Id, number[]>();
    const begun = new Map<number, number>();
    let gateway: Id | undefined;
    for (const { kind, at, element: id, wait } of events) {
      if (id === undefined) continue;
      if (kind === "enter") {
        if (gateway !== undefined) {
          const way = targetsOf(gateway, models, waysFrom).get(id);
          if (way !== undefined) {
            ways.set(way, (ways.get(way) ?? 0) + 1);
            gateway = undefined;
          }
        }
        came.set(id, [...(came.get(id) ?? []), at]);
      }
      if (kind === "leave" && elementOf(id)?.type === "exclusiveGateway") gateway = id;
      const element = elementOf(id);
      if (!element || !isActivity(element.type)) continue;
      const step = steps.get(id) ?? { waiting: [], working: [] };
      if (kind === "start") {
        steps.set(id, step);
        const from = came.get(id)?.shift();
        if (from !== undefined) step.waiting.push((at - from) / 1000);
        if (wait !== undefined) begun.set(wait, at);
      }
      const since = wait === undefined ? undefined : begun.get(wait);
      if (kind === "complete" && since !== undefined) step.working.push((at - since) / 1000);
    }
  }
  return {
    cases: cases.length,
    durations: cases.flatMap(({ began, ended }) => (ended === null ? [] : [(ended - began) / 1000])),
    steps,
    ways,
  };
}

/** By the node behind each way out of a gateway: the way. */
function targetsOf(gateway: Id, models: readonly Model[], known: Map<Id, ReadonlyMap<Id, Id>>): ReadonlyMap<Id, Id> {
  const before = known.get(gateway);
  if (before) return before;
  const model = models.find((one) => one.elements.has(gateway));
  const flows = model ? outgoingOf(model, gateway) : [];
  const targets = new Map(flows.map(({ id, targetRef }) => [String(targetRef), id] as const));
  known.set(gateway, targets);
  return targets;
}

/** Points of a spread that is taken from what was measured: its deciles, beside the lowest and the highest. */
const parts = 10;

/**
 * What was measured as a spread to forecast with: what is always the same is a constant; of more, everything between the deciles is as
 * likely as it was. Undefined where nothing was measured.
 */
export function spreadOf(values: readonly number[]): Distribution | undefined {
  if (values.length === 0) return undefined;
  const sorted = [...values].map((value) => Math.round(value)).sort((a, b) => a - b);
  const [lowest, highest] = [sorted[0] as number, sorted.at(-1) as number];
  if (lowest === highest) return { kind: "constant", value: lowest };
  const points = [{ share: 0, value: lowest }];
  for (let part = 1; part <= parts; part++) {
    const at = Math.min(sorted.length - 1, Math.ceil((sorted.length * part) / parts) - 1);
    points.push({ share: 1 / parts, value: sorted[at] as number });
  }
  return { kind: "continuous", points };
}
