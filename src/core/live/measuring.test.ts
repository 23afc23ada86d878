import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { momentsOf, scenariosOf } from "../scenario";
import { type CaseHistory, firstProcess, measuredRun, runCases, runWorld, spreadOf } from ".";
import { chain, end, file, flow, modelOf, node, processOf, start, task } from "./testing/models";

const minutes = (count: number) => count * 60;
/** A process whose first step waits ten minutes and takes five; whose gateway goes one way or the other by data; and that may go round. */
const text = file(
  processOf(
    start +
      task("check") +
      node("exclusiveGateway", "g") +
      task("mend") +
      task("pass") +
      end +
      chain("s", "check", "g") +
      flow("g", "mend", "bad = true", "toMend") +
      flow("g", "pass", "bad = false", "toPass") +
      chain("mend", "e") +
      chain("pass", "e"),
  ),
);
const model = modelOf(text);
const process = firstProcess(model) ?? "";

/** What a run of simulated cases leaves behind. */
function histories(data: readonly { readonly bad: boolean }[]): CaseHistory[] {
  const found: CaseHistory[] = [];
  runCases(runWorld(model), process, {
    cases: data,
    scenario: scenariosOf(model)[0],
    seed: 1,
    log: (_, events) =>
      found.push({
        began: events[0]?.at ?? 0,
        ended: events.at(-1)?.kind === "completed" ? (events.at(-1)?.at ?? null) : null,
        events,
      }),
  });
  return found;
}

describe("what a run measured", () => {
  test("which ways a gateway took is as often as its cases went them", () => {
    const { ways, cases, durations } = measuredRun(
      histories([{ bad: true }, { bad: false }, { bad: false }, { bad: true }, { bad: false }]),
      [model],
    );
    expect([...ways].sort()).toEqual([
      ["toMend", 2],
      ["toPass", 3],
    ]);
    expect(cases).toBe(5);
    expect(durations).toHaveLength(5);
  });

  test("a step waits until somebody begins, and takes until it is done; each time it is done counts", () => {
    const at = (minute: number) => Date.UTC(2027, 0, 4, 8) + minutes(minute) * 1000;
    const history: CaseHistory = {
      began: at(0),
      ended: at(60),
      events: [
        { kind: "enter", at: at(0), element: "check" },
        { kind: "start", at: at(10), element: "check", wait: 1 },
        { kind: "complete", at: at(15), element: "check", wait: 1 },
        { kind: "enter", at: at(15), element: "check" },
        { kind: "start", at: at(35), element: "check", wait: 2 },
        { kind: "complete", at: at(60), element: "check", wait: 2 },
      ],
    };
    const later: CaseHistory = { began: at(30), ended: null, events: [] };
    const { steps, durations } = measuredRun([later, history], [model]);
    expect(steps.get("check")).toEqual({
      waiting: [minutes(10), minutes(20)],
      working: [minutes(5), minutes(25)],
    });
    expect(durations).toEqual([minutes(60)]);
  });
});

describe("what was measured as a spread", () => {
  test("nothing is no spread, one value a constant", () => {
    expect(spreadOf([])).toBeUndefined();
    expect(spreadOf([60, 60.2, 59.8])).toEqual({ kind: "constant", value: 60 });
  });

  test("has the mean of what was measured, as near as deciles tell", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 10_000 }), { minLength: 30, maxLength: 300 }), (values) => {
        const spread = spreadOf(values);
        if (!spread) throw new Error("no spread");
        const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
        const [low, high] = [Math.min(...values), Math.max(...values)];
        // Within a tenth of the range: between two deciles it is not known where the values lie.
        expect(Math.abs(momentsOf(spread).mean - mean)).toBeLessThanOrEqual((high - low) / 10 + 1);
      }),
    );
  });
});
