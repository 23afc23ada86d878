import fc from "fast-check";
import { expect, test } from "vitest";
import { Sums } from "./sums";

test("sums by number are what was added to each, in whatever order the numbers come and however large they are", () => {
  const adding = fc.tuple(fc.oneof(fc.nat(40), fc.nat(50_000)), fc.integer({ min: -1000, max: 1000 }));
  fc.assert(
    fc.property(fc.array(adding, { maxLength: 60 }), (all) => {
      const sums = new Sums();
      const wanted = new Map<number, number>();
      for (const [at, value] of all) {
        sums.add(at, value);
        wanted.set(at, (wanted.get(at) ?? 0) + value);
      }
      for (const [at, value] of wanted) expect(sums.at(at)).toBe(value);
      expect(sums.at(60_000)).toBe(0);
    }),
  );
});
