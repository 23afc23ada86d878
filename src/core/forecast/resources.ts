import { type Element, type Id, type Model, systemsOf } from "../model";
import {
  always,
  butNot,
  type Distribution,
  eitherOf,
  type Given,
  type Hours,
  hoursOf,
  type Link,
  linkBetween,
  momentsOf,
  type Need,
  type Scenario,
} from "../scenario";
import type { Gaps } from "./gaps";
import { takenWords } from "./gaps";

/** Somebody or something that steps need: how many there are, when, and what they cost. */
export interface ResourcePlan {
  readonly id: Id;
  readonly name: string;
  readonly at: number;
  /** How many work at a time, by the hours while which they do. */
  readonly shifts: readonly { readonly count: number; readonly hours: Hours }[];
  /** The hours of all shifts together. */
  readonly hours: Hours;
  /** The most there are at any time. */
  readonly most: number;
  /** Money for each second of work, and each time one is taken. */
  readonly rate: number;
  readonly fixed: number;
}

/** A way between two sites: what it takes, and where it has room for so much only, what is needed to go along it. */
export interface Crossing {
  readonly delay: readonly Given<Distribution>[] | undefined;
  readonly needs: NeedPlan | undefined;
}

/** What a step needs, by the places of resources in their list. */
export type NeedPlan = readonly { readonly oneOf: readonly number[]; readonly count: number }[];

/** Hours by calendars of a scenario; the same calendars give the same hours. */
export class Calendars {
  readonly #known = new Map<Id, Hours>();
  constructor(readonly scenario: Scenario) {}

  of(calendar: Id | undefined): Hours {
    if (calendar === undefined) return always;
    const known = this.#known.get(calendar);
    if (known) return known;
    const hours = hoursOf(this.scenario.calendars.get(calendar)?.events ?? [], this.scenario.start);
    this.#known.set(calendar, hours);
    return hours;
  }
}

const made = new WeakMap<Scenario, Calendars>();

/** The hours of a scenario: years of them are worked out, so its runs share them. */
export function calendarsOf(scenario: Scenario): Calendars {
  const known = made.get(scenario) ?? new Calendars(scenario);
  made.set(scenario, known);
  return known;
}

/** Resources of a scenario, numbered as they are first named: those with a number, and those that steps name. */
export class ResourceTable {
  readonly list: ResourcePlan[] = [];
  readonly #at = new Map<Id, number>();
  readonly #byRole = new Map<string, number[]>();
  readonly #crossings = new Map<Link, Crossing>();
  /** Systems with room for so many at once, each a resource of its own. */
  readonly #systems = new Map<Id, number>();

