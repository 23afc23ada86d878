import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { anonymised, byData, Engine, type LogTrace, liveCaseSchema, runWorld } from ".";
import { chain, edge, end, file, modelOf, node, processOf, start, task, timer } from "./testing/models";

describe("a case as plain data", () => {
  const text = file(
    processOf(
      start +
        node("parallelGateway", "g") +
        task("a") +
        node(
          "subProcess",
          "sub",
          node("startEvent", "s2") + task("inner") + node("endEvent", "e2") + chain("s2", "inner", "e2"),
        ) +
        edge("late", "sub", timer("timeDuration", "P1D"), false) +
        task("remind") +
        node("parallelGateway", "j") +
        end +
        node("endEvent", "told") +
        chain("s", "g", "a", "j", "e") +
        chain("g", "sub", "j") +
        chain("late", "remind", "told"),
    ),
  );

  test("goes on from what was saved, at any point and in any order, as if it had never been put away", () => {
    const model = modelOf(text);
    const world = runWorld(model);
    const running = { world, choosing: byData, zone: "UTC", now: 0 };
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 5 }), { minLength: 1, maxLength: 12 }), (choices) => {
        const whole = Engine.begin(running, "p", { n: 1 });
        let parts = Engine.begin(running, "p", { n: 1 });
        for (const choice of choices) {
          const open = [...whole.waits].map(({ id }) => id);
          const wait = open[choice % Math.max(1, open.length)];
          if (wait === undefined) break;
          whole.happen(wait, { [`v${wait}`]: choice });
          // Put away as JSON and taken out again before each step.
          const saved = liveCaseSchema.parse(JSON.parse(JSON.stringify(parts.saved())));
          parts = Engine.load(running, saved);
          parts.happen(wait, { [`v${wait}`]: choice });
          expect(JSON.parse(JSON.stringify(parts.saved()))).toEqual(JSON.parse(JSON.stringify(whole.saved())));
        }
      }),
      { numRuns: 200 },
    );
  });

  test("a log without names keeps durations, weekdays and who is the same", () => {
    const day = 86_400_000;
    const traces: LogTrace[] = [
      {
        case: "Ada",
        events: [
          { activity: "a", at: day, lifecycle: "start", role: "Desk" },
          { activity: "a", at: 3 * day, lifecycle: "complete", role: "Desk" },
        ],
      },
      { case: "Ben", events: [{ activity: "b", at: 5 * day, lifecycle: "start", role: "Crew" }] },
    ];
    const [one, two] = anonymised(traces, 7);
    expect([one?.case, two?.case]).toEqual(["Case 1", "Case 2"]);
    expect(one?.events.map(({ role }) => role)).toEqual(["Role 1", "Role 1"]);
    expect(two?.events[0]?.role).toBe("Role 2");
    const [begun, done] = one?.events ?? [];
    expect((done?.at ?? 0) - (begun?.at ?? 0)).toBe(2 * day);
    expect((day - (begun?.at ?? 0)) % (7 * day)).toBe(0);
  });
});
