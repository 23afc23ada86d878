import { type CalendarEvent, spansOf } from "./iCalendar";

/** Working hours: when something is open, in seconds since a forecast's start. */
export interface Hours {
  readonly isAlways: boolean;
  isOpen(at: number): boolean;
  /** The first moment from `at` on that is open; Infinity where none comes. */
  nextOpen(at: number): number;
  /** When the hours that are open at a moment end; Infinity where they do not. */
  nextClose(at: number): number;
  /** When work of some length is done that begins at a moment: it stops when the hours do, and goes on when they do. */
  afterWork(at: number, work: number): number;
  /** Open seconds from the beginning to a moment; and between two moments. */
  until(at: number): number;
  between(from: number, to: number): number;
}

export const always: Hours = {
  isAlways: true,
  isOpen: () => true,
  nextOpen: (at) => at,
  nextClose: () => Number.POSITIVE_INFINITY,
  afterWork: (at, work) => at + work,
  until: (at) => at,
  between: (from, to) => Math.max(0, to - from),
};

/** Spans are worked out so far ahead at a time, at least. What does not open for twenty years does not open any more. */
const ahead = 366 * 86_400;
const patience = 20 * ahead;

/** Hours are known for so many seconds from the beginning, two thousand years; behind that everything is closed. */
export const knownHours = 2000 * 365.2425 * 86_400;

type SpansUntil = (from: number, to: number) => readonly (readonly [number, number])[];

/** Hours by a list of spans that is made longer when it is asked for more. All questions are O(log spans). */
class ListedHours implements Hours {
  readonly isAlways = false;
  readonly #starts: number[] = [];
  readonly #ends: number[] = [];
  /** Open seconds before each span. */
  readonly #before: number[] = [];
  #until = 0;
  /** The span that was found last: time goes on, so the next question is about one nearby. */
  #last = 0;

  constructor(readonly spans: SpansUntil) {}

