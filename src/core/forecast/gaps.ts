import { type Said, say } from "../messages";
import type { Id } from "../model";

/** What a scenario does not say, and what was taken instead. */
export interface Gap {
  readonly kind:
    | "arrivals"
    | "time"
    | "share"
    | "event"
    | "quantity"
    | "instances"
    | "rounds"
    | "timer"
    | "resource"
    | "link";
  readonly element: Id;
  readonly name: string;
  /** What was taken. */
  readonly taken: Said;
}

/** Of what was said of the ways out of a decision, which makes no whole. */
export const inProportion = (percent: number): Said =>
  say`they count in proportion, since they make ${percent} % together`;

/** Gaps by what they are about, each told once. */
export class Gaps {
  readonly #found = new Map<string, Gap>();

  add(kind: Gap["kind"], element: Id, name: string, taken: Said): void {
    const key = `${kind} ${element}`;
    if (!this.#found.has(key)) this.#found.set(key, { kind, element, name, taken });
  }

  list(): readonly Gap[] {
    return [...this.#found.values()];
  }
}

export const takenWords = {
  oneByOne: say`cases come one after the other, so that none waits for another`,
  noTime: say`it takes no time`,
  evenShares: say`each way out is as likely as the others`,
  neverComes: say`it never happens`,
  comesAtOnce: say`what it waits for is there at once`,
  onePerson: say`there is one`,
  oneInstance: say`it is done once`,
  oneRound: say`it is done once`,
  noTimer: say`its time cannot be read, so it goes off at once`,
  noDelay: say`nothing takes time on the way`,
  unlimited: say`nobody has to be free for it`,
} as const;
