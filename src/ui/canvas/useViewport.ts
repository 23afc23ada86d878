"use client";
import { select } from "d3-selection";
import "d3-transition";
import { type D3ZoomEvent, type ZoomBehavior, type ZoomTransform, zoom, zoomIdentity } from "d3-zoom";
import { type RefObject, useCallback, useEffect, useMemo, useRef } from "react";
import type { Bounds, Point } from "@/core/model";

export interface Viewport {
  /** The part of the page in view, as scale and shift. Changes during a gesture without a render. */
  readonly transform: RefObject<ZoomTransform>;
  readonly toPage: (event: { clientX: number; clientY: number }) => Point;
  readonly fit: (bounds: Bounds) => void;
  /** As a page is opened: all of it where that stays legible, else its upper left part. */
  readonly open: (bounds: Bounds) => void;
  readonly show: (bounds: Bounds) => void;
  /** Moves up what came to lie below the edge, as when the tray opened under it. */
  readonly uncover: (bounds: Bounds) => void;
  /** Goes where another viewport is: its scale, and its shift on the screen. */
  readonly put: (place: { readonly k: number; readonly x: number; readonly y: number }) => void;
  /** From when the pointer takes hold of something until it lets go, nothing but the hand moves the view. */
  readonly hold: (isHeld: boolean) => void;
  /** Does what moves the view unasked: at once, or when the pointer has let go. The answer takes it back. */
  readonly whenFree: (act: () => void) => () => void;
  readonly zoomBy: (factor: number) => void;
  readonly zoomTo: (scale: number) => void;
  /** Tells the part of the page in view, now and after each movement; the answer ends it. */
  readonly onMove: (listener: (view: Bounds) => void) => () => void;
}

/** How far a page may reach from its origin, in its own units. */
export const reach = 32_768;

/** The layer's own corner on a whole pixel of the screen: between two pixels all lines and letters are blurred. */
function onWholePixels({ x, y, k }: ZoomTransform): string {
  const corner = reach * k;
  const [left, top] = [Math.round(x - corner) + corner, Math.round(y - corner) + corner];
  return `translate3d(${left}px, ${top}px, 0) scale(${k})`;
}

/** What somebody does something with: from then on a page is no longer as it was opened. */
const inputs = ["pointerdown", "keydown"] as const;

/** Below this scale, names of 13 units are smaller than 11 pixels. */
const legible = 0.85;

/**
 * Pan and zoom: wheel zooms at the pointer, dragging the ground or the middle button pans. The layer is moved by a CSS
 * transform outside React; only when a gesture that changed the scale rests is it drawn anew, sharply.
 */
