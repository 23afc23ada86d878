/** Percentile of a list of numbers, nearest rank. */
export function percentile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)] ?? Number.NaN;
}

/** Milliseconds each of several runs took, after some that do not count. */
export function timed(runs: number, work: () => void, warmUp = 3): number[] {
  for (let at = 0; at < warmUp; at++) work();
  return Array.from({ length: runs }, () => {
    const started = performance.now();
    work();
    return performance.now() - started;
  });
}

export interface BenchRow {
  readonly what: string;
  readonly measured: string;
  readonly goal: string;
  readonly met: boolean;
}

export const ms = (value: number) => `${value < 10 ? value.toFixed(2) : value.toFixed(0)} ms`;
