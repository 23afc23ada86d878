import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { bpmnWith, end, inARow, modelOf, of, start, task } from "../forecast/testing/models";
import { expectOk, performAll } from "../testing/models";
import { spreadSchema } from "./distributionSchema";
import { type DrawnKind, drawValue, readSpread, type Spread, spreadWords } from "./drawnData";
import { scenariosOf } from "./readScenarios";

const values = (...points: readonly (readonly [share: number, value: string | number | boolean])[]): Spread => ({
  kind: "values",
  points: points.map(([share, value]) => ({ share, value })),
});

describe("words for how data is spread", () => {
  test.each<[typed: string, kind: DrawnKind, spread: Spread | undefined]>([
    ["60 % pitched, 30 % flat, 10 % ground", "text", values([0.6, "pitched"], [0.3, "flat"], [0.1, "ground"])],
    ["flat", "text", values([1, "flat"])],
    ["20 % yes", "yesNo", values([0.2, true], [0.8, false])],
    ["100% yes", "yesNo", values([1, true], [0, false])],
    ["30 % no", "yesNo", values([0.3, false], [0.7, true])],
    ["yes", "yesNo", values([1, true])],
    ["60 % yes, 40 % no", "yesNo", values([0.6, true], [0.4, false])],
    ["70 % 5, 30 % 12", "number", values([0.7, 5], [0.3, 12])],
    ["5 to 30", "number", { kind: "uniform", min: 5, max: 30 }],
    ["12", "number", values([1, 12])],
    ["2,5", "number", values([1, 2.5])],
    ["2027-03-31", "text", values([1, "2027-03-31"])],
    ['50 % "a, b", 50 % c', "text", values([0.5, "a, b"], [0.5, "c"])],
    ["12", undefined, values([1, 12])],
    ["yes", undefined, values([1, true])],
    ["roof", undefined, values([1, "roof"])],
    ["60 % pitched, 30 % flat", "text", undefined],
    ["60 % flat", "text", undefined],
    ["120 % yes", "yesNo", undefined],
    ["perhaps", "yesNo", undefined],
    ["roof", "number", undefined],
    ["50 % roof, 50 % 3", "number", undefined],
    ["", "text", undefined],
  ])("%s (%s)", (typed, kind, spread) => {
    expect(readSpread(typed, kind)).toEqual(spread);
  });

  const word = fc.stringMatching(/^[A-Za-z]{1,6}( [a-z]{1,6})?$/).filter((one) => !/^(yes|no|true|false)$/i.test(one));
  const shares = fc
    .uniqueArray(fc.oneof(word, fc.integer({ min: 0, max: 99 })), { minLength: 2, maxLength: 5 })
    .chain((found) =>
      fc.array(fc.integer({ min: 1, max: 9 }), { minLength: found.length, maxLength: found.length }).map((weights) => {
        const whole = weights.reduce((sum, one) => sum + one, 0);
        return values(
          ...found.map((value, at) => [Number(((weights[at] ?? 0) / whole).toPrecision(6)), value] as const),
        );
      }),
    );

  test("what is shown is read as the same again", () => {
    fc.assert(
      fc.property(shares, (spread) => {
        const again = readSpread(spreadWords(spread), undefined);
        expect(again?.kind).toBe("values");
        if (again?.kind !== "values" || spread.kind !== "values") return;
        expect(again.points.map(({ value }) => value)).toEqual(spread.points.map(({ value }) => value));
        for (const [at, { share }] of again.points.entries())
          expect(share).toBeCloseTo(spread.points[at]?.share ?? 0, 5);
      }),
    );
  });

  test("values come as often as their shares say", () => {
    const spread = values([1, "a"], [0, "never"], [3, "b"]);
    const drawn = Array.from({ length: 400 }, (_, at) =>
      drawValue(spread, { next: () => at / 400, inside: () => (at + 0.5) / 400 }),
    );
    expect(drawn.filter((one) => one === "a")).toHaveLength(100);
    expect(drawn.filter((one) => one === "b")).toHaveLength(300);
  });
});

describe("drawn data in a file", () => {
  const bare = modelOf(bpmnWith(inARow(start, task("a"), end), ""));
  const drawnIn = (model: typeof bare, scenario = 0) => scenariosOf(model)[scenario]?.of.get("p")?.drawn;
  const say = (path: string, spread: Spread | null, scenario = "s1") =>
    ({ type: "setDrawn", scenario, process: "p", path, spread }) as const;

  test("is said, written, read and taken off again", () => {
    const roof = values([0.6, "pitched"], [0.4, "flat"]);
    const said = performAll(
      bare,
      say("Plant.roof", roof),
      say("certified", values([0.9, true], [0.1, false])),
      say("Plant.power", { kind: "uniform", min: 3, max: 30 }),
      say("limit", values([1, 12])),
    );
    const again = expectOk(readBpmn(writeBpmn(said)));
    for (const model of [said, again])
      expect(drawnIn(model)).toEqual([
        { path: "Plant.roof", spread: roof },
        { path: "certified", spread: values([0.9, true], [0.1, false]) },
        { path: "Plant.power", spread: { kind: "uniform", min: 3, max: 30 } },
        { path: "limit", spread: values([1, 12]) },
      ]);
    const less = performAll(again, say("Plant.roof", null), say("limit", values([1, 15])));
    expect(drawnIn(less)?.map(({ path }) => path)).toEqual(["certified", "Plant.power", "limit"]);
    const none = performAll(less, say("certified", null), say("Plant.power", null), say("limit", null));
    expect(writeBpmn(none)).toBe(writeBpmn(bare));
  });

  test("a scenario that goes after another says anew only what it says itself", () => {
    const model = performAll(
      bare,
      say("a", values([1, 1])),
      say("b", values([1, 2])),
      { type: "addScenario", id: "s2", name: "Two", inherits: "s1" },
      say("b", values([1, 3]), "s2"),
    );
    expect(drawnIn(model, 1)).toEqual([
      { path: "a", spread: values([1, 1]) },
      { path: "b", spread: values([1, 3]) },
    ]);
  });

  test("as another program writes it: enumerations, texts, and what cannot be used is told", () => {
    const property = (name: string, inner: string) =>
      `<bpsim:Property name="${name}" type="string">${inner}</bpsim:Property>`;
    const model = modelOf(
      bpmnWith(
        inARow(start, task("a"), end),
        of(
          "s",
          `<bpsim:PropertyParameters>${property("kind", '<bpsim:EnumParameter><bpsim:StringParameter value="x"/><bpsim:StringParameter value="y"/></bpsim:EnumParameter>')}${property("odd", '<bpsim:ExpressionParameter value="1"/>')}</bpsim:PropertyParameters>`,
        ),
      ),
    );
    const [scenario] = scenariosOf(model);
    expect(scenario?.of.get("s")?.drawn).toEqual([{ path: "kind", spread: values([1, "x"], [1, "y"]) }]);
    expect(scenario?.problems.map(({ text }) => text).join()).toContain("ExpressionParameter");
  });

  test("data is drawn for a process, and shares that make no whole are refused", () => {
    expect(() => performAll(bare, { ...say("x", values([1, 1])), process: "a" })).toThrow(/cases of a process/);
    expect(spreadSchema.safeParse(values([0, 1])).success).toBe(false);
    expect(spreadSchema.safeParse(values([0.5, 1], [0.5, 2])).success).toBe(true);
  });
});
