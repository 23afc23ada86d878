import { describe, expect, test } from "vitest";
import { performed } from "../../commands";
import { Stream } from "../../forecast";
import { chain, end, file, modelOf, node, processOf, start, task } from "../../live/testing/models";
import type { Model } from "../../model";
import { type Distribution, draw, scenariosOf } from "../../scenario";
import { bestFit, figuresTaken, fitted, holdAgainst, type LoggedTrace, logOf, measuredIn, scenarioFrom } from "..";
import { digamma, trigamma } from "./fitting";

/** Fifteen times; what SciPy 1.10.1 says of them: gamma.fit, weibull_min.fit and lognorm.fit with floc=0, norm.fit, and their logpdf summed. */
const times = [12, 25, 31, 8, 44, 19, 27, 63, 15, 22, 38, 51, 9, 30, 17];

describe("distributions by maximum likelihood", () => {
  const all = fitted(times);
  const of = (kind: Distribution["kind"]) => all.find(({ distribution }) => distribution.kind === kind);

  test("are those a statistics package finds, with the same likelihoods", () => {
    expect(of("gamma")?.distribution).toMatchObject({
      shape: expect.closeTo(3.189488620543158, 6),
      scale: expect.closeTo(8.59071884549752, 5),
    });
    expect(of("weibull")?.distribution).toMatchObject({
      shape: expect.closeTo(1.898782351366927, 5),
      scale: expect.closeTo(31.03498745157393, 3),
    });
    expect(of("logNormal")?.distribution).toMatchObject({
      mean: expect.closeTo(27.673738058863364, 8),
      deviation: expect.closeTo(17.90381997088837, 8),
    });
    expect(of("normal")?.distribution).toMatchObject({ mean: 27.4, deviation: expect.closeTo(15.38744076620064, 10) });
    expect(of("exponential")?.distribution).toMatchObject({ mean: 27.4 });
    const likelihoods = { gamma: -60.548960786997526, weibull: -60.81079068761679, logNormal: -60.58766502861027 };
    for (const [kind, likelihood] of Object.entries({
      ...likelihoods,
      normal: -62.287352628489806,
      exponential: -64.65814520091037,
    }))
      expect(of(kind as Distribution["kind"])?.logLikelihood).toBeCloseTo(likelihood, 6);
  });

  test("are ranked by Akaike's criterion: a second parameter has to pay for itself", () => {
    expect(all.map(({ distribution }) => distribution.kind)).toEqual([
      "gamma",
      "logNormal",
      "weibull",
      "normal",
      "exponential",
    ]);
    expect(of("exponential")?.criterion).toBeCloseTo(2 + 2 * 64.65814520091037, 6);
    expect(of("gamma")?.criterion).toBeCloseTo(4 + 2 * 60.548960786997526, 6);
  });

  test.each<[Distribution, number]>([
    [{ kind: "exponential", mean: 300 }, 0.06],
    [{ kind: "gamma", shape: 4, scale: 60 }, 0.12],
    [{ kind: "weibull", shape: 2.5, scale: 900 }, 0.1],
    [{ kind: "logNormal", mean: 1_200, deviation: 500 }, 0.08],
    [{ kind: "normal", mean: 600, deviation: 60, min: 0 }, 0.05],
  ])("find again what %j was drawn from", (drawn, within) => {
    const chance = new Stream(3, "fitting");
    const values = Array.from({ length: 4_000 }, () => draw(drawn, chance));
    const best = fitted(values).find(({ distribution }) => distribution.kind === drawn.kind)?.distribution;
    for (const [name, value] of Object.entries(drawn))
      if (typeof value === "number" && value > 0)
        expect(Math.abs(((best as never as { [name: string]: number })[name] as number) / value - 1)).toBeLessThan(
          within,
        );
    const chosen = bestFit(values);
    // A Weibull or gamma of shape 1 is the exponential: whichever is chosen, its kind is one that can be this one.
    expect([drawn.kind, "gamma", "weibull"]).toContain(chosen?.kind);
  });

  test("of what is always the same is that; of too little, nothing; of zeros, only what can be zero", () => {
    expect(bestFit(Array(10).fill(60))).toEqual({ kind: "constant", value: 60 });
    expect(bestFit([1, 2, 3])).toBeUndefined();
    expect(bestFit([])).toBeUndefined();
    const kinds = fitted([0, 0, 5, 10, 20, 40, 80, 160]).map(({ distribution }) => distribution.kind);
    expect(kinds.sort()).toEqual(["exponential", "normal"]);
    expect(fitted([Number.NaN, -1, ...times])).toHaveLength(5);
  });

  // M. Abramowitz, I. Stegun, "Handbook of Mathematical Functions", table 6.1; values beyond it by SciPy 1.10.1.
  test.each([
    [0.1, -10.423754940411076, 101.43329915079275],
    [0.5, -1.9635100260214235, 4.93480220054468],
    [1, -0.5772156649015329, 1.6449340668482266],
    [2.5, 0.7031566406452432, 0.4903577561002349],
    [7, 1.872784335098467, 0.15354517795933756],
    [100, 4.600161852738088, 0.010050166663333573],
  ])("the derivatives of the logarithm of the gamma function at %d", (x, first, second) => {
    expect(digamma(x)).toBeCloseTo(first, 9);
    expect(trigamma(x)).toBeCloseTo(second, 9);
  });
});

