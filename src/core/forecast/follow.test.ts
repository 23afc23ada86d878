import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { assumeConnection } from "@/demo/scenarios";
import { drawSolarConnection } from "@/demo/solarConnection";
import { emptyModel } from "../model";
import { outcomeOf, type Playing } from "../tokens";
import { type Followed, follow, standsAfter, standsFirst } from "./follow";
import { type Chosen, mostMoments } from "./follower";
import { forecast } from "./forecast";
import { worldAssumed } from "./plan";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  flow,
  inARow,
  modelOf,
  needs,
  number,
  of,
  readyOf,
  resource,
  share,
  split,
  start,
  task,
  timeOf,
} from "./testing/models";

type Ready = ReturnType<typeof readyOf>;
const ofFile = (text: string): Ready => readyOf(modelOf(text));
function demo(): Ready {
  const drawn = drawSolarConnection(
    emptyModel({ definitions: "d", process: "p", diagram: "page" }, "Solar"),
    "page",
    "x",
  );
  const { model } = assumeConnection(drawn.model, "page");
  return readyOf(model);
}
const followed = ({ world, scenario }: Ready, at: number, chosen = new Map<string, (Chosen | undefined)[]>()) =>
  follow(world, scenario, at, chosen) as Followed;
const lasts = ({ moments, began }: Followed) => (moments.at(-1)?.at ?? began) - began;

/** All standings of a case, by the player of walks. */
function standings({ world, scenario }: Ready, one: Followed): Playing[] {
  const assumed = worldAssumed(world, scenario);
  const all = [standsFirst(assumed, one)];
  for (const moment of one.moments) all.push(standsAfter(assumed, all.at(-1) as Playing, moment));
  return all;
}

const queue = `${inARow(start, task("a"), task("b"), end)}`;
const stations = bpmnWith(
  queue,
  of("s", every(exponential(10))) +
    of("a", timeOf(exponential(8)) + needs("r")) +
    of("b", timeOf(exponential(5)) + needs("r2")) +
    resource("r", 1, 30) +
    resource("r2", 1, 60),
  "",
  clerks("r", "r2"),
);
const timer = "<bpmn:timerEventDefinition><bpmn:timeDuration>PT15M</bpmn:timeDuration></bpmn:timerEventDefinition>";
const loop =
  '<bpmn:task id="a"><bpmn:standardLoopCharacteristics testBefore="false" loopMaximum="4"><bpmn:loopCondition>x</bpmn:loopCondition></bpmn:standardLoopCharacteristics></bpmn:task>';
const shapes: readonly (readonly [string, string])[] = [
  ["two stations", stations],
  ["side by side", bpmnWith(split("parallelGateway"), of("a", timeOf(exponential(9))) + of("b", timeOf(number(7))))],
  ["any of two", bpmnWith(split("inclusiveGateway"), of("fa", share(0.5)) + of("fb", share(0.5)))],
  ["one of two", bpmnWith(split("exclusiveGateway"), of("fa", share(0.3)) + of("fb", share(0.7)))],
  ["a loop", bpmnWith(inARow(start, loop, end), of("a", timeOf(number(3)) + share(0.6)))],
  [
    "several at once",
    bpmnWith(
      inARow(
        start,
        '<bpmn:task id="a"><bpmn:multiInstanceLoopCharacteristics><bpmn:loopCardinality>3</bpmn:loopCardinality></bpmn:multiInstanceLoopCharacteristics></bpmn:task>',
        end,
      ),
      of("a", timeOf(exponential(4))),
    ),
  ],
  [
    "a deadline at an edge",
    bpmnWith(
      `${start}${task("a")}${task("b")}<bpmn:boundaryEvent id="w" attachedToRef="a">${timer}</bpmn:boundaryEvent>${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "a")}${flow("f2", "a", "e")}${flow("f3", "w", "b")}${flow("f4", "b", "e2")}`,
      of("a", timeOf(exponential(15))),
    ),
  ],
  [
    "the first of two events, and a step inside",
    bpmnWith(
      `${start}<bpmn:eventBasedGateway id="g"/><bpmn:intermediateCatchEvent id="w">${timer}</bpmn:intermediateCatchEvent><bpmn:intermediateCatchEvent id="m"><bpmn:messageEventDefinition/></bpmn:intermediateCatchEvent><bpmn:subProcess id="u"><bpmn:task id="i"/></bpmn:subProcess>${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "g")}${flow("f2", "g", "w")}${flow("f3", "g", "m")}${flow("f4", "w", "e")}${flow("f5", "m", "u")}${flow("f6", "u", "e2")}`,
      of("m", every(exponential(15))) + of("i", timeOf(number(5))),
    ),
  ],
];

