/** What one kind of attack came to. */
export interface Tries {
  readonly what: string;
  readonly tries: number;
  /** What did not hold, in words; the same ones are counted once each. */
  readonly failures: readonly string[];
  /** Why it was left out on this machine. */
  readonly leftOut?: string;
}

export const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Numbers from 0 up to below 1, the same for each run. */
export function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1103515245) + 12345) >>> 0;
    return (state >>> 8) / 2 ** 24;
  };
}
