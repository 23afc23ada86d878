import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { chain, end, file, modelOf, processOf, start, task } from "../live/testing/models";
import { expectOk } from "../testing/models";
import {
  goneAlong,
  holdAgainst,
  lateIn,
  movesOfCase,
  readLogCsv,
  readXes,
  replayOf,
  spansOfSteps,
  standingAt,
  textPieces,
  unusedIn,
} from ".";

const logOf = (rows: readonly string[], head = "case,activity,time") =>
  expectOk(readLogCsv(textPieces(new TextEncoder().encode([head, ...rows].join("\n")))));
const hour = 3_600_000;
const at = (day: number, clock: number) => Date.UTC(2027, 2, day, clock);
const row = (name: string, activity: string, day: number, clock: number) =>
  `${name},${activity},2027-03-${String(day).padStart(2, "0")}T${String(clock).padStart(2, "0")}:00:00Z`;

const line = modelOf(
  file(processOf(`${start}${task("a")}${task("b")}${task("c")}${end}${chain("s", "a", "b", "c", "e")}`)),
);
/** One as modelled, one without b, one with something besides. */
const log = logOf([
  row("one", "a", 1, 8),
  row("one", "b", 1, 10),
  row("one", "c", 1, 20),
  row("two", "a", 2, 8),
  row("two", "c", 2, 9),
  row("three", "a", 3, 8),
  row("three", "x", 3, 9),
  row("three", "b", 3, 12),
  row("three", "c", 3, 14),
]);
const held = holdAgainst(line, log);

describe("one case", () => {
  test("is told move by move: as modelled, left out, not foreseen", () => {
    expect(movesOfCase(log, held, "one")).toEqual([
      { kind: "both", step: "a", activity: "a", at: at(1, 8) },
      { kind: "both", step: "b", activity: "b", at: at(1, 10) },
      { kind: "both", step: "c", activity: "c", at: at(1, 20) },
    ]);
    expect(
      movesOfCase(log, held, "two")?.map((move) => [move.kind, "step" in move ? move.step : move.activity]),
    ).toEqual([
      ["both", "a"],
      ["model", "b"],
      ["both", "c"],
    ]);
    expect(movesOfCase(log, held, "three")).toContainEqual({ kind: "log", activity: "x", at: at(3, 9) });
    expect(movesOfCase(log, held, "none")).toBeUndefined();
  });
});

describe("what steps took and were waited for", () => {
  test("is counted from when what came before was complete; the one waited for most comes first", () => {
    const spans = spansOfSteps(log, held);
    // One waits ten hours for c, two one hour, three two: thirteen of eighteen and a half, whatever came before counts.
    expect(spans[0]).toMatchObject({ step: "c", times: 3, skipped: 0, waiting: { count: 3, median: 2 * hour } });
    expect(spans.find(({ step }) => step === "b")).toMatchObject({ times: 2, skipped: 1 });
    const whole = spans.reduce((sum, { ofWaiting }) => sum + ofWaiting, 0);
    expect(whole).toBeCloseTo(1, 9);
    expect(spans[0]?.ofWaiting).toBeCloseTo(13 / 18, 9);
  });

  test("without times nothing is waited for, and nothing can be played", () => {
    const untimed = logOf(["1,a", "1,b"], "case,activity");
    const own = holdAgainst(line, untimed);
    expect(spansOfSteps(untimed, own).every(({ ofWaiting }) => ofWaiting === 0)).toBe(true);
    expect(replayOf(untimed, own, 10)).toMatchObject({ cases: [], of: 0, from: 0, until: 0 });
  });
});

describe("cases that are played", () => {
  const replay = replayOf(log, held, 10);

  test("stand at the step they complete next; before their first they are nowhere, behind their last they are over", () => {
    expect([replay.from, replay.until]).toEqual([at(1, 8), at(3, 14)]);
    expect(standingAt(replay, at(1, 7))).toEqual({ at: new Map(), begun: 0, over: 0 });
    expect(standingAt(replay, at(1, 9))).toEqual({ at: new Map([["b", 1]]), begun: 1, over: 0 });
    expect(standingAt(replay, at(2, 8))).toEqual({ at: new Map([["c", 1]]), begun: 2, over: 1 });
    expect(standingAt(replay, at(9, 0))).toEqual({ at: new Map(), begun: 3, over: 3 });
  });

  test("go along the flows to their next step when they have done one", () => {
    const flows = (from: number, until: number) => [...goneAlong(replay, from, until)];
    expect(flows(at(1, 7), at(1, 8))).toEqual([[flowOf("a", "b"), 1]]);
    expect(flows(at(1, 8), at(1, 8))).toEqual([]);
    expect(goneAlong(replay, 0, at(9, 0)).get(flowOf("b", "c"))).toBe(3);
  });

  test("of very many, evenly spread ones", () => {
    const many = logOf(Array.from({ length: 50 }, (_, number) => row(String(number), "a", 1 + (number % 20), 8)));
    const some = replayOf(many, holdAgainst(line, many), 10);
    expect(some.cases).toHaveLength(10);
    expect(some.of).toBe(50);
  });

  test("a case whose times are not in its order is played in its order", () => {
    const event = (activity: string, day: number) =>
      `<event><string key="concept:name" value="${activity}"/><date key="time:timestamp" value="2027-03-0${day}T08:00:00Z"/></event>`;
    const odd = expectOk(readXes([`<log><trace>${event("a", 2)}${event("b", 1)}${event("c", 3)}</trace></log>`]));
    const [played] = replayOf(odd, holdAgainst(line, odd), 10).cases;
    expect(played).toEqual({ steps: ["a", "b", "c"], at: [at(2, 8), at(2, 8), at(3, 8)] });
  });

  test("at every moment each case that has begun stands somewhere or is over", () => {
    fc.assert(
      fc.property(fc.integer({ min: at(1, 0), max: at(4, 0) }), (moment) => {
        const { at: places, begun, over } = standingAt(replay, moment);
        expect([...places.values()].reduce((sum, count) => sum + count, 0) + over).toBe(begun);
      }),
    );
  });
});

