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
  mergeEntries: asks<{ versions: readonly string[] }>()({ input: z.object({ from: id, into: id }), right: "edit", on }),
  deleteEntry: asks<Done>()({ input: z.object({ id }), right: "edit", on }),
  restoreEntry: asks<Done>()({ input: z.object({ id }), right: "edit", on }),
  whereUsed: asks<{ uses: readonly UseRow[] }>()({ input: z.object({ id }), right: "read", on }),
  /** Takes over entries of a file: new ones are made, known ones get what the file says. */
  importDirectory: asks<{ made: number; known: number }>()({
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
