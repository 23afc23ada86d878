import { beforeAll, describe, expect, test } from "vitest";
import { differencesOf, type EventLog, type Held, holdAgainst, measuredIn, overviewOf } from "@/core/evidence";
import { emptyModel, type Model } from "@/core/model";
import { demoLog, otherName } from "./log";
import { assumeConnection } from "./scenarios";
import { drawSolarConnection } from "./solarConnection";

let model: Model;
let log: EventLog;
let held: Held;
beforeAll(() => {
  const empty = emptyModel({ definitions: "d", process: "p", diagram: "page" }, "Rooftop solar connection");
  model = assumeConnection(drawSolarConnection(empty, "page", "switch-on-and-verify").model, "page").model;
  log = demoLog(model, "p");
  held = holdAgainst(model, log, { said: new Map([[otherName, ["book-visit"]]]) });
});

describe("the demo's log", () => {
  test("differs from the as-is in what was planted, and in nothing else", () => {
    const told = differencesOf(held).map(({ kind, elements, role }) => [kind, ...elements, ...(role ? [role] : [])]);
    expect(told).toEqual([
      ["order", "check-documents", "check-capacity"],
      ["skipped", "check-capacity"],
      ["role", "approve", "Front desk"],
      ["repeated", "book-visit"],
    ]);
    const apart = differencesOf(held).reduce(
      (sum, { kind, traces }) => (kind === "role" ? sum : sum + traces.length),
      0,
    );
    // A case may go otherwise in two ways, and most go as modelled.
    expect(held.fitting).toBeGreaterThanOrEqual(log.cases.length - apart);
    expect(held.fitting / log.cases.length).toBeGreaterThan(0.75);
    expect(held.isCut).toBe(false);
  });

  test("is the same every time", () => {
    expect(demoLog(model, "p")).toEqual(log);
  });

  test("without its other name said, the visit is done in place of itself", () => {
    const [first] = differencesOf(holdAgainst(model, log));
    expect(first).toMatchObject({ kind: "replaced", elements: ["book-visit"], activity: otherName });
  });

  test("has begun and completed work, people of four roles, and what tells cases apart", () => {
    const seen = overviewOf(log);
    expect(seen.roles.map(({ name }) => name).sort()).toEqual([
      "Billing",
      "Field crew",
      "Front desk",
      "Network engineer",
    ]);
    expect(seen.attributes.map(({ name }) => name)).toEqual(["Channel", "District"]);
    for (const { name, working } of seen.activities) expect([name, working.count > 0]).toEqual([name, true]);
    // Work lies for days, as the forecast of the as-is has it.
    expect(seen.durations.median / 86_400_000).toBeGreaterThan(1);
    expect(seen.durations.ninth / 86_400_000).toBeLessThan(14);
  });

  test("says of ways about what the scenario assumes, since it was played by it", () => {
    const shares = new Map(measuredIn(log, held).ways.map(({ flow, share }) => [flow, share]));
    for (const [flow, share] of [
      ["complete-to-request-papers", 0.3],
      ["capacity-to-reject", 0.08],
    ] as const)
      expect(Math.abs((shares.get(flow) ?? 0) - share)).toBeLessThan(0.05);
  });
});
