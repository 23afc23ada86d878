/** A possible pair, by the places of both in their lists, and what it is worth (above 0). */
export interface Candidate {
  readonly row: number;
  readonly column: number;
  readonly weight: number;
}

/**
 * Pairs rows with columns, one to one, so that the weights of the pairs make the greatest possible sum; what is no candidate is not
 * paired. Parts that share no candidate are solved apart.
 * @returns the column of each row that has one
 * O(n³) for the largest part of n rows and columns. Source: H. W. Kuhn, "The Hungarian Method for the Assignment Problem" (1955), as
 * shortest augmenting paths with potentials (J. Edmonds, R. M. Karp, 1972).
 */
export function bestAssignment(candidates: readonly Candidate[]): Map<number, number> {
  const pairs = new Map<number, number>();
  for (const part of partsOf(candidates)) {
    if (part.length === 1) {
      const only = part[0] as Candidate;
      pairs.set(only.row, only.column);
    } else for (const [row, column] of solved(part)) pairs.set(row, column);
  }
  return pairs;
}

/** Candidates that hang together through rows or columns. */
function partsOf(candidates: readonly Candidate[]): Candidate[][] {
  const parent = new Map<string, string>();
  const find = (key: string): string => {
    let at = key;
    while (parent.get(at) !== at) at = parent.get(at) as string;
    for (let up = key; up !== at; ) {
      const next = parent.get(up) as string;
      parent.set(up, at);
      up = next;
    }
    return at;
  };
  for (const { row, column } of candidates) {
    const [a, b] = [`r${row}`, `c${column}`];
    for (const key of [a, b]) if (!parent.has(key)) parent.set(key, key);
    parent.set(find(a), find(b));
  }
  const parts = new Map<string, Candidate[]>();
  for (const candidate of candidates) {
    const key = find(`r${candidate.row}`);
    const part = parts.get(key);
    if (part) part.push(candidate);
    else parts.set(key, [candidate]);
  }
  return [...parts.values()];
}

function* solved(part: readonly Candidate[]): Generator<[number, number]> {
  const rows = [...new Set(part.map(({ row }) => row))].sort((a, b) => a - b);
  const columns = [...new Set(part.map(({ column }) => column))].sort((a, b) => a - b);
  const isTurned = rows.length > columns.length;
  const [long, wide] = isTurned ? [columns, rows] : [rows, columns];
  const placeLong = new Map(long.map((value, at) => [value, at]));
  const placeWide = new Map(wide.map((value, at) => [value, at]));
  // What is no candidate is worth nothing, so that nobody is forced into a pair.
  const worth = new Float64Array(long.length * wide.length);
  for (const { row, column, weight } of part) {
    const at = placeLong.get(isTurned ? column : row) as number;
    worth[at * wide.length + (placeWide.get(isTurned ? row : column) as number)] = weight;
  }
  const taken = assigned(worth, long.length, wide.length);
  for (let at = 0; at < long.length; at++) {
    const other = taken[at] as number;
    if ((worth[at * wide.length + other] as number) <= 0) continue;
    const [a, b] = [long[at] as number, wide[other] as number];
    yield isTurned ? [b, a] : [a, b];
  }
}

/** The wide place given to each long place; there are at least as many wide ones. */
function assigned(worth: Float64Array, long: number, wide: number): Int32Array {
  // Places are counted from 1; 0 stands for "none yet".
  const ofLong = new Float64Array(long + 1);
  const ofWide = new Float64Array(wide + 1);
  const holder = new Int32Array(wide + 1);
  const cameFrom = new Int32Array(wide + 1);
  for (let start = 1; start <= long; start++) {
    holder[0] = start;
    let here = 0;
    const least = new Float64Array(wide + 1).fill(Number.POSITIVE_INFINITY);
    const used = new Uint8Array(wide + 1);
    do {
      used[here] = 1;
      const row = holder[here] as number;
      let step = Number.POSITIVE_INFINITY;
      let next = 0;
      for (let column = 1; column <= wide; column++) {
        if (used[column]) continue;
        const cost =
          -(worth[(row - 1) * wide + column - 1] as number) - (ofLong[row] as number) - (ofWide[column] as number);
        if (cost < (least[column] as number)) {
          least[column] = cost;
          cameFrom[column] = here;
        }
        if ((least[column] as number) < step) {
          step = least[column] as number;
          next = column;
        }
      }
      for (let column = 0; column <= wide; column++) {
        if (used[column]) {
          ofLong[holder[column] as number] = (ofLong[holder[column] as number] as number) + step;
          ofWide[column] = (ofWide[column] as number) - step;
        } else least[column] = (least[column] as number) - step;
      }
      here = next;
    } while (holder[here] !== 0);
    while (here !== 0) {
      const before = cameFrom[here] as number;
      holder[here] = holder[before] as number;
      here = before;
    }
  }
  const taken = new Int32Array(long);
  for (let column = 1; column <= wide; column++)
    if ((holder[column] as number) > 0) taken[(holder[column] as number) - 1] = column - 1;
  return taken;
}
