import { describe, expect, test } from "vitest";
import type { LiveTarget } from "../model";
import { type CaseHistory, measured, targetValues } from ".";
import { chain, end, file, modelOf, processOf, start, task } from "./testing/models";

const models = [modelOf(file(processOf(start + task("a") + task("b") + end + chain("s", "a", "b", "e"))))];
const minute = 60_000;
/** Somebody begins a at 10 and is done at 20; b waits until 50 and is done at 60; then a once more from 60 to 65. */
const twice: CaseHistory = {
  began: 0,
  ended: 70 * minute,
  events: [
    { kind: "enter", at: 0, element: "a" },
    { kind: "start", at: 10 * minute, element: "a", wait: 1 },
    { kind: "complete", at: 20 * minute, element: "a", wait: 1 },
    { kind: "leave", at: 20 * minute, element: "a" },
    { kind: "enter", at: 20 * minute, element: "b" },
    { kind: "start", at: 50 * minute, element: "b", wait: 2 },
    { kind: "complete", at: 60 * minute, element: "b", wait: 2 },
    { kind: "leave", at: 60 * minute, element: "b" },
    { kind: "enter", at: 60 * minute, element: "a" },
    { kind: "start", at: 60 * minute, element: "a", wait: 3 },
    { kind: "complete", at: 65 * minute, element: "a", wait: 3 },
    { kind: "leave", at: 65 * minute, element: "a" },
  ],
};
const once: CaseHistory = { ...twice, ended: 60 * minute, events: twice.events.slice(0, 8) };
const open: CaseHistory = { ...twice, ended: null, events: twice.events.slice(0, 3) };
const target = (what: LiveTarget["what"], more: Partial<LiveTarget> = {}): LiveTarget => ({
  what,
  seconds: 0,
  share: 0.9,
  days: 30,
  ...more,
});

describe("what a target is held against", () => {
  // An hour of a costs 60, one of b 120.
  const rateOf = (step: string) => (step === "a" ? 60 : 120) / 3600;
  test.each<[what: string, element: string, target: LiveTarget, values: number[]]>([
    ["of whole cases their durations", "p", target("duration"), [4200, 3600]],
    ["when they are first begun", "p", target("waiting"), [600, 600]],
    ["what their work costs", "p", target("cost"), [10 + 20 + 5, 10 + 20]],
    ["how often a step of theirs was done", "p", target("firstTime"), [2, 1]],
    ["the same for what is done again", "p", target("rework"), [2, 1]],
    ["of a step each time from coming to leaving", "a", target("duration"), [1200, 300, 1200]],
    ["from coming to beginning", "a", target("waiting"), [600, 0, 600, 600]],
    ["each time's cost", "a", target("cost"), [10, 5, 10, 10]],
    ["how often it was done in a case", "a", target("rework"), [2, 1, 1]],
    [
      "of a path from the first coming to the first leaving after it",
      "a",
      target("duration", { until: "b" }),
      [3600, 3600],
    ],
    ["of a path that no case went, nothing", "b", target("duration", { until: "b" }), [2400, 2400]],
  ])("is %s", (_, element, one, values) => {
    expect(targetValues(one, [twice, once, open], { element, models, rateOf }).map(Math.round)).toEqual(values);
  });
});

describe("a target", () => {
  test.each<[what: string, target: LiveTarget, values: number[], share: number, isKept: boolean]>([
    ["is kept where nothing is to look at", target("duration"), [], 1, true],
    ["of a time by a share within it", target("duration", { seconds: 100 }), [50, 100, 101], 2 / 3, false],
    ["of money by a share at most so much", target("cost", { amount: 20, share: 0.5 }), [10, 20, 30], 2 / 3, true],
    ["of the first time by a share done just once", target("firstTime", { share: 0.5 }), [1, 1, 2], 2 / 3, true],
    ["of rework by at most a share done again", target("rework", { share: 0.1 }), [1, 1, 2], 1 / 3, false],
    ["of rework where nothing is to look at", target("rework", { share: 0 }), [], 0, true],
  ])("%s", (_, one, values, share, isKept) => {
    const { share: is, ...rest } = measured(one, values);
    expect(is).toBeCloseTo(share, 9);
    expect(rest).toEqual({ count: values.length, isKept });
  });
});
