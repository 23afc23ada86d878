// @vitest-environment jsdom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { Figure, Scene } from "@/core/drawing";
import type { Bounds } from "@/core/model";
import type { Viewport } from "./useViewport";
import { useVisibleFigures } from "./useVisibleFigures";

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

/** A row of figures, one each hundred units, all shifted. */
const row = (count: number, shift = 0): Scene => ({
  figures: Array.from(
    { length: count },
    (_, at) => ({ id: `f${at}`, bounds: { x: at * 100 + shift, y: 0, width: 80, height: 60 } }) as Figure,
  ),
  bounds: { x: shift, y: 0, width: count * 100, height: 60 },
});

/** A view of the first ten of them. */
const view: Bounds = { x: 0, y: -300, width: 1_000, height: 700 };
const viewport = {
  onMove: (listener: (view: Bounds) => void) => {
    listener(view);
    return () => {};
  },
} as unknown as Viewport;

const shown = (scene: Scene) => renderHook((now: Scene) => useVisibleFigures(now, viewport), { initialProps: scene });
const at = (figures: readonly Figure[]) => figures.map(({ id, bounds }) => `${id}@${bounds.x}`);
const wait = (ms: number) => act(async () => vi.advanceTimersByTime(ms));
const settle = () => wait(1_000);

test("of a page of some size what is in view is there at once, and everything after it", async () => {
  const { result } = shown(row(400));
  expect(result.current.length).toBeGreaterThanOrEqual(10);
  expect(result.current.length).toBeLessThan(40);
  await settle();
  expect(result.current).toHaveLength(400);
});

test("a change is in view at once; what is not seen stays as it was until the hand rests, and nothing is missing or twice", async () => {
  const { result, rerender } = shown(row(400));
  await settle();
  rerender(row(400, 30));
  expect(at(result.current).slice(0, 3)).toEqual(["f0@30", "f1@130", "f2@230"]);
  expect(at(result.current).at(-1)).toBe("f399@39900");
  expect(new Set(result.current.map(({ id }) => id)).size).toBe(400);
  // Another change before the hand has rested.
  await wait(100);
  rerender(row(400, 60));
  expect(at(result.current)[0]).toBe("f0@60");
  await wait(200);
  expect(at(result.current).at(-1)).toBe("f399@39900");
  await settle();
  expect(result.current).toEqual(row(400, 60).figures);
});

test("what is pushed out of view goes at once: nothing stands where it is not any more", async () => {
  const { result, rerender } = shown(row(400));
  await settle();
  rerender(row(400, 5_000));
  const inView = result.current.filter(({ bounds }) => bounds.x < view.x + view.width);
  expect(inView).toEqual([]);
  expect(result.current).toHaveLength(400);
});

test("what is taken away goes at once, out of view too; what is new out of view comes in time", async () => {
  const { result, rerender } = shown(row(400));
  await settle();
  rerender(row(300));
  expect(result.current).toHaveLength(300);
  rerender(row(500));
  expect(result.current).toHaveLength(300);
  await settle();
  expect(result.current).toHaveLength(500);
});

test("a small page is drawn whole, a large one only around the view", async () => {
  expect(shown(row(120)).result.current).toHaveLength(120);
  const { result } = shown(row(3_000));
  await settle();
  expect(result.current.length).toBeLessThan(40);
});
