import fc from "fast-check";
import { SaxesParser } from "saxes";
import { describe, expect, test } from "vitest";
import { performAll, smallModel } from "../testing/models";
import { sceneOf, sceneToSvg } from ".";

const drawn = (model = smallModel()) => {
  const [page] = [...model.diagrams];
  if (!page) throw new Error("The model has no page.");
  return sceneOf(model, page);
};

/** Element names, attributes and text of an SVG, as an XML parser that is not ours reads them. */
function read(svg: string) {
  const parser = new SaxesParser();
  const names: string[] = [];
  const attributes: [string, string][] = [];
  let text = "";
  parser.on("opentag", (tag) => {
    names.push(tag.name);
    attributes.push(...Object.entries(tag.attributes));
  });
  parser.on("text", (value) => {
    text += `${value}\n`;
  });
  parser.on("error", (error) => {
    throw error;
  });
  parser.write(svg).close();
  return { names, attributes, text };
}

describe("an exported picture", () => {
  test("holds every figure, by its id, with name and type for those who hear it", () => {
    const scene = drawn();
    const { attributes, text } = read(sceneToSvg(scene));
    const ids = attributes.filter(([name]) => name === "data-element").map(([, id]) => id);
    expect(ids).toEqual(scene.figures.map(({ id }) => id));
    for (const { title } of scene.figures) expect(text).toContain(title.text);
  });

  test("encloses all that is drawn, with its margin", () => {
    const scene = drawn();
    const { attributes } = read(sceneToSvg(scene, { margin: 20 }));
    const [x = 0, y = 0, width = 0, height = 0] = (attributes.find(([name]) => name === "viewBox")?.[1] ?? "")
      .split(" ")
      .map(Number);
    for (const { bounds } of scene.figures) {
      expect(bounds.x).toBeGreaterThanOrEqual(x + 19);
      expect(bounds.y).toBeGreaterThanOrEqual(y + 19);
      expect(bounds.x + bounds.width).toBeLessThanOrEqual(x + width - 19);
      expect(bounds.y + bounds.height).toBeLessThanOrEqual(y + height - 19);
    }
  });

  test("is well-formed whatever names hold, and nothing in it can run or reach out", () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ unit: "binary" }),
          fc.constantFrom(
            "<script>alert(1)</script>",
            '" onload="alert(1)',
            "]]><image href='http://somewhere/'/>",
            "&amp;&lt;",
            "\u0000\u0008\ud800",
          ),
        ),
        (name) => {
          const model = performAll(smallModel(), { type: "rename", id: "check", name: name.slice(0, 200) });
          const { names, attributes } = read(sceneToSvg(drawn(model), { title: name }));
          expect(new Set(names)).toEqual(new Set(["svg", "title", "rect", "g", "path", "text"]));
          expect(attributes.filter(([key]) => /^on|href/i.test(key))).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  });

  test("carries its letters along where they are given", () => {
    const svg = sceneToSvg(drawn(), { fonts: { 400: "AAAA", 600: "BBBB" } });
    expect(svg.match(/@font-face/g)).toHaveLength(2);
    expect(svg).toContain("data:font/woff2;base64,AAAA");
    expect(svg).not.toMatch(/url\((?!data:)/);
  });
});
