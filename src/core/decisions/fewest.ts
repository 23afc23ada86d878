import { type Box, leftBy, type Pieces, piecesIn, TooMuch } from "./sweep";

/** So many single cells a region may have to be searched through for the least. */
const mostCells = 24;
const mostTries = 30_000;
/** Of more boxes than this nobody looks whether two are one: they say nothing to a person. */
const mostJoined = 300;

/**
 * What some boxes leave, in as few boxes as are found, none of which meet.
 * Inputs are gone through in several orders, each of which cuts the rest in another way; boxes that differ in one input only are joined;
 * where the region is small, all ways are tried.
 * @returns whether fewer are not possible
 */
export function fewestBoxes(
  boxes: readonly Pieces[],
  within: Pieces,
  budget: { left: number },
): { readonly boxes: readonly Box[]; readonly isFewest: boolean } {
  let best = joinedBoxes(leftBy(boxes, within, budget));
  for (const order of ordersOf(within.length)) {
    if (best.length <= 1) break;
    try {
      const found = joinedBoxes(leftBy(boxes, within, budget, order));
      if (found.length < best.length) best = found;
    } catch (error) {
      if (!(error instanceof TooMuch)) throw error;
      break;
    }
  }
  if (best.length <= 1) return { boxes: best, isFewest: true };
  const searched = searchedThrough(best);
  return { boxes: searched?.boxes ?? best, isFewest: searched?.isFewest ?? false };
}

/** All orders of a few inputs, else each input once at the front. */
function ordersOf(count: number): number[][] {
  const columns = Array.from({ length: count }, (_, at) => at);
  if (count > 4) return columns.map((first) => [first, ...columns.filter((one) => one !== first)]);
  const orders = (left: readonly number[]): number[][] =>
    left.length === 0
      ? [[]]
      : left.flatMap((first) => orders(left.filter((one) => one !== first)).map((rest) => [first, ...rest]));
  return orders(columns);
}

/** Boxes that are the same in all inputs but one, as one, until there are no such. O(boxes² × inputs) a round. */
export function joinedBoxes(boxes: readonly Box[]): Box[] {
  const left = [...boxes];
  if (left.length > mostJoined) return left;
  for (let at = 0; at < left.length; at++)
    for (let other = left.length - 1; other > at; other--) {
      const [one, two] = [left[at] as Box, left[other] as Box];
      const differing = one.flatMap((mask, column) => (mask === two[column] ? [] : [column]));
      if (differing.length > 1) continue;
      const column = differing[0] ?? 0;
      left[at] = one.map((mask, place) => (place === column ? mask | (two[place] as bigint) : mask));
      left.splice(other, 1);
      at = -1;
      break;
    }
  return left;
}

/** Tries all ways to cut a small region, the first cell not yet taken first. */
function searchedThrough(
  boxes: readonly Box[],
): { readonly boxes: readonly Box[]; readonly isFewest: boolean } | undefined {
  // Counted before they are made: a box of many inputs has more cells than there is room for.
  const count = boxes.reduce((sum, box) => sum + box.reduce((cells, mask) => cells * piecesIn(mask).length, 1), 0);
  if (count > mostCells) return undefined;
  const cells = boxes.flatMap(cellsOf);
  const places = new Map(cells.map((cell, at) => [cell.join(" "), at]));
  const whole = (1 << cells.length) - 1;
  let [best, tries, isWhole] = [boxes as readonly Box[], 0, true];
  const search = (taken: number, chosen: readonly Box[]) => {
    if (taken === whole) {
      best = chosen;
      return;
    }
    if (chosen.length + 1 >= best.length) return;
    const first = cells.findIndex((_, at) => (taken & (1 << at)) === 0);
    for (const [box, mask] of boxesFrom(cells[first] as readonly number[], cells, places, taken)) {
      if (++tries > mostTries) {
        isWhole = false;
        return;
      }
      search(taken | mask, [...chosen, box]);
    }
  };
  search(0, []);
  return { boxes: best, isFewest: isWhole };
}

function cellsOf(box: Box): number[][] {
  return box.reduce<number[][]>(
    (cells, mask) => cells.flatMap((cell) => piecesIn(mask).map((piece) => [...cell, piece])),
    [[]],
  );
}

/** The boxes that hold a cell and otherwise only cells that are free, the largest first. */
function boxesFrom(
  cell: readonly number[],
  cells: readonly (readonly number[])[],
  places: ReadonlyMap<string, number>,
  taken: number,
): (readonly [Box, number])[] {
  const own: Box = cell.map((piece) => 1n << BigInt(piece));
  const found = new Map<string, readonly [Box, number]>();
  const open: Box[] = [own];
  for (const box of open) {
    const key = box.join(" ");
    if (found.has(key) || found.size > 3_000) continue;
    let mask = 0;
    const isFree = cellsOf(box).every((one) => {
      const at = places.get(one.join(" "));
      if (at === undefined || (taken & (1 << at)) !== 0) return false;
      mask |= 1 << at;
      return true;
    });
    if (!isFree) continue;
    found.set(key, [box, mask]);
    for (const column of cell.keys())
      for (const piece of new Set(cells.map((one) => one[column] as number))) {
        const bit = 1n << BigInt(piece);
        if (((box[column] as bigint) & bit) === 0n)
          open.push(box.map((pieces, at) => (at === column ? pieces | bit : pieces)));
      }
  }
  const size = (mask: number) => mask.toString(2).replaceAll("0", "").length;
  return [...found.values()].sort((a, b) => size(b[1]) - size(a[1]));
}
