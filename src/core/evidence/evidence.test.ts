import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { firstProcess, runWorld } from "../live";
import { chain, edge, end, file, modelOf, node, processOf, start, task, timer } from "../live/testing/models";
import type { Id, Model } from "../model";
import {
  Automaton,
  align,
  differencesOf,
  distancesToEnd,
  type EventLog,
  holdAgainst,
  logOf as logOfTraces,
  mended,
} from ".";

/** A log of so many traces, each the names of what was done. */
const logOf = (...traces: readonly (readonly [string, number?])[]): EventLog =>
  logOfTraces(
    traces.flatMap(([words, count = 1]) =>
      Array.from({ length: count }, (_, number) => ({
        case: `${words} ${number}`,
        events: words
          .split(" ")
          .filter(Boolean)
          .map((activity) => ({ activity, at: undefined, lifecycle: "", role: "", who: "" })),
      })),
    ),
  );
const tasks = (...names: string[]) => names.map((name) => task(name)).join("");
const sequence = modelOf(file(processOf(start + tasks("a", "b", "c") + end + chain("s", "a", "b", "c", "e"))));
const both = modelOf(
  file(
    processOf(
      start +
        tasks("a", "b", "c", "d") +
        node("parallelGateway", "f") +
        node("parallelGateway", "j") +
        end +
        chain("s", "a", "f", "b", "j", "d", "e") +
        chain("f", "c", "j"),
    ),
  ),
);
const choice = modelOf(
  file(
    processOf(
      start +
        tasks("a", "b", "c") +
        node("exclusiveGateway", "g") +
        node("exclusiveGateway", "m") +
        end +
        chain("s", "a", "g", "b", "m", "e") +
        chain("g", "c", "m") +
        chain("m", "a").replace(/f\d+/, "back"),
    ),
  ),
);
const costs = (model: Model, ...traces: string[]) =>
  traces.map((words) => holdAgainst(model, logOf([words])).variants[0]?.alignment.cost);

describe("an alignment costs what it has to", () => {
  test.each<[what: string, model: Model, costs: { readonly [trace: string]: number }]>([
    [
      "in a row",
      sequence,
      { "a b c": 0, "a c": 1, "": 3, "a x b c": 1, "a a b c": 1, "c b a": 4, "a x c": 2, "b a c": 2, "x y z": 6 },
    ],
    ["side by side", both, { "a b c d": 0, "a c b d": 0, "a c d": 1, "b c": 2, "a b b c d": 1, "d a b c": 2 }],
    [
      "in a choice that goes round",
      choice,
      { "a b": 0, "a c": 0, "a b a c a b": 0, "a b c": 1, b: 1, "": 2, "a b a": 1 },
    ],
  ])("%s", (_, model, wanted) => {
    expect(Object.fromEntries(Object.keys(wanted).map((words) => [words, costs(model, words)[0]]))).toEqual(wanted);
  });

  test("events at edges, inside and repeated steps are played by the one semantics there is", () => {
    const several =
      '<multiInstanceLoopCharacteristics id="m"><loopDataInputRef>papers</loopDataInputRef></multiInstanceLoopCharacteristics>';
    const model = modelOf(
      file(
        processOf(
          `<dataObject id="papers"/>${start}${node("subProcess", "sub", node("startEvent", "is") + tasks("x", "y") + node("endEvent", "ie") + chain("is", "x", "y", "ie"))}${task("look", several)}${end}${edge("late", "sub", timer("timeDuration", "P1D"))}${task("remind")}${chain("s", "sub", "look", "e")}${chain("late", "remind", "e")}`,
        ),
      ),
    );
    expect(costs(model, "x y look", "x y look look look", "x remind", "remind", "x y remind", "x look")).toEqual([
      0, 0, 0, 0, 1, 1,
    ]);
  });

  test("steps of an ad-hoc sub-process are done in any order, as many as one likes", () => {
    const model = modelOf(
      file(
        processOf(
          `${start}${node("adHocSubProcess", "sub", tasks("x", "y"))}${task("after")}${end}${chain("s", "sub", "after", "e")}`,
        ),
      ),
    );
    expect(costs(model, "x y after", "y x after", "x after", "after", "x y")).toEqual([0, 0, 0, 0, 1]);
  });

  test("is that of the closest run of the model, by brute force", () => {
    const words = fc.array(fc.constantFrom("a", "b", "c", "d", "x"), { maxLength: 6 });
    const models = [sequence, both, choice].map((model) => ({ model, runs: runsOf(model, 8) }));
    fc.assert(
      fc.property(words, fc.constantFrom(...models), (trace, { model, runs }) => {
        const wanted = Math.min(...runs.map((run) => trace.length + run.length - 2 * common(trace, run)));
        expect(costs(model, trace.join(" "))).toEqual([wanted]);
      }),
      { numRuns: 300 },
    );
  });

  test("by itself where there is nothing to align: a process without an end that is come to", () => {
    const model = modelOf(
      file(processOf(start + tasks("a") + node("exclusiveGateway", "g") + chain("s", "a", "g", "a"))),
    );
    const held = holdAgainst(model, logOf(["a"]));
    expect(held.variants[0]?.alignment).toMatchObject({ isOptimal: false });
    expect(held.isCut).toBe(true);
  });
});

