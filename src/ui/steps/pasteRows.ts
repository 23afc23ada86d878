import { type ColumnMap, listOf, type NamedEntry, type TableRows, writeList } from "@/core/capture";
import { type EntryKind, foldedName } from "@/core/directory";
import { useSheetStore } from "./sheetStore";
import type { Sheet } from "./useSheet";

type Create = (kind: EntryKind, name: string) => Promise<{ id: string; name: string }>;

/**
 * Writes pasted rows behind the present one, as one undo step. Names that the directory does not know are entered there first.
 * Gives the number of steps written; null where the sheet refused them.
 */
export async function pasteRows(sheet: Sheet, rows: TableRows, map: ColumnMap, create: Create): Promise<number | null> {
  const steps = listOf(rows, map);
  const known = new Map<string, NamedEntry>();
  const key = (kind: EntryKind, name: string) => `${kind}\n${foldedName(name)}`;
  for (const step of steps) {
    const named = [
      ...step.by.map((name) => ["role", name] as const),
      ...step.uses.map((name) => ["system", name] as const),
      ...[...step.needs, ...step.gives].map((name) => ["document", name] as const),
    ];
    for (const [kind, name] of named) {
      if (known.has(key(kind, name))) continue;
      const entry = await create(kind, name);
      known.set(key(kind, name), { entry: entry.id, name: entry.name });
    }
  }
  const at = sheet.indexOf(useSheetStore.getState().row);
  const done = sheet.run((draft) =>
    writeList(draft, steps, {
      row: at < 0 ? sheet.rows.findLastIndex((row) => row.kind === "step") : at,
      rows: sheet.rows,
      process: sheet.process,
      resolve: (kind, name) => known.get(key(kind, name)) as NamedEntry,
    }),
  );
  if (!done) return null;
  if (done.focus !== undefined) useSheetStore.getState().go(done.focus, "step");
  return steps.length;
}
