import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { firstProcess, type LogTrace, logCsv, logXes, runCases, runWorld, traceOf } from "../live";
import {
  chain,
  definition,
  edge,
  end,
  file,
  flow,
  modelOf,
  node,
  processOf,
  start,
  task,
  timer,
} from "../live/testing/models";
import type { Model } from "../model";
import { randomProcess } from "../testing/randomProcess";
import { differencesOf, holdAgainst, readLogCsv, readXes } from ".";

/** What a model's own runs leave behind, as files of both kinds. */
function played(model: Model, cases: number, seed: number) {
  const process = firstProcess(model) ?? "";
  const traces: LogTrace[] = [];
  runCases(runWorld(model), process, {
    cases,
    seed,
    log: (number, events) => {
      // A case that did not come to its end is no run of the model.
      if (events.at(-1)?.kind === "completed") traces.push(traceOf(String(number), events, [model]));
    },
  });
  const [xes, csv] = [readXes([logXes(traces, "log")]), readLogCsv(logCsv(traces))];
  if (!xes.ok || !csv.ok) throw new Error("a log of our own cannot be read");
  return { traces, xes: xes.value, csv: csv.value };
}

const whole = (inner: string) => modelOf(file(processOf(inner)));
const several =
  '<multiInstanceLoopCharacteristics id="m"><loopCardinality>3</loopCardinality></multiInstanceLoopCharacteristics>';

describe("a log that a model played out itself aligns with it at no cost", () => {
  test.each<[what: string, model: Model]>([
    [
      "a choice",
      whole(
        start +
          task("a") +
          node("exclusiveGateway", "g") +
          task("b") +
          task("c") +
          end +
          chain("s", "a", "g", "b", "e") +
          chain("g", "c", "e"),
      ),
    ],
    [
      "several of the same at once",
      whole(start + node("userTask", "a", several) + task("b") + end + chain("s", "a", "b", "e")),
    ],
    [
      "a sub-process with a deadline",
      whole(
        start +
          node(
            "subProcess",
            "sub",
            node("startEvent", "is") + task("x") + task("y") + node("endEvent", "ie") + chain("is", "x", "y", "ie"),
          ) +
          edge("late", "sub", timer("timeDuration", "PT1H"), false) +
          task("remind") +
          node("endEvent", "e2") +
          end +
          chain("s", "sub", "e") +
          chain("late", "remind", "e2"),
      ),
    ],
    [
      "an end that ends all",
      whole(
        start +
          node("parallelGateway", "f") +
          task("a") +
          task("b") +
          end +
          node("endEvent", "stop", definition("terminate")) +
          chain("s", "f", "a", "stop") +
          chain("f", "b", "e"),
      ),
    ],
    [
      "a choice of several",
      whole(
        start +
          node("inclusiveGateway", "g") +
          task("a") +
          task("b") +
          node("inclusiveGateway", "j") +
          task("c") +
          end +
          chain("s", "g", "a", "j", "c", "e") +
          chain("g", "b", "j"),
      ),
    ],
    [
      "a loop",
      whole(
        start +
          task("a") +
          node("exclusiveGateway", "g") +
          end +
          chain("s", "a", "g", "e") +
          flow("g", "a", "", "again"),
      ),
    ],
  ])("%s", (_, model) => {
    const { traces, xes, csv } = played(model, 40, 3);
    expect(traces.length).toBeGreaterThan(0);
    for (const log of [xes, csv]) {
      const held = holdAgainst(model, log);
      expect([held.fitness, held.isCut]).toEqual([1, false]);
      expect(differencesOf(held)).toEqual([]);
    }
  });

  test("whatever the process looks like", () => {
    let aligned = 0;
    fc.assert(
      fc.property(fc.nat({ max: 1_000_000 }), fc.integer({ min: 4, max: 20 }), fc.boolean(), (seed, nodes, wild) => {
        const model = randomProcess({ seed, nodes, lanes: 1, wild });
        const { traces, xes } = played(model, 4, seed);
        aligned += traces.length;
        if (traces.length === 0) return;
        const held = holdAgainst(model, xes);
        expect(held.fitness).toBe(1);
      }),
      { numRuns: 60 },
    );
    expect(aligned).toBeGreaterThan(100);
  });
});
