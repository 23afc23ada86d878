import { describe, expect, test } from "vitest";
import { chain, end, file, node, processOf, ran, start, task } from "./testing/models";

describe("by chance", () => {
  const split = (kind: string) =>
    file(
      processOf(
        start +
          node(kind, "g") +
          task("a") +
          task("b") +
          node(kind, "j") +
          end +
          chain("s", "g", "a", "j", "e") +
          chain("g", "b", "j"),
      ),
    );

  test("each way of an exclusive gateway is as likely as the other", () => {
    const { counts, completed } = ran(split("exclusiveGateway"), 4000);
    expect(completed).toBe(4000);
    expect((counts.a?.[0] ?? 0) + (counts.b?.[0] ?? 0)).toBe(4000);
    // 0.5 ± 4 standard deviations.
    expect(Math.abs((counts.a?.[0] ?? 0) / 4000 - 0.5)).toBeLessThan(0.032);
  });

  test("ways of an inclusive gateway come by one half each, drawn again where none does", () => {
    const { counts, completed } = ran(split("inclusiveGateway"), 6000);
    expect(completed).toBe(6000);
    expect(counts.j?.[0]).toBe(6000);
    // Of the three outcomes that are left of four, a is in two: 2/3.
    expect(Math.abs((counts.a?.[0] ?? 0) / 6000 - 2 / 3)).toBeLessThan(0.025);
  });

  test("the same seed gives the same run, another one another", () => {
    const one = ran(split("exclusiveGateway"), 300, { seed: 5 });
    expect(ran(split("exclusiveGateway"), 300, { seed: 5 })).toEqual(one);
    expect(ran(split("exclusiveGateway"), 300, { seed: 6 }).counts).not.toEqual(one.counts);
  });

  test("conditions are not asked, loops are done once, and a case that goes in circles is stopped", () => {
    const circle = file(processOf(start + task("a") + task("b") + chain("s", "a", "b", "a")));
    const { open, counts } = ran(circle, 1);
    expect(open).toBe(1);
    expect(counts.a?.[0]).toBeGreaterThan(1000);
    const loop = file(
      processOf(
        start +
          node(
            "userTask",
            "a",
            '<standardLoopCharacteristics id="l"><loopCondition>true</loopCondition></standardLoopCharacteristics>',
          ) +
          end +
          chain("s", "a", "e"),
      ),
    );
    expect(ran(loop, 1).counts.a).toEqual([1, 1]);
  });
});
