import { z } from "zod";

/** The five kinds of things that are named once and used everywhere. */
export const entryKinds = ["role", "unit", "system", "document", "term"] as const;
export type EntryKind = (typeof entryKinds)[number];

/** Hues of roles: told apart side by side on light and dark ground, and never the only sign, since the name stands beside. */
export const roleHues = [
  "#3B7BB5",
  "#8C5A44",
  "#6A8A1F",
  "#B36BA0",
  "#C98A1B",
  "#3C8F86",
  "#7A6CC1",
  "#B5564A",
  "#5C7A99",
  "#9A8C2E",
] as const;

const fields = {
  name: z.string().trim().min(1, "An entry needs a name.").max(200),
  description: z.string().max(10_000),
  /** The unit a role or unit belongs to. */
  unit: z.string().nullable(),
  hue: z
    .string()
    .regex(/^#[0-9A-Fa-f]{6}$/)
    .nullable(),
  /** How many people have a role; halves for those who share their time. */
  headcount: z.number().min(0).max(1_000_000).nullable(),
  /** What an hour of one of them costs, in the workspace's currency. */
  costPerHour: z.number().min(0).max(1_000_000).nullable(),
  /** How long one of them works a week. */
  hoursPerWeek: z.number().min(0).max(168).nullable(),
};

/** What may be changed of an entry: what is absent stays as it is. */
export const entryChangeSchema = z.object(fields).partial();

export const directoryEntrySchema = z.object({
  id: z.string().min(1),
  kind: z.enum(entryKinds),
  name: fields.name,
  description: fields.description.default(""),
  unit: fields.unit.default(null),
  hue: fields.hue.default(null),
  headcount: fields.headcount.default(null),
  costPerHour: fields.costPerHour.default(null),
  hoursPerWeek: fields.hoursPerWeek.default(null),
});
export type DirectoryEntry = z.infer<typeof directoryEntrySchema>;

/** Spellings that differ only in case, blanks and hyphens are the same name. */
export function foldedName(name: string): string {
  return name
    .normalize("NFKC")
    .toLowerCase()
    .replace(/[\s_-]+/g, " ")
    .trim();
}

/** Entries whose name has every word typed, best first: beginnings of the name, then of words, then anywhere. */
export function lookUp(entries: readonly DirectoryEntry[], kind: EntryKind, typed: string): DirectoryEntry[] {
  const wanted = foldedName(typed);
  const rank = (entry: DirectoryEntry): number => {
    const name = foldedName(entry.name);
    if (wanted === "" || name === wanted) return 0;
    if (name.startsWith(wanted)) return 1;
    if (name.split(" ").some((word) => word.startsWith(wanted))) return 2;
    return wanted.split(" ").every((word) => name.includes(word)) ? 3 : -1;
  };
  return entries
    .filter((entry) => entry.kind === kind && rank(entry) >= 0)
    .sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name));
}
