import type { Item, Network } from "./network";

const sweeps = 16;
/** Beginnings tried: as many as a drawing of its size allows. */
const most = 40;
const effort = 12000;
/** So many beginnings in a row without a better end, and no more are tried. */
const patience = 9;

/** Above so many places a drawing is one that nobody can read; it is put in order less often, so that it takes seconds at most. */
const readable = 8_000;
const withinReason = (times: number, places: number) =>
  places <= readable ? times : Math.max(1, Math.floor((times * readable) / places));

interface Snapshot {
  readonly layers: number[][];
  readonly lanes: number[];
}

interface Neighbour {
  readonly item: number;
  readonly offset: number;
}

/**
 * Orders the items of each layer so that few flows cross, lanes staying one below the other. Where a long flow runs in the lane
 * of its source or its target is tried both ways.
 * Method: layer sweeps by barycentre, then exchanging neighbours as long as that helps (Sugiyama, Tagawa, Toda 1981; Gansner,
 * Koutsofios, North, Vo, "A Technique for Drawing Directed Graphs", 1993; both from memory). The best order seen is kept.
 * O(sweeps · pieces · log pieces) and, for the exchanges, O(pieces · degree).
 */
export function orderLayers(network: Network): void {
  const ordering = new Ordering(network);
  ordering.run();
  if (network.items.length > readable) return;
  for (let round = 0; round < 2; round++) for (const choice of laneChoices(network)) ordering.tryChoice(choice);
}

/** A way to spread the places a flow passes over its two lanes: so many in the first, the rest in the other. */
interface LaneChoice {
  readonly items: readonly Item[];
  readonly lanes: readonly number[];
}

/** Flows that pass layers between two lanes: they may change the lane before any of these layers. */
function laneChoices({ items, courses, isBack }: Network): LaneChoice[] {
  return courses.flatMap((course, flow) => {
    const inner = course.map((at) => items[at] as Item).filter((item) => item.node === undefined && item.host < 0);
    const [source, target] = [items[course[0] as number] as Item, items[course[course.length - 1] as number] as Item];
    if (source.lane === target.lane || inner.length === 0) return [];
    const [one, other] = isBack[flow] ? [target.lane, source.lane] : [source.lane, target.lane];
    const ordered = [...inner].sort((a, b) => a.layer - b.layer);
    const points = ordered.length <= 6 ? ordered.map((_, at) => at) : [0, ordered.length >> 1];
    return [...points, ordered.length].map((changed) => ({
      items: ordered,
      lanes: ordered.map((_, at) => (at < changed ? one : other)),
    }));
  });
}

class Ordering {
  readonly #before: Neighbour[][];
  readonly #after: Neighbour[][];
  readonly #position: Float64Array;
  /** Where flows of events at a lower edge lead, with where those of the step itself lead: the former had better be below. */
  readonly #exits: { readonly layer: number; readonly exit: number; readonly main: number }[] = [];

  readonly #sweeps: number;
  readonly #rounds: number;

  constructor(readonly network: Network) {
    const { items, pieces } = network;
    this.#sweeps = withinReason(sweeps, items.length);
    this.#rounds = withinReason(12, items.length);
    this.#before = items.map(() => []);
    this.#after = items.map(() => []);
    this.#position = new Float64Array(items.length);
    for (const { left, right, offset } of pieces) {
      // What leaves below the middle counts as a little further down.
      const shift = offset > 0 ? 0.3 : 0;
      this.#after[left]?.push({ item: right, offset: shift });
      this.#before[right]?.push({ item: left, offset: shift });
    }
    for (const { left, right, offset } of pieces) {
      if (offset <= 0) continue;
      for (const { item, offset: other } of this.#after[left] ?? [])
        if (other === 0) this.#exits.push({ layer: (items[left] as Item).layer, exit: right, main: item });
    }
  }

  run(): void {
    let best: Snapshot | undefined;
    let least = Number.POSITIVE_INFINITY;
    const tries = Math.max(1, Math.min(most, Math.floor(effort / this.network.items.length)));
    for (let attempt = 0, idle = 0; attempt < tries && idle < patience && least > 0; attempt++, idle++) {
      const found = this.#attempt(attempt);
      const crossings = this.#crossings();
      if (crossings >= least) continue;
      idle = 0;
      least = crossings;
      best = found;
    }
    if (best) this.#restore(best);
  }

  /** One run of sweeps from a beginning of its own: the given order, that upside down, then shuffled ones, always the same. */
  #attempt(attempt: number): Snapshot {
    const { layers } = this.network;
    const scatter = (item: Item) => ((item.at + 1) * 2654435761 * (attempt + 1)) % 4294967296;
    for (let at = 0; at < layers.length; at++)
      this.#arrange(at, (item) => (attempt === 0 ? item.at : attempt === 1 ? -item.at : scatter(item)));
    let best = this.#snapshot();
    let least = this.#crossings();
    for (let sweep = 0; sweep < this.#sweeps && least > 0; sweep++) {
      const down = sweep % 2 === 0;
      for (let step = 1; step < layers.length; step++) {
        const at = down ? step : layers.length - 1 - step;
        const around = down ? this.#before : this.#after;
        this.#arrange(at, (item) => this.#barycentre(item, around));
      }
      this.#exchange();
      const crossings = this.#crossings();
      if (crossings < least) {
        least = crossings;
        best = this.#snapshot();
      } else if (sweep > 5) break;
    }
    this.#restore(best);
    this.#exchange();
    return this.#snapshot();
  }