/** Every run of a model that shows at most so many steps, by trying all. */
function runsOf(model: Model, most: number): string[][] {
  const process = firstProcess(model) ?? "";
  const automaton = new Automaton({ ...runWorld(model), together: false }, process, []);
  const runs: string[][] = [];
  const go = (state: number, run: string[], unseen: number) => {
    if (automaton.isFinal(state)) runs.push(run);
    if (run.length >= most || unseen > 20) return;
    for (const { step, to } of automaton.edges(state))
      if (step === undefined) go(to, run, unseen + 1);
      else go(to, [...run, step], 0);
  };
  for (const at of automaton.starts) go(at, [], 0);
  return runs;
}

/** The length of a longest common subsequence (dynamic programming, the textbook one). */
function common(one: readonly string[], other: readonly string[]): number {
  const table = Array.from({ length: one.length + 1 }, () => new Array<number>(other.length + 1).fill(0));
  for (let i = 1; i <= one.length; i++)
    for (let j = 1; j <= other.length; j++) {
      const row = table[i] as number[];
      const above = table[i - 1] as number[];
      row[j] =
        one[i - 1] === other[j - 1] ? (above[j - 1] as number) + 1 : Math.max(above[j] as number, row[j - 1] as number);
    }
  return table[one.length]?.[other.length] ?? 0;
}

describe("fitness", () => {
  // A. Adriansyah, "Aligning Observed and Modeled Behavior" (2014), 3.2: 1 − cost ÷ (moving the trace and a shortest run apart).
  test("is one minus the cost over the cost at worst, over all traces", () => {
    const held = holdAgainst(sequence, logOf(["a b c", 8], ["a c", 1], ["a x b c", 1]));
    expect(held.fitting).toBe(8);
    expect(held.fitness).toBeCloseTo(1 - 2 / (8 * 6 + 5 + 7), 12);
    expect(holdAgainst(sequence, logOf(["a b c", 3])).fitness).toBe(1);
    expect(holdAgainst(sequence, logOf(["x y", 3])).fitness).toBe(0);
    expect(holdAgainst(sequence, logOf()).fitness).toBe(1);
  });

  test("starts and completions of one piece of work are one; what is never completed counts when it begins", () => {
    const events = ["a start", "a complete", "b start", "b complete", "c start"].map((words) => {
      const [activity = "", lifecycle = ""] = words.split(" ");
      return { activity, at: undefined, lifecycle, role: "", who: "" };
    });
    const held = holdAgainst(sequence, logOfTraces([{ case: "1", events }]));
    expect(held.variants[0]).toMatchObject({ activities: ["a", "b", "c"], alignment: { cost: 0 } });
    // Of what is planned, assigned and begun, and never said to be complete, the beginning counts.
    const planned = ["schedule", "assign", "start"].flatMap((lifecycle) => [
      { ...events[0], activity: "c", lifecycle },
    ]);
    const more = [...events.slice(0, 4), ...planned] as typeof events;
    expect(holdAgainst(sequence, logOfTraces([{ case: "1", events: more }])).fitness).toBe(1);
  });
});

