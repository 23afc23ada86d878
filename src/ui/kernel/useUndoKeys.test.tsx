// @vitest-environment jsdom
import { cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { did, nextInHistory, redoLast, undoLast, useHistory } from "./history";
import { useUndoKeys } from "./useUndoKeys";

const told = vi.fn();
const refused = vi.fn();
const happened: string[] = [];
const act = (name: string, fails = false) =>
  did({
    label: name,
    undo: async () => {
      if (fails) throw new Error(`${name} cannot be taken back`);
      happened.push(`-${name}`);
    },
    redo: async () => void happened.push(`+${name}`),
  });
const press = (key: string, more: KeyboardEventInit = {}, on: EventTarget = document.body) =>
  on.dispatchEvent(new KeyboardEvent("keydown", { key, ctrlKey: true, bubbles: true, cancelable: true, ...more }));

beforeEach(() => {
  useHistory.setState({ done: [], undone: [], isBusy: false });
  happened.length = 0;
  renderHook(() => useUndoKeys(told, refused));
});
afterEach(() => {
  cleanup();
  document.body.innerHTML = "";
  vi.clearAllMocks();
});

describe("taking back by key", () => {
  test("the last act goes first, and comes back by either key", async () => {
    act("rename");
    act("move");
    press("z");
    await waitFor(() => expect(happened).toEqual(["-move"]));
    await waitFor(() => expect(told).toHaveBeenCalledTimes(1));
    press("z");
    await waitFor(() => expect(happened).toEqual(["-move", "-rename"]));
    await waitFor(() => expect(told).toHaveBeenCalledTimes(2));
    press("Z", { shiftKey: true });
    await waitFor(() => expect(happened.at(-1)).toBe("+rename"));
    await waitFor(() => expect(told).toHaveBeenCalledTimes(3));
    press("y");
    await waitFor(() => expect(happened.at(-1)).toBe("+move"));
    expect(told.mock.calls.map(([turned, isRedo]) => [turned?.label, isRedo])).toEqual([
      ["move", false],
      ["rename", false],
      ["rename", true],
      ["move", true],
    ]);
  });

  test("a new act forgets what was taken back", async () => {
    act("rename");
    await undoLast();
    expect(nextInHistory()).toMatchObject({ undo: undefined, redo: "rename" });
    act("delete");
    expect(nextInHistory()).toMatchObject({ undo: "delete", redo: undefined });
    expect(await redoLast()).toBeUndefined();
  });

  test("fields, dialogs and what somebody else has handled keep their own keys", () => {
    act("rename");
    document.body.innerHTML =
      '<input id="field"><div role="dialog"><button id="inside">OK</button></div><p id="page"></p>';
    for (const id of ["field", "inside"]) press("z", {}, document.getElementById(id) as HTMLElement);
    press("z", { altKey: true });
    press("z", { ctrlKey: false });
    press("x");
    const page = document.getElementById("page") as HTMLElement;
    page.addEventListener("keydown", (event) => event.preventDefault(), { once: true });
    press("z", {}, page);
    expect(happened).toEqual([]);
  });

  test("what cannot be taken back is told, and the one before it can", async () => {
    act("rename");
    act("sign", true);
    press("z");
    await waitFor(() => expect(refused).toHaveBeenCalledOnce());
    expect(refused).toHaveBeenCalledWith(new Error("sign cannot be taken back"));
    press("z");
    await waitFor(() => expect(happened).toEqual(["-rename"]));
  });

  test("with nothing done, nothing is taken back, and that is told too", async () => {
    press("z");
    await waitFor(() => expect(told).toHaveBeenCalledWith(undefined, false));
  });
});
