import { describe, expect, test } from "vitest";
import type { Model } from "../../model";
import { performAll, startModel } from "../../testing/models";
import { randomProcess } from "../../testing/randomProcess";
import { processVerdicts } from "..";
import { behaviourUnknown } from "./behaviour";
import { flowsCross } from "./flowsCross";

/** Two flows beside each other, or one that winds across the other so many times. */
function twoFlows(times: number): Model {
  const diagram = "page";
  const step = (id: string, x: number, y: number) =>
    ({ type: "place", diagram, id, kind: { type: "task" }, at: { x, y }, name: id }) as const;
  const made = performAll(
    startModel(),
    step("one", 100, 100),
    step("two", 900, 100),
    step("three", 100, 500),
    step("four", 900, 500),
    { type: "connect", diagram, id: "f1", source: "one", target: "two" },
    { type: "connect", diagram, id: "f2", source: "three", target: "four" },
  );
  const waypoints = (flow: string) =>
    flow === "f1"
      ? [
          { x: 150, y: 100 },
          { x: 850, y: 100 },
        ]
      : Array.from({ length: times + 1 }, (_, at) => ({ x: 200 + 60 * at, y: at % 2 === 0 ? 300 : 50 }));
  const edits = [...made.edges].map((edge) => ({
    kind: "set",
    table: "edges",
    id: edge.id,
    field: "waypoints",
    from: edge.waypoints,
    to: times === 0 ? edge.waypoints : waypoints(edge.element),
  }));
  return performAll(made, { type: "edits", label: "wind", edits } as never);
}

describe("flows-cross", () => {
  test("tells of flows that cross often on a page, and not of a few that cannot be avoided", () => {
    expect(flowsCross.find(twoFlows(0))).toEqual([]);
    expect(flowsCross.find(twoFlows(3))).toEqual([]);
    const [said] = flowsCross.find(twoFlows(5));
    expect(said?.message.text).toMatch(/^Flows cross 5 times/);
    expect([...(said?.elements ?? [])].sort()).toEqual(["f1", "f2"]);
  });
});

test("behaviour-unknown tells of what could not be looked at, and of nothing else", () => {
  const model = randomProcess({ seed: 3, nodes: 12, lanes: 1 });
  expect(processVerdicts(model).every(({ sound }) => sound !== null)).toBe(true);
  expect(behaviourUnknown.find(model)).toEqual([]);
});
