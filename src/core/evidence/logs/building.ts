import {
  type CaseAttribute,
  type EventLog,
  Leaving,
  type LoggedEvent,
  type LoggedTrace,
  type WordColumn,
} from "./eventLog";

/** Numbers that grow, without a copy of all for each. */
class Growing<Numbers extends Uint32Array | Float64Array> {
  count = 0;

  constructor(
    private readonly make: (size: number) => Numbers,
    public numbers: Numbers = make(1_024),
  ) {}

  push(value: number): void {
    if (this.count === this.numbers.length) {
      const larger = this.make(this.count * 2);
      larger.set(this.numbers);
      this.numbers = larger;
    }
    this.numbers[this.count++] = value;
  }
}
const integers = () => new Growing((size) => new Uint32Array(size));

/** Words by their numbers, from 0; the empty one is always there. */
class Words {
  readonly all: string[] = [""];
  readonly #places = new Map<string, number>([["", 0]]);

  place(word: string): number {
    const known = this.#places.get(word);
    if (known !== undefined) return known;
    this.#places.set(word, this.all.length);
    this.all.push(word);
    return this.all.length - 1;
  }
}

/** So many attributes are kept, and of one so many different words: what says something else of each case is no way to tell them apart. */
const mostAttributes = 40;
const mostWords = 50_000;
/** The same of events, of which there are many more. */
const mostEventAttributes = 10;
const mostEventWords = 1_000;

/** What is said of cases under one name, until it is known how many there are. */
interface Attribute {
  readonly words: Words;
  readonly of: Map<number, number>;
  /** Whether it says different things within one case: then it is about events. */
  isMixed: boolean;
}

