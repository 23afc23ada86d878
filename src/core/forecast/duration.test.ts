import { describe, expect, test } from "vitest";
import { compiledScope } from "../tokens";
import { durationOf, pathsOf } from "./duration";
import { Plan, worldAssumed } from "./plan";
import {
  bpmnWith,
  end,
  every,
  exponential,
  flow,
  inARow,
  modelOf,
  number,
  of,
  readyOf,
  share,
  start,
  task,
  timeOf,
} from "./testing/models";

function planOf(process: string, more = "") {
  const { world: whole, scenario } = readyOf(modelOf(bpmnWith(process, of("s", every(number(600))) + more)));
  const world = worldAssumed(whole, scenario);
  const plan = new Plan(world, scenario, 0);
  return { plan, scope: compiledScope(world, world.model, "p") };
}
const lasts = (process: string, more = "") => {
  const { plan, scope } = planOf(process, more);
  return durationOf(plan, scope);
};
const takes = (id: string, minutes: number) => of(id, timeOf(number(minutes)));
const spreads = (id: string, minutes: number) => of(id, timeOf(exponential(minutes)));
const gate = (kind: string, id: string) => `<bpmn:${kind}Gateway id="${id}"/>`;
const timer = (iso: string) =>
  `<bpmn:timerEventDefinition><bpmn:timeDuration>${iso}</bpmn:timeDuration></bpmn:timerEventDefinition>`;

