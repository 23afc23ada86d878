import type { Bands } from "./align";
import { type Net, tracksOf } from "./channels";
import type { Item, LayoutNode, Network, Piece } from "./network";

const trackGap = 12;
const beforeTracks = 14;
const behindTracks = 20;
const leastChannel = 36;
const clear = 10;

/** How a flow leaves or enters a shape where it does not do so in the middle of the right or left side. */
export interface Turn {
  /** The height at which the flow runs beside the shape's column. */
  readonly y: number;
}

export interface Columns {
  /** The middle of each layer. */
  readonly centres: readonly number[];
  readonly width: number;
  /** Flows that leave their source, or enter their target, by an upright piece in its column. */
  readonly leaves: ReadonlyMap<number, Turn>;
  readonly enters: ReadonlyMap<number, Turn>;
  /** Where a piece runs up or down between two layers, by flow and layer on its left. */
  readonly uprights: ReadonlyMap<string, number>;
}

export const uprightKey = (flow: number, leftLayer: number) => `${flow}/${leftLayer}`;

export interface ColumnOptions {
  readonly padding: number;
  readonly onGrid: (value: number) => number;
}

/**
 * Columns and the spaces between them. Splits and joins are left and entered at their corners where the way is free, which spares
 * a bend; all other upright pieces get tracks between the columns. A space is as wide as its tracks and labels need.
 */
export function placeColumns(network: Network, bands: Bands, options: ColumnOptions): Columns {
  const { layers, items, pieces, flows, courses, isBack } = network;
  const { leaves, enters } = new CornerTurns(network, bands).find();
  const nets = layers.map((): Map<string, MutableNet> => new Map());
  nets.push(new Map());
  const labels = new Array<number>(layers.length + 1).fill(0);
  const bent = new Array<number>(layers.length + 1).fill(0);
  const grouped = grouping(network, bands, leaves, enters);
  for (const piece of pieces) {
    const channel = (items[piece.left] as Item).layer + 1;
    const { left, right } = heights(piece, bands, leaves, enters, network);
    const own = (items[piece.left] as Item).node && !isBack[piece.flow];
    const label = own ? flows[piece.flow]?.label : undefined;
    if (label) {
      const room = label.width + 12;
      if (left === right) labels[channel] = Math.max(labels[channel] as number, room);
      else bent[channel] = Math.max(bent[channel] as number, room);
    }
    if (left === right) continue;
    join(
      nets[channel] as Map<string, MutableNet>,
      grouped.get(piece) ?? uprightKey(piece.flow, channel - 1),
      piece.flow,
      [left],
      [right],
    );
  }
  // A flow back whose shape is shut above and below leaves on the right and comes in on the left.
  flows.forEach((_, index) => {
    if (!isBack[index]) return;
    const course = courses[index] as number[];
    const [from, first] = [items[course[0] as number] as Item, items[course[1] as number] as Item];
    const [last, to] = [
      items[course[course.length - 2] as number] as Item,
      items[course[course.length - 1] as number] as Item,
    ];
    const y = (item: Item) => bands.y[item.at] as number;
    if (leavesOnRight(network, index))
      join(nets[from.layer + 1] as Map<string, MutableNet>, `right:${index}`, index, [y(from), y(first)], []);
    if (isShut(to.node as LayoutNode, last.side))
      join(nets[to.layer] as Map<string, MutableNet>, `left:${index}`, index, [], [y(last), y(to)]);
  });

  const centres: number[] = [];
  const uprights = new Map<string, number>();
  let x = options.padding;
  for (let channel = 0; channel <= layers.length; channel++) {
    const members = [...(nets[channel] ?? new Map<string, MutableNet>()).values()];
    const tracks = tracksOf(members);
    const count = tracks.length === 0 ? 0 : Math.max(...tracks) + 1;
    const isInner = channel > 0 && channel < layers.length;
    const before = Math.max(beforeTracks, bent[channel] as number);
    const needed = count === 0 ? 0 : before + (count - 1) * trackGap + behindTracks;
    const width = options.onGrid(Math.max(isInner ? leastChannel : 0, labels[channel] as number, needed) + 1.9);
    members.forEach((net, at) => {
      const back = behindTracks + (count - 1 - (tracks[at] as number)) * trackGap;
      for (const flow of net.flows) uprights.set(uprightKey(flow, channel - 1), x + width - back);
    });
    x += width;
    if (channel === layers.length) break;
    const column = Math.max(0, ...(layers[channel] ?? []).map((at) => items[at]?.node?.columnWidth ?? 0));
    const centre = options.onGrid(x + column / 2);
    centres.push(centre);
    x = Math.max(x + column, centre + column / 2);
  }
  return { centres, width: options.onGrid(x + options.padding + 12), leaves, enters, uprights };
}