const minute = 60_000;
const began = Date.UTC(2027, 2, 1, 8);
/** `a10-25`: begun at minute 10, complete at minute 25; `a25`: only when it was complete. */
const trace = (number: number, words: string, role = "desk", who = "Ole"): LoggedTrace => ({
  case: String(number),
  events: words.split(" ").flatMap((word) => {
    const [, activity = "", from = "", until] = /^([a-z]+)(\d+)(?:-(\d+))?$/.exec(word) ?? [];
    const at = (text: string) => began + number * 60 * minute + Number(text) * minute;
    const event = { activity, role, who };
    return until === undefined
      ? [{ ...event, at: at(from), lifecycle: "complete" }]
      : [
          { ...event, at: at(from), lifecycle: "start" },
          { ...event, at: at(until), lifecycle: "complete" },
        ];
  }),
});
const measure = (model: Model, ...traces: LoggedTrace[]) => {
  const log = logOf(traces);
  const held = holdAgainst(model, log);
  return { held, measured: measuredIn(log, held) };
};
const choosing = modelOf(
  file(
    processOf(
      start +
        ["a", "b", "c", "d"].map((name) => task(name)).join("") +
        node("exclusiveGateway", "g") +
        node("exclusiveGateway", "m") +
        end +
        chain("s", "a", "g", "b", "m", "d", "e") +
        chain("g", "c", "m").replace(/id="f\d+" sourceRef="g"/, 'id="rare" sourceRef="g"'),
    ),
  ),
);

