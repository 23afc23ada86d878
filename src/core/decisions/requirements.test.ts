import fc from "fast-check";
import { expect, test } from "vitest";
import { expectOk } from "../testing/models";
import { drawRequirements, readDecisions } from ".";
import { decision, dmn, inputData, literal, needsDecision, needsInput, needsKnowledge } from "./testing/tables";

const drawn = (inside: string) => drawRequirements(expectOk(readDecisions(new TextEncoder().encode(dmn(inside)))));

test("each item stands to the right of what it needs, in the shape the standard has for it", () => {
  const scene = drawn(
    inputData("rated power") +
      inputData("unused") +
      `<businessKnowledgeModel id="k" name="surcharge"/>` +
      decision("kind", literal("1"), needsInput("rated power")) +
      decision("fee", literal("1"), needsDecision("kind") + needsKnowledge("k")),
  );
  const at = (id: string) => scene.figures.find((one) => one.id === id);
  const x = (id: string) => at(id)?.bounds.x ?? Number.NaN;
  expect(x("in-rated-power")).toBeLessThan(x("kind"));
  expect(x("kind")).toBeLessThan(x("fee"));
  expect(x("k")).toBeLessThan(x("fee"));
  expect(
    scene.figures
      .filter(({ type }) => type === "requirement")
      .map(({ title }) => title.text)
      .sort(),
  ).toEqual(["information requirement", "information requirement", "knowledge requirement"]);
  expect(at("in-unused")).toBeDefined();
});

test("no box lies on another, whatever requires what", () => {
  fc.assert(
    fc.property(fc.array(fc.array(fc.nat(11), { maxLength: 4 }), { minLength: 1, maxLength: 12 }), (needs) => {
      const scene = drawn(
        needs
          .map((of, at) =>
            decision(
              `d${at}`,
              literal("1"),
              of
                .filter((one) => one < needs.length)
                .map((one) => needsDecision(`d${one}`))
                .join(""),
            ),
          )
          .join(""),
      );
      const boxes = scene.figures.filter(({ type }) => type === "decision").map(({ bounds }) => bounds);
      expect(boxes.length).toBe(needs.length);
      for (const [at, one] of boxes.entries())
        for (const other of boxes.slice(at + 1))
          expect(
            one.x + one.width <= other.x ||
              other.x + other.width <= one.x ||
              one.y + one.height <= other.y ||
              other.y + other.height <= one.y,
          ).toBe(true);
    }),
    { numRuns: 60 },
  );
});
