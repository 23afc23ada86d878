// @vitest-environment jsdom
import { ChakraProvider, defaultSystem } from "@chakra-ui/react";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeAll, beforeEach, describe, expect, test, vi } from "vitest";
import type { ProcessGrowth } from "@/contract/brief";
import { adviceOn, asksOf, coverageOf, emptyBrief, framesOf, markedText, readBrief } from "@/core/brief";
import { useBrief } from "../../version/briefStore";
import { GrowthDialog } from "./GrowthDialog";
import { QuestionList } from "./QuestionList";
import type { Reading } from "./useReading";

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

const text =
  "When [trigger#t: a [document#p: form] arrives], the [role#r: desk] [activity#a1: reads the form]. If [decision#d: the form is wrong], the desk [activity#a2: rejects the form]. The desk [activity#a3: files the form]. [activity#a4: Copy the form].";

/** What the page reads, with the answers given so far. */
function told(): Reading {
  const { content } = useBrief.getState();
  const reading = readBrief(content.document);
  const frames = framesOf(reading, content);
  return {
    reading,
    frames,
    numbers: [],
    advice: adviceOn(reading, content, frames),
    asks: asksOf(frames),
    coverage: coverageOf(reading, new Set()),
    links: new Map(),
    linked: new Set(),
  };
}
const list = () => (
  <ChakraProvider value={defaultSystem}>
    <QuestionList editor={null} told={told()} />
  </ChakraProvider>
);
const answers = () => useBrief.getState().content.answers;

describe("what the text leaves open", () => {
  beforeEach(() => useBrief.setState({ process: null, content: { ...emptyBrief, document: markedText(text) } }));

  test("each question has its sentence and its answers; a click answers, and the rest stays", async () => {
    const { rerender } = render(list());
    expect(screen.getByText('Does "Reject form" end the case?')).toBeTruthy();
    expect(screen.getByText("If the form is wrong, the desk rejects the form.")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: /It ends here/ }));
    expect(answers()).toEqual({ "ends:a2": "ends" });
    rerender(list());
    expect(screen.queryByText('Does "Reject form" end the case?')).toBeNull();
    expect(screen.getByText("1 question answered")).toBeTruthy();
  });

  test("while the keyboard is on a question, a number answers it; another key or a number it has not does nothing", async () => {
    render(list());
    screen.getByRole("button", { name: /It ends here/ }).focus();
    await userEvent.keyboard("x9");
    expect(answers()).toBeUndefined();
    await userEvent.keyboard("2");
    expect(answers()).toEqual({ "ends:a2": "on" });
  });

  test("answers can be asked for again", async () => {
    useBrief.setState(({ content }) => ({ content: { ...content, answers: { "ends:a2": "on" } } }));
    render(list());
    await userEvent.click(screen.getByRole("button", { name: "Ask again" }));
    expect(answers()).toEqual({});
  });

  test("a text that leaves nothing open has no list", () => {
    useBrief.setState({ content: { ...emptyBrief, document: markedText("The [role: desk] [activity: reads it].") } });
    render(list());
    expect(screen.queryByTestId("questions")).toBeNull();
  });
});

describe("building again", () => {
  const growth: ProcessGrowth = {
    frame: "t",
    version: "v",
    name: "Forms",
    hasSteps: true,
    refused: undefined,
    added: [
      { mark: "a5", type: "task", name: "Scan form", lane: "Desk" },
      { mark: "d2", type: "exclusiveGateway", name: "Form old?", lane: "" },
    ],
    renamed: [{ mark: "a1", element: "e1", now: "Read form", to: "Study form" }],
    lost: [{ element: "e9", type: "task", name: "Stamp form" }],
  };
  const shown = (onBuild = vi.fn(), onClose = vi.fn()) => {
    render(
      <ChakraProvider value={defaultSystem}>
        <GrowthDialog told={[growth]} onBuild={onBuild} onClose={onClose} />
      </ChakraProvider>,
    );
    return { onBuild, onClose };
  };
  const build = () => userEvent.click(screen.getByRole("button", { name: "Build what is taken" }));

  test("what is new and renamed is taken, what has lost its words stays, unless somebody says otherwise", async () => {
    const { onBuild } = shown();
    await build();
    expect(onBuild).toHaveBeenCalledWith({ leave: [], rename: ["a1"], drop: [] });
  });

  test("each is taken or left", async () => {
    const { onBuild } = shown();
    for (const name of ["Scan form (Desk)", "Read form → Study form", "Take out Stamp form"])
      await userEvent.click(screen.getByRole("checkbox", { name }));
    await build();
    expect(onBuild).toHaveBeenCalledWith({ leave: ["a5"], rename: [], drop: [{ version: "v", element: "e9" }] });
    // Turned back, it is as it was.
    await userEvent.click(screen.getByRole("checkbox", { name: "Scan form (Desk)" }));
    await build();
    expect(onBuild).toHaveBeenLastCalledWith({ leave: [], rename: [], drop: [{ version: "v", element: "e9" }] });
  });

  test("cancel builds nothing", async () => {
    const { onBuild, onClose } = shown();
    await userEvent.click(screen.getByRole("button", { name: "Cancel" }));
    expect([onBuild.mock.calls.length, onClose.mock.calls.length]).toEqual([0, 1]);
  });
});