describe("what a log says of a model", () => {
  test("is how long steps took and waited, when cases came, and who worked", () => {
    const { measured } = measure(
      choosing,
      trace(0, "a0-10 b15-20 d20-21"),
      trace(1, "a0-20 c50-60 d60-61", "crew", "Pia"),
      trace(3, "a0-30 b30-45 d50-51"),
    );
    const of = (step: string) => measured.steps.find((one) => one.step === step);
    expect(of("a")).toEqual({ step: "a", working: [600, 1_800, 1_200], waiting: [] });
    expect(of("b")).toEqual({ step: "b", working: [300, 900], waiting: [300, 0] });
    expect(of("c")).toEqual({ step: "c", working: [600], waiting: [1_800] });
    expect(measured.intervals).toEqual([3_600, 7_200]);
    expect(measured.durations).toEqual([21, 61, 51].map((minutes) => minutes * 60));
    expect(measured.people).toEqual([
      { role: "crew", count: 1 },
      { role: "desk", count: 1 },
    ]);
  });

  test("is how often each way was taken", () => {
    const { measured } = measure(
      choosing,
      ...["a0 b1 d2", "a0 b1 d2", "a0 b1 d2", "a0 c1 d2"].map((words, number) => trace(number, words)),
    );
    const shares = measured.ways.map(({ share, times }) => [share, times]);
    expect(shares).toEqual([
      [0.75, 3],
      [0.25, 1],
    ]);
  });

  test("of a way round a step, of a loop, and of ways side by side, too", () => {
    const looping = modelOf(
      file(
        processOf(
          start +
            task("a") +
            task("b") +
            node("exclusiveGateway", "m") +
            node("exclusiveGateway", "again") +
            end +
            chain("s", "m", "a", "again", "b", "e") +
            chain("again", "m").replace(/f\d+/, "back"),
        ),
      ),
    );
    const loops = measure(looping, trace(0, "a0 b1"), trace(1, "a0 a1 a2 b3")).measured;
    expect(loops.ways.find(({ flow }) => flow === "back")).toMatchObject({ times: 2, share: 0.5 });
    const both = modelOf(
      file(
        processOf(
          start +
            ["a", "b", "c"].map((name) => task(name)).join("") +
            node("inclusiveGateway", "g") +
            node("inclusiveGateway", "j") +
            end +
            chain("s", "a", "g", "b", "j", "e") +
            chain("g", "c", "j"),
        ),
      ),
    );
    const several = measure(
      both,
      trace(0, "a0 b1"),
      trace(1, "a0 b1 c2"),
      trace(2, "a0 c1 b2"),
      trace(3, "a0 c1"),
    ).measured;
    expect(several.ways.map(({ share }) => share)).toEqual([0.75, 0.75]);
    // With a way past both, which is taken where neither was done.
    const past = modelOf(
      file(
        processOf(
          start +
            ["a", "b", "c", "d"].map((name) => task(name)).join("") +
            node("inclusiveGateway", "g") +
            node("inclusiveGateway", "j") +
            end +
            chain("s", "a", "g", "b", "j", "d", "e") +
            chain("g", "c", "j") +
            chain("g", "j"),
        ),
      ),
    );
    const some = ["a0 b1 d3", "a0 b1 c2 d3", "a0 c1 d3", "a0 d3"].map((words, number) => trace(number, words));
    expect(measure(past, ...some).measured.ways.map(({ share }) => share)).toEqual([0.5, 0.5, 0.25]);
  });

  test("fills a scenario: figures with how many observations stand behind each, and the file takes them", () => {
    const traces = Array.from({ length: 40 }, (_, number) =>
      trace(
        number,
        number % 4 === 0 ? "a0-10 c15-20 d20-21" : `a0-${10 + (number % 7)} b30-${33 + (number % 5)} d50-51`,
      ),
    );
    const { held, measured } = measure(choosing, ...traces);
    const figures = figuresTaken(choosing, held, measured, "fitted");
    const of = (element: string, parameter: string) =>
      figures.find((one) => one.element === element && one.parameter === parameter);
    expect(of("s", "interval")).toMatchObject({ value: { kind: "constant", value: 3_600 }, observations: 39 });
    expect(of("a", "processing")?.observations).toBe(40);
    expect(of("d", "processing")?.value).toEqual({ kind: "constant", value: 60 });
    expect(of("rare", "probability")).toMatchObject({ value: { value: 0.25 }, observations: 10 });
    const measuredAsIs = figuresTaken(choosing, held, measured, "measured");
    expect(measuredAsIs.find(({ element }) => element === "a")?.value.kind).toBe("continuous");
    const model = performed(choosing, scenarioFrom(choosing, figures, measured, { id: "seen", name: "As measured" }));
    if (!model) throw new Error("the scenario is refused");
    const scenario = scenariosOf(model).find(({ id }) => id === "seen");
    expect(scenario?.name).toBe("As measured");
    expect(scenario?.of.get("rare")?.probability).toBe(0.25);
    expect(scenario?.of.get("a")?.times.processing?.[0]?.value.kind).toBe(of("a", "processing")?.value.kind);
  });

  test("without times says nothing of times", () => {
    const event = (activity: string) => ({ activity, at: undefined, lifecycle: "", role: "", who: "" });
    const { held, measured } = measure(choosing, { case: "1", events: ["a", "b", "d"].map(event) });
    expect(measured).toMatchObject({ intervals: [], durations: [], first: undefined, people: [] });
    const parameters = figuresTaken(choosing, held, measured, "fitted").map(({ parameter }) => parameter);
    expect(new Set(parameters)).toEqual(new Set(["probability"]));
  });
});
