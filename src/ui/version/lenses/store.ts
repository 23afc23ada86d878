import { create } from "zustand";

const keptAs = "lucid-lane.lenses";

function kept(): readonly string[] {
  try {
    const ids: unknown = JSON.parse(localStorage.getItem(keptAs) ?? "[]");
    return Array.isArray(ids) ? ids.filter((id) => typeof id === "string") : [];
  } catch {
    return [];
  }
}

/** Lenses that are shown in this browser, in the order in which they were turned on. */
export const useLensesOn = create<{
  readonly on: readonly string[];
  readonly toggle: (id: string) => void;
}>((set) => ({
  on: typeof localStorage === "undefined" ? [] : kept(),
  toggle: (id) =>
    set(({ on }) => {
      const next = on.includes(id) ? on.filter((one) => one !== id) : [...on, id];
      try {
        localStorage.setItem(keptAs, JSON.stringify(next));
      } catch {
        // Where nothing can be kept they are shown until the page is left.
      }
      return { on: next };
    }),
}));