/** Makes a log of events in any order of cases: those of a case are put together, in the order they came. O(events log events). */
export class LogBuilder {
  readonly leaving = new Leaving();
  readonly #cases: string[] = [];
  readonly #places = new Map<string, number>();
  readonly #of = integers();
  readonly #at = new Growing((size) => new Float64Array(size));
  readonly #columns = {
    activity: { words: new Words(), of: integers() },
    lifecycle: { words: new Words(), of: integers() },
    role: { words: new Words(), of: integers() },
    who: { words: new Words(), of: integers() },
  };
  readonly #attributes = new Map<string, Attribute>();
  /** What is said of events: by their places, as far as the last event of which it was said. */
  readonly #ofEvents = new Map<string, { readonly words: Words; readonly of: Growing<Uint32Array> }>();

  get caseCount(): number {
    return this.#cases.length;
  }

  /** @param name of a case; two that are called alike are one, unless `isOwn` */
  case(name: string, isOwn = false): number {
    const known = isOwn ? undefined : this.#places.get(name);
    if (known !== undefined) return known;
    this.#places.set(name, this.#cases.length);
    this.#cases.push(name);
    return this.#cases.length - 1;
  }

  event(of: number, { activity, at, lifecycle, role, who }: LoggedEvent): void {
    this.#of.push(of);
    this.#at.push(at ?? Number.NaN);
    const { activity: activities, lifecycle: lifecycles, role: roles, who: people } = this.#columns;
    activities.of.push(activities.words.place(activity));
    lifecycles.of.push(lifecycles.words.place(lifecycle));
    roles.of.push(roles.words.place(role));
    people.of.push(people.words.place(who));
  }

  /** Says something of a case, or of one of its events. */
  attribute(of: number, name: string, value: string): void {
    if (value === "") return;
    let known = this.#attributes.get(name);
    if (!known) {
      if (this.#attributes.size === mostAttributes) return;
      known = { words: new Words(), of: new Map(), isMixed: false };
      this.#attributes.set(name, known);
    }
    if (known.isMixed) return;
    const word = known.words.place(value);
    const before = known.of.get(of);
    known.isMixed = (before !== undefined && before !== word) || known.words.all.length > mostWords;
    if (known.isMixed) known.of.clear();
    else known.of.set(of, word);
  }

  /** Says something of the event that was added last. */
  eventAttribute(name: string, value: string): void {
    if (value === "") return;
    let known = this.#ofEvents.get(name);
    if (!known) {
      if (this.#ofEvents.size === mostEventAttributes) return;
      known = { words: new Words(), of: integers() };
      this.#ofEvents.set(name, known);
    }
    const { words, of } = known;
    // What says something else of each event tells none apart.
    if (words.all.length > mostEventWords) return;
    while (of.count < this.#of.count - 1) of.push(0);
    of.push(words.place(value));
  }

  /** @param isByTime whether the events of a case are put in the order of their times, where all of them have one */
  end(isByTime = false): EventLog {
    const [cases, count] = [this.#cases.length, this.#of.count];
    const [of, at] = [this.#of.numbers, this.#at.numbers];
    const from = new Uint32Array(cases);
    const until = new Uint32Array(cases);
    for (let event = 0; event < count; event++) {
      const own = of[event] as number;
      until[own] = (until[own] as number) + 1;
    }
    for (let trace = 0, sum = 0; trace < cases; trace++) {
      from[trace] = sum;
      sum += until[trace] as number;
      until[trace] = from[trace] as number;
    }
    const order = new Uint32Array(count);
    for (let event = 0; event < count; event++) {
      const own = of[event] as number;
      order[until[own] as number] = event;
      until[own] = (until[own] as number) + 1;
    }
    for (let trace = 0; trace < cases; trace++) {
      const own = order.subarray(from[trace], until[trace]);
      if (isByTime && isOutOfOrder(own, at))
        own.sort((one, other) => (at[one] as number) - (at[other] as number) || one - other);
    }
    const isInOrder = order.every((event, place) => event === place);
    const moved = ({ words, of: own }: { words: Words; of: Growing<Uint32Array> }): WordColumn => {
      const numbers = own.count === count ? own.numbers : padded(own, count);
      const column = isInOrder ? numbers.slice(0, count) : order.map((event) => numbers[event] as number);
      return { words: words.all, of: column };
    };
    const attributes = this.#told(cases);
    const ofCases = new Set(attributes.map(({ name }) => name));
    const times = new Float64Array(count);
    for (let place = 0; place < count; place++) times[place] = at[order[place] as number] as number;
    return {
      cases: this.#cases,
      from,
      until,
      activity: moved(this.#columns.activity),
      at: times,
      lifecycle: moved(this.#columns.lifecycle),
      role: moved(this.#columns.role),
      who: moved(this.#columns.who),
      attributes,
      eventAttributes: [...this.#ofEvents]
        .filter(([name, { words }]) => !ofCases.has(name) && tellsApart(words.all.length - 1, count))
        .map(([name, column]) => ({ name, ...moved(column) })),
      left: this.leaving.left,
      leftOut: this.leaving.count,
      corrected: 0,
    };
  }

  /** What tells cases apart: what is said of at least some of them, and not something else of each. */
  #told(cases: number): CaseAttribute[] {
    return [...this.#attributes].flatMap(([name, { words, of, isMixed }]): CaseAttribute[] => {
      if (isMixed || of.size === 0 || (cases > 20 && words.all.length - 1 > cases / 2)) return [];
      const column = new Uint32Array(cases);
      for (const [trace, word] of of) column[trace] = word;
      return [{ name, words: words.all, of: column }];
    });
  }
}

/** Whether so many different words said of events put them in groups: one word does not, nor one of each. */
const tellsApart = (words: number, events: number): boolean =>
  words > 1 && words < mostEventWords && (events <= 20 || words <= events / 2);

/** A column that ends with the last event of which something was said, as long as all. */
function padded({ numbers, count }: Growing<Uint32Array>, length: number): Uint32Array {
  const whole = new Uint32Array(length);
  whole.set(numbers.subarray(0, count));
  return whole;
}

/** Whether the events of a case all have a time, and do not stand in that order. */
function isOutOfOrder(events: Uint32Array, at: Float64Array): boolean {
  let isOut = false;
  let last = Number.NEGATIVE_INFINITY;
  for (const event of events) {
    const time = at[event] as number;
    if (Number.isNaN(time)) return false;
    if (time < last) isOut = true;
    last = time;
  }
  return isOut;
}

/** A log of traces in words. */
export function logOf(traces: readonly LoggedTrace[]): EventLog {
  const builder = new LogBuilder();
  for (const { case: name, events } of traces) {
    const of = builder.case(name, true);
    for (const event of events) builder.event(of, event);
  }
  return builder.end();
}
