import fc from "fast-check";
import { expect, test } from "vitest";
import { standIn } from "./BandNames";

const band = (x: number, y: number, width: number, height: number, inset = 0) => ({
  id: "lane",
  name: "Front desk",
  isPool: false,
  inset,
  bounds: { x, y, width, height },
});
const view = { x: 0, y: 0, width: 1000, height: 600 };

test.each([
  ["seen whole, it needs none", band(20, 20, 900, 200), undefined],
  ["moved out to the left, it stands at the edge", band(-400, 20, 1200, 200), { x: 0, y: 20, width: 28, height: 200 }],
  ["a lane's stands beside its pool's", band(-372, 20, 1172, 200, 28), { x: 28, y: 20, width: 28, height: 200 }],
  ["cut below, it stands in what is seen", band(20, 500, 900, 300), { x: 20, y: 500, width: 28, height: 100 }],
  ["cut above", band(20, -100, 900, 300), { x: 20, y: 0, width: 28, height: 200 }],
  ["a sliver has no room for a name", band(20, 590, 900, 300), undefined],
  ["out of sight", band(20, 900, 900, 300), undefined],
  ["all but its right end is out of sight", band(-900, 20, 930, 200), undefined],
])("%s", (_, lane, expected) => {
  expect(standIn(lane, view)).toEqual(expected);
});

test("what stands in lies in the view and over its own lane", () => {
  const place = fc.integer({ min: -2000, max: 2000 });
  const size = fc.integer({ min: 40, max: 3000 });
  fc.assert(
    fc.property(place, place, size, size, (x, y, width, height) => {
      const shown = standIn(band(x, y, width, height), view);
      if (!shown) return;
      expect(shown.x).toBeGreaterThanOrEqual(Math.max(0, x));
      expect(shown.y).toBeGreaterThanOrEqual(Math.max(0, y));
      expect(shown.y + shown.height).toBeLessThanOrEqual(Math.min(600, y + height));
      expect(shown.x + shown.width).toBeLessThanOrEqual(x + width);
    }),
  );
});
