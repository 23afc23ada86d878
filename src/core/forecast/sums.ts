/** Sums by number, as many as are asked for: flat, since millions of times are added to them. */
export class Sums {
  #all = new Float64Array(32);

  /** O(1), on average. */
  add(at: number, value: number): void {
    if (at >= this.#all.length) this.#grow(at);
    this.#all[at] = (this.#all[at] as number) + value;
  }

  #grow(at: number): void {
    const more = new Float64Array(2 * (at + 1));
    more.set(this.#all);
    this.#all = more;
  }

  at(at: number): number {
    return this.#all[at] ?? 0;
  }
}
