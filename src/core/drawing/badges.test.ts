import { describe, expect, test } from "vitest";
import { smallModel } from "../testing/models";
import { sceneOf, sceneToSvg, withBadges } from ".";

const model = smallModel();
const [page] = model.diagrams;
if (!page) throw new Error("no page");
const scene = sceneOf(model, page);

describe("badges on a drawing", () => {
  test("stand at their elements, above all else, inside the bounds of the drawing", () => {
    const marked = withBadges(scene, new Map([["check", "1, 3"]]));
    const badge = marked.figures.at(-1);
    const figure = scene.figures.find(({ id }) => id === "check");
    expect(badge).toMatchObject({ title: { text: "1, 3" }, type: "badge" });
    expect(badge?.bounds.y).toBeLessThan(figure?.bounds.y ?? 0);
    const { x, y, width, height } = marked.bounds;
    for (const { bounds } of marked.figures) {
      expect(bounds.x).toBeGreaterThanOrEqual(x);
      expect(bounds.y).toBeGreaterThanOrEqual(y);
      expect(bounds.x + bounds.width).toBeLessThanOrEqual(x + width + 0.001);
      expect(bounds.y + bounds.height).toBeLessThanOrEqual(y + height + 0.001);
    }
    expect(sceneToSvg(marked)).toContain(">1, 3</text>");
  });

  test("what is not on the page has none; without any the drawing is as it was", () => {
    expect(withBadges(scene, new Map([["elsewhere", "1"]]))).toEqual(scene);
    expect(withBadges(scene, new Map()).figures).toEqual(scene.figures);
  });
});
