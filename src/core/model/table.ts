/**
 * An unchanging map from ids to records that shares almost everything with the table it was made from.
 *
 * A large base that is never written, and a small overlay of what changed since; when the overlay has grown past the square
 * root of the base the two are folded into a new base. A change thus copies about √n entries, not n. Native maps are used
 * because ids come from files: "__proto__" is a legal one and must be a key like any other.
 */
export class Table<Value> implements Iterable<Value> {
  private listed: readonly Value[] | undefined;

  private constructor(
    private readonly base: ReadonlyMap<string, Value>,
    private readonly overlay: ReadonlyMap<string, Value | undefined>,
    readonly size: number,
  ) {}

  static empty<Value>(): Table<Value> {
    return new Table<Value>(new Map(), new Map(), 0);
  }

  static from<Value>(entries: Iterable<readonly [string, Value]>): Table<Value> {
    const base = new Map(entries);
    return new Table<Value>(base, new Map(), base.size);
  }

  get(key: string): Value | undefined {
    return this.overlay.has(key) ? this.overlay.get(key) : this.base.get(key);
  }

  has(key: string): boolean {
    return this.get(key) !== undefined;
  }

  /** A table with these entries put in place of what stood there; `undefined` takes an entry out. O(changes + √n). */
  with(changes: ReadonlyMap<string, Value | undefined>): Table<Value> {
    if (changes.size === 0) return this;
    const overlay = new Map(this.overlay);
    let size = this.size;
    for (const [key, value] of changes) {
      const had = overlay.has(key) ? overlay.get(key) !== undefined : this.base.has(key);
      size += (value !== undefined ? 1 : 0) - (had ? 1 : 0);
      if (value === undefined && !this.base.has(key)) overlay.delete(key);
      else overlay.set(key, value);
    }
    if (overlay.size * overlay.size <= this.base.size + 64) return new Table(this.base, overlay, size);
    const base = new Map(this.base);
    for (const [key, value] of overlay) {
      if (value === undefined) base.delete(key);
      else base.set(key, value);
    }
    return new Table<Value>(base, new Map(), size);
  }

  *entries(): IterableIterator<[string, Value]> {
    for (const [key, value] of this.base) {
      if (!this.overlay.has(key)) yield [key, value];
      else {
        const changed = this.overlay.get(key);
        if (changed !== undefined) yield [key, changed];
      }
    }
    for (const [key, value] of this.overlay) {
      if (value !== undefined && !this.base.has(key)) yield [key, value];
    }
  }

  /** The records in order. They are listed once: most tables are gone through many times, and going through an array is faster. */
  [Symbol.iterator](): IterableIterator<Value> {
    this.listed ??= this.values();
    return this.listed[Symbol.iterator]();
  }

  private values(): readonly Value[] {
    if (this.overlay.size === 0) return [...this.base.values()];
    const values: Value[] = [];
    for (const [, value] of this.entries()) values.push(value);
    return values;
  }
}
