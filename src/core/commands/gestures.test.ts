import { describe, expect, test } from "vitest";
import { sceneOf } from "../drawing";
import {
  type Bounds,
  boundaryEventsOf,
  brokenInvariants,
  childrenOf,
  edgesOf,
  incomingOf,
  laneOf,
  type Model,
  outgoingOf,
  scopeOf,
  shapeOn,
} from "../model";
import { expectOk, performAll, smallModel } from "../testing/models";
import { type Command, perform, undoOf } from ".";

const diagram = "page";
const bounds = (model: Model, id: string, page = diagram): Bounds => {
  const shape = shapeOn(model, page, id);
  if (!shape) throw new Error(`${id} is not drawn on ${page}`);
  return shape.bounds;
};
const middle = ({ x, y, width, height }: Bounds) => ({ x: x + width / 2, y: y + height / 2 });
const refusalOf = (model: Model, command: Command) => {
  const done = perform(model, command);
  if (done.ok) throw new Error(`${command.type} was not refused`);
  return done.problems[0]?.code;
};
const drawnAs = (model: Model) => {
  const page = model.diagrams.get(diagram);
  return page ? sceneOf(model, page).figures.map((figure) => [figure.id, figure.bounds, figure.line]) : [];
};

describe("lining up", () => {
  const spread = () =>
    performAll(
      smallModel(),
      { type: "move", diagram, ids: ["approve"], by: { x: 4, y: -12 } },
      { type: "move", diagram, ids: ["reject"], by: { x: 40, y: 8 } },
    );
  test.each([
    ["left", (b: Bounds) => b.x],
    ["centre", (b: Bounds) => b.x + b.width / 2],
    ["right", (b: Bounds) => b.x + b.width],
    ["top", (b: Bounds) => b.y],
    ["middle", (b: Bounds) => b.y + b.height / 2],
    ["bottom", (b: Bounds) => b.y + b.height],
  ] as const)("%s: all share the line", (along, lineOf) => {
    const model = performAll(spread(), { type: "align", diagram, ids: ["check", "approve", "decide"], along });
    const [first, ...rest] = ["check", "approve", "decide"].map((id) => lineOf(bounds(model, id)));
    for (const line of rest) expect(line).toBeCloseTo(first as number, 6);
  });
  test("left and right keep the outermost element where it is", () => {
    const before = spread();
    const left = performAll(before, { type: "align", diagram, ids: ["check", "approve"], along: "left" });
    expect(bounds(left, "check")).toEqual(bounds(before, "check"));
    const right = performAll(before, { type: "align", diagram, ids: ["check", "approve"], along: "right" });
    expect(bounds(right, "approve")).toEqual(bounds(before, "approve"));
  });
  test("distributed, the gaps between neighbours are equal and the outermost stay", () => {
    const before = spread();
    const ids = ["start", "check", "decide", "approve"];
    const model = performAll(before, { type: "distribute", diagram, ids, axis: "across" });
    const boxes = ids.map((id) => bounds(model, id));
    const gaps = boxes.slice(1).map((box, at) => box.x - (boxes[at] as Bounds).x - (boxes[at] as Bounds).width);
    for (const gap of gaps) expect(Math.abs(gap - (gaps[0] as number))).toBeLessThanOrEqual(1);
    expect(bounds(model, "start")).toEqual(bounds(before, "start"));
    expect(bounds(model, "approve").x).toBe(bounds(before, "approve").x);
  });
  test("one size: the largest, each around its own middle", () => {
    const larger = performAll(smallModel(), {
      type: "resize",
      diagram,
      id: "approve",
      bounds: { ...bounds(smallModel(), "approve"), width: 160, height: 80 },
    });
    const model = performAll(larger, { type: "sameSize", diagram, ids: ["check", "approve"] });
    expect(bounds(model, "check")).toMatchObject({ width: 160, height: 80 });
    expect(middle(bounds(model, "check"))).toEqual(middle(bounds(larger, "check")));
  });
  test("one element alone, or a lane, cannot be lined up", () => {
    expect(refusalOf(smallModel(), { type: "align", diagram, ids: ["check"], along: "left" })).toBe("too-few");
    expect(refusalOf(smallModel(), { type: "align", diagram, ids: ["check", "desk"], along: "left" })).toBe("too-few");
  });
});

