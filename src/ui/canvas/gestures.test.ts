import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { sceneOf } from "@/core/drawing";
import { laneOf, type Model, outgoingOf, type Point, type Shape, shapeOn } from "@/core/model";
import { smallModel } from "@/core/testing/models";
import { openedVersion } from "../testing/openedVersion";
import { useDiagram } from "../version/diagramStore";
import { endGesture } from "./endGesture";
import { bent, type Corner, type Gesture, resized, roomOf, snapped } from "./gestures";
import { figureUnder, flowUnder, poolBandUnder } from "./hits";

const whole = fc.integer({ min: -2_000, max: 2_000 });
const point = fc.record({ x: whole, y: whole });
const size = fc.integer({ min: 20, max: 400 });
const box = fc.record({ x: whole, y: whole, width: size, height: size });

describe("snapping", () => {
  test("to the grid where nothing is near, so that what is moved stays on it", () => {
    fc.assert(
      fc.property(box, point, (moved, by) => {
        const next = snapped(moved, by, []).by;
        expect([Math.abs(next.x % 4), Math.abs(next.y % 4)]).toEqual([0, 0]);
        expect(Math.max(Math.abs(next.x - by.x), Math.abs(next.y - by.y))).toBeLessThanOrEqual(2);
      }),
    );
  });

  test("to another's middle within reach, with a line to show for it, and never further than that", () => {
    fc.assert(
      fc.property(box, point, fc.array(box, { maxLength: 6 }), (moved, by, others) => {
        const { by: next, guides } = snapped(moved, by, others);
        expect(Math.max(Math.abs(next.x - by.x), Math.abs(next.y - by.y))).toBeLessThanOrEqual(6);
        const middle = { x: moved.x + moved.width / 2 + next.x, y: moved.y + moved.height / 2 + next.y };
        for (const { from, to } of guides) {
          if (from.x === to.x) expect(from.x).toBeCloseTo(middle.x, 6);
          else expect(from.y).toBeCloseTo(middle.y, 6);
        }
      }),
    );
    const other = { x: 300, y: 100, width: 100, height: 60 };
    const mine = { x: 0, y: 400, width: 80, height: 40 };
    expect(snapped(mine, { x: 307, y: 0 }, [other]).by.x).toBe(310);
    expect(snapped(mine, { x: 303, y: 0 }, [other]).guides).toEqual([]);
  });
});

describe("giving another size", () => {
  test("the corner opposite stays where it is, and nothing becomes smaller than it may", () => {
    const least = { width: 48, height: 32 };
    fc.assert(
      fc.property(box, fc.constantFrom<Corner>("nw", "ne", "sw", "se"), point, (start, corner, to) => {
        const now = resized(start, corner, to, least);
        const [right, bottom] = [start.x + start.width, start.y + start.height];
        if (corner.includes("e")) expect(now.x).toBe(start.x);
        else expect(now.x + now.width).toBe(right);
        if (corner.includes("s")) expect(now.y).toBe(start.y);
        else expect(now.y + now.height).toBe(bottom);
        expect(now.width).toBeGreaterThanOrEqual(least.width);
        expect(now.height).toBeGreaterThanOrEqual(least.height);
      }),
    );
  });
});

/** A line that goes level and upright in turn. */
const orthogonal = fc
  .record({
    start: point,
    steps: fc.array(fc.integer({ min: 30, max: 300 }), { minLength: 1, maxLength: 5 }),
    first: fc.boolean(),
  })
  .map(({ start, steps, first }) => {
    const line: Point[] = [start];
    steps.forEach((length, at) => {
      const last = line.at(-1) as Point;
      line.push((at % 2 === 0) === first ? { x: last.x + length, y: last.y } : { x: last.x, y: last.y + length });
    });
    return line;
  });

