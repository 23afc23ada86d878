import { create } from "zustand";
import type { Here } from "@/contract/presence";
import type { Bounds } from "@/core/model";

interface Presence {
  /** Windows of others in the open version, by their names; when each was heard of last. */
  readonly others: ReadonlyMap<string, Here & { readonly at: number }>;
  /** The window whose view is followed. */
  readonly following: string | null;
  /** The part of the page in view here. */
  readonly view: Bounds | null;
  readonly set: (change: Partial<Pick<Presence, "others" | "following" | "view">>) => void;
}

/** Who else is here, where they look, and whom one follows. */
export const usePresence = create<Presence>((set) => ({
  others: new Map(),
  following: null,
  view: null,
  set: (change) => set(change),
}));