describe("flows", () => {
  test("a bent flow between steps that face each other becomes one straight piece", () => {
    const bent = performAll(smallModel(), {
      type: "bend",
      diagram,
      connection: "f1",
      waypoints: [
        { x: bounds(smallModel(), "start").x + 32, y: middle(bounds(smallModel(), "start")).y },
        { x: 170, y: 60 },
        { x: bounds(smallModel(), "check").x, y: middle(bounds(smallModel(), "check")).y },
      ],
    });
    const model = performAll(bent, { type: "straighten", diagram, connections: ["f1"] });
    const [edge] = edgesOf(model, "f1");
    expect(edge?.waypoints).toHaveLength(2);
    expect(edge?.waypoints[0]?.y).toBe(edge?.waypoints[1]?.y);
  });
});

describe("room and lanes", () => {
  test("room to the right moves what lies beyond the line; pools and lanes grow; nothing else changes", () => {
    const before = smallModel();
    const line = bounds(before, "decide").x - 4;
    const model = performAll(before, { type: "makeRoom", diagram, direction: "right", line, by: 100 });
    for (const id of ["decide", "approve", "done"]) expect(bounds(model, id).x).toBe(bounds(before, id).x + 100);
    for (const id of ["start", "check"]) expect(bounds(model, id)).toEqual(bounds(before, id));
    for (const id of ["pool", "desk", "engineer"]) expect(bounds(model, id).width).toBe(bounds(before, id).width + 100);
    const ends = edgesOf(model, "f2")[0]?.waypoints.at(-1);
    expect(ends?.x).toBe(bounds(model, "decide").x);
  });
  test("room below at a lane's border makes that lane's neighbour move down, and the pool higher", () => {
    const before = smallModel();
    const line = bounds(before, "engineer").y - 10;
    const model = performAll(before, { type: "makeRoom", diagram, direction: "down", line, by: 60 });
    expect(bounds(model, "engineer").y).toBe(bounds(before, "engineer").y + 60);
    expect(bounds(model, "desk").height).toBe(bounds(before, "desk").height + 60);
    expect(bounds(model, "pool").height).toBe(bounds(before, "pool").height + 60);
  });
  test("two lanes change places with all they hold, and changing back restores the drawing", () => {
    const before = performAll(smallModel(), { type: "moveToLane", diagram, ids: ["approve"], lane: "engineer" });
    const swapped = performAll(before, { type: "swapLanes", diagram, lane: "desk", direction: "down" });
    expect(bounds(swapped, "engineer").y).toBe(bounds(before, "desk").y);
    expect(bounds(swapped, "desk").y).toBe(bounds(swapped, "engineer").y + bounds(swapped, "engineer").height);
    expect(childrenOf(swapped, laneOf(swapped, "check")?.parent ?? "").map((lane) => lane.id)).toEqual([
      "engineer",
      "desk",
    ]);
    for (const id of ["check", "approve"]) {
      const lane = bounds(swapped, laneOf(swapped, id)?.id ?? "");
      expect(bounds(swapped, id).y).toBeGreaterThan(lane.y);
      expect(bounds(swapped, id).y + bounds(swapped, id).height).toBeLessThan(lane.y + lane.height);
      expect(laneOf(swapped, id)?.id).toBe(laneOf(before, id)?.id);
    }
    const back = performAll(swapped, { type: "swapLanes", diagram, lane: "desk", direction: "up" });
    for (const id of ["check", "approve", "desk", "engineer", "late"])
      expect(bounds(back, id)).toEqual(bounds(before, id));
  });
  test("a lane is split between its steps: those in the lower half belong to the new lane", () => {
    const before = smallModel();
    const model = performAll(before, { type: "splitLane", diagram, lane: "desk", ids: ["counter"] });
    const [upper, lower] = [bounds(model, "desk"), bounds(model, "counter")];
    expect(lower.y).toBe(upper.y + upper.height);
    expect(upper.height + lower.height).toBeGreaterThanOrEqual(bounds(before, "desk").height);
    for (const lane of ["desk", "counter"])
      for (const node of (model.elements.get(lane)?.flowNodeRef as string[] | undefined) ?? [])
        expect(middle(bounds(model, node)).y).toBeGreaterThan(bounds(model, lane).y);
  });
  test("a lane split inwards holds two lanes, and its steps are in the inner ones", () => {
    const model = performAll(smallModel(), { type: "splitLane", diagram, lane: "desk", ids: ["early", "later"] });
    expect(laneOf(model, "check")?.parent).toBe(laneOf(model, "decide")?.parent);
    expect(["early", "later"]).toContain(laneOf(model, "check")?.id);
    expect(bounds(model, "early").x).toBe(bounds(model, "desk").x + 28);
    expect(bounds(model, "early").height + bounds(model, "later").height).toBe(bounds(model, "desk").height);
  });
});

