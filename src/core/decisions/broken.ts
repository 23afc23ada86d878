/** What keeps a decision from coming to anything, in words; where it is a table, with the rules that matched. */
export class Broken extends Error {
  constructor(
    message: string,
    readonly decision = "",
    readonly rules: readonly number[] = [],
  ) {
    super(message);
  }
}
