"use client";
import { useEffect } from "react";
import { create } from "zustand";
import type { DirectoryEntry, EntryKind } from "@/core/directory";
import { ask } from "../api";
import { complain } from "../controls/toaster";

export type ListedEntry = DirectoryEntry & { readonly uses: number };

interface EntriesState {
  readonly entries: readonly ListedEntry[];
  readonly loaded: boolean;
  readonly reload: () => Promise<void>;
  /** Makes an entry on the spot, or finds the one that has this name already. */
  readonly create: (kind: EntryKind, name: string) => Promise<{ id: string; name: string }>;
}

const useStore = create<EntriesState>((set, get) => ({
  entries: [],
  loaded: false,
  reload: async () => {
    const answer = await ask<{ entries: ListedEntry[] }>("openDirectory");
    set({ entries: answer.entries, loaded: true });
  },
  create: async (kind, name) => {
    const made = await ask<{ id: string; name: string }>("createEntry", { kind, name });
    await get().reload();
    return made;
  },
}));

/** The directory as the interface knows it; loaded at first use and after each change. */
export function useEntries(): EntriesState {
  const state = useStore();
  useEffect(() => {
    if (!useStore.getState().loaded) useStore.getState().reload().catch(complain);
  }, []);
  return state;
}

/** The entries as they are known now, for use outside of drawing. */
export const entriesNow = (): readonly ListedEntry[] => useStore.getState().entries;
