"use client";
import { startTransition, useEffect, useState } from "react";
import type { Id, Model } from "@/core/model";

/** Milliseconds without a change before what stands around the page is drawn again. */
const rest = 60;

/**
 * The model and the choice as what stands around the page shows them: the page changes at once, the tray and its like when the
 * keys rest, so that they are not drawn between a key and what it changes. Another choice is shown as soon as there is time.
 */
export function useSettled(
  model: Model,
  selection: readonly Id[],
): { readonly model: Model; readonly selection: readonly Id[] } {
  const [settled, setSettled] = useState({ model, selection });
  useEffect(() => {
    if (settled.model === model && settled.selection === selection) return;
    const next = { model, selection };
    // Another choice is not put off by what else is drawn: whoever reaches for the tray finds in it what is chosen.
    const timer =
      settled.selection === selection
        ? setTimeout(() => startTransition(() => setSettled(next)), rest)
        : setTimeout(() => setSettled(next));
    return () => clearTimeout(timer);
  }, [settled, model, selection]);
  return settled;
}