// W. van der Aalst, A. Adriansyah, B. van Dongen (2012), definitions 8 and 10, worked by hand.
describe("precision and generalisation", () => {
  const of = (model: Model, log: EventLog) => holdAgainst(model, log).closeness;

  test.each<[what: string, model: Model, traces: (readonly [string, number?])[], precision: number]>([
    ["all that is allowed happens", sequence, [["a b c", 5]], 1],
    // Behind a there are b and c, and only b is done; then the end, or once more from the beginning.
    ["one of two ways, never round", choice, [["a b", 4]], (1 + 1 / 2) / 2],
    [
      "both ways",
      choice,
      [
        ["a b", 3],
        ["a c", 1],
      ],
      1,
    ],
    // In the state after a, b and c can both be done, and b always comes first: then c alone can.
    ["side by side, always in one order", both, [["a b c d", 10]], (1 + 1 / 2 + 1 + 1) / 4],
    [
      "side by side, in both orders",
      both,
      [
        ["a b c d", 5],
        ["a c b d", 5],
      ],
      1,
    ],
    ["steps that were left out are on the way all the same", sequence, [["a c", 3]], 1],
    ["nothing", sequence, [], 1],
  ])("%s", (_, model, traces, precision) => {
    expect(of(model, logOf(...traces)).precision).toBeCloseTo(precision, 10);
  });

  test("the more cases went through a state alike, the less likely is something new", () => {
    // One step in each of three states, n visits: 1 − 2 ÷ (n (n − 1)); of fewer than three, nothing can be said.
    for (const [count, generalisation] of [
      [1, 0],
      [2, 0],
      [3, 1 - 1 / 3],
      [10, 1 - 2 / 90],
    ] as const)
      expect(of(sequence, logOf(["a b c", count])).generalisation).toBeCloseTo(generalisation, 10);
  });

  test("lie between 0 and 1, and a model that allows more is not more precise", () => {
    const traces = fc.array(fc.array(fc.constantFrom("a", "b", "c", "d"), { maxLength: 5 }), {
      minLength: 1,
      maxLength: 5,
    });
    const flower = modelOf(
      file(
        processOf(
          start +
            tasks("a", "b", "c", "d") +
            node("exclusiveGateway", "g") +
            node("exclusiveGateway", "m") +
            end +
            chain("s", "m", "g", "a", "m") +
            chain("g", "b", "m") +
            chain("g", "c", "m") +
            chain("g", "d", "m") +
            chain("g", "e"),
        ),
      ),
    );
    fc.assert(
      fc.property(traces, (words) => {
        const log = logOf(...words.map((names) => [names.join(" ")] as const));
        for (const model of [sequence, both, choice, flower]) {
          const { precision, generalisation } = of(model, log);
          for (const value of [precision, generalisation]) {
            expect(value).toBeGreaterThanOrEqual(0);
            expect(value).toBeLessThanOrEqual(1);
          }
        }
        // In a flower everything is allowed everywhere: what was ever done, of four.
        const done = new Set(words.flat());
        if (done.size > 0) expect(of(flower, log).precision).toBeCloseTo(done.size / 4, 10);
      }),
    );
  });
});

const told = (model: Model, log: EventLog) =>
  differencesOf(holdAgainst(model, log)).map(({ kind, statement }) => [kind, statement.text]);

describe("differences", () => {
  test.each<[what: string, model: Model, log: EventLog, told: [string, string][]]>([
    ["nothing", sequence, logOf(["a b c", 5]), []],
    [
      "what is skipped, alone and together",
      sequence,
      logOf(["a b c", 6], ["a c", 3], ["a", 1]),
      [
        ["skipped", "“b” is skipped in 30 % of the traces."],
        ["skipped", "“b” and “c” are skipped in 10 % of the traces."],
      ],
    ],
    [
      "what is not foreseen, where it is done",
      sequence,
      logOf(["a b c", 1], ["a x b c", 2], ["y a b c", 1]),
      [
        ["unforeseen", "“x” is done behind “a” in 50 % of the traces, which the model does not have."],
        ["unforeseen", "“y” is done at the beginning in 25 % of the traces, which the model does not have."],
      ],
    ],
    [
      "what is done in place of a step",
      sequence,
      logOf(["a x c", 1], ["a b c", 3]),
      [["replaced", "“x” is done in place of “b” in 25 % of the traces."]],
    ],
    ["another order", sequence, logOf(["b a c", 1]), [["order", "“a” is done after “b” in 100 % of the traces."]]],
    [
      "either order, both often",
      sequence,
      logOf(["a b c", 12], ["b a c", 8]),
      [
        [
          "order",
          "“a” is done after “b” in 40 % of the traces. They are done in either order, where the model has them in turn.",
        ],
      ],
    ],
    [
      "another order, seldom",
      sequence,
      logOf(["a b c", 18], ["b a c", 2]),
      [["order", "“a” is done after “b” in 10 % of the traces."]],
    ],
    [
      "either order, in too few cases to say so",
      sequence,
      logOf(["a b c", 5], ["b a c", 5]),
      [["order", "“a” is done after “b” in 50 % of the traces."]],
    ],
    [
      "either order, in those cases that have both",
      sequence,
      logOf(["a b c", 10], ["b a c", 10], ["b c", 80]),
      [
        ["skipped", "“a” is skipped in 80 % of the traces."],
        [
          "order",
          "“a” is done after “b” in 10 % of the traces. They are done in either order, where the model has them in turn.",
        ],
      ],
    ],
    [
      "what is done again",
      sequence,
      logOf(["a b b c", 1], ["a b c", 199]),
      [["repeated", "“b” is done again at once in less than 1 % of the traces."]],
    ],
  ])("tell %s", (_, model, log, wanted) => {
    expect(told(model, log)).toEqual(wanted);
  });

  test("a step that another role does than its lane is told with that role", () => {
    const model = modelOf(
      file(
        processOf(
          `<laneSet id="ls"><lane id="l1" name="Front desk"><flowNodeRef>a</flowNodeRef></lane></laneSet>${start}${task("a")}${end}${chain("s", "a", "e")}`,
        ),
      ),
    );
    const by = (role: string) => ({ activity: "a", at: undefined, lifecycle: "", role, who: "" });
    const traces = ["Front desk", "front  desk", "Field crew", ""].map((role) => ({ case: role, events: [by(role)] }));
    expect(differencesOf(holdAgainst(model, logOfTraces(traces)))).toMatchObject([
      { kind: "role", elements: ["a"], role: "Field crew", share: 0.25, traces: [2] },
    ]);
  });
});