export function useViewport(
  frame: RefObject<HTMLDivElement | null>,
  layer: RefObject<HTMLDivElement | null>,
  mayPan: (event: Event) => boolean,
): Viewport {
  const transform = useRef<ZoomTransform>(zoomIdentity);
  const behaviour = useRef<ZoomBehavior<HTMLDivElement, unknown> | null>(null);
  // What was opened, until somebody does something or the view is moved.
  const opened = useRef<Bounds | null>(null);
  const held = useRef(false);
  const waiting = useRef(new Set<() => void>());
  const allowed = useRef(mayPan);
  allowed.current = mayPan;
  // Asking the browser in the middle of a change would make it lay everything out at once, and again later.
  const size = useRef({ width: 0, height: 0 });
  const listeners = useRef(new Set<(view: Bounds) => void>());
  const view = useCallback((): Bounds => {
    const { x, y, k } = transform.current;
    return { x: -x / k, y: -y / k, width: size.current.width / k, height: size.current.height / k };
  }, []);
  const onMove = useCallback(
    (listener: (view: Bounds) => void) => {
      listeners.current.add(listener);
      listener(view());
      return () => {
        listeners.current.delete(listener);
      };
    },
    [view],
  );
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    let rest: ReturnType<typeof setTimeout>;
    let sharpAt = 1;
    const zooming = zoom<HTMLDivElement, unknown>()
      .scaleExtent([0.08, 4])
      .clickDistance(4)
      .extent(() => [
        [0, 0],
        [size.current.width, size.current.height],
      ])
      // A captured pointer makes the frame the target of what follows, so the target alone does not tell whose gesture it is.
      .filter((event: Event) => (event.type === "wheel" || !held.current) && allowed.current(event))
      .on("zoom", (event: D3ZoomEvent<HTMLDivElement, unknown>) => {
        transform.current = event.transform;
        opened.current = null;
        const moved = layer.current;
        if (!moved) return;
        moved.style.transform = onWholePixels(event.transform);
        for (const listener of listeners.current) listener(view());
        if (event.transform.k !== sharpAt) moved.style.willChange = "transform";
        clearTimeout(rest);
        rest = setTimeout(() => {
          moved.style.willChange = "";
          sharpAt = event.transform.k;
          // Moving the dots repaints the whole ground, so they follow only now.
          element.style.backgroundPosition = `${event.transform.x}px ${event.transform.y}px`;
        }, 140);
      });
    behaviour.current = zooming;
    const selection = select(element);
    selection.call(zooming).on("dblclick.zoom", null);
    return () => {
      clearTimeout(rest);
      selection.on(".zoom", null);
    };
  }, [frame, layer, view]);

  const apply = useCallback(
    (next: ZoomTransform, smooth: boolean) => {
      const element = frame.current;
      if (!element || !behaviour.current) return;
      const still = !smooth || window.matchMedia("(prefers-reduced-motion: reduce)").matches;
      const selection = select(element);
      if (still) selection.call(behaviour.current.transform, next);
      else selection.transition().duration(180).call(behaviour.current.transform, next);
    },
    [frame],
  );

  const toPage = useCallback(
    (event: { clientX: number; clientY: number }): Point => {
      const box = frame.current?.getBoundingClientRect();
      const [x, y] = transform.current.invert([event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)]);
      return { x, y };
    },
    [frame],
  );

  const fit = useCallback(
    (bounds: Bounds) => {
      const box = size.current;
      if (box.width === 0 || bounds.width === 0) return;
      const margin = 20;
      const k = Math.min(1.25, (box.width - 2 * margin) / bounds.width, (box.height - 2 * margin) / bounds.height);
      apply(
        zoomIdentity
          .translate(
            (box.width - bounds.width * k) / 2 - bounds.x * k,
            Math.max(margin, (box.height - bounds.height * k) / 2) - bounds.y * k,
          )
          .scale(k),
        false,
      );
    },
    [apply],
  );

  const open = useCallback(
    (bounds: Bounds) => {
      const box = size.current;
      if (box.width > 0 && bounds.width > 0) {
        const margin = 20;
        const all = Math.min((box.width - 2 * margin) / bounds.width, (box.height - 2 * margin) / bounds.height);
        if (all >= legible) fit(bounds);
        else {
          const k = legible;
          const left = bounds.width * k < box.width ? (box.width - bounds.width * k) / 2 : margin;
          const top = bounds.height * k < box.height ? (box.height - bounds.height * k) / 2 : margin;
          apply(zoomIdentity.translate(left - bounds.x * k, top - bounds.y * k).scale(k), false);
        }
      }
      // Last, because whatever moves the view ends it.
      opened.current = bounds;
    },
    [apply, fit],
  );

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const measure = () => {
      size.current = { width: element.clientWidth, height: element.clientHeight };
      for (const listener of listeners.current) listener(view());
      // What stands around a page comes to its place after it, and takes of its room.
      if (opened.current) open(opened.current);
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    const onInput = () => {
      opened.current = null;
    };
    for (const type of inputs) window.addEventListener(type, onInput, true);
    return () => {
      observer.disconnect();
      for (const type of inputs) window.removeEventListener(type, onInput, true);
    };
  }, [frame, view, open]);

  const show = useCallback(
    (bounds: Bounds) => {
      const box = size.current;
      if (box.width === 0) return;
      const { k, x, y } = transform.current;
      const left = bounds.x * k + x;
      const top = bounds.y * k + y;
      const right = left + bounds.width * k;
      const bottom = top + bounds.height * k;
      const margin = 40;
      const dx =
        left < margin
          ? margin - left
          : right > box.width - margin
            ? Math.max(box.width - margin - right, margin - left)
            : 0;
      const dy =
        top < margin
          ? margin - top
          : bottom > box.height - margin
            ? Math.max(box.height - margin - bottom, margin - top)
            : 0;
      if (dx !== 0 || dy !== 0) apply(zoomIdentity.translate(x + dx, y + dy).scale(k), true);
    },
    [apply],
  );

  const uncover = useCallback(
    (bounds: Bounds) => {
      const box = size.current;
      const { k, x, y } = transform.current;
      const top = bounds.y * k + y;
      const bottom = top + bounds.height * k;
      const hidden = bottom + 12 - box.height;
      // What was out of sight before, or is higher than the view, is left where it is.
      if (hidden <= 0 || top - hidden < 0 || hidden > box.height) return;
      // At once: what still glides is missed by the next click.
      apply(zoomIdentity.translate(x, y - hidden).scale(k), false);
    },
    [apply],
  );

  const put = useCallback(
    ({ k, x, y }: { readonly k: number; readonly x: number; readonly y: number }) =>
      apply(zoomIdentity.translate(x, y).scale(k), false),
    [apply],
  );

  const hold = useCallback((isHeld: boolean) => {
    held.current = isHeld;
    if (isHeld) return;
    const acts = [...waiting.current];
    waiting.current.clear();
    for (const act of acts) act();
  }, []);
  const whenFree = useCallback((act: () => void) => {
    if (held.current) waiting.current.add(act);
    else act();
    return () => {
      waiting.current.delete(act);
    };
  }, []);

  const zoomBy = useCallback(
    (factor: number) => {
      const element = frame.current;
      if (element && behaviour.current) select(element).call(behaviour.current.scaleBy, factor);
    },
    [frame],
  );
  const zoomTo = useCallback(
    (next: number) => {
      const element = frame.current;
      if (element && behaviour.current) select(element).call(behaviour.current.scaleTo, next);
    },
    [frame],
  );
  return useMemo(
    () => ({ transform, toPage, fit, open, show, uncover, put, hold, whenFree, zoomBy, zoomTo, onMove }),
    [toPage, fit, open, show, uncover, put, hold, whenFree, zoomBy, zoomTo, onMove],
  );
}
