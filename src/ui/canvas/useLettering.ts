"use client";
import { useEffect, useState } from "react";
import type { Lettering } from "./FigureView";

/** Pages with more figures than this have their words drawn by outlines. */
const manyFigures = 300;

/**
 * How the words of a page are drawn: as text, which the browser finds and reads, or on large pages by outlines. A browser measures
 * all text anew whenever the scale changes (1,000 elements: 50 ms a frame with text, 17 ms with outlines).
 */
export function useLettering(figures: number): Lettering | undefined {
  const [lettering, setLettering] = useState<{ readonly outlineOf: Lettering } | null>(null);
  const isLarge = figures > manyFigures;
  useEffect(() => {
    if (isLarge) void import("@/core/lettering").then(({ outlineOf }) => setLettering({ outlineOf }));
  }, [isLarge]);
  return isLarge ? lettering?.outlineOf : undefined;
}
