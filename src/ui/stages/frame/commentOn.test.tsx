// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import type { Editor } from "@tiptap/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { ThreadRow } from "@/contract/comments";
import { emptyBrief, markedText } from "@/core/brief";
import { performAll, smallModel } from "@/core/testing/models";
import { importModel, run, send } from "@/server/testing/workspace";
import { useBrief } from "../../version/briefStore";
import { useCommentsShown } from "../../version/comments/store";
import { useDiagram } from "../../version/diagramStore";

let app: Application;
let version: string;
beforeEach(() => {
  useCommentsShown.setState(useCommentsShown.getInitialState(), true);
  useDiagram.setState(useDiagram.getInitialState(), true);
  useBrief.setState(useBrief.getInitialState(), true);
});
afterEach(() => app.close());
const minutes = (count: number) => ({ kind: "constant" as const, value: count * 60 });
const open = async (stage: string, fill: () => Promise<unknown> = async () => {}) => {
  app = await openApplication("/", async () => {
    version = await importModel(
      "Applications",
      performAll(
        smallModel(),
        { type: "setAssumption", scenario: "estimates", element: "start", parameter: "interval", value: minutes(600) },
        { type: "setAssumption", scenario: "estimates", element: "check", parameter: "processing", value: minutes(20) },
      ),
    );
    await fill();
  });
  app.goTo(`/v/${version}/${stage}`);
};
const threads = async () => (await run<{ threads: ThreadRow[] }>("listThreads", { version })).threads;
const column = async () => within(await screen.findByTestId("comments"));
const say = async (words: string) => {
  const shown = await column();
  await app.user.type(shown.getAllByRole("textbox")[0] as HTMLElement, words);
  await app.user.click(shown.getByRole("button", { name: "Send" }));
  await shown.findByText(words);
};
const about = async () => (await threads()).map(({ about: { kind, words } }) => `${kind}: ${words}`);

describe("a comment on", () => {
  test("a finding stands at it, and leads back to the check", async () => {
    await open("check", () => send(version, { type: "delete", ids: ["f5"] }));
    const rows = await screen.findAllByRole("button", { name: /^Comment on / });
    await app.user.click(rows[0] as HTMLElement);
    await say("Is that so?");
    const [told] = await about();
    expect(told).toMatch(/^finding: /);
    await screen.findByRole("button", { name: /^Comment on .*: 1 thread open$/ });
    app.goTo(`/v/${version}/diagram`);
    const shown = await column();
    await app.user.click(await shown.findByRole("button", { name: `Show ${told?.slice(9)}` }));
    await waitFor(() => expect(app.address()).toBe(`/v/${version}/check`));
  });

  test("a sentence of the brief, by key, is a sign behind it as long as it says the same", async () => {
    const text = "The desk reads the form. The desk files it.";
    const save = (words: string, base: number) =>
      run("saveBrief", { process, brief: "b", base, content: { ...emptyBrief, document: markedText(words) } });
    let process = "";
    await open("brief", async () => {
      process = (await run<{ process: { id: string } }>("openVersion", { version })).process.id;
      await save(text, 0);
    });
    const page = await screen.findByTestId("brief-page");
    const { editor } = page as HTMLElement & { editor: Editor };
    act(() => void editor.commands.setTextSelection(30));
    act(() => void fireEvent.keyDown(page, { key: "k", code: "KeyK" }));
    (await column()).getByLabelText("Comment on The desk files it.");
    await say("Which cabinet?");
    expect(await about()).toEqual(["sentence: The desk files it."]);
    const sign = await screen.findByRole("button", { name: "Comment on The desk files it.: 1 thread open" });
    act(() => useCommentsShown.getState().set({ isOpen: false, about: null }));
    fireEvent.click(sign);
    (await column()).getByLabelText("Comment on The desk files it.");
    // With another sentence in its place nobody is told that it was said of that one.
    act(() => void editor.commands.insertContentAt({ from: 28, to: 32 }, "clerk"));
    await waitFor(() => expect(screen.queryByRole("button", { name: /1 thread open$/ })).toBeTruthy());
    await waitFor(() => expect(page.querySelector(".comment-sign")).toBeNull());
  });

  test("a figure of the forecast stands beside its title", async () => {
    await open("forecast");
    const [first] = await screen.findAllByRole("button", { name: /^Comment on / });
    const name = first?.getAttribute("aria-label")?.slice("Comment on ".length) ?? "";
    await app.user.click(first as HTMLElement);
    await say("More than last year?");
    expect(await about()).toEqual([`figure: ${name}`]);
    await screen.findByRole("button", { name: `Comment on ${name}: 1 thread open` });
  });

  test("a change, taken back by not being on it any more", async () => {
    let toBe = "";
    await open("diagram", async () => {
      toBe = (await run<{ version: string }>("createToBe", { source: version, name: "Faster" })).version;
      await send(toBe, { type: "rename", id: "check", name: "Look at it" });
    });
    app.goTo(`/v/${toBe}/compare`);
    await screen.findByTestId("change-count");
    const row = await waitFor(() => {
      const found = document.querySelector<HTMLElement>("[data-change]");
      if (!found) throw new Error("no change yet");
      return found;
    });
    await app.user.click(within(row).getAllByRole("button")[0] as HTMLElement);
    await app.user.click(await screen.findByRole("button", { name: /^Comment on / }));
    const shown = await column();
    await app.user.click(shown.getByRole("button", { name: "Not on this" }));
    shown.getByLabelText("Comment on this version");
    await app.user.click(screen.getByRole("button", { name: /^Comment on .*(?:renamed|called|name)/i }));
    await say("Why?");
    version = toBe;
    expect((await about())[0]).toMatch(/^change: /);
  });

  test("what was pointed at is left when something is selected on the diagram", async () => {
    await open("diagram");
    await screen.findByTestId("canvas");
    act(() =>
      useCommentsShown.getState().set({ isOpen: true, about: { kind: "figure", key: "forecast x", words: "Busy" } }),
    );
    (await column()).getByLabelText("Comment on Busy");
    act(() => useCommentsShown.getState().set({ isOpen: false }));
    // What was selected before one points at something is no reason to leave that.
    act(() => useDiagram.getState().select("reject"));
    act(() =>
      useCommentsShown.getState().set({ isOpen: true, about: { kind: "figure", key: "forecast x", words: "Busy" } }),
    );
    (await column()).getByLabelText("Comment on Busy");
    act(() => useDiagram.getState().select("check"));
    await (await column()).findByLabelText(/Comment on .*Check application/);
  });
});
