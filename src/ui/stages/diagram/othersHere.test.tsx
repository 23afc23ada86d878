// @vitest-environment jsdom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { Scene } from "@/core/drawing";
import type { CanvasHandle } from "../../canvas/Canvas";
import { usePresence } from "../../version/presence/store";
import { useOthersHere } from "./othersHere";

afterEach(() => {
  cleanup();
  usePresence.setState({ others: new Map(), following: null, view: null });
});

const scene: Scene = { figures: [], bounds: { x: 0, y: 0, width: 1, height: 1 } };
const looksAt = (x: number, page = "page") => {
  const view = { x, y: 0, width: 400, height: 300 };
  const here = { window: "w", version: "v", stage: "diagram", page, selection: [], view, isGone: false };
  usePresence.setState({ others: new Map([["w", { ...here, member: "m", name: "Somebody", at: 0 }]]) });
  return view;
};

/** A canvas on which something is being dragged, until it is let go. */
function dragging() {
  const waiting = new Set<() => void>();
  const fit = vi.fn();
  const whenFree = (does: () => void) => {
    waiting.add(does);
    return () => {
      waiting.delete(does);
    };
  };
  const canvas = { viewport: { fit, whenFree, onMove: () => () => {} } } as unknown as CanvasHandle;
  const letGo = () => {
    for (const does of waiting) does();
    waiting.clear();
  };
  return { canvas: { current: canvas }, fit, letGo };
}

test("whoever is followed is gone after when the hand has let go, to where they are by then", () => {
  const { canvas, fit, letGo } = dragging();
  looksAt(0);
  usePresence.setState({ following: "w" });
  renderHook(() => useOthersHere(canvas, "page", scene));
  act(() => void looksAt(100));
  let last: ReturnType<typeof looksAt> | undefined;
  act(() => {
    last = looksAt(200);
  });
  expect(fit).not.toHaveBeenCalled();
  letGo();
  expect(fit.mock.calls).toEqual([[last]]);
});

test("not where they look at another page, nor once they are followed no more", () => {
  const { canvas, fit, letGo } = dragging();
  looksAt(0, "another");
  usePresence.setState({ following: "w" });
  renderHook(() => useOthersHere(canvas, "page", scene));
  letGo();
  act(() => void looksAt(100));
  act(() => usePresence.setState({ following: null }));
  letGo();
  expect(fit).not.toHaveBeenCalled();
});
