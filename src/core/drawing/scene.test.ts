import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type Bounds, childrenOf, type Diagram, type Model, toStored, trustStored } from "../model";
import { commandScript, performAll, runScript, smallModel } from "../testing/models";
import { type Figure, type Scene, sceneOf, sceneOfSome } from ".";

const pageOf = (model: Model) => model.diagrams.get("page") as Diagram;
const sceneNow = (model: Model) => sceneOf(model, pageOf(model));
/** The scene of a model that nobody has drawn anything of before. */
const sceneAnew = (model: Model) => sceneNow(trustStored(structuredClone(toStored(model))));
/** All that a figure says, with what it looks like. */
const looked = ({ figures, bounds }: Scene) => ({ figures: figures.map((figure) => ({ ...figure })), bounds });
/** The records of a model that a figure is drawn from. */
const behind = (model: Model, id: string) => [
  model.elements.get(id),
  ...childrenOf(model, id),
  ...["sourceRef", "targetRef", "dataObjectRef", "categoryValueRef"].map((field) =>
    model.elements.get(String(model.elements.get(id)?.[field])),
  ),
  ...[...model.shapes, ...model.edges].filter(({ element }) => element === id),
];
const holds = (outer: Bounds, { x, y, width, height }: Bounds) =>
  x >= outer.x && y >= outer.y && x + width <= outer.x + outer.width && y + height <= outer.y + outer.height;

describe("a scene, whatever was done to the page", () => {
  test("is the one that is made of nothing, though most of it is kept from before", () => {
    fc.assert(
      fc.property(commandScript(14), (script) => {
        const seen = new Map<Model, Scene>();
        runScript(smallModel(), script, (before, after) => {
          for (const model of [before, after]) if (!seen.has(model)) seen.set(model, sceneNow(model));
        });
        for (const [model, scene] of seen) expect(looked(scene)).toEqual(looked(sceneAnew(model)));
      }),
      { numRuns: 25 },
    );
  });

  test("shows its own state however late it is looked at", () => {
    fc.assert(
      fc.property(commandScript(14), (script) => {
        const before = trustStored(structuredClone(toStored(smallModel())));
        const scene = sceneNow(before);
        // Nobody has looked at a figure of it yet, and the page has gone on.
        const after = runScript(before, script);
        looked(sceneNow(after));
        expect(looked(scene)).toEqual(looked(sceneAnew(before)));
      }),
      { numRuns: 25 },
    );
  });

  test("keeps the figures of what did not change, so that what paints them can skip them", () => {
    fc.assert(
      fc.property(commandScript(8), (script) => {
        runScript(smallModel(), script, (before, after) => {
          const was = new Map(sceneNow(before).figures.map((figure) => [figure.id, figure]));
          for (const figure of sceneNow(after).figures) {
            const [old, now] = [behind(before, figure.id), behind(after, figure.id)];
            const isSame = old.length === now.length && old.every((record, at) => record === now[at]);
            if (isSame) expect(figure).toBe(was.get(figure.id));
          }
        });
      }),
      { numRuns: 15 },
    );
  });

  test("has everything within its bounds, names beside things too, and what holds lies under what it holds", () => {
    fc.assert(
      fc.property(commandScript(14), (script) => {
        const { figures, bounds } = sceneNow(runScript(smallModel(), script));
        for (const { bounds: own, label } of figures)
          expect([holds(bounds, own), label ? holds(bounds, label.bounds) : true]).toEqual([true, true]);
        const layers = figures.map(({ layer }) => layer);
        expect(layers).toEqual([...layers].sort((a, b) => a - b));
        expect(new Set(figures.map(({ id }) => id)).size).toBe(figures.length);
      }),
      { numRuns: 25 },
    );
  });
});

describe("what a figure looks like", () => {
  const figure = (model: Model, id: string) =>
    sceneNow(model).figures.find((candidate) => candidate.id === id) as Figure;

  test("is made once, and is the same for all who look", () => {
    const check = figure(trustStored(structuredClone(toStored(smallModel()))), "check");
    expect(check.primitives).toBe(check.primitives);
    expect({ ...check }.primitives).toBe(check.primitives);
    // A worker gets it whole.
    expect(structuredClone(check)).toEqual({ ...check });
  });

  test("says the name inside a step, beside a gateway, an event and a flow, and nowhere twice", () => {
    const model = performAll(smallModel(), { type: "rename", id: "decide", name: "Enough room?" });
    const said = (id: string) =>
      figure(model, id).primitives.flatMap((primitive) => (primitive.kind === "text" ? [primitive.text] : []));
    expect(said("check").join(" ")).toBe(model.elements.get("check")?.name);
    expect(figure(model, "check").label).toBeUndefined();
    expect(said("decide").join(" ")).toBe("Enough room?");
    expect(figure(model, "decide").label?.lines.join(" ")).toBe("Enough room?");
    const [named] = [...model.elements].filter(({ type, name }) => type === "sequenceFlow" && name);
    if (named) expect(said(named.id).join(" ")).toBe(named.name);
  });

  test("of a part of a scene is what it is in the whole, with as much room as the part takes", () => {
    const scene = sceneNow(smallModel());
    const part = sceneOfSome(scene, new Set(["check"]));
    expect(part.figures).toEqual([figure(smallModel(), "check")]);
    expect(part.bounds).toEqual(part.figures[0]?.bounds);
    expect(sceneOfSome(scene, new Set())).toEqual({ figures: [], bounds: { x: 0, y: 0, width: 0, height: 0 } });
  });
});