describe("sub-processes", () => {
  const wrapped = () =>
    performAll(smallModel(), {
      type: "wrap",
      diagram,
      ids: ["approve"],
      id: "sub",
      page: "sub-page",
      name: "Approval",
    });
  test("wrapped steps lie on a page of their own, with a start and an end; the flows lead to and from the sub-process", () => {
    const model = wrapped();
    expect(scopeOf(model, "approve")?.id).toBe("sub");
    expect(incomingOf(model, "sub").map((flow) => flow.sourceRef)).toEqual(["decide"]);
    expect(outgoingOf(model, "sub").map((flow) => flow.targetRef)).toEqual(["done"]);
    expect(incomingOf(model, "approve").map((flow) => model.elements.get(String(flow.sourceRef))?.type)).toEqual([
      "startEvent",
    ]);
    expect(outgoingOf(model, "approve").map((flow) => model.elements.get(String(flow.targetRef))?.type)).toEqual([
      "endEvent",
    ]);
    expect(shapeOn(model, diagram, "approve")).toBeUndefined();
    expect(bounds(model, "approve", "sub-page")).toBeDefined();
    expect(laneOf(model, "sub")?.id).toBe("desk");
  });
  test("dissolved again, the flow is what it was", () => {
    const model = performAll(wrapped(), { type: "unwrap", diagram, id: "sub" });
    expect(model.elements.has("sub")).toBe(false);
    expect(model.diagrams.has("sub-page")).toBe(false);
    expect(outgoingOf(model, "decide").map((flow) => flow.targetRef)).toEqual(["approve", "reject"]);
    expect(outgoingOf(model, "approve").map((flow) => flow.targetRef)).toEqual(["done"]);
    expect(laneOf(model, "approve")?.id).toBe("desk");
    expect(shapeOn(model, diagram, "approve")).toBeDefined();
    expect(brokenInvariants(model)).toEqual([]);
  });
  test("a step of another lane keeps who does it", () => {
    const model = performAll(
      smallModel(),
      { type: "tieLane", lane: "engineer", role: { entry: "role-engineer", name: "Network engineer" } },
      { type: "moveToLane", diagram, ids: ["approve"], lane: "engineer" },
      { type: "wrap", diagram, ids: ["check", "decide", "approve", "reject", "done", "refused"], id: "sub", page: "p" },
    );
    expect(laneOf(model, "sub")?.id).toBe("desk");
    const roles = childrenOf(model, "approve", "resourceRoles");
    expect(roles.map((role) => model.elements.get(String(role.resourceRef))?.name)).toEqual(["Network engineer"]);
  });
  test.each([
    ["entered at two places", ["approve", "reject"], "several-entries"],
    ["left by two flows", ["check", "decide"], "several-exits"],
    ["begun by a trigger", ["start", "check"], "start-inside"],
  ])("what is %s is no sub-process", (_, ids, code) => {
    expect(refusalOf(smallModel(), { type: "wrap", diagram, ids, id: "sub", page: "p" })).toBe(code);
  });
  test("opened in place its steps are drawn inside it; closed again they have a page", () => {
    const open = performAll(wrapped(), { type: "expand", diagram, id: "sub" });
    const [outer, inner] = [bounds(open, "sub"), bounds(open, "approve")];
    expect(open.diagrams.has("sub-page")).toBe(false);
    expect(inner.x > outer.x && inner.x + inner.width < outer.x + outer.width).toBe(true);
    expect(inner.y > outer.y && inner.y + inner.height < outer.y + outer.height).toBe(true);
    for (const id of ["reject", "done", "refused", "decide"]) {
      const other = bounds(open, id);
      const apart =
        other.x >= outer.x + outer.width ||
        other.x + other.width <= outer.x ||
        other.y >= outer.y + outer.height ||
        other.y + other.height <= outer.y;
      expect(apart, id).toBe(true);
    }
    const closed = performAll(open, { type: "collapse", diagram, id: "sub", page: "again" });
    expect(bounds(closed, "approve", "again")).toBeDefined();
    expect(bounds(closed, "sub")).toMatchObject({ width: 112, height: 64 });
  });
  test("steps taken out into a process leave a call in their place", () => {
    const model = performAll(smallModel(), {
      type: "callInstead",
      diagram,
      ids: ["approve"],
      id: "call",
      calledElement: "process-approval",
      name: "Approve",
    });
    expect(model.elements.has("approve")).toBe(false);
    expect(model.elements.get("call")).toMatchObject({ type: "callActivity", calledElement: "process-approval" });
    expect(incomingOf(model, "call").map((flow) => flow.sourceRef)).toEqual(["decide"]);
    expect(outgoingOf(model, "call").map((flow) => flow.targetRef)).toEqual(["done"]);
  });
});

