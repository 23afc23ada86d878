import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { answerOf, Chance, latencyOf, pauseBefore, standInSchema, usualStandIn } from ".";

const standIn = (more: object = {}) => ({ ...usualStandIn, ...more });
const lines = [
  { when: "power > 30", values: { size: "large" } },
  { when: 'roof = "flat"', values: { size: "flat" } },
  { when: "", values: { size: "usual" } },
];

describe("what a service that is stood in for answers", () => {
  test.each<[data: object, size: string | undefined]>([
    [{ power: 40, roof: "flat" }, "large"],
    [{ power: 5, roof: "flat" }, "flat"],
    [{ power: 5 }, "usual"],
    [{}, "usual"],
  ])("to %o by the first line that fits: %s", (data, size) => {
    const answer = answerOf(standIn({ answers: lines }), new Chance(1, 1), "call", data as never);
    expect(answer).toEqual({ is: "answer", values: { size } });
  });

  test("without a line that fits, whatever its data allows", () => {
    const answer = answerOf(standIn({ answers: lines.slice(0, 1) }), new Chance(1, 1), "call", { power: 1 });
    expect(answer).toEqual({ is: "answer", values: undefined });
  });

  test("fails as often as it is said to, each time by itself, the same for the same case", () => {
    const failing = standIn({ failure: 0.3 });
    let failed = 0;
    for (let number = 0; number < 5_000; number++) {
      const [one, again] = [1, 2].map(() => answerOf(failing, new Chance(7, number), "call", {}).is);
      expect(one).toBe(again);
      if (one === "failure") failed++;
    }
    // Three deviations of a share of 0.3 in 5,000 are 0.02.
    expect(Math.abs(failed / 5_000 - 0.3)).toBeLessThan(0.02);
    expect(answerOf(standIn({ failure: 1 }), new Chance(1, 1), "call", {}).is).toBe("failure");
    expect(answerOf(standIn(), new Chance(1, 1), "call", {}).is).toBe("answer");
  });

  test("answers after a while that is never below nothing", () => {
    const latency = { kind: "normal" as const, mean: 1, deviation: 10, min: -100 };
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e6 }), (number) => {
        expect(latencyOf(standIn({ latency }), new Chance(1, number), "call")).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});

describe("pauses before the next try", () => {
  test.each([
    [1, 60],
    [2, 120],
    [3, 240],
    [4, undefined],
    [5, undefined],
  ])("after try %d: %s seconds, twice as long each time, as often as is said", (tried, pause) => {
    expect(pauseBefore(standIn({ tries: 4, pause: 60 }), tried)).toBe(pause);
  });
});

test("what a stand-in must look like", () => {
  expect(standInSchema.safeParse(usualStandIn).success).toBe(true);
  for (const wrong of [{ failure: 1.5 }, { failure: -0.1 }, { tries: 0 }, { tries: 1.5 }, { pause: -1 }])
    expect(standInSchema.safeParse(standIn(wrong)).success).toBe(false);
});
