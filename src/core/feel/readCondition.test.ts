import { describe, expect, test } from "vitest";
import { readCondition } from ".";

/** Forms of expressions: DMN 1.3, 10.3.1.2 "Grammar rules" (from memory). */
describe("a condition is FEEL", () => {
  test.each<[string, readonly string[], readonly string[]]>([
    ["rated power <= 10", ["rated power"], ["rated power"]],
    ["amount > 10 and amount < 20", [], ["amount"]],
    ["Connection application.power between 1 and 30", ["Connection application"], ["Connection application"]],
    ["count(defects) = 0", ["defects"], ["defects"]],
    ["some defect in defects satisfies defect.weight > limit", ["defects", "limit"], ["defects", "limit"]],
    ['if urgent then level = "high" else true', ["urgent", "level"], ["level", "urgent"]],
    ['date("2027-03-01") < due', ["due"], ["due"]],
    ["string length(note) > 3", ["note"], ["note"]],
    ["true", [], []],
    ["complete", ["complete"], ["complete"]],
    ["x instance of number", ["x"], ["x"]],
  ])("%s", (text, reach, asks) => {
    const read = readCondition(text, reach);
    expect(read.kind).toBe("executable");
    expect(read.kind === "executable" && [...read.asks].sort()).toEqual([...asks].sort());
  });
});

describe("a condition is words for people", () => {
  test.each([
    "application is complete",
    "the feeder can carry it",
    "Yes",
    "rated power above 10 kW",
    "more than 10 %",
    "otherwise",
  ])("%s", (text) => {
    expect(readCondition(text, ["rated power"]).kind).toBe("words");
  });
  test("what breaks off says where", () => {
    expect(readCondition("amount >", ["amount"])).toEqual({ kind: "words", at: 8 });
  });
});

test("data that nothing here holds is named", () => {
  expect(readCondition("amount > limit", ["amount"])).toEqual({
    kind: "executable",
    asks: ["amount", "limit"],
    unknown: ["limit"],
  });
});
