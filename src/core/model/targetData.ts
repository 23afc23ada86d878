import type { Element, Id } from "./element";
import { attribute, ownElement, ownNodes, replaced } from "./ownData";

export const targetKinds = ["duration", "waiting", "cost", "firstTime", "rework"] as const;
export type TargetKind = (typeof targetKinds)[number];

/**
 * What is to be kept, of a process, of a step, or of the path from one step through another: so many of its cases done within a time, or
 * begun within one, or for at most so much money, or right the first time; or at most a share of them done more than once. Looked at over
 * the last days.
 */
export interface LiveTarget {
  readonly what: TargetKind;
  /** Of a duration or a wait: seconds, kept by a share of 0 to 1. Of rework and of the first time: no time, just that share. */
  readonly seconds: number;
  /** Of cost: at most so much, in the workspace's money. */
  readonly amount?: number;
  /** Of a duration: the step with which the path ends, where it is not that of one step. */
  readonly until?: Id;
  readonly share: number;
  readonly days: number;
}

/** What is to be kept of an element. What cannot be read is left out. */
export const targetsOf = (element: Element): LiveTarget[] =>
  ownNodes(element, "target").flatMap((node) => {
    const what = attribute(node, "what") as TargetKind | undefined;
    const number = (name: string) => Number(attribute(node, name) ?? Number.NaN);
    const [seconds, share, days, amount] = [number("seconds"), number("share"), number("days"), number("amount")];
    const until = attribute(node, "until");
    const isWhole = what !== undefined && targetKinds.includes(what) && seconds >= 0;
    if (!isWhole || !(share >= 0 && share <= 1) || !(days > 0)) return [];
    if (what === "cost" && !(amount >= 0)) return [];
    return [{ what, seconds, share, days, ...(what === "cost" && { amount }), ...(until !== undefined && { until }) }];
  });

export const withTargets = (element: Element, targets: readonly LiveTarget[]) =>
  replaced(
    element,
    "target",
    targets.map(({ what, seconds, amount, until, share, days }) =>
      ownElement("target", [
        ["what", what],
        ["seconds", String(seconds)],
        ...(amount === undefined ? [] : [["amount", String(amount)] as const]),
        ...(until === undefined ? [] : [["until", until] as const]),
        ["share", String(share)],
        ["days", String(days)],
      ]),
    ),
  );
