import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { sceneOf } from "../../drawing";
import { overlaps, segmentCrosses } from "../../layout";
import {
  type Bounds,
  type Diagram,
  edgeOn,
  emptyModel,
  isActivity,
  isEvent,
  isGateway,
  type Model,
  type Point,
  shapeOn,
} from "../../model";
import { commandScript, expectOk, performAll, runScript, smallModel } from "../../testing/models";
import { type Command, perform, undoOf } from "./command";

const diagram = "page";
const page = (model: Model) => model.diagrams.get(diagram) as Diagram;
const bounds = (model: Model, id: string) => shapeOn(model, diagram, id)?.bounds as Bounds;
const line = (model: Model, flow: string) => edgeOn(model, diagram, flow)?.waypoints as readonly Point[];
const labelOf = (model: Model, id: string) =>
  sceneOf(model, page(model)).figures.find((figure) => figure.id === id)?.label?.bounds as Bounds;
const put = (model: Model, id: string, x: number, y: number, name = ""): Model =>
  performAll(model, { type: "place", diagram, id, kind: { type: "task" }, at: { x, y }, name });

/** Two steps far apart on one line, with a flow between them. */
function twoApart(): Model {
  const start = emptyModel({ definitions: "definitions", process: "process", diagram }, "Two apart");
  return performAll(put(put(start, "one", 100, 300, "One"), "other", 700, 300, "Other"), {
    type: "connect",
    diagram,
    id: "flow",
    source: "one",
    target: "other",
  });
}
const crosses = (model: Model, flow: string, id: string) =>
  line(model, flow).some((b, at, all) => at > 0 && segmentCrosses(bounds(model, id), all[at - 1] as Point, b));

