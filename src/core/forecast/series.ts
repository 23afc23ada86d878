/**
 * How a number went over a time whose length is not known beforehand: means over equal stretches. When there are too many stretches
 * each two become one, so memory is bounded. O(1) a change, on average.
 */
export class Series {
  #width: number;
  #sums: number[] = [];
  #last = 0;
  #value = 0;
  /** The stretch that was added to last, and where it ends. */
  #stretch = 0;
  #until = Number.NEGATIVE_INFINITY;

  constructor(
    /** Seconds a stretch at first. */
    width = 60,
    readonly most = 400,
  ) {
    this.#width = width;
  }

  /** From a moment on the number is another one. Moments must not go back. */
  set(at: number, value: number): void {
    this.#spread(at);
    this.#value = value;
  }

  add(at: number, change: number): void {
    this.set(at, this.#value + change);
  }

  #spread(to: number): void {
    // Most changes are in the stretch of the one before.
    if (to <= this.#until && this.#last < this.#until) {
      if (to > this.#last) {
        this.#sums[this.#stretch] = (this.#sums[this.#stretch] as number) + (to - this.#last) * this.#value;
        this.#last = to;
      }
      return;
    }
    while (to > this.#width * this.most) this.#halve();
    for (let from = this.#last; from < to; ) {
      const stretch = Math.floor(from / this.#width);
      const until = Math.min(to, (stretch + 1) * this.#width);
      // Where rounding leaves a moment at the end of its stretch, the next one begins.
      if (until <= from) break;
      while (this.#sums.length <= stretch) this.#sums.push(0);
      this.#sums[stretch] = (this.#sums[stretch] as number) + (until - from) * this.#value;
      this.#stretch = stretch;
      this.#until = (stretch + 1) * this.#width;
      from = until;
    }
    this.#last = Math.max(this.#last, to);
  }

  #halve(): void {
    const sums: number[] = [];
    for (let at = 0; at < this.#sums.length; at += 2) sums.push((this.#sums[at] as number) + (this.#sums[at + 1] ?? 0));
    this.#sums = sums;
    this.#width *= 2;
    this.#until = Number.NEGATIVE_INFINITY;
  }

  /** Means by stretch, up to a moment. */
  until(end: number): { readonly width: number; readonly means: readonly number[] } {
    this.#spread(end);
    const means = this.#sums.map((sum, at) => {
      const length = Math.min(this.#width, end - at * this.#width);
      return length > 0 ? sum / length : 0;
    });
    return { width: this.#width, means };
  }
}
