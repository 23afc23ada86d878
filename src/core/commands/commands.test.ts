import { describe, expect, test } from "vitest";
import { documentsOf, rolesOf } from "../directory";
import { say } from "../messages";
import {
  boundaryEventsOf,
  connectionRules,
  incomingOf,
  laneOf,
  nameOf,
  outgoingOf,
  processesOf,
  scopeOf,
  shapeOn,
  systemsOf,
  triggerOf,
} from "../model";
import { expectOk, performAll, smallModel, startModel } from "../testing/models";
import { type Command, copy, kindsThatMayFollow, perform } from ".";

const diagram = "page";

describe("building", () => {
  test("a step added behind another is connected to it and stands in its lane", () => {
    const model = performAll(smallModel(), {
      type: "append",
      diagram,
      from: "approve",
      id: "plan",
      flow: "f9",
      kind: { type: "task" },
    });
    expect(outgoingOf(model, "approve").map((flow) => flow.targetRef)).toContain("plan");
    expect(laneOf(model, "plan")?.id).toBe(laneOf(model, "approve")?.id);
  });

  test("a lane that is full grows downwards, and what lies below makes room", () => {
    const before = smallModel();
    let model = before;
    for (const id of ["one", "two", "three"])
      model = performAll(model, {
        type: "append",
        diagram,
        from: "check",
        id,
        flow: `to-${id}`,
        kind: { type: "task" },
      });
    const bounds = (id: string) => shapeOn(model, diagram, id)?.bounds ?? { x: 0, y: 0, width: 0, height: 0 };
    for (const id of ["one", "two", "three"]) {
      expect(laneOf(model, id)?.id).toBe("desk");
      expect(bounds(id).y + bounds(id).height).toBeLessThanOrEqual(bounds("desk").y + bounds("desk").height);
    }
    expect(bounds("engineer").y).toBe(bounds("desk").y + bounds("desk").height);
    expect(bounds("pool").height).toBe(bounds("desk").height + bounds("engineer").height);
  });

  test("a step dropped on a flow splits it: the first half keeps its id, the second leads on", () => {
    const model = performAll(smallModel(), {
      type: "insertOnFlow",
      diagram,
      onFlow: "f2",
      id: "weigh",
      flow: "f2b",
      kind: { type: "task" },
    });
    expect(model.elements.get("f2")).toMatchObject({ sourceRef: "check", targetRef: "weigh" });
    expect(model.elements.get("f2b")).toMatchObject({ sourceRef: "weigh", targetRef: "decide" });
    const [before, at, after] = ["check", "weigh", "decide"].map((id) => shapeOn(model, diagram, id)?.bounds);
    expect(at && before && at.x >= before.x + before.width).toBe(true);
    expect(after && at && after.x >= at.x + at.width).toBe(true);
  });

  test("an event is attached to the edge of its host", () => {
    const model = smallModel();
    expect(boundaryEventsOf(model, "check").map((event) => event.id)).toEqual(["late"]);
    const host = shapeOn(model, diagram, "check")?.bounds;
    const event = shapeOn(model, diagram, "late")?.bounds;
    expect(host && event && event.y + event.height / 2).toBe(host && host.y + host.height);
  });

  test("the first pool of a process page is drawn around what is there", () => {
    const model = performAll(
      startModel(),
      { type: "place", diagram, id: "a", kind: { type: "task" }, at: { x: 300, y: 200 } },
      { type: "place", diagram, id: "pool", kind: { type: "participant" }, at: { x: 0, y: 0 } },
    );
    expect(model.elements.get("pool")?.processRef).toBe("process");
    expect(processesOf(model)).toHaveLength(1);
    const [pool, step] = [shapeOn(model, diagram, "pool")?.bounds, shapeOn(model, diagram, "a")?.bounds];
    expect(pool && step && pool.x < step.x && pool.y < step.y).toBe(true);
  });
});

