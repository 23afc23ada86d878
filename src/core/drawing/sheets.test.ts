import fc from "fast-check";
import { expect, test } from "vitest";
import { papers, planSheets } from ".";

const drawing = fc.record({
  x: fc.integer({ min: -5000, max: 5000 }),
  y: fc.integer({ min: -5000, max: 5000 }),
  width: fc.integer({ min: 1, max: 12_000 }),
  height: fc.integer({ min: 1, max: 6000 }),
});
const options = fc.record({
  paper: fc.constantFrom("A4" as const, "A3" as const),
  spread: fc.constantFrom("fit" as const, "tile" as const),
  foot: fc.integer({ min: 0, max: 120 }),
});

test("every point of the drawing is on a sheet, and no sheet is larger than its paper", () => {
  fc.assert(
    fc.property(drawing, options, (bounds, wanted) => {
      const plan = planSheets(bounds, wanted);
      expect([plan.width, plan.height].sort()).toEqual(
        [papers[wanted.paper].width, papers[wanted.paper].height].sort(),
      );
      for (const [x, y] of [
        [bounds.x, bounds.y],
        [bounds.x + bounds.width, bounds.y],
        [bounds.x, bounds.y + bounds.height],
        [bounds.x + bounds.width, bounds.y + bounds.height],
        [bounds.x + bounds.width / 2, bounds.y + bounds.height / 3],
      ] as const) {
        const near = 1e-6;
        const on = plan.sheets.some(
          ({ view }) =>
            x >= view.x - near &&
            x <= view.x + view.width + near &&
            y >= view.y - near &&
            y <= view.y + view.height + near,
        );
        expect(on, `${x}, ${y}`).toBe(true);
      }
      for (const { view } of plan.sheets) {
        expect(view.width * plan.scale).toBeCloseTo(plan.frame.width, 6);
        expect(plan.frame.y + plan.frame.height + wanted.foot).toBeLessThanOrEqual(plan.height);
      }
    }),
  );
});

test("a wide process lies on one sheet when fitted, on several at full size", () => {
  const wide = { x: 0, y: 0, width: 3000, height: 600 };
  const fitted = planSheets(wide, { paper: "A4", spread: "fit", foot: 40 });
  expect(fitted.sheets).toHaveLength(1);
  expect(fitted.width).toBeGreaterThan(fitted.height);
  const tiled = planSheets(wide, { paper: "A4", spread: "tile", foot: 40 });
  expect(tiled.scale).toBe(0.75);
  // 2250 points across sheets of 786 that share 24, or of 539: three lying sheets, one high; upright it would take five.
  expect([tiled.columns, tiled.rows]).toEqual([3, 1]);
});