  #reach(to: number): boolean {
    while (this.#until <= to) {
      if (this.#until >= knownHours) return false;
      const from = this.#until;
      this.#until = Math.min(knownHours, from + Math.max(ahead, from));
      for (const [start, end] of this.spans(from, this.#until)) this.#add(Math.max(start, from), end);
    }
    return true;
  }

  #add(start: number, end: number): void {
    const last = this.#ends.length - 1;
    const lastEnd = this.#ends[last];
    if (lastEnd !== undefined && start <= lastEnd) {
      this.#ends[last] = Math.max(lastEnd, end);
      return;
    }
    if (end <= start) return;
    const sum = last < 0 ? 0 : (this.#before[last] as number) + (lastEnd as number) - (this.#starts[last] as number);
    this.#starts.push(start);
    this.#ends.push(end);
    this.#before.push(sum);
  }

  /**
   * The span that is open at a moment, or the next; the count of spans where none is known. O(log of how many lie between it and the one
   * before): searched for in strides that double (J. L. Bentley, A. C. Yao, Information Processing Letters 5, 1976).
   */
  #at(at: number): number {
    const ends = this.#ends;
    const known = this.#last;
    // As most questions are: about the span that was found last.
    if (at < this.#until && (ends[known] ?? at) > at && (known === 0 || (ends[known - 1] as number) <= at))
      return known;
    // What is behind all time is behind every span.
    if (at === Number.POSITIVE_INFINITY) return ends.length;
    this.#reach(at);
    let [low, high] = [0, ends.length];
    let stride = 1;
    if (this.#last < high && (ends[this.#last] as number) <= at) {
      low = this.#last + 1;
      while (low + stride < high && (ends[low + stride] as number) <= at) {
        low += stride + 1;
        stride *= 2;
      }
      high = Math.min(high, low + stride);
    } else {
      high = Math.min(high, this.#last);
      while (high - stride >= 0 && (ends[high - stride] as number) > at) {
        high -= stride;
        stride *= 2;
      }
      low = Math.max(0, high - stride);
    }
    while (low < high) {
      const middle = (low + high) >>> 1;
      if ((ends[middle] as number) > at) high = middle;
      else low = middle + 1;
    }
    this.#last = low;
    while (low === ends.length && this.#goesOn(at));
    return low;
  }

  /** Works out what comes next, where it may still concern whoever asks of a moment. */
  #goesOn(at: number): boolean {
    return this.#until <= at + patience && this.#reach(this.#until);
  }

  isOpen(at: number): boolean {
    const span = this.#at(at);
    return span < this.#ends.length && (this.#starts[span] as number) <= at;
  }

  nextOpen(at: number): number {
    const span = this.#at(at);
    return span < this.#ends.length ? Math.max(at, this.#starts[span] as number) : Number.POSITIVE_INFINITY;
  }

  nextClose(at: number): number {
    const span = this.#at(at);
    // What a later stretch may make longer has to be known whole.
    if (span === this.#ends.length - 1) this.#goesOn(at);
    return this.#ends[span] ?? Number.POSITIVE_INFINITY;
  }

  afterWork(at: number, work: number): number {
    let span = this.#at(at);
    let from = at;
    for (let left = work; ; span++) {
      while (span >= this.#ends.length - 1 && this.#goesOn(from));
      const start = this.#starts[span];
      if (start === undefined) return Number.POSITIVE_INFINITY;
      from = Math.max(from, start);
      const room = (this.#ends[span] as number) - from;
      if (left <= room) return from + left;
      left -= room;
    }
  }

  between(from: number, to: number): number {
    return to <= from ? 0 : this.until(to) - this.until(from);
  }

  until(at: number): number {
    const span = this.#at(at);
    const start = this.#starts[span];
    if (start === undefined) {
      const last = this.#ends.length - 1;
      return last < 0
        ? 0
        : (this.#before[last] as number) + (this.#ends[last] as number) - (this.#starts[last] as number);
    }
    return (this.#before[span] as number) + Math.max(0, at - start);
  }
}

/** Hours by the events of calendars: open while one of them is on. `start` is the forecast's, in milliseconds since 1970. */
export function hoursOf(events: readonly CalendarEvent[], start: number): Hours {
  if (events.length === 0) return always;
  return new ListedHours((from, to) =>
    events
      .flatMap((event) => spansOf(event, start + from * 1000, start + to * 1000))
      .map(([begins, ends]): [number, number] => [(begins - start) / 1000, (ends - start) / 1000])
      .sort((a, b) => a[0] - b[0]),
  );
}

/** Open while both are: for work that needs several at once. */
export function bothOf(one: Hours, other: Hours): Hours {
  if (one.isAlways) return other;
  if (other.isAlways || one === other) return one;
  return new ListedHours((from, to) => {
    const spans: [number, number][] = [];
    let at = from;
    while (at < to) {
      const open = Math.max(one.nextOpen(at), other.nextOpen(at));
      if (open >= to) break;
      if (one.isOpen(open) && other.isOpen(open)) {
        const close = Math.min(one.nextClose(open), other.nextClose(open), to);
        spans.push([open, close]);
        at = close;
      } else at = open;
    }
    return spans;
  });
}

/** Open while the first is and the other is not: of days off. */
export function butNot(one: Hours, closed: Hours): Hours {
  return new ListedHours((from, to) => {
    const spans: [number, number][] = [];
    let at = one.nextOpen(from);
    while (at < to) {
      if (closed.isOpen(at)) at = one.nextOpen(closed.nextClose(at));
      else {
        const close = Math.min(one.nextClose(at), closed.nextOpen(at), to);
        spans.push([at, close]);
        at = one.nextOpen(close);
      }
    }
    return spans;
  });
}

/** Open while either is: of shifts that take turns. */
export function eitherOf(hours: readonly Hours[]): Hours {
  const [first, ...others] = hours;
  if (!first) return always;
  if (hours.some(({ isAlways }) => isAlways)) return always;
  if (others.length === 0) return first;
  return new ListedHours((from, to) =>
    hours
      .flatMap((one) => {
        const spans: [number, number][] = [];
        for (let at = one.nextOpen(from); at < to; at = one.nextOpen(at)) {
          const close = one.nextClose(at);
          spans.push([at, close]);
          at = close;
        }
        return spans;
      })
      .sort((a, b) => a[0] - b[0]),
  );
}
