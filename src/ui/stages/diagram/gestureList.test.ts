import { describe, expect, test } from "vitest";
import { roomOf } from "../../canvas/gestures";
import { isKeyOf } from "./gestureList";

const press = (
  key: string,
  held: Partial<{ shiftKey: boolean; ctrlKey: boolean; metaKey: boolean; altKey: boolean }> = {},
) => ({
  key,
  shiftKey: false,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  ...held,
});

describe("keys of gestures", () => {
  test.each([
    ["L", press("l"), true],
    ["L", press("L", { shiftKey: true }), false],
    ["Shift L", press("L", { shiftKey: true }), true],
    ["Shift ↑", press("ArrowUp", { shiftKey: true }), true],
    ["Space", press(" "), true],
    ["Ctrl D", press("d", { ctrlKey: true }), true],
    ["Ctrl D", press("d", { metaKey: true }), true],
    ["Ctrl D", press("d"), false],
    ["L", press("l", { altKey: true }), false],
    [undefined, press("l"), false],
  ])("%s against %o: %s", (keys, event, meant) => {
    expect(isKeyOf(keys, event)).toBe(meant);
  });
});

describe("room by the pointer", () => {
  const from = { x: 100, y: 50 };
  test.each([
    [
      { x: 181, y: 60 },
      { direction: "right", line: 100, by: 80 },
    ],
    [
      { x: 110, y: 131 },
      { direction: "down", line: 50, by: 80 },
    ],
    [
      { x: 60, y: 20 },
      { direction: "down", line: 50, by: 0 },
    ],
  ] as const)("to %o", (to, room) => {
    expect(roomOf(from, to)).toEqual(room);
  });
});
