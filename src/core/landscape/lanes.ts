import type { Bounds, Point } from "../model";

/** A lane of the map: an area, with what is drawn in it, in its order. */
export interface MapLane {
  readonly id: string;
  /** How deep it lies inside other areas; a lane's parts follow it. */
  readonly level: number;
  /** Cards, by their keys, each once on the whole map. */
  readonly cards: readonly string[];
  /** How high it is at least: room for what stands in it besides cards. */
  readonly least: number;
}

/** What leads from a card to another one. */
export interface MapLine {
  readonly from: string;
  readonly to: string;
}

export interface MapSizes {
  readonly width: number;
  readonly card: { readonly width: number; readonly height: number };
  /** The band on which a lane's name stands. */
  readonly band: number;
}

export interface PlacedMap {
  /** A lane with all it holds, and its own part, in which its cards stand. */
  readonly lanes: ReadonlyMap<string, { readonly whole: Bounds; readonly own: Bounds }>;
  readonly cards: ReadonlyMap<string, Bounds>;
  /** By the place of the line among those given; none where an end is not drawn. */
  readonly lines: readonly (readonly Point[] | undefined)[];
  readonly height: number;
}

const gap = 44;
const leastChannel = 22;
const track = 10;
const edge = 20;

interface Slot {
  readonly row: number;
  readonly column: number;
}

/** A piece of a line that lies in a channel, from one place to another along it. */
interface Run {
  readonly line: number;
  readonly from: number;
  readonly to: number;
}

/**
 * Places the cards of each lane in columns that stand under each other through all lanes, and leads lines through the channels between
 * rows and columns, each on a track of its own, so that no line runs through a card or along another. Channels are as high as their
 * tracks need (channel routing: the left-edge algorithm of Hashimoto and Stevens, DAC 1971, without vertical constraints).
 * O(cards + lines × log lines + lines²) in the worst channel.
 */
export function placeMap(lanes: readonly MapLane[], lines: readonly MapLine[], sizes: MapSizes): PlacedMap {
  const { width, card, band } = sizes;
  const deepest = Math.max(0, ...lanes.map(({ level }) => level));
  const left = band * (deepest + 1);
  const columns = Math.max(1, Math.floor((width - left - gap) / (card.width + gap)));
  const columnX = (column: number) => left + gap + column * (card.width + gap);
  const slots = new Map<string, Slot>();
  const rowsOf: { readonly first: number; readonly count: number }[] = [];
  let rows = 0;
  for (const { cards } of lanes) {
    const count = Math.ceil(cards.length / columns);
    for (const [at, key] of cards.entries())
      slots.set(key, { row: rows + Math.floor(at / columns), column: at % columns });
    rowsOf.push({ first: rows, count });
    rows += count;
  }
  const ways = lines.map(({ from, to }) => wayOf(slots.get(from), slots.get(to)));
  const ports = portsOf(lines, ways, slots, columnX, card.width);
  // The channel of a row lies above it; the one below the last row of all is one more.
  const across: Run[][] = Array.from({ length: rows + 1 }, () => []);
  const along: Run[][] = Array.from({ length: columns + 1 }, () => []);
  const gutterX = (gutter: number) => columnX(gutter) - gap / 2;
  for (const [line, way] of ways.entries()) {
    if (!way || way.kind === "straight") continue;
    const { start, end } = ports[line] as Ports;
    if (way.gutter === undefined) across[way.first]?.push({ line, from: start, to: end });
    else {
      across[way.first]?.push({ line, from: start, to: gutterX(way.gutter) });
      across[way.last]?.push({ line, from: gutterX(way.gutter), to: end });
      along[way.gutter]?.push({ line, from: way.first, to: way.last });
    }
  }
  const acrossTracks = across.map((runs) => tracksOf(runs, 12));
  const alongTracks = along.map((runs) => tracksOf(runs, 0.5));
  const channelHeight = (row: number) => Math.max(leastChannel, ((acrossTracks[row]?.count ?? 0) + 1) * track);
  const placed = new Map<string, { whole: Bounds; own: Bounds }>();
  const rowY: number[] = [];
  const channelY: number[] = [];
  let y = 0;
  for (const [at, lane] of lanes.entries()) {
    const top = y;
    const { first, count } = rowsOf[at] as { first: number; count: number };
    for (let row = first; row < first + count; row++) {
      channelY[row] = y;
      rowY[row] = y + channelHeight(row);
      y = (rowY[row] as number) + card.height;
    }
    y = Math.max(count > 0 ? y + edge : y, top + lane.least);
    if (first + count === rows && count > 0) {
      channelY[rows] = (rowY[rows - 1] as number) + card.height;
      y = Math.max(y, (channelY[rows] as number) + channelHeight(rows));
    }
    const x = band * lane.level;
    const own = { x: left, y: top, width: width - left, height: y - top };
    placed.set(lane.id, { whole: { x, y: top, width: width - x, height: y - top }, own });
  }
  // A lane reaches down to the end of its last part.
  for (const [at, lane] of lanes.entries()) {
    let last = at;
    while ((lanes[last + 1]?.level ?? -1) > lane.level) last++;
    const [one, end] = [placed.get(lane.id), placed.get(lanes[last]?.id ?? "")];
    if (one && end && last > at)
      placed.set(lane.id, { ...one, whole: { ...one.whole, height: end.own.y + end.own.height - one.whole.y } });
  }
  const cards = new Map<string, Bounds>();
  for (const [key, { row, column }] of slots) cards.set(key, { x: columnX(column), y: rowY[row] as number, ...card });
  const drawn = ways.map((way, line): readonly Point[] | undefined => {
    const [from, to] = [cards.get(lines[line]?.from ?? ""), cards.get(lines[line]?.to ?? "")];
    if (!way || !from || !to) return undefined;
    const { start, end } = ports[line] as Ports;
    if (way.kind === "straight") {
      const goesRight = to.x > from.x;
      return [
        { x: goesRight ? from.x + from.width : from.x, y: from.y + start },
        { x: goesRight ? to.x : to.x + to.width, y: from.y + start },
      ];
    }
    const trackY = (row: number) => {
      const tracks = acrossTracks[row];
      const place = tracks?.of.get(line) ?? 0;
      return (channelY[row] as number) + (channelHeight(row) * (place + 1)) / ((tracks?.count ?? 0) + 1);
    };
    const startY = way.first > (slots.get(lines[line]?.from ?? "")?.row ?? 0) ? from.y + from.height : from.y;
    const endY = way.last > (slots.get(lines[line]?.to ?? "")?.row ?? 0) ? to.y + to.height : to.y;
    const points: Point[] = [
      { x: start, y: startY },
      { x: start, y: trackY(way.first) },
    ];
    if (way.gutter !== undefined) {
      const tracks = alongTracks[way.gutter];
      const place = tracks?.of.get(line) ?? 0;
      const x = gutterX(way.gutter) - gap / 2 + (gap * (place + 1)) / ((tracks?.count ?? 0) + 1);
      points.push({ x, y: trackY(way.first) }, { x, y: trackY(way.last) });
    }
    points.push({ x: end, y: trackY(way.last) }, { x: end, y: endY });
    return points;
  });
  return { lanes: placed, cards, lines: drawn, height: y };
}