describe("another kind", () => {
  test("a task becomes a gateway: name and flows stay, its events must go first", () => {
    const model = performAll(smallModel(), {
      type: "replace",
      diagram,
      id: "approve",
      kind: { type: "exclusiveGateway" },
    });
    expect(model.elements.get("approve")).toMatchObject({ type: "exclusiveGateway", name: "Approve design" });
    expect(outgoingOf(model, "approve").map((flow) => flow.targetRef)).toEqual(["done"]);
    expect(bounds(model, "approve")).toMatchObject({ width: 40, height: 40 });
    expect(refusalOf(smallModel(), { type: "replace", diagram, id: "check", kind: { type: "exclusiveGateway" } })).toBe(
      "boundary-host",
    );
    expect(boundaryEventsOf(model, "check")).toHaveLength(1);
  });
  test("what the standard does not let follow is refused", () => {
    expect(
      refusalOf(smallModel(), { type: "replace", diagram, id: "check", kind: { type: "endEvent" } }),
    ).toBeDefined();
    expect(
      refusalOf(smallModel(), { type: "replace", diagram, id: "decide", kind: { type: "eventBasedGateway" } }),
    ).toBe("after-event-gateway");
  });
});

test.each<[string, Command]>([
  ["align", { type: "align", diagram, ids: ["check", "approve"], along: "bottom" }],
  ["distribute", { type: "distribute", diagram, ids: ["start", "check", "approve"], axis: "across" }],
  ["make room", { type: "makeRoom", diagram, direction: "down", line: 210, by: 40 }],
  ["swap lanes", { type: "swapLanes", diagram, lane: "desk", direction: "down" }],
  ["split a lane", { type: "splitLane", diagram, lane: "desk", ids: ["x", "y"] }],
  ["wrap", { type: "wrap", diagram, ids: ["reject", "refused"], id: "sub", page: "sub-page" }],
  ["replace", { type: "replace", diagram, id: "reject", kind: { type: "callActivity" } }],
])("%s is taken back whole", (_, command) => {
  const before = smallModel();
  const done = expectOk(perform(before, command));
  expect(brokenInvariants(done.model)).toEqual([]);
  const back = expectOk(perform(done.model, undoOf(done))).model;
  expect(drawnAs(back)).toEqual(drawnAs(before));
  expect([...back.elements]).toEqual([...before.elements]);
});

describe("undo steps are named by what they did", () => {
  test.each<[string, Command, string]>([
    [
      "into another lane",
      { type: "moveToNeighbourLane", diagram, ids: ["reject"], direction: "down" },
      "move Reject application to Network engineer",
    ],
    ["within its lane", { type: "move", diagram, ids: ["reject"], by: { x: 40, y: 0 } }, "move Reject application"],
    [
      "another kind",
      { type: "replace", diagram, id: "reject", kind: { type: "userTask" } },
      "make Reject application a user task",
    ],
    ["several", { type: "align", diagram, ids: ["check", "approve"], along: "top" }, "align 2 elements"],
    ["a lane", { type: "swapLanes", diagram, lane: "desk", direction: "down" }, "move the lane Front desk down"],
  ])("%s", (_, command, label) => {
    expect(expectOk(perform(smallModel(), command)).label).toBe(label);
  });
});

describe("rooms that gestures make keep what was straight straight", () => {
  test.each([40, 100, 240])("%s units right of the decision: flows stay level, ends stay at their shapes", (by) => {
    const before = smallModel();
    const line = bounds(before, "approve").x - 2;
    const model = performAll(before, { type: "makeRoom", diagram, direction: "right", line, by });
    const [edge] = edgesOf(model, "f3");
    expect(new Set(edge?.waypoints.map((point) => point.y)).size).toBe(1);
    expect(edge?.waypoints[0]?.x).toBe(bounds(model, "decide").x + bounds(model, "decide").width);
    expect(edge?.waypoints.at(-1)?.x).toBe(bounds(model, "approve").x);
  });
});
