"use client";
import { useDeferredValue } from "react";
import type { Figure } from "@/core/drawing";
import type { Id } from "@/core/model";

/**
 * The figures to be drawn, where a step may just have been added that is being named: of a large page (600 elements: half of them moved
 * aside) they come a moment after the place where its name is written, so that nobody's typing waits for them.
 */
export function useFiguresBehindNaming(figures: readonly Figure[], naming: Id | null): readonly Figure[] {
  const before = useDeferredValue(figures);
  if (naming === null || before === figures) return figures;
  const isNew = !before.some(({ id }) => id === naming) && figures.some(({ id }) => id === naming);
  return isNew ? before : figures;
}
