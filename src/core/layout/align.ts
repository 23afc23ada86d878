import type { Item, Network, Piece } from "./network";

/** Space between what is above one another in a layer: shapes further apart than the lines that pass them. */
const nodeGap = 26;
const lineGap = 14;
const besideNode = 18;

export interface Bands {
  /** The middle of each item. */
  readonly y: Float64Array;
  /** Top and bottom of each lane. */
  readonly lanes: readonly { readonly top: number; readonly bottom: number }[];
}

export interface BandOptions {
  readonly laneCount: number;
  readonly padding: number;
  readonly minimum: number;
  readonly onGrid: (value: number) => number;
}

/**
 * Heights: chains of items that follow each other in one lane are put on one line, the main path first, then long flows, then the
 * rest; lines that would cross are not both kept. Each chain then lies as high as those above it allow, and is drawn towards what
 * it leads to and comes from as far as there is room.
 * Method: alignment into blocks and compaction (Brandes, Köpf, "Fast and Simple Horizontal Coordinate Assignment", 2001; from
 * memory), here with one pass by priority, inside lanes. O(pieces²) per pair of layers at the worst.
 */
export function placeInBands(network: Network, options: BandOptions): Bands {
  const block = blocksOf(network);
  const { items, layers } = network;
  const y = new Float64Array(items.length);
  const lanes: { top: number; bottom: number }[] = [];
  const members = new Map<number, Item[]>();
  for (const item of items) {
    const key = block[item.at] as number;
    members.set(key, [...(members.get(key) ?? []), item]);
  }
  const under = new Map<Item, Item>();
  const over = new Map<Item, Item>();
  for (const layer of layers)
    layer.forEach((at, place) => {
      const [item, next] = [items[at] as Item, items[layer[place + 1] ?? -1]];
      if (next && next.lane === item.lane) {
        over.set(next, item);
        under.set(item, next);
      }
    });
  const place = (key: number, value: number) => {
    for (const item of members.get(key) ?? []) y[item.at] = value;
  };
  const order = topDown(members, over, block);
  let top = 0;
  for (let lane = 0; lane < options.laneCount; lane++) {
    const own = order.filter((key) => members.get(key)?.[0]?.lane === lane);
    let bottom = top + options.padding;
    for (const key of own) {
      let least = top + options.padding;
      for (const item of members.get(key) ?? []) {
        const above = over.get(item);
        least = Math.max(
          least,
          above ? (y[above.at] as number) + distance(above, item) : top + options.padding + item.above,
        );
      }
      const value = options.onGrid(least + 1.9);
      place(key, value);
      for (const item of members.get(key) ?? []) bottom = Math.max(bottom, value + item.below);
    }
    const end = options.onGrid(Math.max(top + options.minimum, bottom + options.padding) + 1.9);
    settle({
      network,
      block,
      members,
      own,
      over,
      under,
      y,
      top: top + options.padding,
      bottom: end - options.padding,
      onGrid: options.onGrid,
    });
    lanes.push({ top, bottom: end });
    top = end;
  }
  return { y, lanes };
}

/** How far apart the middles of two neighbours in a layer must be. */
function distance(above: Item, below: Item): number {
  const gap = above.node && below.node ? nodeGap : above.node || below.node ? besideNode : lineGap;
  return above.below + below.above + gap;
}

