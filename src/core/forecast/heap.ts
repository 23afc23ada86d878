/** What is to come, by time; at one time in the order in which it was put in, so that the same input gives the same result. */
export class Heap<Item> {
  readonly #times: number[] = [];
  readonly #orders: number[] = [];
  readonly #items: Item[] = [];
  #count = 0;

  get size(): number {
    return this.#items.length;
  }

  /** The time of what comes next; Infinity where nothing does. */
  get next(): number {
    return this.#times[0] ?? Number.POSITIVE_INFINITY;
  }

  /** O(log size). */
  push(time: number, item: Item): void {
    const order = this.#count++;
    let at = this.#items.length;
    this.#times.push(time);
    this.#orders.push(order);
    this.#items.push(item);
    while (at > 0) {
      const above = (at - 1) >>> 1;
      if ((this.#times[above] as number) <= time) break;
      this.#move(above, at);
      at = above;
    }
    this.#put(at, time, order, item);
  }

  /** O(log size). */
  pop(): Item | undefined {
    const first = this.#items[0];
    const time = this.#times.pop();
    const order = this.#orders.pop();
    const item = this.#items.pop();
    const size = this.#items.length;
    if (size === 0 || time === undefined || order === undefined || item === undefined) return first;
    let at = 0;
    for (;;) {
      let below = 2 * at + 1;
      if (below >= size) break;
      if (below + 1 < size && this.#isBefore(below + 1, below)) below++;
      const belowTime = this.#times[below] as number;
      if (belowTime > time || (belowTime === time && (this.#orders[below] as number) > order)) break;
      this.#move(below, at);
      at = below;
    }
    this.#put(at, time, order, item);
    return first;
  }

  #isBefore(one: number, other: number): boolean {
    const a = this.#times[one] as number;
    const b = this.#times[other] as number;
    return a < b || (a === b && (this.#orders[one] as number) < (this.#orders[other] as number));
  }

  #move(from: number, to: number): void {
    this.#times[to] = this.#times[from] as number;
    this.#orders[to] = this.#orders[from] as number;
    this.#items[to] = this.#items[from] as Item;
  }

  #put(at: number, time: number, order: number, item: Item): void {
    this.#times[at] = time;
    this.#orders[at] = order;
    this.#items[at] = item;
  }
}
