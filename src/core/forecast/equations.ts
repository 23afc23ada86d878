/** Adds to one number of a matrix; rows that are not there are left out. */
export const add = (matrix: readonly Float64Array[], row: number, column: number, value: number): void => {
  const line = matrix[row];
  if (line) line[column] = (line[column] as number) + value;
};

/** Gauss' elimination with the largest pivot; undefined where the equations have no one answer. */
export function solved(matrix: readonly Float64Array[]): Float64Array | undefined {
  const size = matrix.length;
  const rows = [...matrix];
  for (let column = 0; column < size; column++) {
    let best = column;
    for (let row = column + 1; row < size; row++)
      if (
        Math.abs((rows[row] as Float64Array)[column] as number) >
        Math.abs((rows[best] as Float64Array)[column] as number)
      )
        best = row;
    const pivot = rows[best] as Float64Array;
    if (Math.abs(pivot[column] as number) < 1e-12) return undefined;
    rows[best] = rows[column] as Float64Array;
    rows[column] = pivot;
    for (let row = column + 1; row < size; row++) {
      const line = rows[row] as Float64Array;
      const factor = (line[column] as number) / (pivot[column] as number);
      if (factor === 0) continue;
      for (let at = column; at <= size; at++) line[at] = (line[at] as number) - factor * (pivot[at] as number);
    }
  }
  const answer = new Float64Array(size);
  for (let row = size - 1; row >= 0; row--) {
    const line = rows[row] as Float64Array;
    let sum = line[size] as number;
    for (let at = row + 1; at < size; at++) sum -= (line[at] as number) * (answer[at] as number);
    answer[row] = sum / (line[row] as number);
  }
  return answer;
}
