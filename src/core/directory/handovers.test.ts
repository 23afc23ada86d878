import { expect, test } from "vitest";
import { performAll, smallModel } from "../testing/models";
import { handoverMatrix, handoversOf, stepsOf } from ".";

const diagram = "page";
const model = performAll(
  smallModel(),
  { type: "moveToLane", diagram, ids: ["approve"], lane: "engineer" },
  { type: "append", diagram, from: "approve", id: "inform", flow: "f20", kind: { type: "task" }, name: "Inform" },
  { type: "moveToLane", diagram, ids: ["inform"], lane: "desk" },
);

test("work goes from hand to hand between steps, through what lies between them", () => {
  const handovers = handoversOf(model, "roles");
  expect(handovers.map(({ from, to, source, target }) => [from, to, source, target])).toEqual(
    expect.arrayContaining([
      ["Front desk", "Network engineer", "check", "approve"],
      ["Network engineer", "Front desk", "approve", "inform"],
    ]),
  );
  // Through the gateway: both flows are part of it.
  expect(handovers.find((one) => one.source === "check")?.flows).toEqual(["f2", "f3"]);
  // From check to the rejection, all is done by the front desk.
  expect(handovers.some((one) => one.target === "reject")).toBe(false);
});

test("hand-overs are counted by pair of hands", () => {
  const { hands, count } = handoverMatrix(handoversOf(model, "roles"));
  expect(hands).toEqual(["Front desk", "Network engineer"]);
  expect(count("Front desk", "Network engineer")).toBe(
    handoversOf(model, "roles").filter((one) => one.from === "Front desk").length,
  );
  expect(count("Front desk", "Front desk")).toBe(0);
});

test("systems hand over where the next step uses another one", () => {
  const used = performAll(
    model,
    { type: "useSystem", step: "check", system: { entry: "s1", name: "Case register" }, use: "writes" },
    { type: "useSystem", step: "approve", system: { entry: "s2", name: "Network map" }, use: "reads" },
  );
  expect(handoversOf(used, "systems")).toMatchObject([{ from: "Case register", to: "Network map", target: "approve" }]);
  expect(stepsOf(used).map((step) => step.id)).toContain("inform");
});
