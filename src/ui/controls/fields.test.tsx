// @vitest-environment jsdom
import { ChakraProvider, defaultSystem } from "@chakra-ui/react";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { type ReactNode, useState } from "react";
import { afterEach, describe, expect, test, vi } from "vitest";
import { TextField } from "./fields";

afterEach(cleanup);
const inside = (field: ReactNode) => <ChakraProvider value={defaultSystem}>{field}</ChakraProvider>;
const field = () => screen.getByLabelText<HTMLInputElement>("When");

/** A field whose value is kept as it is normalised, and may be changed from outside. */
function Kept({ onKeep = () => {} }: { readonly onKeep?: (value: string) => void }) {
  const [value, setValue] = useState("at once");
  return (
    <>
      <TextField
        label="When"
        value={value}
        onCommit={(next) => {
          onKeep(next);
          if (next !== "no") setValue(next.trim().toLowerCase());
        }}
      />
      <button type="button" onClick={() => setValue("tomorrow")}>
        Somebody else
      </button>
    </>
  );
}

describe("a field of text", () => {
  test("is kept with Enter, once, and shows what was made of it", async () => {
    const kept = vi.fn();
    render(inside(<Kept onKeep={kept} />));
    await userEvent.clear(field());
    await userEvent.type(field(), "Every MONDAY{Enter}");
    expect(field().value).toBe("every monday");
    await userEvent.tab();
    expect(kept.mock.calls).toEqual([["Every MONDAY"]]);
  });

  test("is kept when it is left; Escape takes the typing back", async () => {
    const kept = vi.fn();
    render(inside(<Kept onKeep={kept} />));
    await userEvent.type(field(), " soon");
    await userEvent.tab();
    expect(kept.mock.calls).toEqual([["at once soon"]]);
    await userEvent.type(field(), " or later{Escape}");
    expect(field().value).toBe("at once soon");
    await userEvent.tab();
    expect(kept).toHaveBeenCalledTimes(1);
  });

  test("what is being typed stays when the value changes from outside; what is not is replaced", async () => {
    render(inside(<Kept />));
    await userEvent.type(field(), " please");
    // Pressed without the field being left, as another window would.
    screen.getByText("Somebody else").click();
    expect(await screen.findByDisplayValue("at once please")).toBe(field());
    await userEvent.type(field(), "{Escape}");
    expect(field().value).toBe("tomorrow");
    screen.getByText("Somebody else").click();
    expect(field().value).toBe("tomorrow");
  });

  test("what is refused stays to be mended", async () => {
    render(inside(<Kept />));
    await userEvent.clear(field());
    await userEvent.type(field(), "no{Enter}");
    expect(field().value).toBe("no");
  });
});
