// @vitest-environment jsdom
import { beforeEach, describe, expect, test, vi } from "vitest";
import { writeBpmn } from "@/core/bpmn";
import { isConnection, type Shape, shapeOn } from "@/core/model";
import { smallModel } from "@/core/testing/models";
import { openedVersion } from "../../testing/openedVersion";
import { useDiagram } from "../../version/diagramStore";
import { copyChosen, duplicate, pasteHere } from "./clipboard";

let written = "";
beforeEach(() => {
  written = "";
  Object.defineProperty(navigator, "clipboard", {
    configurable: true,
    value: {
      writeText: async (words: string) => {
        written = words;
      },
    },
  });
  useDiagram.getState().select();
  useDiagram.getState().set({ clipboard: null });
});

const event = (type: "copy" | "cut") => ({ type, preventDefault: vi.fn() }) as unknown as ClipboardEvent;
const centre = { x: 900, y: 300 };

describe("the clipboard", () => {
  test("what is copied is pasted beside itself with its flows, under other ids, and chosen", async () => {
    const { store, model } = openedVersion(smallModel());
    const before = model().elements.size;
    useDiagram.getState().select("check", "approve");
    await copyChosen(store, "page", event("copy"));
    expect(written).toContain("<");
    await pasteHere(store, "page", centre, written);
    const chosen = useDiagram.getState().selection;
    expect(chosen.length).toBeGreaterThanOrEqual(2);
    for (const id of chosen) expect(smallModel().elements.has(id)).toBe(false);
    expect(model().elements.size).toBeGreaterThan(before + 1);
    const names = chosen.map((id) => model().elements.get(id)?.name);
    expect(names).toEqual(expect.arrayContaining(["Check application", "Approve design"]));
  });

  test("what is cut is gone here, and comes back where it is pasted", async () => {
    const { store, model } = openedVersion(smallModel());
    useDiagram.getState().select("approve");
    await copyChosen(store, "page", event("cut"));
    expect(model().elements.has("approve")).toBe(false);
    await pasteHere(store, "page", centre, written);
    expect([...model().elements].some(({ name }) => name === "Approve design")).toBe(true);
  });

  test("a whole file from elsewhere is pasted where one looks, if there is a process", async () => {
    const { store, model, said } = openedVersion(smallModel());
    await pasteHere(store, "page", { x: -5_000, y: -5_000 }, writeBpmn(smallModel()));
    expect(said).toEqual(["There is no process here to paste into; point inside a pool."]);
    const { x, y } = (shapeOn(model(), "page", "check") as Shape).bounds;
    await pasteHere(store, "page", { x, y }, writeBpmn(smallModel()));
    expect([...model().elements].filter(({ name }) => name === "Check application").length).toBeGreaterThan(1);
  });

  test.each([
    ["words", "Dear Sir or Madam", false],
    ["a page of the web", "<html><body>Hello</body></html>", true],
    ["a file that is cut off", writeBpmn(smallModel()).slice(0, 900), true],
    ["entities", '<!DOCTYPE x [<!ENTITY a "b">]><definitions>&a;</definitions>', true],
  ])("%s change nothing", async (_, pasted, isTold) => {
    const { store, done, said } = openedVersion(smallModel());
    await pasteHere(store, "page", centre, pasted);
    expect(done).toEqual([]);
    if (isTold) expect(said.length).toBeGreaterThan(0);
  });

  test("nothing chosen copies nothing; a flow alone is said to be no thing to copy", async () => {
    const { store, said } = openedVersion(smallModel());
    await copyChosen(store, "page", event("copy"));
    expect(written).toBe("");
    useDiagram.getState().select("f1");
    await copyChosen(store, "page", event("copy"));
    expect(useDiagram.getState().clipboard).toBeNull();
    expect(said).toHaveLength(1);
  });

  test("a browser that keeps its clipboard to itself still pastes within the workspace", async () => {
    Object.defineProperty(navigator, "clipboard", {
      configurable: true,
      value: { writeText: () => Promise.reject(new Error("denied")) },
    });
    const { store, model } = openedVersion(smallModel());
    useDiagram.getState().select("check");
    await copyChosen(store, "page", event("copy"));
    await pasteHere(store, "page", centre, "");
    expect([...model().elements].filter(({ name }) => name === "Check application")).toHaveLength(2);
  });

  test("a second one beside the first, in one command", () => {
    const { store, model, done } = openedVersion(smallModel());
    useDiagram.getState().select("check");
    duplicate(store, "page");
    expect(done).toMatchObject([{ type: "paste" }]);
    const made = useDiagram.getState().selection.filter((id) => !isConnection(model().elements.get(id)?.type));
    expect(made).not.toContain("check");
    useDiagram.getState().select();
    duplicate(store, "page");
    expect(done).toHaveLength(1);
  });
});
