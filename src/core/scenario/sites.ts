import type { Id } from "../model";
import type { Distribution } from "./distributions";
import type { Given } from "./scenario";

/** What lies between two sites: how long something takes that goes from one to the other, and how much of it can at once. */
export interface Link {
  readonly from: string;
  readonly to: string;
  readonly delay?: readonly Given<Distribution>[];
  /** As much as wants to, where nothing is said. */
  readonly capacity?: number;
}

/**
 * Where people and systems are, and how many can use a system at once. Sites of roles stand with the role; those of systems, which are no elements of a model, and what lies
 * between sites, stand with the scenario. In files these are properties, as the standard has them for what it has no word for.
 */
export interface Sites {
  /** By the system's entry in the directory. */
  readonly ofSystems: ReadonlyMap<Id, string>;
  /** How many steps can use a system at once; as many as want to, where nothing is said. */
  readonly roomOf: ReadonlyMap<Id, number>;
  readonly links: readonly Link[];
}

export const noSites: Sites = { ofSystems: new Map(), roomOf: new Map(), links: [] };

/** The property that holds the site of an element. */
export const siteProperty = "site";
export const zoneProperty = "zone";
export const systemProperty = (system: Id): string => `site of ${system}`;
export const roomProperty = (system: Id): string => `capacity of ${system}`;
export const linkProperty = (what: "delay" | "capacity", from: string, to: string): string => `${what} ${from} > ${to}`;

/** What a property of a scenario says of sites: a system's, or what lies between two; or of the room in a system. */
export function readSiteProperty(
  name: string,
):
  | { readonly system: Id; readonly what: "site" | "capacity" }
  | { readonly what: "delay" | "capacity"; readonly from: string; readonly to: string }
  | undefined {
  const [, what, from, to] = /^(delay|capacity) (.+?) > (.+)$/.exec(name) ?? [];
  if (from !== undefined && to !== undefined) return { what: what as "delay" | "capacity", from, to };
  const [, said, system] = /^(site|capacity) of (.+)$/.exec(name) ?? [];
  return system === undefined ? undefined : { system, what: said as "site" | "capacity" };
}

/** What lies between two sites; the way back is as the way there, where nothing else is said of it. O(links). */
export const linkBetween = ({ links }: Sites, from: string, to: string): Link | undefined =>
  links.find((link) => link.from === from && link.to === to) ??
  links.find((link) => link.from === to && link.to === from);

/** What a scenario says of sites, with what the one before it says where it says nothing. */
export function sitesAfter(before: Sites, own: Sites): Sites {
  const links = new Map(before.links.map((link) => [`${link.from} > ${link.to}`, link]));
  for (const link of own.links) {
    const key = `${link.from} > ${link.to}`;
    links.set(key, { ...links.get(key), ...link });
  }
  return {
    ofSystems: new Map([...before.ofSystems, ...own.ofSystems]),
    roomOf: new Map([...before.roomOf, ...own.roomOf]),
    links: [...links.values()],
  };
}