interface MutableNet extends Net {
  readonly lefts: number[];
  readonly rights: number[];
  readonly flows: number[];
}

function join(
  nets: Map<string, MutableNet>,
  key: string,
  flow: number,
  lefts: readonly number[],
  rights: readonly number[],
): void {
  const net = nets.get(key) ?? { lefts: [], rights: [], flows: [] };
  for (const y of lefts) if (!net.lefts.includes(y)) net.lefts.push(y);
  for (const y of rights) if (!net.rights.includes(y)) net.rights.push(y);
  net.flows.push(flow);
  nets.set(key, net);
}

/** The heights between which a piece runs in the space between its layers. */
function heights(
  piece: Piece,
  { y }: Bands,
  leaves: ReadonlyMap<number, Turn>,
  enters: ReadonlyMap<number, Turn>,
  { items, isBack }: Network,
): { left: number; right: number } {
  const isFirst = (items[piece.left] as Item).node !== undefined && !isBack[piece.flow];
  const isLast = (items[piece.right] as Item).node !== undefined && !isBack[piece.flow];
  const left = (isFirst ? leaves.get(piece.flow)?.y : undefined) ?? (y[piece.left] as number) + piece.offset;
  const right = (isLast ? enters.get(piece.flow)?.y : undefined) ?? (y[piece.right] as number);
  return { left, right };
}

/** Ways out of one shape go up and down together, and so do ways into one, as long as it stays plain which leads where. */
function grouping(
  network: Network,
  bands: Bands,
  leaves: ReadonlyMap<number, Turn>,
  enters: ReadonlyMap<number, Turn>,
): Map<Piece, string> {
  const { pieces, items } = network;
  const bent = pieces.filter((piece) => {
    const { left, right } = heights(piece, bands, leaves, enters, network);
    return left !== right;
  });
  const count = new Map<string, number>();
  const source = (piece: Piece) =>
    (items[piece.left] as Item).node && !leaves.has(piece.flow) ? `from:${piece.left}/${piece.offset}` : undefined;
  const target = (piece: Piece) =>
    (items[piece.right] as Item).node && !enters.has(piece.flow) ? `to:${piece.right}` : undefined;
  for (const piece of bent)
    for (const key of [source(piece), target(piece)]) if (key) count.set(key, (count.get(key) ?? 0) + 1);
  const several = (key: string | undefined) => key !== undefined && (count.get(key) ?? 0) > 1;
  const found = new Map<Piece, string>();
  for (const piece of bent) {
    const [from, to] = [source(piece), target(piece)];
    if (several(from) && !several(to)) found.set(piece, from as string);
    else if (several(to) && !several(from)) found.set(piece, to as string);
  }
  return found;
}

export const isShut = (node: LayoutNode, side: "above" | "below" | undefined): boolean =>
  side === "above" ? !node.topFree : !node.bottomFree;

/** Whether a flow back leaves on the right: a step that follows itself, or one with something in the way. */
export function leavesOnRight({ flows, items, courses }: Network, flow: number): boolean {
  const course = courses[flow] as number[];
  const [from, first] = [items[course[0] as number] as Item, items[course[1] as number] as Item];
  if (flows[flow]?.exit) return false;
  return flows[flow]?.from === flows[flow]?.to || isShut(from.node as LayoutNode, first.side);
}