describe("refusals name the rule", () => {
  const refused = (command: Command) => {
    const done = perform(smallModel(), command);
    return done.ok ? [] : done.problems.map((problem) => problem.code);
  };
  test.each<[string, Command, string]>([
    [
      "a flow into a start event",
      { type: "connect", diagram, id: "x", source: "check", target: "start" },
      "no-flow-into-start",
    ],
    [
      "a flow out of an end event",
      { type: "connect", diagram, id: "x", source: "done", target: "check" },
      "no-flow-out-of-end",
    ],
    [
      "a flow into an event at an edge",
      { type: "connect", diagram, id: "x", source: "approve", target: "late" },
      "no-flow-into-boundary",
    ],
    [
      "a message within one pool's process to a plain end",
      { type: "connect", diagram, id: "x", source: "household", target: "done" },
      "message-flow-target",
    ],
    [
      "a message from a plain end event",
      { type: "connect", diagram, id: "x", source: "done", target: "household" },
      "message-flow-source",
    ],
    ["a step outside every pool", { type: "move", diagram, ids: ["done"], by: { x: 9000, y: 9000 } }, "outside-pool"],
    [
      "a task placed outside every pool",
      { type: "place", diagram, id: "x", kind: { type: "task" }, at: { x: 9000, y: 9000 } },
      "outside-pool",
    ],
    [
      "an event at the edge of a gateway",
      {
        type: "attach",
        diagram,
        host: "decide",
        id: "x",
        kind: { type: "boundaryEvent", trigger: "timerEventDefinition" },
      },
      "boundary-host",
    ],
    [
      "a cancel event that starts",
      { type: "retype", id: "start", to: "startEvent", trigger: "cancelEventDefinition" },
      "event-position",
    ],
    ["a task that becomes a gateway", { type: "retype", id: "check", to: "exclusiveGateway" }, "other-family"],
    [
      "a default flow of somebody else",
      { type: "setField", id: "decide", field: "default", value: "f5" },
      "default-flow",
    ],
    [
      "a field the type has not",
      { type: "setField", id: "check", field: "gatewayDirection", value: "Mixed" },
      "unknown-field",
    ],
    [
      "a value of the wrong kind",
      { type: "setField", id: "check", field: "isForCompensation", value: "yes" },
      "bad-value",
    ],
    ["something no longer there", { type: "rename", id: "gone", name: "x" }, "unknown-element"],
    [
      "an id in use",
      { type: "place", diagram, id: "check", kind: { type: "task" }, at: { x: 300, y: 200 } },
      "id-taken",
    ],
    ["a lane of a closed pool", { type: "addLane", diagram, id: "x", beside: "household" }, "no-process"],
    ["no lane above the first", { type: "moveToNeighbourLane", diagram, ids: ["start"], direction: "up" }, "no-lane"],
  ])("%s", (_, command, code) => expect(refused(command)).toContain(code));

  test("each rule of connecting says in a sentence why", () => {
    for (const rule of connectionRules) expect(rule.words(say`“A”`, say`“B”`).text).toMatch(/^.{20,}\.$/s);
  });
});

