import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { placeInBands } from "./align";
import { type Net, tracksOf } from "./channels";
import { placeColumns } from "./columns";
import { coursesOf } from "./courses";
import { type LayoutFlow, type LayoutNode, type Network, networkOf } from "./network";
import { inversions, orderLayers } from "./order";
import { onGrid } from "./sizes";

const node = (id: string, more: Partial<LayoutNode> = {}): LayoutNode => ({
  id,
  lane: 0,
  width: 112,
  height: 64,
  above: 0,
  below: 0,
  columnWidth: 112,
  topFree: true,
  bottomFree: true,
  isRound: false,
  ...more,
});
const flow = (from: string, to: string, more: Partial<LayoutFlow> = {}): LayoutFlow => ({
  id: `${from}-${to}`,
  from,
  to,
  isMain: false,
  label: undefined,
  ...more,
});
const names = (network: Network, layer: number) =>
  (network.layers[layer] ?? []).map((at) => network.items[at]?.node?.id ?? "·");

/** Crossings between neighbouring layers, counted pair by pair. */
function crossingsOf(network: Network): number {
  const place = new Map(network.layers.flatMap((layer) => layer.map((item, at) => [item, at] as const)));
  let count = 0;
  network.pieces.forEach((one, at) => {
    for (const other of network.pieces.slice(at + 1)) {
      if (network.items[one.left]?.layer !== network.items[other.left]?.layer) continue;
      const left = (place.get(one.left) as number) - (place.get(other.left) as number);
      const right = (place.get(one.right) as number) - (place.get(other.right) as number);
      if (left * right < 0) count++;
    }
  });
  return count;
}
const ordered = (nodes: readonly LayoutNode[], flows: readonly LayoutFlow[]) => {
  const network = networkOf(nodes, flows);
  orderLayers(network);
  return network;
};
const drawn = (nodes: readonly LayoutNode[], flows: readonly LayoutFlow[], laneCount = 1) => {
  const network = ordered(nodes, flows);
  const bands = placeInBands(network, { laneCount, padding: 18, minimum: 96, onGrid });
  const columns = placeColumns(network, bands, { padding: 18, onGrid });
  return { network, bands, columns, courses: coursesOf(network, bands, columns) };
};

describe("places of flows", () => {
  test("a flow that passes layers has a place in each of them", () => {
    const network = networkOf([node("a"), node("b"), node("c")], [flow("a", "b"), flow("b", "c"), flow("a", "c")]);
    expect(network.layers.map((_, at) => names(network, at))).toEqual([["a"], ["b", "·"], ["c"]]);
  });

  test("a flow back has places beside both its shapes, on the side where both are free", () => {
    const nodes = [node("a", { topFree: false }), node("b")];
    const network = networkOf(nodes, [flow("a", "b"), flow("b", "a")]);
    const beside = network.items.filter((item) => item.host >= 0);
    expect(beside.map((item) => [network.items[item.host]?.node?.id, item.side])).toEqual([
      ["a", "below"],
      ["b", "below"],
    ]);
  });

  test("a second start stands right before what it leads to", () => {
    const nodes = ["s", "a", "b", "c", "late"].map((id) => node(id));
    const network = networkOf(nodes, [flow("s", "a"), flow("a", "b"), flow("b", "c"), flow("late", "c")]);
    expect(names(network, 2).sort()).toEqual(["b", "late"]);
  });
});

describe("order", () => {
  test("inversions are counted as pair by pair", () => {
    fc.assert(
      fc.property(fc.array(fc.nat(20), { maxLength: 30 }), (list) => {
        const pairs = list.flatMap((a, at) => list.slice(at + 1).filter((b) => a > b)).length;
        expect(inversions(list)).toBe(pairs);
      }),
    );
  });

  // In two layers, the complete bipartite graph of m and n nodes has m(m−1)/2 · n(n−1)/2 crossings in any order (textbook fact).
  test.each([
    [2, 2, 1],
    [3, 3, 9],
    [4, 2, 6],
  ])("every one of %i with every one of %i crosses %i times", (m, n, crossings) => {
    const left = Array.from({ length: m }, (_, at) => node(`l${at}`));
    const right = Array.from({ length: n }, (_, at) => node(`r${at}`));
    const flows = left.flatMap((from) => right.map((to) => flow(from.id, to.id)));
    expect(crossingsOf(ordered([...left, ...right], flows))).toBe(crossings);
  });

  test("trees, however their nodes are listed, are drawn without a crossing", () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(1000), { minLength: 1, maxLength: 25 }),
        fc.infiniteStream(fc.nat()),
        (parents, shuffle) => {
          const ids = ["n0", ...parents.map((_, at) => `n${at + 1}`)];
          const flows = parents.map((parent, at) => flow(`n${parent % (at + 1)}`, `n${at + 1}`));
          const nodes = ids
            .map((id) => ({ id, key: shuffle.next().value as number }))
            .sort((a, b) => a.key - b.key)
            .map(({ id }) => node(id));
          expect(crossingsOf(ordered(nodes, flows))).toBe(0);
        },
      ),
      { numRuns: 60 },
    );
  });

  test("lanes stay one below the other, whatever that costs", () => {
    const nodes = [node("s"), node("x", { lane: 1 }), node("y", { lane: 0 })];
    const network = ordered(nodes, [flow("s", "x"), flow("s", "y")]);
    expect(names(network, 1)).toEqual(["y", "x"]);
  });

  test("what an event at the edge leads to stands below what its step leads to", () => {
    const exit = { x: 36, y: 32, bottom: 48 };
    const network = ordered(
      [node("a"), node("late"), node("b")],
      [flow("a", "late", { exit }), flow("a", "b", { isMain: true })],
    );
    expect(names(network, 1)).toEqual(["b", "late"]);
  });
});