/** Finds the flows that may turn at the corner of a split, a join or an event, in the column of that shape. */
class CornerTurns {
  readonly #leaves = new Map<number, Turn>();
  readonly #enters = new Map<number, Turn>();
  /** What a side is used for, so that ways in and ways out do not mix. */
  readonly #sides = new Map<string, "in" | "out">();
  /** Upright pieces in each column, with the shape they belong to. */
  readonly #taken: { item: number; low: number; high: number; x: number }[][];

  constructor(
    readonly network: Network,
    readonly bands: Bands,
  ) {
    this.#taken = network.layers.map(() => []);
  }

  find(): { leaves: Map<number, Turn>; enters: Map<number, Turn> } {
    this.#noteBackFlows();
    const { pieces, items, flows, isBack } = this.network;
    const { y } = this.bands;
    for (const piece of pieces) {
      if (isBack[piece.flow]) continue;
      const source = items[piece.left] as Item;
      if (!source.node) continue;
      const height = y[piece.right] as number;
      const exit = flows[piece.flow]?.exit;
      if (exit) this.#leaveEvent(piece, source, height, exit);
      else if (source.node.isRound && height !== y[source.at]) this.#turn(piece.flow, source, height, "out");
    }
    for (const piece of pieces) {
      if (isBack[piece.flow] || (this.#leaves.has(piece.flow) && (items[piece.left] as Item).node)) continue;
      const target = items[piece.right] as Item;
      if (!target.node?.isRound) continue;
      const height = (y[piece.left] as number) + piece.offset;
      if (height !== y[target.at]) this.#turn(piece.flow, target, height, "in");
    }
    return { leaves: this.#leaves, enters: this.#enters };
  }

  #noteBackFlows(): void {
    const { courses, isBack, items } = this.network;
    const { y } = this.bands;
    courses.forEach((course, flow) => {
      if (!isBack[flow]) return;
      for (const [shape, place, use] of [
        [course[0], course[1], "out"],
        [course[course.length - 1], course[course.length - 2], "in"],
      ] as const) {
        const item = items[shape as number] as Item;
        const side = (y[place as number] as number) < (y[item.at] as number) ? "above" : "below";
        this.#sides.set(`${item.at}/${side}`, use);
        this.#take(item, y[item.at] as number, y[place as number] as number, 0);
      }
    });
  }

  #turn(flow: number, item: Item, height: number, use: "in" | "out"): void {
    const own = this.bands.y[item.at] as number;
    const side = `${item.at}/${height < own ? "above" : "below"}`;
    const node = item.node as LayoutNode;
    if (isShut(node, height < own ? "above" : "below")) return;
    if ((this.#sides.get(side) ?? use) !== use) return;
    if (Math.abs(height - own) < node.height / 2 + clear || !this.#isFree(item, own, height, 0)) return;
    this.#sides.set(side, use);
    this.#take(item, own, height, 0);
    (use === "out" ? this.#leaves : this.#enters).set(flow, { y: height });
  }

  #leaveEvent(piece: Piece, source: Item, height: number, exit: { x: number; y: number; bottom: number }): void {
    const from = (this.bands.y[source.at] as number) + exit.bottom;
    if (height < from + 6 || !this.#isFree(source, from, height, exit.x)) return;
    this.#take(source, from, height, exit.x);
    this.#leaves.set(piece.flow, { y: height });
  }

  #take(item: Item, from: number, to: number, x: number): void {
    this.#taken[item.layer]?.push({ item: item.at, low: Math.min(from, to), high: Math.max(from, to), x });
  }

  /** Whether nothing of the column lies between a shape and a height, and no other upright piece. */
  #isFree(item: Item, from: number, to: number, x: number): boolean {
    const low = Math.min(from, to) - (to < from ? clear : 0);
    const high = Math.max(from, to) + (to > from ? clear : 0);
    for (const at of this.network.layers[item.layer] ?? []) {
      if (at === item.at) continue;
      const other = this.network.items[at] as Item;
      const middle = this.bands.y[at] as number;
      if (middle - other.above < high && low < middle + other.below) return false;
    }
    return !(this.#taken[item.layer] ?? []).some(
      (taken) => taken.low < high && low < taken.high && (taken.item !== item.at || taken.x !== x),
    );
  }
}