  /** Spreads a flow's inner places over its lanes in another way, if that makes fewer crossings. */
  tryChoice({ items, lanes }: LaneChoice): void {
    if (items.every((item, at) => item.lane === lanes[at])) return;
    const first = Math.max(0, (items[0] as Item).layer - 1);
    const last = Math.min(this.network.layers.length - 2, (items[items.length - 1] as Item).layer);
    const before = this.#crossings(first, last);
    if (before === 0) return;
    const affected = new Set(items.map((item) => item.layer));
    const kept = [...affected].map((layer) => ({ layer, order: [...(this.network.layers[layer] ?? [])] }));
    const was = items.map((item) => item.lane);
    items.forEach((item, at) => {
      item.lane = lanes[at] as number;
    });
    for (const item of items)
      this.#arrange(item.layer, (other) =>
        other === item ? this.#beside(item) : (this.#position[other.at] as number),
      );
    this.#exchange(affected);
    if (this.#crossings(first, last) < before) return;
    items.forEach((item, at) => {
      item.lane = was[at] as number;
    });
    for (const { layer, order } of kept) {
      this.network.layers[layer] = order;
      order.forEach((item, position) => {
        this.#position[item] = position;
      });
    }
  }

  #beside(item: Item): number {
    const around = [...(this.#before[item.at] ?? []), ...(this.#after[item.at] ?? [])];
    return (
      around.reduce((sum, { item: other }) => sum + (this.#position[other] as number), 0) / Math.max(1, around.length)
    );
  }

  #barycentre(item: Item, around: readonly Neighbour[][]): number {
    const own = around[item.at] ?? [];
    if (own.length === 0) return this.#position[item.at] as number;
    return (
      own.reduce((sum, { item: other, offset }) => sum + (this.#position[other] as number) + offset, 0) / own.length
    );
  }

  /** Sorts a layer by lane and key; places beside a shape go with the shape. */
  #arrange(layer: number, key: (item: Item) => number): void {
    const { items, layers } = this.network;
    const members = (layers[layer] ?? []).map((at) => items[at] as Item);
    const units = members.filter((item) => item.host < 0);
    const keys = new Map(units.map((item) => [item, key(item)]));
    const was = new Map(members.map((item, at) => [item, at]));
    units.sort(
      (a, b) =>
        a.lane - b.lane ||
        (keys.get(a) as number) - (keys.get(b) as number) ||
        (was.get(a) as number) - (was.get(b) as number),
    );
    this.#flatten(layer, units, members);
  }

  #flatten(layer: number, units: readonly Item[], members: readonly Item[]): void {
    const { courses, layers } = this.network;
    const attached = new Map<number, Item[]>();
    for (const item of members) if (item.host >= 0) attached.set(item.host, [...(attached.get(item.host) ?? []), item]);
    const span = (item: Item) => (courses[item.flow] as number[]).length;
    const flat = units.flatMap((unit) => {
      const own = (attached.get(unit.at) ?? []).sort((a, b) => span(a) - span(b) || a.at - b.at);
      const above = own.filter((item) => item.side === "above").reverse();
      const below = own.filter((item) => item.side === "below");
      for (const item of own) item.lane = unit.lane;
      return [...above, unit, ...below];
    });
    layers[layer] = flat.map((item) => item.at);
    flat.forEach((item, at) => {
      this.#position[item.at] = at;
    });
  }

  /** Exchanges neighbours of a layer while that makes fewer crossings with the layers beside it. */
  #exchange(only?: ReadonlySet<number>): void {
    const { items, layers } = this.network;
    // A layer is looked at again only after one beside it has changed.
    const waiting = layers.map((_, at) => !only || only.has(at));
    for (let round = 0; round < this.#rounds; round++) {
      let improved = false;
      for (let at = 0; at < layers.length; at++) {
        if (!waiting[at]) continue;
        waiting[at] = false;
        const members = (layers[at] ?? []).map((index) => items[index] as Item);
        const units = members.filter((item) => item.host < 0);
        const groups = new Map(units.map((unit) => [unit, [unit]]));
        const byPlace = new Map(units.map((unit) => [unit.at, unit]));
        for (const item of members) {
          const host = item.host >= 0 ? byPlace.get(item.host) : undefined;
          if (host) groups.get(host)?.push(item);
        }
        let changed = false;
        for (let place = 0; place + 1 < units.length; place++) {
          const [a, b] = [units[place] as Item, units[place + 1] as Item];
          if (a.lane !== b.lane) continue;
          if (this.#gain(groups.get(a) as Item[], groups.get(b) as Item[]) <= 0) continue;
          units[place] = b;
          units[place + 1] = a;
          changed = true;
        }
        if (changed) {
          this.#flatten(at, units, members);
          improved = true;
          for (const near of [at - 1, at, at + 1]) if (!only || only.has(near)) waiting[near] = true;
        }
      }
      if (!improved) return;
    }
  }

  /** How many crossings fewer there are with b above a. */
  #gain(a: readonly Item[], b: readonly Item[]): number {
    let gain = 0;
    for (const around of [this.#before, this.#after]) {
      for (const one of a)
        for (const other of b) {
          for (const p of around[one.at] ?? [])
            for (const q of around[other.at] ?? []) {
              const [at, to] = [this.#end(p, around), this.#end(q, around)];
              // An event's flow above that of its own step counts twice.
              const weight = p.item === q.item && p.offset !== q.offset ? 2 : 1;
              if (at > to) gain += weight;
              else if (at < to) gain -= weight;
            }
        }
    }
    return gain;
  }

  #end(neighbour: Neighbour, around: readonly Neighbour[][]): number {
    return (this.#position[neighbour.item] as number) + (around === this.#before ? neighbour.offset : 0);
  }

  /** Crossings between layers, all or from one to another. */
  #crossings(first = 0, last = this.network.layers.length - 2): number {
    const { layers } = this.network;
    let sum = 0;
    for (let at = first; at <= last; at++) {
      const ends: number[] = [];
      for (const left of layers[at] ?? []) {
        const own = (this.#after[left] ?? [])
          .map((neighbour) => ({ offset: neighbour.offset, to: this.#position[neighbour.item] as number }))
          .sort((a, b) => a.offset - b.offset || a.to - b.to);
        for (const { to } of own) ends.push(to);
      }
      sum += inversions(ends);
    }
    for (const { layer, exit, main } of this.#exits)
      if (layer >= first && layer <= last && (this.#position[exit] as number) < (this.#position[main] as number)) sum++;
    return sum;
  }

  #snapshot(): Snapshot {
    return {
      layers: this.network.layers.map((layer) => [...layer]),
      lanes: this.network.items.map((item) => item.lane),
    };
  }

  #restore({ layers, lanes }: Snapshot): void {
    layers.forEach((layer, at) => {
      this.network.layers[at] = [...layer];
      layer.forEach((item, position) => {
        this.#position[item] = position;
      });
    });
    lanes.forEach((lane, at) => {
      (this.network.items[at] as Item).lane = lane;
    });
  }
}

/** How many pairs of a list stand in the wrong order, by merge sort. O(n log n). */
export function inversions(list: readonly number[]): number {
  if (list.length < 2) return 0;
  const sort = (part: readonly number[]): { sorted: number[]; count: number } => {
    if (part.length < 2) return { sorted: [...part], count: 0 };
    const half = part.length >> 1;
    const [left, right] = [sort(part.slice(0, half)), sort(part.slice(half))];
    const sorted: number[] = [];
    let count = left.count + right.count;
    let [i, j] = [0, 0];
    while (i < left.sorted.length || j < right.sorted.length) {
      const [a, b] = [left.sorted[i], right.sorted[j]];
      if (b === undefined || (a !== undefined && a <= b)) {
        sorted.push(a as number);
        i++;
      } else {
        sorted.push(b);
        j++;
        count += left.sorted.length - i;
      }
    }
    return { sorted, count };
  };
  return sort(list).count;
}
