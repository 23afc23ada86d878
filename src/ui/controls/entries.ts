"use client";
import { useEffect, useMemo } from "react";
import { directory } from "@/contract";
import type { ListedEntry } from "@/contract/directory";
import type { EntryKind } from "@/core/directory";
import type { RoleDefaults } from "@/core/forecast";
import { ask } from "../kernel/ask";
import { did } from "../kernel/history";
import { knownNow, lookAgain, useAsked } from "../kernel/queries";
import { text } from "../messages";
import { complain } from "./notices";

const none: readonly ListedEntry[] = [];
const reload = () => lookAgain([{ kind: "directory" }]);

/** Makes an entry on the spot, or finds the one that has this name already. */
export async function createEntry(kind: EntryKind, name: string): Promise<{ id: string; name: string }> {
  const made = await ask(directory.createEntry, { kind, name });
  if (!made.existed)
    did({
      label: text.directory.made(made.name),
      undo: () => ask(directory.deleteEntry, { id: made.id }),
      redo: () => ask(directory.restoreEntry, { id: made.id }),
    });
  await reload();
  return made;
}

/** The directory as the interface knows it. */
export function useEntries() {
  const { data, error } = useAsked(directory.openDirectory, {});
  useEffect(() => {
    if (error) complain(error);
  }, [error]);
  return { entries: data?.entries ?? none, loaded: data !== undefined, reload, create: createEntry };
}

/** The entries as they are known now, for use outside of drawing. */
export const entriesNow = (): readonly ListedEntry[] => knownNow(directory.openDirectory, {})?.entries ?? none;

/** What a directory says of roles, for forecasts. */
export function useRoleDefaults(): readonly RoleDefaults[] | undefined {
  const { entries, loaded } = useEntries();
  return useMemo(
    () =>
      loaded
        ? entries
            .filter(({ kind }) => kind === "role")
            .map(({ id, headcount, costPerHour, hoursPerWeek }) => ({ id, headcount, costPerHour, hoursPerWeek }))
        : undefined,
    [entries, loaded],
  );
}