/** The block of each item, by the number of its first item. */
function blocksOf(network: Network): number[] {
  const { items, layers, pieces, flows } = network;
  const position = new Float64Array(items.length);
  for (const layer of layers)
    layer.forEach((at, place) => {
      position[at] = place;
    });
  const rank = (piece: Piece) => {
    const [left, right] = [items[piece.left] as Item, items[piece.right] as Item];
    if (flows[piece.flow]?.isMain) return 0;
    const inner = Number(left.node === undefined) + Number(right.node === undefined);
    return 3 - inner;
  };
  const candidates = pieces
    .filter(({ left, right, offset }) => offset === 0 && (items[left] as Item).lane === (items[right] as Item).lane)
    .map((piece) => ({
      piece,
      rank: rank(piece),
      bend: Math.abs((position[piece.left] as number) - (position[piece.right] as number)),
    }))
    .sort((a, b) => a.rank - b.rank || a.bend - b.bend || a.piece.flow - b.piece.flow || a.piece.left - b.piece.left);
  const next = new Int32Array(items.length).fill(-1);
  const previous = new Int32Array(items.length).fill(-1);
  const kept: Piece[][] = layers.map(() => []);
  for (const { piece } of candidates) {
    const [low, high] =
      (items[piece.left] as Item).layer < (items[piece.right] as Item).layer
        ? [piece.left, piece.right]
        : [piece.right, piece.left];
    if (next[low] !== -1 || previous[high] !== -1) continue;
    const between = kept[(items[low] as Item).layer] as Piece[];
    const crosses = between.some(
      ({ left, right }) =>
        ((position[left] as number) - (position[low] as number)) *
          ((position[right] as number) - (position[high] as number)) <
        0,
    );
    if (crosses) continue;
    between.push({ ...piece, left: low, right: high });
    next[low] = high;
    previous[high] = low;
  }
  const block = new Array<number>(items.length).fill(-1);
  for (const item of items) {
    if (previous[item.at] !== -1) continue;
    for (let at = item.at; at !== -1; at = next[at] as number) block[at] = item.at;
  }
  return block;
}

/** Blocks from above to below: none before what lies over any of its items. */
function topDown(
  members: ReadonlyMap<number, readonly Item[]>,
  over: ReadonlyMap<Item, Item>,
  block: readonly number[],
): number[] {
  const order: number[] = [];
  const done = new Set<number>();
  for (const start of members.keys()) {
    const stack = [{ key: start, ready: false }];
    while (stack.length > 0) {
      const { key, ready } = stack.pop() as { key: number; ready: boolean };
      if (ready) {
        order.push(key);
        continue;
      }
      if (done.has(key)) continue;
      done.add(key);
      stack.push({ key, ready: true });
      for (const item of members.get(key) ?? []) {
        const above = over.get(item);
        if (above && !done.has(block[above.at] as number)) stack.push({ key: block[above.at] as number, ready: false });
      }
    }
  }
  return order;
}

interface Settling {
  readonly network: Network;
  readonly block: readonly number[];
  readonly members: ReadonlyMap<number, readonly Item[]>;
  readonly own: readonly number[];
  readonly over: ReadonlyMap<Item, Item>;
  readonly under: ReadonlyMap<Item, Item>;
  readonly y: Float64Array;
  readonly top: number;
  readonly bottom: number;
  readonly onGrid: (value: number) => number;
}

/** Moves blocks towards the middle of what they are joined to, where there is room: from below to above, then back. */
function settle({ network, block, members, own, over, under, y, top, bottom, onGrid }: Settling): void {
  const pulls = new Map<number, number[][]>();
  for (const { left, right, offset } of network.pieces) {
    for (const [one, other, shift] of [
      [left, right, -offset],
      [right, left, offset],
    ] as const) {
      const key = block[one] as number;
      if (key === block[other]) continue;
      pulls.set(key, [...(pulls.get(key) ?? []), [other, shift]]);
    }
  }
  for (let round = 0; round < 4; round++) {
    const keys = round % 2 === 0 ? [...own].reverse() : own;
    for (const key of keys) {
      const wanted = (pulls.get(key) ?? [])
        .map(([other, shift]) => (y[other as number] as number) + (shift as number))
        .sort((a, b) => a - b);
      if (wanted.length === 0) continue;
      let low = top;
      let high = bottom;
      for (const item of members.get(key) ?? []) {
        const [above, below] = [over.get(item), under.get(item)];
        low = Math.max(low, above ? (y[above.at] as number) + distance(above, item) : top + item.above);
        high = Math.min(high, below ? (y[below.at] as number) - distance(item, below) : bottom - item.below);
      }
      const now = y[members.get(key)?.[0]?.at as number] as number;
      const aim = wanted[(wanted.length - 1) >> 1] as number;
      // Only downwards: what lies high stays in the row it shares with others, unless it is drawn from below.
      const value = onGrid(Math.min(high, Math.max(low, aim)));
      if (value < low || value > high || value === now) continue;
      for (const item of members.get(key) ?? []) y[item.at] = value;
    }
  }
}
