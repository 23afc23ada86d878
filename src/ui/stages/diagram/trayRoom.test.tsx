// @vitest-environment jsdom
import { cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { type Id, shapesOf } from "@/core/model";
import { smallModel } from "@/core/testing/models";
import type { CanvasHandle } from "../../canvas/Canvas";
import type { VersionStore } from "../../version/versionStore";
import { useUncovered } from "./trayRoom";

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

/** A page with the tray shown, on which something is held until it is let go. */
function held() {
  const model = smallModel();
  const waiting = new Set<() => void>();
  const uncover = vi.fn();
  const whenFree = (does: () => void) => {
    waiting.add(does);
    return () => {
      waiting.delete(does);
    };
  };
  const canvas = { current: { viewport: { uncover, whenFree } } as unknown as CanvasHandle };
  const store = { getState: () => ({ model }) } as unknown as VersionStore;
  const [shape] = shapesOf(model, "reject");
  const { rerender } = renderHook(
    (selection: readonly Id[]) => useUncovered(store, shape?.diagram ?? "", canvas, selection, true),
    { initialProps: ["reject"] },
  );
  const letGo = () => {
    for (const does of waiting) does();
    waiting.clear();
  };
  return { uncover, rerender, letGo, bounds: shape?.bounds };
}

test("what is chosen is moved up from under the tray once it is let go, however long that takes", () => {
  const { uncover, letGo, bounds } = held();
  vi.advanceTimersByTime(60_000);
  expect(uncover).not.toHaveBeenCalled();
  letGo();
  expect(uncover.mock.calls).toEqual([[bounds]]);
});

test("what is not chosen any more, or not alone, is left where it is", () => {
  const { uncover, rerender, letGo } = held();
  vi.advanceTimersByTime(1_000);
  rerender(["reject", "approve"]);
  vi.advanceTimersByTime(1_000);
  letGo();
  rerender([]);
  vi.advanceTimersByTime(1_000);
  letGo();
  expect(uncover).not.toHaveBeenCalled();
});