describe("one case of a forecast", () => {
  test.each(shapes)("%s: the cases are those of the forecast, and the player plays them to their end", (_, text) => {
    const ready = ofFile(text);
    const cases = 30;
    const all = Array.from({ length: cases }, (_, at) => followed(ready, at));
    const whole = forecast(ready.world, ready.scenario, { cases, replications: 1 });
    expect(all.map(lasts).sort((a, b) => a - b)).toEqual([...whole.durations].map((one) => expect.closeTo(one, 6)));
    const cost = all.reduce((sum, { moments }) => sum + (moments.at(-1)?.cost ?? 0), 0);
    expect(cost).toBeCloseTo(whole.cost.total, 6);
    for (const one of all) {
      const times = one.moments.map(({ at }) => at);
      expect([...times].sort((a, b) => a - b)).toEqual(times);
      expect(outcomeOf(worldAssumed(ready.world, ready.scenario), standings(ready, one).at(-1) as Playing)).toBe(
        "completed",
      );
    }
  });

  test("says for whom it waits and who works; in a row, waiting and working are all of its time", () => {
    const ready = ofFile(stations);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 200 }), (at) => {
        const one = followed(ready, at);
        const { waited, worked } = one.moments.at(-1) as Followed["moments"][number];
        expect(waited + worked).toBeCloseTo(lasts(one), 6);
        const said = one.moments.flatMap(({ what }) => (what.kind === "act" ? [] : [what]));
        expect(said.filter(({ kind }) => kind === "works")).toEqual([
          { kind: "works", element: "a", by: ["r"] },
          { kind: "works", element: "b", by: ["r2"] },
        ]);
        for (const one of said) if (one.kind === "waits") expect(one.for).toEqual([one.element === "a" ? "r" : "r2"]);
      }),
      { numRuns: 30 },
    );
  });

  test("what is chosen by hand is done, each time anew, and what came before stays as it was", () => {
    const ready = ofFile(shapes[4]?.[1] ?? "");
    const free = followed(ready, 3);
    const rounds = (one: Followed) =>
      one.moments.filter(({ what }) => what.kind === "act" && what.act.does === "again").length;
    const choices = free.moments.flatMap(({ what }) => (what.kind === "act" && what.choice ? [what.choice] : []));
    expect(choices.map(({ turn }) => turn)).toEqual(choices.map((_, at) => at));
    const again = choices[0]?.ways.find(({ does }) => does === "again") as Chosen;
    const out = choices[0]?.ways.find(({ does }) => does !== "again") as Chosen;
    expect(rounds(followed(ready, 3, new Map([["a", [again, again, out]]])))).toBe(2);
    expect(rounds(followed(ready, 3, new Map([["a", [out]]])))).toBe(0);
    // The loop ends at its maximum, whatever is wished.
    expect(rounds(followed(ready, 3, new Map([["a", Array.from({ length: 9 }, () => again)]])))).toBe(3);
  });

  test("the demo: an answer by hand leads the case, and only from there on is it another", () => {
    const ready = demo();
    const free = followed(ready, 20);
    const at = free.moments.findIndex(({ what }) => what.kind === "act" && (what.choice?.ways.length ?? 0) > 1);
    const what = free.moments[at]?.what;
    if (what?.kind !== "act" || !what.choice) throw new Error("The demo asks nothing.");
    const { ways, turn } = what.choice;
    const other = ways.find(({ flows }) => flows.join() !== what.act.flows.join()) as Chosen;
    const led = followed(ready, 20, new Map([[what.act.node, [...Array(turn).fill(undefined), other]]]));
    expect(led.moments.slice(0, at)).toEqual(free.moments.slice(0, at));
    expect(led.moments[at]?.what).toMatchObject({ act: { node: what.act.node, flows: other.flows } });
    expect(outcomeOf(worldAssumed(ready.world, ready.scenario), standings(ready, led).at(-1) as Playing)).toBe(
      "completed",
    );
  });

  test("whether something at its edge ends a step is chosen like any other way, and chance is not asked then", () => {
    const edges = `<bpmn:boundaryEvent id="w" attachedToRef="a"><bpmn:messageEventDefinition/></bpmn:boundaryEvent><bpmn:boundaryEvent id="n" attachedToRef="a" cancelActivity="false"><bpmn:signalEventDefinition/></bpmn:boundaryEvent>`;
    const ready = ofFile(
      bpmnWith(
        `${start}${task("a")}${edges}${end}<bpmn:endEvent id="e2"/><bpmn:endEvent id="e3"/>${flow("f1", "s", "a")}${flow("f2", "a", "e")}${flow("f3", "w", "e2")}${flow("f4", "n", "e3")}`,
        of("a", timeOf(number(5))) + of("w", share(0.5)) + of("n", share(0.5)),
      ),
    );
    const ends = (one: Followed) =>
      one.moments
        .flatMap(({ what }) => (what.kind === "act" && /^e\d?$/.test(what.act.node) ? [what.act.node] : []))
        .sort();
    const choice = followed(ready, 0).moments.flatMap(({ what }) =>
      what.kind === "act" && what.choice ? [what.choice] : [],
    )[0];
    expect(choice?.node).toBe("a");
    expect(choice?.ways.map(({ does, flows }) => `${does} ${flows}`)).toEqual(["finish f2", "fire f3", "fire f4"]);
    for (let at = 0; at < 6; at++)
      for (const [way, reached] of [
        ["f2", ["e"]],
        ["f3", ["e2"]],
        ["f4", ["e", "e3"]],
      ] as const) {
        const chosen = choice?.ways.find(({ flows }) => flows[0] === way) as Chosen;
        const one = followed(ready, at, new Map([["a", [chosen]]]));
        expect(ends(one)).toEqual(reached);
        expect(outcomeOf(worldAssumed(ready.world, ready.scenario), standings(ready, one).at(-1) as Playing)).toBe(
          "completed",
        );
      }
  });

  test("a case that goes round for long is cut; one that never comes is none", () => {
    const round = ofFile(
      bpmnWith(
        `${start}<bpmn:exclusiveGateway id="j"/>${task("a")}<bpmn:exclusiveGateway id="g"/>${end}${flow("f1", "s", "j")}${flow("f2", "j", "a")}${flow("f3", "a", "g")}${flow("fb", "g", "j")}${flow("fe", "g", "e")}`,
        of("fb", share(1)) + of("fe", share(0)) + of("a", timeOf(number(1))),
      ),
    );
    const one = followed(round, 0);
    expect(one.isCut).toBe(true);
    expect(one.moments).toHaveLength(mostMoments);
    const few = ofFile(
      bpmnWith(
        inARow(start, task("a"), end),
        of(
          "s",
          `<bpsim:ControlParameters><bpsim:InterTriggerTimer>${number(5)}</bpsim:InterTriggerTimer><bpsim:TriggerCount>${number(3)}</bpsim:TriggerCount></bpsim:ControlParameters>`,
        ),
      ),
    );
    expect(follow(few.world, few.scenario, 2)?.number).toBe(2);
    expect(follow(few.world, few.scenario, 3)).toBeUndefined();
  });
});