describe("what a gesture leaves is put right", () => {
  test("a flow that a step was put on finds a way around it", () => {
    const before = twoApart();
    expect(line(before, "flow")).toHaveLength(2);
    const model = put(before, "between", 400, 300, "Between");
    expect(crosses(model, "flow", "between")).toBe(false);
    expect(line(model, "flow")[0]).toEqual(line(before, "flow")[0]);
    // A flow elsewhere stays as it is, to the point.
    const far = put(before, "far", 400, 700, "Far");
    expect(line(far, "flow")).toEqual(line(before, "flow"));
  });

  test("a flow bent by hand that lies well is left alone by what happens beside it", () => {
    const waypoints = [
      { x: 156, y: 300 },
      { x: 300, y: 300 },
      { x: 300, y: 420 },
      { x: 500, y: 420 },
      { x: 500, y: 300 },
      { x: 644, y: 300 },
    ];
    const bent = performAll(twoApart(), { type: "bend", diagram, connection: "flow", waypoints });
    const model = performAll(put(bent, "near", 400, 200, "Near"), {
      type: "rename",
      id: "one",
      name: "Called otherwise",
    });
    expect(line(model, "flow")).toEqual(waypoints);
  });

  test.each([1, 2, 3, 5, 7])("a step moved %i pixels off the line leaves no step in the flow", (by) => {
    const model = performAll(twoApart(), { type: "move", diagram, ids: ["other"], by: { x: 0, y: by } });
    const course = line(model, "flow");
    expect(course).toHaveLength(2);
    expect(course[0]?.y).toBe(course[1]?.y);
  });

  test("a step put on a flow stands in it level, and makes room", () => {
    let model = performAll(twoApart(), { type: "move", diagram, ids: ["other"], by: { x: -420, y: 0 } });
    model = performAll(model, {
      type: "insertOnFlow",
      diagram,
      onFlow: "flow",
      id: "new",
      flow: "second",
      kind: { type: "task" },
    });
    expect(line(model, "flow")).toHaveLength(2);
    expect(line(model, "second")).toHaveLength(2);
    expect(overlaps(bounds(model, "new"), bounds(model, "other"))).toBe(false);
    expect(overlaps(bounds(model, "new"), bounds(model, "one"))).toBe(false);
  });

  test("a name whose place is taken by a flow or a step dodges; names elsewhere stay", () => {
    const model = smallModel();
    const was = labelOf(model, "decide");
    const far = labelOf(model, "start");
    const covered = put(model, "cover", was.x + was.width / 2, was.y + was.height / 2, "Cover");
    expect(overlaps(labelOf(covered, "decide"), bounds(covered, "cover"))).toBe(false);
    expect(labelOf(covered, "start")).toEqual(far);
  });

  test("a label put by hand where it covers nothing stays there", () => {
    const at = { x: 900, y: 600, width: 60, height: 15 };
    const model = performAll(smallModel(), { type: "moveLabel", diagram, id: "decide", bounds: at });
    const later = put(model, "cover", 420, 320, "Elsewhere");
    expect(shapeOn(later, diagram, "decide")?.label?.bounds).toMatchObject(at);
  });

  test("a long name is read whole: its step grows around its middle, and its flows stay level", () => {
    const name =
      "Ask the customer whether the plant was switched off before the crew came and who has the key to the cellar";
    const before = twoApart();
    const model = performAll(before, { type: "rename", id: "other", name });
    const [was, is] = [bounds(before, "other"), bounds(model, "other")];
    expect(is.height).toBeGreaterThan(was.height);
    expect(is.y + is.height / 2).toBe(was.y + was.height / 2);
    expect(line(model, "flow")).toHaveLength(2);
    const figure = sceneOf(model, page(model)).figures.find(({ id }) => id === "other");
    const shown = (figure?.primitives ?? []).flatMap((part) => (part.kind === "text" ? [part] : []));
    expect(shown.map(({ text }) => text).join(" ")).toBe(name);
    for (const { size } of shown) expect(size).toBeGreaterThanOrEqual(11);
  });

  test("a name that is a whole text does not make a tower of its step", () => {
    const model = performAll(twoApart(), { type: "rename", id: "other", name: "to and fro ".repeat(300) });
    expect(bounds(model, "other").height).toBeLessThanOrEqual(248);
  });

  test("one undo takes all of it back", () => {
    const before = twoApart();
    const done = expectOk(
      perform(before, { type: "place", diagram, id: "between", kind: { type: "task" }, at: { x: 400, y: 300 } }),
    );
    const undo = undoOf(done);
    const back = expectOk(perform(done.model, undo)).model;
    expect(line(back, "flow")).toEqual(line(before, "flow"));
    expect([...back.shapes].length).toBe([...before.shapes].length);
  });
});

describe("whatever is done to a drawing", () => {
  test("no name of an event or gateway lies over a step that was just put there", () => {
    fc.assert(
      fc.property(commandScript(14), fc.nat(700), fc.nat(400), (script, x, y) => {
        const model = runScript(smallModel(), script);
        const done = perform(model, {
          type: "place",
          diagram,
          id: "put",
          kind: { type: "task" },
          at: { x: 80 + x, y: 60 + y },
        });
        if (!done.ok) return;
        const put = bounds(done.value.model, "put");
        for (const figure of sceneOf(done.value.model, page(done.value.model)).figures) {
          const type = done.value.model.elements.get(figure.id)?.type ?? "";
          if (!figure.label || isActivity(type) || !(isEvent(type) || isGateway(type))) continue;
          // A shape that stands under the new one has nowhere to put its name.
          if (overlaps(figure.bounds, put, 20)) continue;
          expect(overlaps(figure.label.bounds, put), figure.id).toBe(false);
        }
      }),
      { numRuns: 80 },
    );
  });

  test("the same command on the same model gives the same edits", () => {
    fc.assert(
      fc.property(commandScript(10), (script) => {
        const model = runScript(smallModel(), script);
        const command: Command = { type: "move", diagram, ids: ["check"], by: { x: 60, y: 30 } };
        const [one, other] = [perform(model, command), perform(model, command)];
        expect(one.ok && one.value.edits).toEqual(other.ok && other.value.edits);
      }),
      { numRuns: 25 },
    );
  });
});
