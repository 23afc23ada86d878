// @vitest-environment jsdom
import { ChakraProvider } from "@chakra-ui/react";
import { act, cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { system } from "../shell/theme";
import { Foot, FootTools } from "./Foot";
import { complain, hold, letGo, tell, untell } from "./notices";

beforeEach(() => {
  vi.useFakeTimers();
  render(
    <ChakraProvider value={system}>
      <Foot />
      <FootTools>
        <button type="button">Fit</button>
      </FootTools>
    </ChakraProvider>,
  );
});
afterEach(() => {
  act(() => untell());
  cleanup();
  vi.useRealTimers();
});
const said = () => screen.getByRole("log").textContent ?? "";
const later = (ms: number) => act(() => void vi.advanceTimersByTime(ms));

test("what is said stands for a while; why something failed stands longer, and is called out", () => {
  act(() => void tell({ description: "Three steps are inserted." }));
  act(() => complain(new Error("The pool is full.")));
  expect(said()).toContain("Three steps are inserted.");
  expect(screen.getByRole("alert").textContent).toContain("The pool is full.");
  later(7_000);
  expect(said()).not.toContain("Three steps");
  expect(said()).toContain("The pool is full.");
  later(6_000);
  expect(said()).toBe("");
});

test("three stand at once, the newest last; the same said again stands once", () => {
  act(() => ["one", "two", "three", "two", "four"].forEach((description) => void tell({ description })));
  expect(said()).toBe("threetwofour");
});

test("its way back is taken once; it can be closed, and taken back by who said it", () => {
  const undo = vi.fn();
  let third = 0;
  act(() => {
    tell({ description: "deleted", action: { label: "Undo", onClick: undo } });
    tell({ description: "closed" });
    third = tell({ description: "under way", duration: 600_000 });
  });
  fireEvent.click(screen.getByRole("button", { name: "Undo" }));
  expect(undo).toHaveBeenCalledTimes(1);
  expect(said()).toBe("closedunder way");
  fireEvent.click(within(screen.getByText("closed").parentElement as HTMLElement).getByRole("button"));
  expect(said()).toBe("under way");
  later(60_000);
  expect(said()).toBe("under way");
  act(() => untell(third));
  expect(said()).toBe("");
});

test("what is being read stays until one turns away", () => {
  act(() => void tell({ description: "read me" }));
  act(() => hold());
  later(60_000);
  expect(said()).toBe("read me");
  act(() => letGo());
  later(7_000);
  expect(said()).toBe("");
});

test("F8 reaches the newest way back; what a page is looked at with stands in the same line", () => {
  act(() => void tell({ description: "deleted", action: { label: "Undo", onClick: () => {} } }));
  fireEvent.keyDown(window, { key: "F8" });
  expect(document.activeElement?.textContent).toBe("Undo");
  expect(screen.getByRole("contentinfo").contains(screen.getByRole("button", { name: "Fit" }))).toBe(true);
});