describe("bending a flow", () => {
  test("its ends stay, its pieces stay level or upright, and the piece goes where it is pulled", () => {
    fc.assert(
      fc.property(orthogonal, fc.nat(4), point, (line, at, to) => {
        const segment = at % (line.length - 1);
        const [a, b] = [line[segment] as Point, line[segment + 1] as Point];
        const after = bent(line, segment, to);
        expect([after[0], after.at(-1)]).toEqual([line[0], line.at(-1)]);
        for (let index = 1; index < after.length; index++) {
          const [p, q] = [after[index - 1] as Point, after[index] as Point];
          expect(Math.min(Math.abs(p.x - q.x), Math.abs(p.y - q.y))).toBeLessThan(0.5);
        }
        const wanted = Math.round((a.y === b.y ? to.y : to.x) / 4) * 4;
        expect(after.some((one) => (a.y === b.y ? one.y : one.x) === wanted)).toBe(true);
      }),
    );
  });

  test("a piece that is not there bends nothing", () => {
    const line = [
      { x: 0, y: 0 },
      { x: 100, y: 0 },
    ];
    expect(bent(line, 5, { x: 50, y: 50 })).toEqual(line);
  });
});

test("room is made the way the pointer went further, in steps of the grid, never backwards", () => {
  expect(roomOf({ x: 100, y: 100 }, { x: 162, y: 120 })).toEqual({ direction: "right", line: 100, by: 64 });
  expect(roomOf({ x: 100, y: 100 }, { x: 110, y: 150 })).toEqual({ direction: "down", line: 100, by: 52 });
  expect(roomOf({ x: 100, y: 100 }, { x: 20, y: 90 }).by).toBe(0);
});

const sceneOn = (model: Model) => sceneOf(model, model.diagrams.get("page") as never);
const middleOf = (model: Model, id: string): Point => {
  const { x, y, width, height } = (shapeOn(model, "page", id) as Shape).bounds;
  return { x: x + width / 2, y: y + height / 2 };
};

describe("what lies under a point", () => {
  const model = smallModel();
  const scene = sceneOn(model);
  test("the topmost shape that is meant, a flow close by, a pool at its band alone", () => {
    expect(figureUnder(scene, middleOf(model, "check"), ({ type }) => type.endsWith("ask"))?.id).toBe("check");
    expect(figureUnder(scene, middleOf(model, "check"), () => false)).toBeUndefined();
    const line = scene.figures.find(({ id }) => id === "f1")?.line as Point[];
    const on = {
      x: ((line[0] as Point).x + (line[1] as Point).x) / 2,
      y: ((line[0] as Point).y + (line[1] as Point).y) / 2,
    };
    expect(flowUnder(scene, { x: on.x, y: on.y + 6 })).toBe("f1");
    expect(flowUnder(scene, { x: on.x, y: on.y + 30 })).toBeUndefined();
    const pool = (shapeOn(model, "page", "pool") as Shape).bounds;
    expect(poolBandUnder(scene, { x: pool.x + 10, y: pool.y + pool.height / 2 })).toBe("pool");
    expect(poolBandUnder(scene, { x: pool.x + 60, y: pool.y + pool.height / 2 })).toBeUndefined();
  });
});

