import { useState } from "react";

interface Typing {
  readonly typed: string;
  /** The value the field last had from outside. */
  readonly seen: string;
  /** Whether what stands in the field is a person's, and not given away yet. */
  readonly isOwn: boolean;
}

/**
 * What stands in a field whose value comes from outside: the value, until somebody types; then what is typed, whatever comes from outside
 * meanwhile, until it is given away (`settle`).
 */
export function useTyped(value: string): {
  readonly typed: string;
  readonly type: (next: string) => void;
  readonly settle: (to?: string) => void;
} {
  const [state, set] = useState<Typing>({ typed: value, seen: value, isOwn: false });
  let { typed } = state;
  if (state.seen !== value) {
    // Here and not afterwards: what is typed between would be taken back.
    if (!state.isOwn) typed = value;
    set({ ...state, typed, seen: value });
  }
  return {
    typed,
    type: (next) => set((before) => ({ ...before, typed: next, isOwn: true })),
    settle: (to) => set((before) => ({ ...before, typed: to ?? before.typed, isOwn: false })),
  };
}
