"use client";
import { useEffect, useMemo, useState } from "react";
import type { Id, Model } from "@/core/model";

/** Milliseconds without a change before what was just sketched counts as standing. */
const pause = 3_000;

/**
 * Tells the elements that findings are shown at: those that stood when one last paused, without the one that was made last and is
 * still chosen. Who is sketching a step knows that it leads nowhere yet.
 */
export function useKnownElements(model: Model, selection: readonly Id[]): (id: Id) => boolean {
  const [known, setKnown] = useState<{ readonly elements: Model["elements"]; readonly fresh: ReadonlySet<Id> }>({
    elements: model.elements,
    fresh: new Set(),
  });
  useEffect(() => {
    const isSettled = known.elements === model.elements && [...known.fresh].every((id) => selection.includes(id));
    if (isSettled) return;
    const timer = setTimeout(
      () =>
        setKnown(({ elements, fresh }) => ({
          elements: model.elements,
          fresh: new Set(selection.filter((id) => fresh.has(id) || !elements.has(id))),
        })),
      pause,
    );
    return () => clearTimeout(timer);
  }, [model, selection, known]);
  return useMemo(() => (id) => known.elements.has(id) && !known.fresh.has(id), [known]);
}
