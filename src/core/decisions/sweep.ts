/** By input: the pieces, as bits of a number. */
export type Box = readonly bigint[];
/** By input: the pieces. */
export type Pieces = readonly ReadonlySet<number>[];

/** So many boxes are told; more say nothing to a person. */
const mostBoxes = 20_000;
/** A search that would take for ever. */
export class TooMuch extends Error {}

export const maskOf = (pieces: Iterable<number>): bigint =>
  [...pieces].reduce((mask, piece) => mask | (1n << BigInt(piece)), 0n);
export function piecesIn(mask: bigint): number[] {
  const pieces: number[] = [];
  for (let [left, at] = [mask, 0]; left > 0n; left >>= 1n, at++) if (left & 1n) pieces.push(at);
  return pieces;
}

/**
 * The parts of a box that others leave; parts that differ in one input only are one. Sets of boxes, and of pieces, are bits of a number:
 * most of the work is to cut such sets with each other.
 * @param order the inputs in the order they are gone through; what tells cases apart early leaves little to look at later
 * @throws TooMuch where the budget is met
 */
export function leftBy(
  boxes: readonly Pieces[],
  within: Pieces,
  budget: { left: number },
  order: readonly number[] = usualOrder(boxes, within),
): Box[] {
  const pieces = order.map((column) => [...(within[column] as ReadonlySet<number>)]);
  /** By input, in that order, and piece: the boxes that take it. */
  const taking = order.map((column, at) => {
    const found = new Map<number, bigint>();
    for (const piece of pieces[at] ?? []) {
      let mask = 0n;
      for (const [one, box] of boxes.entries()) if (box[column]?.has(piece)) mask |= 1n << BigInt(one);
      found.set(piece, mask);
    }
    return found;
  });
  const all = (1n << BigInt(boxes.length)) - 1n;
  /** From an input on: the boxes that take all that is left, and so leave nothing. */
  const full: bigint[] = [all];
  for (let at = order.length - 1; at >= 0; at--)
    full.unshift((pieces[at] ?? []).reduce((kept, piece) => kept & (taking[at]?.get(piece) ?? 0n), full[0] as bigint));
  const known = order.map(() => new Map<bigint, readonly Box[]>());
  const whole = pieces.map(maskOf);
  const left = (at: number, active: bigint): readonly Box[] => {
    if (--budget.left < 0) throw new TooMuch();
    if (active === 0n) return [whole.slice(at)];
    if ((active & (full[at] as bigint)) !== 0n) return [];
    const before = known[at]?.get(active);
    if (before) return before;
    const groups = new Map<bigint, bigint>();
    for (const piece of pieces[at] ?? []) {
      const next = active & (taking[at]?.get(piece) ?? 0n);
      groups.set(next, (groups.get(next) ?? 0n) | (1n << BigInt(piece)));
    }
    const merged = new Map<string, { mask: bigint; readonly rest: Box }>();
    for (const [next, mask] of groups)
      for (const rest of left(at + 1, next)) {
        const name = rest.join(" ");
        const same = merged.get(name);
        if (same) same.mask |= mask;
        else merged.set(name, { mask, rest });
      }
    const found = [...merged.values()].map(({ mask, rest }): Box => [mask, ...rest]);
    if (found.length > mostBoxes) throw new TooMuch();
    known[at]?.set(active, found);
    return found;
  };
  return left(0, all).map((box) => within.map((_, column) => box[order.indexOf(column)] as bigint));
}

/** Inputs that few boxes leave open go first. */
function usualOrder(boxes: readonly Pieces[], within: Pieces): number[] {
  const openIn = (column: number) => {
    const all = [...(within[column] as ReadonlySet<number>)];
    return boxes.filter((box) => all.every((piece) => box[column]?.has(piece))).length;
  };
  const open = within.map((_, column) => openIn(column));
  return within.map((_, column) => column).sort((a, b) => (open[a] as number) - (open[b] as number));
}
