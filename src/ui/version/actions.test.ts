// @vitest-environment jsdom
import { beforeEach, describe, expect, test } from "vitest";
import type { Kind } from "@/core/commands";
import {
  boundaryEventsOf,
  type Element,
  laneOf,
  lanesOf,
  outgoingOf,
  type Point,
  type Shape,
  shapeOn,
} from "@/core/model";
import { smallModel } from "@/core/testing/models";
import { openedVersion } from "../testing/openedVersion";
import { addKind, dropKind, newId, tidyChosen } from "./actions";
import { useDiagram } from "./diagramStore";
import { outlineOf } from "./outlineOf";

const kind = (type: string, more: object = {}) => ({ type, ...more }) as Kind;
const chosen = () => useDiagram.getState().selection[0] ?? "";
const naming = () => useDiagram.getState().naming;
const middle = (id: string): Point => {
  const { x, y, width, height } = (shapeOn(smallModel(), "page", id) as Shape).bounds;
  return { x: x + width / 2, y: y + height / 2 };
};

beforeEach(() => {
  useDiagram.getState().select();
  useDiagram.getState().set({ naming: null });
});

describe("adding a kind where it belongs", () => {
  const add = (of: string | undefined, wanted: Kind, at?: Point) => {
    const opened = openedVersion(smallModel());
    addKind(opened.store, "page", of === undefined ? undefined : opened.model().elements.get(of), wanted, at);
    return opened;
  };

  test("behind a step, in its lane, joined to it, with its name asked for", () => {
    const { model } = add("check", kind("userTask"));
    const made = chosen();
    expect(model().elements.get(made)?.type).toBe("userTask");
    expect(outgoingOf(model(), "check").some(({ targetRef }) => targetRef === made)).toBe(true);
    expect(laneOf(model(), made)?.id).toBe(laneOf(model(), "check")?.id);
    expect(naming()).toBe(made);
  });

  test("on a flow that is chosen, between its ends", () => {
    const { model } = add("f1", kind("task"));
    const made = chosen();
    expect(outgoingOf(model(), "start").map(({ targetRef }) => targetRef)).toEqual([made]);
    expect(outgoingOf(model(), made).map(({ targetRef }) => targetRef)).toEqual(["check"]);
  });

  test("an event at the edge of a step; a lane below the one that is chosen", () => {
    const timer = add("approve", kind("boundaryEvent", { trigger: "timerEventDefinition" }));
    expect(boundaryEventsOf(timer.model(), "approve").map(({ id }) => id)).toEqual([chosen()]);
    const lanes = add("desk", kind("lane"));
    const process = [...lanes.model().elements].find(({ type }) => type === "process") as Element;
    expect(lanesOf(lanes.model(), process.id).map(({ id }) => id)).toContain(chosen());
  });

  test("with nothing chosen where one points; a parallel gateway has no name to be asked for", () => {
    const placed = add(undefined, kind("task"), middle("engineer"));
    expect(laneOf(placed.model(), chosen())?.id).toBe("engineer");
    add("check", kind("parallelGateway"));
    expect(chosen()).not.toBe("");
    expect(naming()).toBeNull();
    add("check", kind("exclusiveGateway"));
    expect(naming()).toBe(chosen());
  });

  test("what cannot follow is refused in words; nothing is chosen, nothing named", () => {
    const end = [...smallModel().elements].find(({ type }) => type === "endEvent")?.id ?? "";
    const { done, said } = add(end, kind("task"));
    expect([done, chosen(), naming()]).toEqual([[], "", null]);
    expect(said).toHaveLength(1);
    // Far from every pool there is nothing that could hold a step.
    expect(add(undefined, kind("task"), { x: 9_000, y: 9_000 }).done.length).toBeLessThanOrEqual(1);
  });
});

describe("dropping a kind", () => {
  const drop = (wanted: Kind, at: Point, onFlow?: string, onEdge?: string) => {
    const opened = openedVersion(smallModel());
    dropKind(opened.store, "page", wanted, at, onFlow, onEdge);
    return opened;
  };

  test("on the page it is placed, on a flow it splits it, on an edge it is attached", () => {
    expect(drop(kind("task"), middle("engineer")).done).toMatchObject([{ type: "place" }]);
    const split = drop(kind("task"), middle("check"), "f1");
    expect(split.done).toMatchObject([{ type: "insertOnFlow", onFlow: "f1" }]);
    const attached = drop(
      kind("intermediateCatchEvent", { trigger: "timerEventDefinition" }),
      middle("approve"),
      undefined,
      "approve",
    );
    expect(attached.model().elements.get(chosen())).toMatchObject({ type: "boundaryEvent", attachedToRef: "approve" });
  });

  test("what the standard does not allow there is refused, and nothing is chosen", () => {
    const { done, said } = drop(kind("startEvent"), middle("check"), "f1");
    expect(done).toEqual([]);
    expect(said).toHaveLength(1);
    expect(chosen()).toBe("");
  });
});

describe("tidying", () => {
  test("several that are chosen among each other, else the whole page", () => {
    const some = openedVersion(smallModel());
    const next = outgoingOf(some.model(), "check")[0]?.targetRef as string;
    useDiagram.getState().select("check", next);
    tidyChosen(some.store, "page");
    expect([some.said, some.done]).toMatchObject([[], [{ type: "tidy", ids: ["check", next] }]]);
    const all = openedVersion(smallModel());
    useDiagram.getState().select("check");
    tidyChosen(all.store, "page");
    expect(all.done).toMatchObject([{ type: "tidy", diagram: "page" }]);
    expect(all.done[0]).not.toHaveProperty("ids");
  });
});

test("new ids are legal in files (XML 1.0, NCName), say what they are of, and are all different", () => {
  const ids = Array.from({ length: 2_000 }, () => newId("userTask"));
  expect(new Set(ids).size).toBe(2_000);
  for (const id of ids) expect(id).toMatch(/^userTask-[A-Za-z0-9]{8}$/);
});

describe("the outline", () => {
  test("pools, lanes and elements, each below what it stands in, and nobody twice", () => {
    const model = smallModel();
    const rows = outlineOf(model);
    expect(rows[0]).toMatchObject({ id: "pool", level: 1, label: "Cooperative", type: "pool" });
    const at = (id: string) => rows.findIndex((row) => row.id === id);
    expect(rows[at("desk")]).toMatchObject({ level: 2, isLane: true });
    expect(rows[at("check")]?.level).toBe(3);
    expect(at("check")).toBeGreaterThan(at("desk"));
    expect(at("check")).toBeLessThan(at("engineer"));
    expect(new Set(rows.map(({ id }) => id)).size).toBe(rows.length);
    for (const { id, type } of model.elements)
      if (/[tT]ask$|Event$|Gateway$/.test(type)) expect(at(id)).toBeGreaterThan(-1);
  });
});
