// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { useKeys } from "./useKeys";

afterEach(cleanup);

function Page({ onP, onRight }: { readonly onP: () => void; readonly onRight: () => void }) {
  useKeys({ p: onP, arrowright: onRight });
  return (
    <>
      <input aria-label="words" />
      <input type="checkbox" aria-label="tick" />
      <select aria-label="one of" />
      <div role="dialog">
        <button type="button">asked</button>
      </div>
      <button type="button">act</button>
    </>
  );
}

const keys = () => {
  const [onP, onRight] = [vi.fn(), vi.fn()];
  render(<Page onP={onP} onRight={onRight} />);
  return { onP, onRight };
};

test("single keys act on the page, whatever their case; others are left alone", () => {
  const { onP, onRight } = keys();
  fireEvent.keyDown(document.body, { key: "P" });
  fireEvent.keyDown(screen.getByText("act"), { key: "ArrowRight" });
  fireEvent.keyDown(document.body, { key: "q" });
  expect([onP.mock.calls.length, onRight.mock.calls.length]).toEqual([1, 1]);
});

test("with Ctrl, Alt or Meta they are somebody else's", () => {
  const { onP } = keys();
  for (const more of [{ ctrlKey: true }, { altKey: true }, { metaKey: true }])
    fireEvent.keyDown(document.body, { key: "p", ...more });
  expect(onP).not.toHaveBeenCalled();
});

test("where one writes, chooses or is asked they write, choose and answer; a box that is ticked leaves them be", () => {
  const { onP } = keys();
  fireEvent.keyDown(screen.getByLabelText("words"), { key: "p" });
  fireEvent.keyDown(screen.getByLabelText("one of"), { key: "p" });
  fireEvent.keyDown(screen.getByText("asked"), { key: "p" });
  expect(onP).not.toHaveBeenCalled();
  fireEvent.keyDown(screen.getByLabelText("tick"), { key: "p" });
  expect(onP).toHaveBeenCalledOnce();
});

test("a key that was used already is not used again", () => {
  const { onP } = keys();
  document.body.addEventListener("keydown", (event) => event.preventDefault(), { once: true });
  fireEvent.keyDown(document.body, { key: "p" });
  expect(onP).not.toHaveBeenCalled();
});
