import { create } from "zustand";
import type { Id } from "@/core/model";

export type CompareView = "beside" | "stacked" | "one";
export type Shown = "from" | "both" | "to";

interface CompareState {
  /** The version in which it is compared. */
  readonly version: string;
  readonly view: CompareView;
  /** What the one picture shows, and what it shows of single changes instead. */
  readonly shown: Shown;
  readonly shownOf: ReadonlyMap<string, Shown>;
  /** The change that is looked at. */
  readonly chosen: string | null;
  /** An element that was pointed at, on the side where it was. */
  readonly picked: { readonly side: "from" | "to"; readonly id: Id } | null;
  readonly filter: string;
  readonly opened: boolean;
}

interface CompareActions {
  /** Comparing begins in a version: what was chosen and typed in another one means nothing here. How both are shown stays. */
  readonly begin: (version: string) => void;
  readonly set: (next: Partial<CompareState>) => void;
  readonly choose: (key: string | null) => void;
  /** Without a wish for single changes, all are shown as the whole is. */
  readonly show: (shown: Shown, key?: string) => void;
}

const start: CompareState = {
  version: "",
  view: "beside",
  shown: "both",
  shownOf: new Map(),
  chosen: null,
  picked: null,
  filter: "",
  opened: false,
};

/** What one looks at while comparing; nothing of it is kept. */
export const useCompare = create<CompareState & CompareActions>((set, get) => ({
  ...start,
  begin: (version) => {
    const { version: last, view } = get();
    if (version !== last) set({ ...start, version, view });
  },
  set: (next) => set(next),
  choose: (chosen) => set({ chosen, picked: null, opened: chosen === null ? false : get().opened }),
  show: (shown, key) => {
    if (key === undefined) return set({ shown, shownOf: new Map() });
    const shownOf = new Map(get().shownOf);
    if (shown === get().shown) shownOf.delete(key);
    else shownOf.set(key, shown);
    set({ shownOf });
  },
}));
