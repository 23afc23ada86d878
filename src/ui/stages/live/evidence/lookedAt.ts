import { create } from "zustand";
import type { LogFilter, LogOverview } from "@/core/evidence";

export const evidenceViews = [
  "differences",
  "overview",
  "replay",
  "map",
  "variants",
  "dots",
  "groups",
  "steps",
  "figures",
] as const;
export type EvidenceView = (typeof evidenceViews)[number];

/** What is looked at of each log: it stays while one goes to other stages and back. */
interface LookedAt {
  readonly view: EvidenceView;
  readonly log: string | undefined;
  readonly filters: { readonly [log: string]: readonly LogFilter[] };
  /** What each log holds, as it was last looked at: what can be narrowed down by. */
  readonly overviews: { readonly [log: string]: LogOverview };
  readonly show: (view: EvidenceView) => void;
  readonly open: (log: string | undefined) => void;
  readonly filter: (log: string, filters: readonly LogFilter[]) => void;
  /** The case that is shown on the drawing, of whichever log. */
  readonly case: string | undefined;
  readonly showCase: (name: string | undefined) => void;
  readonly saw: (log: string, overview: LogOverview) => void;
}

export const useLookedAt = create<LookedAt>((set) => ({
  view: "differences",
  log: undefined,
  filters: {},
  overviews: {},
  case: undefined,
  showCase: (name) => set({ case: name, view: "replay" }),
  show: (view) => set({ view }),
  open: (log) => set({ log, case: undefined }),
  filter: (log, filters) => set((before) => ({ filters: { ...before.filters, [log]: filters } })),
  saw: (log, overview) => set((before) => ({ overviews: { ...before.overviews, [log]: overview } })),
}));

const nothing: readonly LogFilter[] = [];
export const useFilters = (log: string): readonly LogFilter[] => useLookedAt(({ filters }) => filters[log] ?? nothing);
