// @vitest-environment jsdom
import { ChakraProvider, defaultSystem } from "@chakra-ui/react";
import { cleanup, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeAll, describe, expect, test, vi } from "vitest";
import { AskDialog } from "./AskDialog";
import { Segments } from "./Segments";

beforeAll(() =>
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  ),
);
afterEach(cleanup);

const closed = vi.fn();
const ask = (onAnswer: (answer: string, besides: string) => Promise<void> | void, more: object = {}) =>
  render(
    <ChakraProvider value={defaultSystem}>
      <AskDialog
        title="Rename"
        label="Name"
        start="Bill"
        action="Keep"
        onAnswer={onAnswer}
        onClose={closed}
        {...more}
      />
    </ChakraProvider>,
  );
const field = () => screen.getByLabelText(/^Name/);
const keep = () => screen.getByRole("button", { name: "Keep" });

describe("asking for a line", () => {
  test("what is answered is given without blanks around it, and the dialog closes", async () => {
    const user = userEvent.setup();
    const answered = vi.fn();
    ask(answered);
    await user.clear(field());
    await user.type(field(), "  Monthly bill {Enter}");
    await waitFor(() => expect(closed).toHaveBeenCalled());
    expect(answered).toHaveBeenCalledExactlyOnceWith("Monthly bill", "");
  });

  test("nothing, and blanks alone, cannot be kept", async () => {
    const user = userEvent.setup();
    ask(() => {});
    await user.clear(field());
    expect(keep()).toHaveProperty("disabled", true);
    await user.type(field(), "   ");
    expect(keep()).toHaveProperty("disabled", true);
  });

  test("an answer that is not taken stays with its reason, and can be mended", async () => {
    closed.mockClear();
    const user = userEvent.setup();
    let attempts = 0;
    ask(async () => {
      if (attempts++ === 0) throw new Error("There is one of this name already.");
    });
    await user.click(keep());
    expect(await screen.findByText("There is one of this name already.")).toBeTruthy();
    expect(closed).not.toHaveBeenCalled();
    await user.type(field(), ", yearly{Enter}");
    await waitFor(() => expect(closed).toHaveBeenCalledOnce());
  });

  test("while it is being kept it cannot be kept again", async () => {
    const user = userEvent.setup();
    let finish = () => {};
    const answered = vi.fn(
      () =>
        new Promise<void>((resolve) => {
          finish = resolve;
        }),
    );
    ask(answered);
    await user.click(keep());
    expect(keep()).toHaveProperty("disabled", true);
    await user.click(keep());
    expect(answered).toHaveBeenCalledOnce();
    finish();
  });

  test("what may be said besides is given with it", async () => {
    const user = userEvent.setup();
    const answered = vi.fn();
    ask(answered, { besides: { label: "Aim", hint: "", start: "Sooner" } });
    await user.type(screen.getByLabelText("Aim"), " and cheaper");
    await user.click(keep());
    expect(answered).toHaveBeenCalledWith("Bill", "Sooner and cheaper");
  });
});

test("of a few choices one is taken, none where the value is none of them", async () => {
  const chosen = vi.fn();
  const show = (value: "a" | "b" | undefined) => (
    <ChakraProvider value={defaultSystem}>
      <Segments
        label="View"
        value={value}
        options={[
          ["a", "Beside"],
          ["b", "Stacked"],
        ]}
        onChoose={chosen}
      />
    </ChakraProvider>
  );
  const { rerender } = render(show("a"));
  const isTaken = () => screen.getAllByRole("radio").map((one) => one.getAttribute("aria-checked"));
  expect(isTaken()).toEqual(["true", "false"]);
  await userEvent.click(screen.getByRole("radio", { name: "Stacked" }));
  expect(chosen).toHaveBeenCalledExactlyOnceWith("b");
  rerender(show(undefined));
  expect(isTaken()).toEqual(["false", "false"]);
});
