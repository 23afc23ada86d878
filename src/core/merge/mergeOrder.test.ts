import fc from "fast-check";
import { expect, test } from "vitest";
import { mergeOrder } from "./mergeOrder";

test.each<[what: string, base: string, ours: string, theirs: string, merged: string, clash: boolean]>([
  ["nothing changed", "abc", "abc", "abc", "abc", false],
  ["one side turned two round", "abc", "acb", "abc", "acb", false],
  ["one side turned two round, the other put one between", "abc", "acb", "abxc", "acbx", false],
  ["both put one at the same place", "ab", "axb", "ayb", "axyb", false],
  ["one in front, one behind", "ab", "xab", "aby", "xaby", false],
  ["both turned them round, each otherwise", "abc", "bac", "acb", "bac", true],
  ["both turned them round alike", "abc", "bac", "bac", "bac", false],
])("%s", (_, base, ours, theirs, merged, clash) => {
  const { order, clash: met } = mergeOrder([...base], [...ours], [...theirs]);
  expect([order.join(""), met]).toEqual([merged, clash]);
});

const lists = fc.shuffledSubarray([..."abcdef"]).chain((base) =>
  fc.record({
    base: fc.constant(base),
    ours: fc.shuffledSubarray([...base, "x", "y"]),
    theirs: fc.shuffledSubarray([...base, "v", "w"]),
  }),
);

test("with the base, and with itself, an order is itself; without a clash it does not matter which side is ours", () => {
  fc.assert(
    fc.property(lists, ({ base, ours, theirs }) => {
      const gone = (list: readonly string[], other: readonly string[]) =>
        list.filter((id) => other.includes(id) || !base.includes(id));
      expect(mergeOrder(base, ours, ours).order).toEqual(ours);
      expect(new Set(mergeOrder(base, ours, theirs).order)).toEqual(new Set([...ours, ...theirs]));
      const [one, turned] = [mergeOrder(base, ours, theirs), mergeOrder(base, theirs, ours)];
      if (!one.clash) expect(gone(one.order, ours)).toEqual(gone(turned.order, ours));
    }),
  );
});
