import type { DirectoryEntry } from "./entry";

/** A unit with what belongs to it. */
export interface OrganisationNode {
  readonly entry: DirectoryEntry;
  readonly level: number;
  readonly children: readonly OrganisationNode[];
  /** People of the roles in it and in all units below; undefined where no role says. */
  readonly headcount: number | undefined;
}

/**
 * Units as a tree, each with its units and roles by name. Entries that belong to nothing, or to a unit that is gone, stand at the
 * top; of units that contain each other the first by name stands there too, so that nobody is missing. O(n log n).
 */
export function organisationOf(entries: readonly DirectoryEntry[]): OrganisationNode[] {
  const members = entries
    .filter((entry) => entry.kind === "unit" || entry.kind === "role")
    .sort((a, b) => (a.kind === b.kind ? 0 : a.kind === "unit" ? -1 : 1) || a.name.localeCompare(b.name));
  const units = new Map(members.filter((entry) => entry.kind === "unit").map((unit) => [unit.id, unit]));
  const inside = new Map<string | null, DirectoryEntry[]>();
  for (const entry of members) {
    const unit = entry.unit !== null && units.has(entry.unit) ? entry.unit : null;
    inside.set(unit, [...(inside.get(unit) ?? []), entry]);
  }
  const placed = new Set<string>();
  const nodeOf = (entry: DirectoryEntry, level: number): OrganisationNode => {
    placed.add(entry.id);
    const below = entry.kind === "unit" ? (inside.get(entry.id) ?? []).filter((child) => !placed.has(child.id)) : [];
    const children = below.map((child) => nodeOf(child, level + 1));
    const counts = children.flatMap((child) => child.headcount ?? []);
    const headcount =
      entry.kind === "role"
        ? (entry.headcount ?? undefined)
        : counts.length > 0
          ? counts.reduce((sum, count) => sum + count, 0)
          : undefined;
    return { entry, level, children, headcount };
  };
  const top = (inside.get(null) ?? []).map((entry) => nodeOf(entry, 0));
  for (const unit of units.values()) if (!placed.has(unit.id)) top.push(nodeOf(unit, 0));
  return top;
}

/** Whether a unit stands in another, at whatever depth, or is it. */
export function isWithin(entries: readonly DirectoryEntry[], unit: string | null, other: string): boolean {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const seen = new Set<string>();
  for (let at = unit; at !== null && !seen.has(at); at = byId.get(at)?.unit ?? null) {
    if (at === other) return true;
    seen.add(at);
  }
  return false;
}
