import { useMemo } from "react";
import { create } from "zustand";
import {
  type Decided,
  type Decision,
  type DecisionModel,
  dataTypeOf,
  decide,
  inputsNeeded,
  type Looked,
  lookAt,
} from "@/core/decisions";
import { readValue } from "@/core/feel";

interface Trying {
  /** What was typed for inputs, by their names. */
  readonly typed: { readonly [input: string]: string };
  readonly type: (input: string, words: string) => void;
}

/** Values somebody tries a decision with. */
export const useTrying = create<Trying>((set) => ({
  typed: {},
  type: (input, words) => set(({ typed }) => ({ typed: { ...typed, [input]: words } })),
}));

export interface Tried {
  readonly given: { readonly [input: string]: unknown };
  readonly decided: Decided;
  readonly looked: Looked;
}

/** What a decision makes of the values that were typed; undefined where none was. */
export function useTried(model: DecisionModel, decision: Decision | undefined): Tried | undefined {
  const typed = useTrying((state) => state.typed);
  return useMemo(() => {
    if (!decision) return undefined;
    const entries = inputsNeeded(model, decision).flatMap(({ name, type }) => {
      const words = typed[name]?.trim() ?? "";
      if (words === "") return [];
      const read = readValue(words, dataTypeOf(model, type));
      return [[name, "value" in read ? read.value : words] as const];
    });
    if (entries.length === 0) return undefined;
    const given = Object.fromEntries(entries);
    return { given, decided: decide(model, decision, given), looked: lookAt(model, decision, given) };
  }, [model, decision, typed]);
}
