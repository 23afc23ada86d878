import { z } from "zod";
import { type DirectoryEntry, directoryEntrySchema, entryChangeSchema } from "@/core/directory";
import { asks, type Done, named, directory as ofDirectory } from "./contract";
import { id } from "./inputs";

export type ListedEntry = DirectoryEntry & {
  /** How often it is used in versions that are there. */
  readonly uses: number;
};

export interface UseRow {
  readonly version: string;
  readonly versionName: string;
  readonly process: string;
  readonly element: string;
  readonly elementName: string;
  readonly how: string;
}

const mostEntries = 50_000;
/** How the directory was before a merge or an import. */
const directoryBeforeSchema = z.object({
  /** Entries that went and are to come back. */
  gone: z.array(id).max(mostEntries),
  /** Entries that were made and are to go. */
  made: z.array(id).max(mostEntries),
  /** What was otherwise of those that stayed. */
  changed: z.array(z.object({ id, fields: entryChangeSchema.omit({ name: true }) })).max(mostEntries),
  /** What was written into versions by it. */
  batches: z.array(z.object({ version: id, batch: id })).max(mostEntries),
});
export type DirectoryBefore = z.infer<typeof directoryBeforeSchema>;

const on = () => [ofDirectory];

export const directory = named({
  openDirectory: asks<{ entries: readonly ListedEntry[] }>()({ input: z.object({}), right: "read", on }),
  createEntry: asks<{ id: string; name: string; hue: string | null; existed: boolean }>()({
    input: directoryEntrySchema.partial({ id: true }),
    right: "edit",
    on,
  }),
  /** A new name is written into every head that uses it. */
  changeEntry: asks<{ versions: readonly string[] }>()({ input: entryChangeSchema.extend({ id }), right: "edit", on }),
  /** Makes two entries one: whatever uses the one that goes uses the one that stays. */
  mergeEntries: asks<{ versions: readonly string[]; before: DirectoryBefore }>()({
    input: z.object({ from: id, into: id }),
    right: "edit",
    on,
  }),
  /** Takes a merge or an import back, all of it or nothing: refused where what it made is used, or what it changed is no longer so. */
  takeBackDirectory: asks<Done>()({ input: directoryBeforeSchema, right: "edit", on }),
  deleteEntry: asks<Done>()({ input: z.object({ id }), right: "edit", on }),
  restoreEntry: asks<Done>()({ input: z.object({ id }), right: "edit", on }),
  whereUsed: asks<{ uses: readonly UseRow[] }>()({ input: z.object({ id }), right: "read", on }),
  /** Takes over entries of a file: new ones are made, known ones get what the file says. */
  importDirectory: asks<{ made: number; known: number; before: DirectoryBefore }>()({
    input: z.object({ text: z.string().max(10_000_000) }),
    right: "edit",
    on,
  }),
  /** The directory as a file: CSV for a spreadsheet, or JSON. */
  exportDirectory: asks<{ text: string }>()({
    input: z.object({ format: z.enum(["csv", "json"]) }),
    right: "read",
    on,
  }),
});