describe("heights", () => {
  test("the main path is one line, and other ways stand below it", () => {
    const { network, bands } = drawn(
      ["a", "b", "c", "d"].map((id) => node(id)),
      [flow("a", "b", { isMain: true }), flow("a", "c"), flow("b", "d", { isMain: true }), flow("c", "d")],
    );
    const y = (id: string) => bands.y[network.itemOf.get(id) as number];
    expect([y("b"), y("d")]).toEqual([y("a"), y("a")]);
    expect(y("c")).toBeGreaterThan(y("b") as number);
  });

  test("a lane is as high as what it holds, and never less than asked", () => {
    const { bands } = drawn([node("a"), node("b", { lane: 1, height: 200 })], [flow("a", "b")], 2);
    const [first, second] = bands.lanes.map(({ top, bottom }) => bottom - top);
    expect(first).toBe(104);
    expect(second).toBeGreaterThanOrEqual(236);
  });
});

describe("tracks between layers", () => {
  const height = fc.nat(40).map((value) => value * 12);
  const nets = fc.array(
    fc.record({
      lefts: fc.array(height, { minLength: 1, maxLength: 3 }),
      rights: fc.array(height, { minLength: 1, maxLength: 3 }),
    }),
    { maxLength: 12 },
  );
  const spanOf = ({ lefts, rights }: Net) => [Math.min(...lefts, ...rights), Math.max(...lefts, ...rights)] as const;

  test("upright pieces that share a height are on tracks of their own", () => {
    fc.assert(
      fc.property(nets, (given) => {
        const tracks = tracksOf(given);
        given.forEach((net, at) => {
          given.slice(at + 1).forEach((other, behind) => {
            const [[a, b], [c, d]] = [spanOf(net), spanOf(other)];
            if (a <= d && c <= b) expect(tracks[at]).not.toBe(tracks[at + 1 + behind]);
          });
        });
      }),
    );
  });

  test("of two flows that part without crossing, neither crosses the other", () => {
    // Both go up; the upper one turns off first.
    const [upper, lower] = tracksOf([
      { lefts: [100], rights: [0] },
      { lefts: [160], rights: [60] },
    ]);
    expect(upper).toBeLessThan(lower as number);
    // Both go down; the lower one turns off first.
    const [high, low] = tracksOf([
      { lefts: [0], rights: [100] },
      { lefts: [60], rights: [160] },
    ]);
    expect(low).toBeLessThan(high as number);
  });
});

describe("courses", () => {
  const corners = (line: readonly { x: number; y: number }[]) => line.length - 2;

  test("a split is left by its corner with one bend, a step by its right side with two", () => {
    const shape = (isRound: boolean) => node("a", isRound ? { isRound, width: 40, height: 40 } : {});
    for (const [isRound, bends] of [
      [true, 1],
      [false, 2],
    ] as const) {
      const { courses } = drawn(
        [shape(isRound), node("b"), node("c")],
        [flow("a", "b", { isMain: true }), flow("a", "c")],
      );
      expect(courses.map(corners)).toEqual([0, bends]);
    }
  });

  test("a flow back leaves and enters from above with two bends", () => {
    const { courses } = drawn([node("a"), node("b"), node("c")], [flow("a", "b"), flow("b", "c"), flow("c", "a")]);
    expect(corners(courses[2] as { x: number; y: number }[])).toBe(2);
  });

  test("a step that follows itself goes around its own corner", () => {
    const { network, courses, bands } = drawn([node("a")], [flow("a", "a")]);
    const line = courses[0] as { x: number; y: number }[];
    const middle = bands.y[network.itemOf.get("a") as number] as number;
    expect(line[0]?.y).toBe(middle);
    expect(line[line.length - 1]?.y).toBe(middle - 32);
    expect(corners(line)).toBe(3);
  });
});