  constructor(
    readonly model: Model,
    readonly scenario: Scenario,
    readonly calendars: Calendars,
    readonly gaps: Gaps,
  ) {
    for (const [id, { quantity, roles, available }] of scenario.of) {
      if (!quantity && !roles && !available) continue;
      const element = model.elements.get(id);
      // A file names its elements by an id, or by a prefix and an id; the second is the first once more.
      if (!element && id.includes(":")) continue;
      if (!element) continue;
      const at = this.numberOf(id);
      for (const role of roles ?? []) this.#byRole.set(role, [...(this.#byRole.get(role) ?? []), at]);
    }
    for (const link of scenario.sites.links)
      this.#crossings.set(link, {
        delay: link.delay,
        needs:
          link.capacity === undefined
            ? undefined
            : [
                {
                  oneOf: [this.#room(`${link.from} > ${link.to}`, `${link.from} → ${link.to}`, link.capacity)],
                  count: 1,
                },
              ],
      });
  }

  has(id: Id): boolean {
    return this.#at.has(id);
  }

  numberOf(id: Id): number {
    const known = this.#at.get(id);
    if (known !== undefined) return known;
    const at = this.list.length;
    this.#at.set(id, at);
    this.list.push(this.#planned(id, at));
    return at;
  }

  #planned(id: Id, at: number): ResourcePlan {
    const { model, scenario, calendars } = this;
    const name = model.elements.get(id)?.name ?? id;
    const { quantity, available, unitCost, fixedCost } = scenario.of.get(id) ?? {};
    if (!quantity) this.gaps.add("quantity", id, name, takenWords.onePerson);
    const { open, closed } = attendance(available ?? [], calendars);
    const counts: readonly Given<number>[] = quantity ?? [{ value: 1 }];
    // Hours for which nobody is said to be there are not hours at which work goes on.
    const there = counts.some(({ value }) => value > 0) ? counts.filter(({ value }) => value > 0) : counts;
    // A number for a calendar counts while that is on; one without a calendar as long as the resource is there at all.
    const shifts = there.map(({ value, during }) => {
      const hours = during === undefined ? open : calendars.of(during);
      return { count: value, hours: closed ? butNot(hours, closed) : hours };
    });
    return {
      id,
      name,
      at,
      shifts,
      hours: shifts.length > 1 ? eitherOf(shifts.map(({ hours }) => hours)) : (shifts[0]?.hours ?? always),
      most: shifts.reduce((sum, { count }) => sum + count, 0),
      rate: unitCost ?? 0,
      fixed: fixedCost?.[0] ? momentsOf(fixedCost[0].value).mean : 0,
    };
  }

  /** The way from a site to another; undefined where it is the same, or nothing is said of what lies between. */
  crossing(from: string | undefined, to: string | undefined): Crossing | undefined {
    if (from === undefined || to === undefined || from === to) return undefined;
    const link = linkBetween(this.scenario.sites, from, to);
    if (!link) {
      this.gaps.add("link", `${from} > ${to}`, `${from} → ${to}`, takenWords.noDelay);
      return undefined;
    }
    return this.#crossings.get(link);
  }

  /** What a step needs besides those who do it: a place in each system it uses that has room for so many only. */
  placesFor(step: Element): NeedPlan {
    return systemsOf(step).flatMap(({ entry, name }) => {
      const room = this.scenario.sites.roomOf.get(entry);
      if (room === undefined) return [];
      const at = this.#systems.get(entry) ?? this.#room(entry, name, room);
      this.#systems.set(entry, at);
      return [{ oneOf: [at], count: 1 }];
    });
  }

  /** What has room for so much at once is there at all hours, and costs nothing. */
  #room(id: Id, name: string, capacity: number): number {
    const at = this.list.length;
    this.list.push({
      id,
      name,
      at,
      shifts: [{ count: capacity, hours: always }],
      hours: always,
      most: capacity,
      rate: 0,
      fixed: 0,
    });
    return at;
  }

  /** What is needed, by number; a name is that of a resource, else of a role. */
  planned(need: Need): NeedPlan {
    return need.map(({ oneOf, count }) => ({
      count,
      oneOf: [
        ...new Set(
          oneOf.flatMap((name) => {
            const id = this.model.elements.has(name) ? name : (this.#named(name) ?? name);
            return this.has(id) ? [this.numberOf(id)] : (this.#byRole.get(name) ?? [this.numberOf(id)]);
          }),
        ),
      ],
    }));
  }

  /** A resource of the model by its name, where no id is the same. */
  #named(name: string): Id | undefined {
    for (const element of this.model.elements)
      if (element.type === "resource" && element.name === name) return element.id;
    return undefined;
  }
}

/**
 * While which hours a resource is said to be there, and while which it is not, whatever else is said. Where only hours are said at which
 * it is not there, it is there at all others; a word without a calendar counts where no calendar says otherwise.
 */
function attendance(said: readonly Given<boolean>[], calendars: Calendars) {
  const hoursWhere = (isThere: boolean) =>
    said.filter(({ value }) => value === isThere).map(({ during }) => calendars.of(during));
  const usually = said.find(({ during }) => during === undefined)?.value;
  const [open, closed] = [hoursWhere(true), hoursWhere(false).filter(({ isAlways }) => !isAlways)];
  const never = usually === false && open.length === 0;
  return {
    open: open.length > 0 ? eitherOf(open) : always,
    closed: never ? always : closed.length > 0 ? eitherOf(closed) : undefined,
  };
}
