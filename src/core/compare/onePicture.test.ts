import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { overlaps } from "../layout";
import { isDataNode, isFlowNode, type Model, shapesOf } from "../model";
import { commandScript, performAll, runScript, smallModel } from "../testing/models";
import { changeGroups, compareModels, isCompared, onePicture, startToBe } from ".";

const diagram = "page";

function pictureOf(from: Model, to: Model) {
  const comparison = compareModels(from, to);
  return onePicture(from, to, comparison.pairs, changeGroups(from, to, comparison));
}

describe("one picture of both", () => {
  test("a step in another lane is seen where it was and where it is, each flow with the one of them it belongs to", () => {
    const from = smallModel();
    const to = performAll(startToBe(from), {
      type: "moveToNeighbourLane",
      diagram,
      ids: ["approve"],
      direction: "down",
    });
    const { model, parts, ghosts } = pictureOf(from, to);
    expect(ghosts.get("approve.was")).toBe("approve");
    expect(parts.get("approve.was")).toMatchObject({ of: "from", seen: { from: true, both: true, to: false } });
    expect(parts.get("approve")).toMatchObject({ of: "both", seen: { from: false } });
    expect(model.elements.get("f3.was")).toMatchObject({ sourceRef: "decide", targetRef: "approve.was" });
    expect(parts.get("f3.was")?.seen).toEqual({ from: true, both: false, to: false });
    const [ghost, desk] = [shapesOf(model, "approve.was")[0]?.bounds, shapesOf(model, "desk")[0]?.bounds];
    expect(ghost && desk && ghost.y >= desk.y && ghost.y + ghost.height <= desk.y + desk.height).toBe(true);
  });

  test("with the switch on one side, exactly what that side has is seen", () => {
    fc.assert(
      fc.property(commandScript(10), (script) => {
        const from = smallModel();
        const to = runScript(startToBe(from), script);
        const { model, older, parts, ghosts } = pictureOf(from, to);
        for (const [side, own, seenModel] of [
          ["from", from, older],
          ["to", to, model],
        ] as const) {
          const drawn = [...seenModel.elements].filter(
            (element) => isCompared(element) && (parts.get(element.id)?.seen[side] ?? true),
          );
          const kinds = (elements: Iterable<{ type: string; name?: string | undefined }>) =>
            [...elements].map(({ type, name }) => `${type} ${name ?? ""}`).sort();
          const wanted = [...own.elements].filter(isCompared);
          expect(kinds(drawn)).toEqual(kinds(wanted));
        }
        expect(ghosts.size).toBeLessThanOrEqual(from.elements.size);
      }),
      { numRuns: 60 },
    );
  });

  test("no two figures of it lie over each other", () => {
    fc.assert(
      fc.property(commandScript(8), (script) => {
        const from = smallModel();
        const to = runScript(startToBe(from), script);
        const { model } = pictureOf(from, to);
        const boxes = (of: Model) =>
          [...of.shapes].filter((shape) => {
            const element = of.elements.get(shape.element);
            return (
              element && (isFlowNode(element.type) || isDataNode(element.type)) && element.type !== "boundaryEvent"
            );
          });
        const clashes = (of: Model) => {
          const all = boxes(of);
          return all.flatMap((one, at) =>
            all
              .slice(at + 1)
              .filter((other) => other.diagram === one.diagram && overlaps(one.bounds, other.bounds))
              .map((other) => `${one.element} ${other.element}`),
          );
        };
        // What lay over another already, on either side, is not for the picture to mend.
        if (clashes(from).length > 0 || clashes(to).length > 0) return;
        expect(clashes(model)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});
