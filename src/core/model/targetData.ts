import type { Element } from "./element";
import { attribute, ownElement, ownNodes, replaced } from "./ownData";

export const targetKinds = ["duration", "waiting", "rework"] as const;
export type TargetKind = (typeof targetKinds)[number];

/**
 * What is to be kept, of a process or a step: so many of its cases done within a time, or begun within one, or at most a share of them
 * done more than once; looked at over the last days.
 */
export interface LiveTarget {
  readonly what: TargetKind;
  /** Of a duration or a wait: seconds, kept by a share of 0 to 1. Of rework: no time, at most that share. */
  readonly seconds: number;
  readonly share: number;
  readonly days: number;
}

/** What is to be kept of an element. What cannot be read is left out. */
export const targetsOf = (element: Element): LiveTarget[] =>
  ownNodes(element, "target").flatMap((node) => {
    const what = attribute(node, "what") as TargetKind | undefined;
    const [seconds, share, days] = ["seconds", "share", "days"].map((name) =>
      Number(attribute(node, name) ?? Number.NaN),
    );
    const isWhole = what !== undefined && targetKinds.includes(what) && seconds !== undefined && seconds >= 0;
    if (!isWhole || share === undefined || !(share >= 0 && share <= 1) || days === undefined || !(days > 0)) return [];
    return [{ what, seconds, share, days }];
  });

export const withTargets = (element: Element, targets: readonly LiveTarget[]) =>
  replaced(
    element,
    "target",
    targets.map(({ what, seconds, share, days }) =>
      ownElement("target", [
        ["what", what],
        ["seconds", String(seconds)],
        ["share", String(share)],
        ["days", String(days)],
      ]),
    ),
  );
