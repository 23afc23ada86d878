import fc from "fast-check";
import { expect, test } from "vitest";
import { overlap, papers, planPaper, planSheets, smallestPrint } from ".";

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
  // 2250 points across sheets of 786 that share 28, or of 539: three lying sheets, one high; upright it would take five.
  expect([tiled.columns, tiled.rows]).toEqual([3, 1]);
});

/** Points to a millimetre: 72 to the inch of 25.4 mm. */
const millimetres = (points: number) => (points / 72) * 25.4;

test("neighbouring sheets share ten millimetres, along and across", () => {
  fc.assert(
    fc.property(drawing, options, (bounds, wanted) => {
      const plan = planSheets(bounds, { ...wanted, spread: "tile" });
      for (const one of plan.sheets)
        for (const other of plan.sheets) {
          if (other.row === one.row && other.column === one.column + 1)
            expect(millimetres((one.view.x + one.view.width - other.view.x) * plan.scale)).toBeCloseTo(10, 6);
          if (other.column === one.column && other.row === one.row + 1)
            expect(millimetres((one.view.y + one.view.height - other.view.y) * plan.scale)).toBeCloseTo(10, 6);
        }
    }),
  );
  expect(millimetres(overlap)).toBeCloseTo(10, 10);
});

test("lines at the edge of the drawing are whole, and the legend comes once", () => {
  fc.assert(
    fc.property(drawing, options, fc.integer({ min: 0, max: 30 }), (bounds, { paper, spread }, symbols) => {
      const plan = planPaper(bounds, { paper, spread, symbols });
      const left = Math.min(...plan.sheets.map(({ view }) => view.x));
      const top = Math.min(...plan.sheets.map(({ view }) => view.y));
      const right = Math.max(...plan.sheets.map(({ view }) => view.x + view.width));
      const bottom = Math.max(...plan.sheets.map(({ view }) => view.y + view.height));
      // The widest line is three units: half of it lies outside of what it goes around.
      expect(left).toBeLessThanOrEqual(bounds.x - 1.5);
      expect(top).toBeLessThanOrEqual(bounds.y - 1.5);
      expect(right).toBeGreaterThanOrEqual(bounds.x + bounds.width + 1.5);
      expect(bottom).toBeGreaterThanOrEqual(bounds.y + bounds.height + 1.5);
      expect(plan.legend).toBe(symbols === 0 ? "none" : plan.sheets.length === 1 ? "under" : "behind");
    }),
  );
});

test("small print is told in points", () => {
  const written = (size: number) => ({
    figures: [{ primitives: [{ kind: "text", text: "Check application", size }] }],
    bounds: { x: 0, y: 0, width: 10, height: 10 },
  });
  expect(smallestPrint(written(12) as never, { scale: 0.75 })).toBe(9);
  expect(smallestPrint(written(12) as never, { scale: 0.4 })).toBeCloseTo(4.8);
  expect(smallestPrint({ figures: [], bounds: written(1).bounds } as never, { scale: 1 })).toBeUndefined();
});
