/** A number with its word: "1 error", "2 errors". */
export const counted = (count: number, one: string, several = `${one}s`): string =>
  `${count} ${count === 1 ? one : several}`;
