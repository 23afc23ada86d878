"use client";
import { useEffect } from "react";
import { create } from "zustand";
import { directory } from "@/contract";
import type { ListedEntry } from "@/contract/directory";
import type { EntryKind } from "@/core/directory";
import { ask } from "../kernel/ask";
import { complain } from "./toaster";

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
    const answer = await ask(directory.openDirectory, {});
    set({ entries: answer.entries, loaded: true });
  },
  create: async (kind, name) => {
    const made = await ask(directory.createEntry, { kind, name });
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