describe("what a gesture comes to", () => {
  const end = (now: Gesture, at: Point = { x: 0, y: 0 }) => {
    const opened = openedVersion(smallModel());
    useDiagram.getState().select();
    endGesture(now, at, { store: opened.store, diagram: "page", scene: sceneOn(opened.model()) });
    return opened;
  };

  test("a move is one command, and none where nothing moved", () => {
    const moved = end({ kind: "move", ids: ["check"], from: { x: 0, y: 0 }, by: { x: 40, y: 0 }, guides: [] });
    expect(moved.done).toMatchObject([{ type: "move", ids: ["check"], by: { x: 40, y: 0 } }]);
    expect(end({ kind: "move", ids: ["check"], from: { x: 0, y: 0 }, by: { x: 0, y: 0 }, guides: [] }).done).toEqual(
      [],
    );
  });

  test("a stub that is let go over a step connects; let go where nothing is it makes the next step and asks its name", () => {
    const start = middleOf(smallModel(), "approve");
    const joined = end({ kind: "connect", source: "approve", start, to: start, over: "reject" });
    expect(outgoingOf(joined.model(), "approve").some((flow) => flow.targetRef === "reject")).toBe(true);
    const at = { x: start.x + 200, y: start.y };
    const made = end({ kind: "connect", source: "approve", start, to: at }, at);
    expect(made.done).toMatchObject([{ type: "append", from: "approve" }]);
    expect(useDiagram.getState().naming).toBe(useDiagram.getState().selection[0]);
    // A twitch is no pull.
    expect(end({ kind: "connect", source: "approve", start, to: start }, { x: start.x + 5, y: start.y }).done).toEqual(
      [],
    );
  });

  test("what the standard does not allow is refused in words, and nothing is chosen", () => {
    const start = middleOf(smallModel(), "check");
    const refused = end({ kind: "connect", source: "check", start, to: start, over: "start" });
    expect(refused.done).toEqual([]);
    expect(refused.said[0]).toMatch(/start event/);
    expect(useDiagram.getState().selection).toEqual([]);
  });

  test("an end that is led elsewhere takes its flow along; one that is let go over nothing stays", () => {
    const led = end({
      kind: "reattach",
      id: "f1",
      end: "target",
      fixed: { x: 0, y: 0 },
      to: { x: 0, y: 0 },
      over: "approve",
    });
    expect(led.model().elements.get("f1")?.targetRef).toBe("approve");
    expect(end({ kind: "reattach", id: "f1", end: "target", fixed: { x: 0, y: 0 }, to: { x: 0, y: 0 } }).done).toEqual(
      [],
    );
  });

  test("a box round steps chooses those that lie in it whole, without lanes and pools", () => {
    const { x, y, width, height } = (shapeOn(smallModel(), "page", "check") as Shape).bounds;
    end({ kind: "marquee", from: { x: x - 5, y: y - 5 }, to: { x: x + width + 5, y: y + height + 30 } });
    expect(useDiagram.getState().selection).toContain("check");
    expect(useDiagram.getState().selection).not.toContain("desk");
    end({ kind: "marquee", from: { x: x + 5, y: y + 5 }, to: { x: x + 20, y: y + 20 } });
    expect(useDiagram.getState().selection).toEqual([]);
  });

  test("room that is made puts the tool away; a label is moved by what it was pulled; another size is one command", () => {
    useDiagram.getState().set({ tool: "room" });
    const before = middleOf(smallModel(), "approve").x;
    const made = end({ kind: "room", from: { x: before - 100, y: 0 }, to: { x: before, y: 0 } }, { x: before, y: 0 });
    expect(middleOf(made.model(), "approve").x).toBeGreaterThan(before);
    expect(useDiagram.getState().tool).toBeNull();
    const label = { x: 10, y: 20, width: 60, height: 16 };
    expect(
      end({ kind: "label", id: "start", from: { x: 0, y: 0 }, start: label, by: { x: 8, y: -4 } }).done,
    ).toMatchObject([{ type: "moveLabel", id: "start", bounds: { x: 18, y: 16, width: 60, height: 16 } }]);
    const bounds = (shapeOn(smallModel(), "page", "check") as Shape).bounds;
    const larger = { ...bounds, width: bounds.width + 40 };
    expect(end({ kind: "resize", id: "check", corner: "se", start: bounds, bounds: larger }).done).toMatchObject([
      { type: "resize" },
    ]);
    expect(end({ kind: "resize", id: "check", corner: "se", start: bounds, bounds }).done).toEqual([]);
  });

  test("nothing of it leaves a lane of its own accord", () => {
    const moved = end({ kind: "move", ids: ["check"], from: { x: 0, y: 0 }, by: { x: 8, y: 0 }, guides: [] });
    expect(laneOf(moved.model(), "check")?.id).toBe(laneOf(smallModel(), "check")?.id);
  });
});