describe("a repair", () => {
  test.each<[what: string, model: Model, trace: string]>([
    ["a way round a step", sequence, "a c"],
    ["a way round two in a row", sequence, "a"],
    ["a way round the first", sequence, "b c"],
    ["a step where one was done", sequence, "a x b c"],
    ["a step at the beginning", sequence, "x a b c"],
    ["a step at the end", sequence, "a b c x"],
    ["a choice in place of a step", sequence, "a x c"],
    ["a way back", sequence, "a b b c"],
    ["at once what was in a row", sequence, "b a c"],
    ["a way round one of two side by side", both, "a c d"],
    ["a step behind one of two side by side", both, "a b x c d"],
  ])(
    "%s: the trace fits then, those that fitted still do, and the process is as sound as before",
    (_, model, trace) => {
      const fitting = model === sequence ? "a b c" : "a b c d";
      const log = logOf([trace, 2], [fitting, 3]);
      const [difference] = differencesOf(holdAgainst(model, log));
      if (!difference) throw new Error("no difference");
      const mend = mended(model, difference);
      if (!mend) throw new Error(`no repair of: ${difference.statement.text}`);
      const held = holdAgainst(mend.model, log);
      expect(held.fitting).toBe(5);
      expect(held.fitness).toBe(1);
    },
  );

  test("that cannot be drawn is none", () => {
    const log = logOf(["a", 1]);
    const [difference] = differencesOf(holdAgainst(sequence, log));
    const gone = { ...difference, kind: "role" as const, elements: ["a" as Id], role: "x" } as never;
    expect(mended(sequence, gone)).toBeUndefined();
  });

  test("one after the other until nothing differs", () => {
    let model = sequence;
    const log = logOf(["a b c", 5], ["a x b c", 2], ["a c", 2], ["a b b c", 1], ["b a c", 1]);
    for (let round = 0; round < 10; round++) {
      const difference = differencesOf(holdAgainst(model, log)).find((one) => mended(model, one));
      if (!difference) break;
      model = mended(model, difference)?.model ?? model;
    }
    expect(holdAgainst(model, log).fitness).toBe(1);
  });
});

test("twenty steps side by side are aligned without looking at all their orders", () => {
  const names = Array.from({ length: 20 }, (_, at) => `t${at}`);
  const model = modelOf(
    file(
      processOf(
        start +
          node("parallelGateway", "f") +
          tasks(...names) +
          node("parallelGateway", "j") +
          end +
          chain("s", "f") +
          names.map((name) => chain("f", name, "j")).join("") +
          chain("j", "e"),
      ),
    ),
  );
  const held = holdAgainst(
    model,
    logOf([names.join(" ")], [[...names].reverse().join(" ")], [names.slice(1).join(" ")]),
  );
  expect(held.variants.map(({ alignment }) => alignment.cost).sort()).toEqual([0, 0, 1]);
  expect(held.fitness).toBeCloseTo(1 - 1 / 119, 12);
});

test("a process that brings forth ever more tokens is looked at up to a bound, which is told", () => {
  const model = modelOf(
    file(
      processOf(
        `${start}${tasks("a", "b")}${node("parallelGateway", "f")}${end}${chain("s", "a", "f", "b", "e")}${chain("f", "a")}`,
      ),
    ),
  );
  const held = holdAgainst(model, logOf(["a b"], ["a a b b"]));
  expect(held.isCut).toBe(true);
  expect(held.fitness).toBeGreaterThanOrEqual(0);
});

test("distances are the fewest steps to an end, in any state", () => {
  const automaton = new Automaton({ ...runWorld(both), together: false }, firstProcess(both) ?? "", []);
  const distances = distancesToEnd(automaton);
  expect(automaton.starts.map(distances)).toEqual([4]);
  expect(align(automaton, [], distances, []).cost).toBe(4);
  expect(automaton.size).toBeLessThan(10);
});