describe("how long a case takes by the structure", () => {
  test("ways side by side within ways side by side", () => {
    const process = `${start}${gate("parallel", "p1")}${task("a")}${gate("parallel", "p2")}${task("b")}${task("c")}${gate("parallel", "j2")}${task("f")}${gate("parallel", "j1")}${end}${flow("1", "s", "p1")}${flow("2", "p1", "a")}${flow("3", "a", "j1")}${flow("4", "p1", "p2")}${flow("5", "p2", "b")}${flow("6", "p2", "c")}${flow("7", "b", "j2")}${flow("8", "c", "j2")}${flow("9", "j2", "f")}${flow("10", "f", "j1")}${flow("11", "j1", "e")}`;
    const certain = lasts(process, takes("a", 50) + takes("b", 20) + takes("c", 30) + takes("f", 15));
    expect(certain).toMatchObject({ mean: 50 * 60, variance: 0 });
    const longer = lasts(process, takes("a", 40) + takes("b", 20) + takes("c", 30) + takes("f", 15));
    expect(longer?.mean).toBe(45 * 60);
    // Two exponential times of 30, the last of them 45 on average.
    const spread = lasts(process, takes("a", 0) + spreads("b", 30) + spreads("c", 30) + takes("f", 0));
    expect((spread?.mean ?? 0) / (45 * 60)).toBeCloseTo(1, 2);
  });

  test("a step that leads to several without a gateway; several that end apart", () => {
    const apart = `${start}${task("a")}${task("b")}${task("c")}${end}<bpmn:endEvent id="e2"/>${flow("1", "s", "a")}${flow("2", "a", "b")}${flow("3", "a", "c")}${flow("4", "b", "e")}${flow("5", "c", "e2")}`;
    expect(lasts(apart, takes("a", 5) + takes("b", 10) + takes("c", 25))?.mean).toBe(30 * 60);
  });

  test("the answers of a choice do not hang on what comes before: rework of two steps, by the chain", () => {
    const process = `${start}${gate("exclusive", "m")}${task("a")}${task("b")}${gate("exclusive", "g")}${end}${flow("1", "s", "m")}${flow("2", "m", "a")}${flow("3", "a", "b")}${flow("4", "b", "g")}${flow("back", "g", "m")}${flow("on", "g", "e")}`;
    const law = lasts(process, spreads("a", 10) + spreads("b", 20) + of("back", share(0.25)) + of("on", share(0.75)));
    // X = A + B: mean 30, variance 500; N geometric: mean 4/3.
    expect((law?.mean ?? 0) / 60).toBeCloseTo(40, 6);
    expect((law?.variance ?? 0) / 3600).toBeCloseTo(500 / 0.75 + (900 * 0.25) / 0.75 ** 2, 4);
  });

  test.each<[string, string, string]>([
    [
      "an event that begins something beside a step",
      `${start}${task("a")}<bpmn:boundaryEvent id="w" attachedToRef="a" cancelActivity="false">${timer("PT5M")}</bpmn:boundaryEvent>${end}<bpmn:endEvent id="e2"/>${flow("1", "s", "a")}${flow("2", "a", "e")}${flow("3", "w", "e2")}`,
      takes("a", 10),
    ],
    [
      "a moment that is waited for",
      `${start}<bpmn:intermediateCatchEvent id="w"><bpmn:timerEventDefinition><bpmn:timeDate>2027-05-01T08:00:00Z</bpmn:timeDate></bpmn:timerEventDefinition></bpmn:intermediateCatchEvent>${end}${flow("1", "s", "w")}${flow("2", "w", "e")}`,
      "",
    ],
    [
      "ways that are joined by twos otherwise than they were split",
      `${start}${gate("parallel", "q")}${task("a")}${task("b")}${task("c")}${gate("parallel", "j")}${gate("parallel", "k")}${end}${flow("1", "s", "q")}${flow("2", "q", "a")}${flow("3", "q", "b")}${flow("4", "q", "c")}${flow("5", "a", "j")}${flow("6", "b", "j")}${flow("7", "j", "k")}${flow("8", "c", "k")}${flow("9", "k", "e")}`.replace(
        '<bpmn:parallelGateway id="q"/>',
        `<bpmn:parallelGateway id="q"/><bpmn:task id="x"/>${flow("10", "b", "x")}${flow("11", "x", "k")}`,
      ),
      takes("a", 1),
    ],
    [
      "an end that takes all tokens away",
      `${start}${gate("parallel", "q")}${task("a")}<bpmn:endEvent id="t"><bpmn:terminateEventDefinition/></bpmn:endEvent>${end}${flow("1", "s", "q")}${flow("2", "q", "a")}${flow("3", "a", "e")}${flow("4", "q", "t")}`,
      takes("a", 10),
    ],
  ])("is left open: %s", (_, process, more) => {
    expect(lasts(process, more)).toBeUndefined();
    const { plan, scope } = planOf(process, more);
    expect(pathsOf(plan, scope, undefined, 5)).toEqual({ paths: [], critical: [] });
  });

  test("shares of the likeliest paths come in order and never add up to more than all", () => {
    const process = `${start}${gate("exclusive", "g")}${task("a")}${task("b")}${task("c")}${gate("exclusive", "j")}${end}${flow("1", "s", "g")}${flow("x", "g", "a")}${flow("y", "g", "b")}${flow("z", "g", "c")}${flow("2", "a", "j")}${flow("3", "b", "j")}${flow("4", "c", "j")}${flow("5", "j", "e")}`;
    const { plan, scope } = planOf(
      process,
      takes("a", 1) + takes("b", 2) + takes("c", 3) + of("x", share(0.2)) + of("y", share(0.5)) + of("z", share(0.3)),
    );
    const { paths, critical } = pathsOf(plan, scope, undefined, 2);
    expect(paths.map((path) => [path.share, path.mean / 60, path.choices])).toEqual([
      [0.5, 2, [{ at: "g", way: "y" }]],
      [0.3, 3, [{ at: "g", way: "z" }]],
    ]);
    expect(critical).toEqual(["s", "g", "b", "j", "e"]);
  });

  test("a step that is done for several at once takes as long as the last; one after the other, all of them", () => {
    const several = (more: string) =>
      inARow(
        start,
        `<bpmn:task id="a"><bpmn:multiInstanceLoopCharacteristics ${more}><bpmn:loopCardinality>4</bpmn:loopCardinality></bpmn:multiInstanceLoopCharacteristics></bpmn:task>`,
        end,
      );
    expect(lasts(several(""), takes("a", 10))?.mean).toBe(600);
    expect(lasts(several('isSequential="true"'), takes("a", 10))?.mean).toBe(2400);
  });
});
