import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../../bpmn";
import { brokenInvariants, durationWords, readDuration } from "../../model";
import { estimatesOf } from "../../scenario";
import { expectOk, performAll, smallModel } from "../../testing/models";
import { schemaErrors } from "../../testing/xml";
import { perform, undoOf } from "../kernel/command";

describe("durations", () => {
  // ISO 8601-1:2019, 5.5.2 "duration"; the ways of writing are common practice.
  test.each([
    ["30 min", "PT30M", "30 min"],
    ["90", "PT90M", "90 min"],
    ["1 h 30 min", "PT1H30M", "1 h 30 min"],
    ["1,5 h", "PT1.5H", "1.5 h"],
    ["2 days", "P2D", "2 days"],
    ["1 day and 2 hours", "P1DT2H", "1 day 2 h"],
    ["half a day", undefined, ""],
    ["1.5 days", "PT36H", "36 h"],
    ["PT45S", "PT45S", "45 s"],
    ["P", undefined, ""],
    ["", undefined, ""],
    ["3 apples", undefined, ""],
  ])("%s", (typed, iso, words) => {
    expect(readDuration(typed)).toBe(iso);
    if (iso) expect(durationWords(iso)).toBe(words);
  });

  test("what is written in words is read as the same", () => {
    fc.assert(
      fc.property(fc.nat(60), fc.nat(60), fc.integer({ min: 1, max: 9 }), (hours, minutes, days) => {
        const iso = `P${days}DT${hours}H${minutes}M`;
        expect(readDuration(durationWords(iso))).toBe(iso);
      }),
    );
  });
});

describe("estimates", () => {
  const set = { type: "setEstimate", id: "check", time: "30 min", cost: 12.5 } as const;

  test("they stand in the standard's place and come back from a file", async () => {
    const model = performAll(smallModel(), set, { type: "setEstimate", id: "approve", time: "2 h" });
    expect(brokenInvariants(model)).toEqual([]);
    const text = writeBpmn(model);
    expect(text).toContain('<bpsim:ElementParameters elementRef="check">');
    expect(text).toMatch(/<relationship [^>]*type="BPSimData"/);
    expect(await schemaErrors(text)).toEqual([]);
    const again = expectOk(readBpmn(text));
    expect([...estimatesOf(again)]).toEqual([
      ["check", { time: "PT30M", cost: 12.5 }],
      ["approve", { time: "PT2H" }],
    ]);
    expect(writeBpmn(again)).toBe(text);
  });

  test("one is changed without the other, taken off, and taken back", () => {
    const model = performAll(smallModel(), set, { type: "setEstimate", id: "check", cost: 20 });
    expect(estimatesOf(model).get("check")).toEqual({ time: "PT30M", cost: 20 });
    const off = performAll(model, { type: "setEstimate", id: "check", time: null, cost: null });
    expect(estimatesOf(off).has("check")).toBe(false);
    const done = expectOk(perform(model, { type: "setEstimate", id: "check", time: "1 h" }));
    expect(estimatesOf(expectOk(perform(done.model, undoOf(done))).model).get("check")?.time).toBe("PT30M");
  });

  test("what others say of a step in the same data stays", () => {
    const text = writeBpmn(performAll(smallModel(), set)).replace(
      "<bpsim:ProcessingTime>",
      '<bpsim:WaitTime><bpsim:DurationParameter value="P1D"/></bpsim:WaitTime><bpsim:ProcessingTime>',
    );
    const model = performAll(expectOk(readBpmn(text)), { type: "setEstimate", id: "check", time: "5 min" });
    expect(writeBpmn(model)).toContain("<bpsim:WaitTime>");
    expect(estimatesOf(model).get("check")?.time).toBe("PT5M");
  });

  test("an element that is deleted takes its estimate with it", () => {
    const model = performAll(smallModel(), set, { type: "delete", ids: ["check"] });
    expect(estimatesOf(model).size).toBe(0);
  });

  test.each([
    [{ id: "decide", time: "5 min" }, "not-an-activity"],
    [{ id: "check", time: "soon" }, "no-duration"],
  ])("%j is refused: %s", (more, code) => {
    const done = perform(smallModel(), { type: "setEstimate", ...more });
    expect(done.ok || done.problems[0]?.code).toBe(code);
  });
});
