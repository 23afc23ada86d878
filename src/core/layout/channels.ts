/** A connection through the space between two layers: the heights it comes from on the left and goes to on the right. */
export interface Net {
  readonly lefts: readonly number[];
  readonly rights: readonly number[];
}

const touching = 7;

/**
 * Tracks for the upright pieces of nets in the space between two layers, from left to right, so that few lines cross and none lie
 * on each other. Nets that come from or go to one height only need none and are left out by the caller.
 * Method: the order of segments by what their exchange costs (after the routing of Sander, "Layout of Directed Hypergraphs with
 * Orthogonal Hyperedges", 2003; from memory), then the leftmost track free. O(nets²) per round, a few rounds.
 * @returns the track of each net, from 0
 */
export function tracksOf(nets: readonly Net[]): number[] {
  const order = nets.map((_, at) => at);
  const spans = nets.map((net) => {
    const all = [...net.lefts, ...net.rights];
    return { low: Math.min(...all), high: Math.max(...all) };
  });
  const cost = (a: number, b: number): number => {
    const [left, right] = [nets[a] as Net, nets[b] as Net];
    const [spanLeft, spanRight] = [spans[a] as Span, spans[b] as Span];
    let sum = 0;
    for (const y of right.lefts) if (spanLeft.low < y && y < spanLeft.high) sum++;
    for (const y of left.rights) if (spanRight.low < y && y < spanRight.high) sum++;
    // What goes out at the height at which another comes in must turn off behind it, or the two would lie on each other.
    for (const y of left.rights) for (const other of right.lefts) if (Math.abs(y - other) < touching) sum += 100;
    return sum;
  };
  order.sort((a, b) => cost(a, b) - cost(b, a) || (spans[a] as Span).low - (spans[b] as Span).low || a - b);
  for (let round = 0; round < order.length; round++) {
    let changed = false;
    for (let at = 0; at + 1 < order.length; at++) {
      const [a, b] = [order[at] as number, order[at + 1] as number];
      if (cost(a, b) <= cost(b, a)) continue;
      order[at] = b;
      order[at + 1] = a;
      changed = true;
    }
    if (!changed) break;
  }
  const tracks = new Array<number>(nets.length).fill(0);
  order.forEach((net, at) => {
    let track = 0;
    for (const earlier of order.slice(0, at)) {
      const [a, b] = [spans[earlier] as Span, spans[net] as Span];
      const near = a.low < b.high + touching && b.low < a.high + touching;
      if (near || cost(earlier, net) !== cost(net, earlier)) track = Math.max(track, (tracks[earlier] as number) + 1);
    }
    tracks[net] = track;
  });
  return tracks;
}

interface Span {
  readonly low: number;
  readonly high: number;
}