/** The channels a line goes through: of rows, by the row they lie above; of columns, by the column they lie left of. */
type Way =
  | { readonly kind: "straight" }
  | { readonly kind: "channels"; readonly first: number; readonly last: number; readonly gutter?: number };

function wayOf(from: Slot | undefined, to: Slot | undefined): Way | undefined {
  if (!from || !to) return undefined;
  if (from.row === to.row && Math.abs(from.column - to.column) === 1) return { kind: "straight" };
  if (from.row === to.row) return { kind: "channels", first: from.row + 1, last: from.row + 1 };
  const isDown = to.row > from.row;
  const [first, last] = isDown ? [from.row + 1, to.row] : [from.row, to.row + 1];
  if (first === last) return { kind: "channels", first, last };
  // On the side of the target's column from which the line comes.
  return { kind: "channels", first, last, gutter: from.column > to.column ? to.column + 1 : to.column };
}

interface Ports {
  /** Where it leaves and where it arrives: x at the edge of a card, or y from its top where it goes straight across. */
  readonly start: number;
  readonly end: number;
}

/** Spreads the ends of lines over the edges of their cards, in the order of where they go, so that they do not cross at once. */
function portsOf(
  lines: readonly MapLine[],
  ways: readonly (Way | undefined)[],
  slots: ReadonlyMap<string, Slot>,
  columnX: (column: number) => number,
  cardWidth: number,
): Ports[] {
  const sides = new Map<string, { line: number; isStart: boolean; toward: number }[]>();
  const straight = new Map<string, number>();
  const ports: { start: number; end: number }[] = lines.map(() => ({ start: 0, end: 0 }));
  for (const [line, way] of ways.entries()) {
    const { from, to } = lines[line] as MapLine;
    const [a, b] = [slots.get(from), slots.get(to)];
    if (!way || !a || !b) continue;
    if (way.kind === "straight") {
      const key = [from, to].sort().join(" ");
      const already = straight.get(key) ?? 0;
      straight.set(key, already + 1);
      ports[line] = { start: 36 + already * 14, end: 36 + already * 14 };
      continue;
    }
    const end = (key: string, own: Slot, other: Slot, channel: number, isStart: boolean) => {
      const side = `${key} ${channel > own.row ? "below" : "above"}`;
      sides.set(side, [...(sides.get(side) ?? []), { line, isStart, toward: other.column - own.column }]);
    };
    end(from, a, b, way.first, true);
    end(to, b, a, way.last, false);
  }
  for (const [side, ends] of sides) {
    const at = side.lastIndexOf(" ");
    const slot = slots.get(side.slice(0, at));
    if (!slot) continue;
    // What stands over each other in two rows leaves and arrives beside each other.
    const shift = side.slice(at + 1) === "below" ? 5 : -5;
    for (const [place, { line, isStart }] of ends.sort((one, other) => one.toward - other.toward).entries()) {
      const x = columnX(slot.column) + (cardWidth * (place + 1)) / (ends.length + 1) + shift;
      (ports[line] as { start: number; end: number })[isStart ? "start" : "end"] = x;
    }
  }
  return ports;
}

/** Puts runs on as few tracks as they need to keep this far apart: each in turn, from the left, on the first track that is free. */
function tracksOf(
  runs: readonly Run[],
  apart: number,
): { readonly of: ReadonlyMap<number, number>; readonly count: number } {
  const ends: number[] = [];
  const of = new Map<number, number>();
  const sorted = runs
    .map(({ line, from, to }) => ({ line, from: Math.min(from, to), to: Math.max(from, to) }))
    .sort((one, other) => one.from - other.from || one.to - other.to);
  for (const { line, from, to } of sorted) {
    const free = ends.findIndex((end) => end + apart <= from);
    const place = free < 0 ? ends.length : free;
    ends[place] = to;
    of.set(line, place);
  }
  return { of, count: ends.length };
}