describe("changing", () => {
  test("a step moved into another lane is done by another, and the command says so", () => {
    const done = expectOk(
      perform(smallModel(), { type: "moveToNeighbourLane", diagram, ids: ["approve"], direction: "down" }),
    );
    expect(nameOf(done.model, laneOf(done.model, "approve")?.id ?? "")).toBe("Network engineer");
    expect(done.remarks.join()).toContain("Network engineer");
    expect(rolesOf(done.model, "approve")).toMatchObject([
      { part: "responsible", name: "Network engineer", from: "lane" },
    ]);
  });

  test("an event at the edge goes along with its host", () => {
    const model = smallModel();
    const after = performAll(model, { type: "move", diagram, ids: ["check"], by: { x: 8, y: 4 } });
    const [before, now] = [model, after].map((one) => shapeOn(one, diagram, "late")?.bounds);
    expect(now).toEqual({ ...before, x: (before?.x ?? 0) + 8, y: (before?.y ?? 0) + 4 });
  });

  test("retyping keeps name, flows, properties and place", () => {
    const model = performAll(
      smallModel(),
      { type: "describe", id: "check", text: "Look at the form." },
      { type: "useSystem", step: "check", system: { entry: "s", name: "Register" }, use: "reads" },
    );
    const after = performAll(model, { type: "retype", id: "check", to: "serviceTask" });
    expect(after.elements.get("check")).toEqual({ ...model.elements.get("check"), type: "serviceTask" });
    expect(incomingOf(after, "check")).toEqual(incomingOf(model, "check"));
    expect(shapeOn(after, diagram, "check")).toBe(shapeOn(model, diagram, "check"));
  });

  test("an event's trigger is exchanged, not added", () => {
    const model = performAll(smallModel(), {
      type: "retype",
      id: "late",
      to: "boundaryEvent",
      trigger: "messageEventDefinition",
    });
    const late = model.elements.get("late");
    expect(late && triggerOf(model, late)).toBe("messageEventDefinition");
  });

  test("deleting a step takes its flows and the events at its edge, and names what ran through it", () => {
    const done = expectOk(perform(smallModel(), { type: "delete", ids: ["check"] }));
    for (const id of ["check", "f1", "f2", "late", "f7", "late.trigger"])
      expect(done.model.elements.has(id)).toBe(false);
    expect(done.model.elements.has("remind")).toBe(true);
    expect(done.remarks).toEqual([
      "The flow from Application received to Complete? ran through Check application and is now open.",
    ]);
  });

  test("deleting a flow takes away the default that named it", () => {
    const model = performAll(
      smallModel(),
      { type: "setField", id: "decide", field: "default", value: "f3" },
      { type: "delete", ids: ["f3"] },
    );
    expect(model.elements.get("decide")?.default).toBeUndefined();
  });

  test("deleting a document's association takes its input out of the specification again", () => {
    const model = performAll(
      smallModel(),
      {
        type: "giveDocument",
        diagram,
        step: "check",
        document: { entry: "form", name: "Form" },
        direction: "in",
        id: "needs",
      },
      { type: "delete", ids: ["needs"] },
    );
    expect(documentsOf(model, "check")).toEqual([]);
    expect(model.elements.has("check.data")).toBe(false);
  });

  test("a system named again changes how it is used", () => {
    const uses = (use: "reads" | "writes"): Command => ({
      type: "useSystem",
      step: "check",
      system: { entry: "s", name: "Register" },
      use,
    });
    const model = performAll(smallModel(), uses("reads"), uses("writes"));
    const check = model.elements.get("check");
    expect(check && systemsOf(check)).toEqual([{ entry: "s", name: "Register", use: "writes" }]);
  });

  test("a role's new name is its name in lanes, resources and systems", () => {
    const model = performAll(
      smallModel(),
      { type: "tieLane", lane: "desk", role: { entry: "role-desk", name: "Front desk" } },
      { type: "renameEntry", entry: "role-desk", from: "Front desk", name: "Service desk" },
    );
    expect(nameOf(model, "desk")).toBe("Service desk");
    expect(rolesOf(model, "check")).toMatchObject([{ name: "Service desk", entry: "role-desk" }]);
  });

  test("a pasted copy has ids of its own and the flows among what was copied", () => {
    const model = smallModel();
    const fragment = copy(model, diagram, ["check", "decide"]);
    const after = performAll(model, { type: "paste", diagram, fragment, at: { x: 400, y: 220 }, mark: "c1" });
    expect(after.elements.get("check.c1")).toMatchObject({ name: "Check application", type: "userTask" });
    expect(after.elements.get("f2.c1")).toMatchObject({ sourceRef: "check.c1", targetRef: "decide.c1" });
    expect(after.elements.has("f1.c1")).toBe(false);
    expect(boundaryEventsOf(after, "check.c1").map((event) => event.id)).toEqual(["late.c1"]);
    expect(scopeOf(after, "check.c1")?.id).toBe(scopeOf(after, "check")?.id);
  });
});

describe("what may follow", () => {
  const following = (id: string) =>
    kindsThatMayFollow(smallModel(), smallModel().elements.get(id)).map((kind) => kind.type);
  test("nothing of the flow follows an end event", () => expect(following("done")).toEqual(["textAnnotation"]));
  test("an activity may be followed by any step and have events at its edge", () => {
    expect(following("check")).toEqual(
      expect.arrayContaining(["task", "exclusiveGateway", "endEvent", "boundaryEvent"]),
    );
  });
  test("no kind the strip offers is refused", () => {
    const model = smallModel();
    for (const element of model.elements) {
      if (
        !["startEvent", "userTask", "sendTask", "task", "exclusiveGateway", "boundaryEvent", "endEvent"].includes(
          element.type,
        )
      )
        continue;
      for (const kind of kindsThatMayFollow(model, element)) {
        const done = perform(model, { type: "append", diagram, from: element.id, id: "next", flow: "to-next", kind });
        expect(done.ok, `${kind.type} after ${element.id}: ${done.ok ? "" : done.problems[0]?.message}`).toBe(true);
      }
    }
  });
});
