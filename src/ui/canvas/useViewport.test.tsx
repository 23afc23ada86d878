// @vitest-environment jsdom
import { cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { useViewport } from "./useViewport";

const room = { width: 1_000, height: 600 };
let resized: (() => void)[] = [];
beforeEach(() => {
  Object.assign(room, { width: 1_000, height: 600 });
  resized = [];
  vi.stubGlobal(
    "ResizeObserver",
    class {
      readonly observe = () => {};
      readonly disconnect = () => {};
      constructor(told: () => void) {
        resized.push(told);
      }
    },
  );
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

/** A viewport on a page that lies in a frame of some room. */
function shown() {
  const [frame, layer] = [document.createElement("div"), document.createElement("div")];
  Object.defineProperties(frame, {
    clientWidth: { get: () => room.width },
    clientHeight: { get: () => room.height },
  });
  const { result } = renderHook(() => useViewport({ current: frame }, { current: layer }, () => true));
  const viewport = result.current;
  const place = () => {
    const { x, y, k } = viewport.transform.current;
    return { x, y, k };
  };
  const getsRoom = (height: number) => {
    room.height = height;
    for (const told of resized) told();
  };
  return { viewport, place, getsRoom };
}
const page = { x: 0, y: 0, width: 800, height: 400 };

test("a page that was opened is fitted to the room it gets, until somebody does something", () => {
  const { viewport, place, getsRoom } = shown();
  viewport.open(page);
  const first = place();
  getsRoom(566);
  const second = place();
  expect(second.y).toBe(first.y - 17);
  viewport.fit(page);
  expect(place()).toEqual(second);
  viewport.open(page);
  window.dispatchEvent(new Event("keydown"));
  getsRoom(300);
  expect(place()).toEqual(second);
});

test("a page that was moved stays where it was moved to", () => {
  const { viewport, place, getsRoom } = shown();
  viewport.open(page);
  viewport.put({ k: 1, x: 7, y: 9 });
  getsRoom(566);
  expect(place()).toEqual({ k: 1, x: 7, y: 9 });
});

test("a page that is opened before it has any room is fitted when it gets some", () => {
  room.height = 0;
  room.width = 0;
  const { viewport, place, getsRoom } = shown();
  viewport.open(page);
  expect(place()).toEqual({ k: 1, x: 0, y: 0 });
  room.width = 1_000;
  getsRoom(600);
  expect(place().k).toBe(1.2);
});

test("what moves the view unasked waits for the hand, in its order, and can be taken back", () => {
  const { viewport } = shown();
  const done: string[] = [];
  viewport.whenFree(() => done.push("at once"));
  viewport.hold(true);
  viewport.whenFree(() => done.push("first"));
  const takeBack = viewport.whenFree(() => done.push("taken back"));
  viewport.whenFree(() => done.push("second"));
  takeBack();
  expect(done).toEqual(["at once"]);
  viewport.hold(false);
  expect(done).toEqual(["at once", "first", "second"]);
  viewport.hold(true);
  viewport.hold(false);
  expect(done).toHaveLength(3);
});