const flowOf = (from: string, to: string): string =>
  [...line.elements].find((one) => one.type === "sequenceFlow" && one.sourceRef === from && one.targetRef === to)?.id ??
  "";

describe("later than a target", () => {
  const targeted = (inside: string, of: string) => {
    const extension = `<extensionElements>${inside}</extensionElements>`;
    const steps = ["a", "b", "c"].map((step) => task(step, step === of ? extension : "")).join("");
    const process = processOf(`${of === "p" ? extension : ""}${start}${steps}${end}${chain("s", "a", "b", "c", "e")}`);
    return modelOf(file(process).replace("<definitions ", '<definitions xmlns:lln="urn:lucid-lane:bpmn:1" '));
  };
  const target = (what: string, seconds: number, share = 0.9) =>
    `<lln:target what="${what}" seconds="${seconds}" share="${share}" days="30"/>`;

  test("a step that takes longer than it may, and in how many of the cases in which it is done", () => {
    const model = targeted(target("duration", 3 * 3_600), "c");
    const [late, ...more] = lateIn(log, holdAgainst(model, log));
    expect(more).toEqual([]);
    expect(late).toMatchObject({ element: "c", traces: [0], of: 3, isKept: false });
    expect(late?.statement.text).toBe("“c” takes longer than 3 h in 33 % of the traces.");
  });

  test("a whole case; where most keep it, that is said", () => {
    const process = [...line.elements].find(({ type }) => type === "process")?.id ?? "";
    const model = targeted(target("duration", 8 * 3_600, 0.5), "p");
    const [late] = lateIn(log, holdAgainst(model, log));
    expect(late).toMatchObject({ element: process, traces: [0], of: 3, isKept: true });
    expect(late?.statement.text).toContain("A case takes longer than 8 h");
  });

  test("the first step of a case takes from when it was begun, where the log tells that", () => {
    const begun = [
      "1,a,2027-03-01T08:00:00Z,start",
      "1,a,2027-03-01T10:00:00Z,complete",
      "1,b,2027-03-01T11:00:00Z,complete",
    ];
    const own = logOf(begun, "case,activity,time,lifecycle");
    const model = targeted(target("duration", 3_600), "a");
    expect(lateIn(own, holdAgainst(model, own))).toMatchObject([{ element: "a", traces: [0], of: 1 }]);
  });

  test("what keeps its target, and what has none, says nothing", () => {
    expect(lateIn(log, holdAgainst(targeted(target("duration", 30 * 3_600), "c"), log))).toEqual([]);
    expect(lateIn(log, held)).toEqual([]);
  });
});

describe("what the model leaves open and nobody does", () => {
  const gateway = (id: string, type: string) => `<${type} id="${id}"/>`;
  const flow = (from: string, to: string) => `<sequenceFlow id="${from}-${to}" sourceRef="${from}" targetRef="${to}"/>`;
  const flows = (...pairs: readonly (readonly [string, string])[]) =>
    pairs.map(([from, to]) => flow(from, to)).join("");
  const parallel = modelOf(
    file(
      processOf(
        `${start}${gateway("g", "parallelGateway")}${task("a")}${task("b")}${gateway("h", "parallelGateway")}${end}${flows(["s", "g"], ["g", "a"], ["g", "b"], ["a", "h"], ["b", "h"], ["h", "e"])}`,
      ),
    ),
  );
  const cases = (ways: readonly string[]) =>
    logOf(
      ways.flatMap((way, number) =>
        [...way].map((activity, place) => row(String(number), activity, 1 + (number % 20), 8 + place)),
      ),
    );

  test("steps side by side that are always done in one order", () => {
    const fixed = unusedIn(holdAgainst(parallel, cases(Array(25).fill("ab"))));
    expect(fixed).toMatchObject([{ kind: "order", elements: ["a", "b"], traces: 25 }]);
    expect(fixed[0]?.statement.text).toMatch(/^“a” is always done before “b”, in all 25 traces/);
    expect(unusedIn(holdAgainst(parallel, cases(Array(25).fill("ba"))))[0]?.elements).toEqual(["b", "a"]);
  });

  test("once the other order is seen, or where cases are few, nothing is said", () => {
    expect(unusedIn(holdAgainst(parallel, cases([...Array(40).fill("ab"), "ba"])))).toEqual([]);
    expect(unusedIn(holdAgainst(parallel, cases(Array(19).fill("ab"))))).toEqual([]);
    // What stands in a row is done in a row.
    expect(unusedIn(holdAgainst(line, cases(Array(30).fill("abc"))))).toEqual([]);
  });

  const loop = modelOf(
    file(
      processOf(
        `${start}${gateway("m", "exclusiveGateway")}${task("a")}${task("b")}${gateway("x", "exclusiveGateway")}${task("c")}${end}${flows(["s", "m"], ["m", "a"], ["a", "b"], ["b", "x"], ["x", "m"], ["x", "c"], ["c", "e"])}`,
      ),
    ),
  );

  test("a way back that nobody takes; once somebody does, nothing is said", () => {
    const left = unusedIn(holdAgainst(loop, cases(Array(22).fill("abc"))));
    expect(left).toMatchObject([{ kind: "loop", elements: ["x-m"], traces: 22 }]);
    expect(left[0]?.statement.text).toContain("Nobody ever goes back to “a”");
    expect(unusedIn(holdAgainst(loop, cases([...Array(30).fill("abc"), "ababc"])))).toEqual([]);
  });
});
