"use client";
import RBush from "rbush";
import { useEffect, useMemo, useState } from "react";
import type { Figure, Scene } from "@/core/drawing";
import type { Bounds } from "@/core/model";
import type { Viewport } from "./useViewport";

/** Pages of up to this many figures are drawn whole: all of it is there at once, for the eye and for assistive technology. */
const drawnWhole = 1_200;
/** How much more than what is in view is drawn, in views to each side, so that moving seldom draws anew. */
const margin = 0.6;

/**
 * The figures of a page that are to be drawn: all of them, or on large pages those in and around the view, in their order. They
 * change only when the view leaves what is drawn.
 */
export function useVisibleFigures(scene: Scene, viewport: Viewport): readonly Figure[] {
  const large = scene.figures.length > drawnWhole;
  const [area, setArea] = useState<Bounds | null>(null);
  useEffect(() => {
    if (!large) return setArea(null);
    return viewport.onMove((view) =>
      setArea((drawn) => (drawn && holds(drawn, view) && drawn.width < view.width * 6 ? drawn : around(view))),
    );
  }, [large, viewport]);
  const tree = useMemo(() => {
    if (!large) return undefined;
    const index = new RBush<{ minX: number; minY: number; maxX: number; maxY: number; at: number }>();
    index.load(
      scene.figures.map(({ bounds, label }, at) => {
        const boxes = label ? [bounds, label.bounds] : [bounds];
        return {
          minX: Math.min(...boxes.map((box) => box.x)),
          minY: Math.min(...boxes.map((box) => box.y)),
          maxX: Math.max(...boxes.map((box) => box.x + box.width)),
          maxY: Math.max(...boxes.map((box) => box.y + box.height)),
          at,
        };
      }),
    );
    return index;
  }, [large, scene]);
  return useMemo(() => {
    if (!tree || !area) return large ? [] : scene.figures;
    return tree
      .search({ minX: area.x, minY: area.y, maxX: area.x + area.width, maxY: area.y + area.height })
      .map((found) => found.at)
      .sort((a, b) => a - b)
      .map((at) => scene.figures[at] as Figure);
  }, [tree, area, large, scene]);
}

const holds = (outer: Bounds, inner: Bounds) =>
  outer.x <= inner.x &&
  outer.y <= inner.y &&
  outer.x + outer.width >= inner.x + inner.width &&
  outer.y + outer.height >= inner.y + inner.height;

const around = ({ x, y, width, height }: Bounds): Bounds => ({
  x: x - width * margin,
  y: y - height * margin,
  width: width * (1 + 2 * margin),
  height: height * (1 + 2 * margin),
});
