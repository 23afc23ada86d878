// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import type { Editor } from "@tiptap/react";
import { strToU8, zipSync } from "fflate";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { BriefData } from "@/contract/brief";
import { emptyBrief, markedText, readBrief } from "@/core/brief";
import { run } from "@/server/testing/workspace";
import { useBrief } from "../../version/briefStore";
import { placesOf, removeMarksHere } from "./pageActions";

/** Each test has a process of its own: what a browser keeps of one outlives it. */
let [process, version] = ["", ""];
let opened = 0;
let app: Application;
let page: HTMLElement;
let editor: Editor;

const told =
  "When a household moves, the front desk registers the move. The desk checks whether the number is known. If the number is missing, the desk asks the household for it.";

/** Opens the brief of a process of its own, with a text if one is wished. */
async function open(written?: string): Promise<void> {
  [process, version] = [`moving-${++opened}`, `moving-${opened}-as-is`];
  app = await openApplication("/", async () => {
    await run("createArea", { id: "accounts", name: "Accounts", parent: null });
    await run("createProcess", { name: "Moving", area: "accounts", processId: process, versionId: version });
    if (written !== undefined) await save(written, 0);
  });
  app.goTo(`/v/${version}/brief`);
  await look();
}
async function look(): Promise<void> {
  await isSaved();
  page = await screen.findByTestId("brief-page");
  editor = (page as HTMLElement & { editor: Editor }).editor;
}
let saves = 0;
const save = async (written: string, revision: number) =>
  run("saveBrief", {
    process,
    brief: "b",
    generation: (await held()).generation,
    content: { ...emptyBrief, document: markedText(written) },
    base: revision,
    save: `elsewhere-${++saves}`,
  });
const held = () => run<BriefData>("openBrief", { process });
const stored = async () => (await held()).brief;
/** The marks that are kept, as "kind: words". */
const kept = async () => {
  const content = (await stored())?.content ?? emptyBrief;
  return readBrief(content.document).marks.map(({ kind, text }) => `${kind}: ${text}`);
};
const here = () => placesOf(editor).map(({ kind, from, to }) => `${kind}: ${editor.state.doc.textBetween(from, to)}`);
/** Puts the cursor into the words, or chooses them. */
const at = (words: string, isChosen = false) => {
  const text = editor.state.doc.textBetween(0, editor.state.doc.content.size, "\n", "\n");
  let place = -1;
  editor.state.doc.descendants((node, offset) => {
    if (!node.isTextblock || place >= 0) return;
    const found = node.textContent.indexOf(words);
    if (found >= 0) place = offset + 1 + found;
  });
  if (place < 0) throw new Error(`“${words}” is not in “${text}”.`);
  act(() => {
    editor.commands.setTextSelection(isChosen ? { from: place, to: place + words.length } : place + 1);
  });
};
const press = (key: string, more: Partial<KeyboardEventInit> = {}) =>
  act(
    () => void fireEvent.keyDown(page, { key, code: /^[a-z]$/i.test(key) ? `Key${key.toUpperCase()}` : key, ...more }),
  );
const button = async (name: string | RegExp) => app.user.click(await screen.findByRole("button", { name }));
const isSaved = () => waitFor(() => expect(screen.getByTestId("brief-state").textContent).toBe("saved"));
const drop = (file: File) =>
  fireEvent.drop(screen.getByTestId("whole"), {
    dataTransfer: { files: [file], types: ["Files"] } as unknown as DataTransfer,
  });

beforeEach(() => useBrief.setState(useBrief.getInitialState(), true));
afterEach(() => app.close());

describe("an empty brief", () => {
  beforeEach(() => open());

  test("is written in at once; what is written is kept", async () => {
    expect(useBrief.getState().mode).toBe("write");
    await screen.findByText("Nothing is written yet");
    act(() => void editor.commands.insertContent("The desk reads the form."));
    await isSaved();
    await waitFor(async () =>
      expect(readBrief((await stored())?.content.document ?? emptyBrief.document).sentences).toHaveLength(1),
    );
    // Nothing is marked yet: that comes first.
    expect(screen.getByRole("button", { name: "Suggest what the words stand for" })).toBeTruthy();
  });

  test("takes a file of plain text, which then is marked, not written in", async () => {
    drop(new File(["First <b>note</b>.\r\nSame.\n\n\nSecond & last."], "notes.txt"));
    await waitFor(() => expect(editor.state.doc.childCount).toBe(2));
    expect(editor.getText()).toBe("First <b>note</b>.\nSame.\n\nSecond & last.");
    await waitFor(() => expect(useBrief.getState().mode).toBe("mark"));
    await waitFor(async () => expect((await stored())?.revision).toBe(1));
  });

  test("takes Markdown with its headings and lists; what a page cannot hold falls away", async () => {
    drop(
      new File(
        ["# Bills\n\n- one\n- two\n\n<script>alert(1)</script>\n\n![x](http://elsewhere.example/x.png)"],
        "a.md",
      ),
    );
    await waitFor(() => expect(editor.state.doc.childCount).toBeGreaterThan(1));
    expect(editor.getHTML()).toMatch(/<h1>Bills<\/h1><ul><li><p>one<\/p><\/li><li><p>two<\/p><\/li><\/ul>/);
    expect(editor.getHTML()).not.toMatch(/script|img|elsewhere/);
  });

  test("refuses in words what it cannot read, and stays as it was", async () => {
    const zipped = (files: Parameters<typeof zipSync>[0]) => zipSync(files).slice();
    for (const [file, words] of [
      [new File(["x"], "notes.xyz"), /notes\.xyz is of a kind that cannot be read/],
      [new File(["no archive"], "notes.docx"), /notes\.docx cannot be read/],
      [new File([zipped({ "a.txt": strToU8("x") })], "b.docx"), /b\.docx cannot be read/],
      [new File([new Uint8Array(10 * 1024 * 1024 + 1)], "big.txt"), /big\.txt is too large/],
      // Little that unfolds to very much.
      [
        new File([zipped({ "word/document.xml": new Uint8Array(81 * 1024 * 1024) })], "bomb.docx"),
        /bomb\.docx is too large/,
      ],
    ] as const) {
      drop(file);
      await screen.findByText(words);
      expect(editor.isEmpty).toBe(true);
    }
    expect(await stored()).toBeNull();
  });
});

describe("the keys of the page", () => {
  beforeEach(async () => {
    await open(told);
    expect(useBrief.getState().mode).toBe("mark");
  });

  test("a letter marks the word the cursor is in or the words chosen; the same once more takes the mark off", async () => {
    at("household");
    press("o");
    expect(here()).toEqual(["party: household"]);
    at(" registers the move", true);
    press("a");
    expect(here()).toEqual(["party: household", "activity: registers the move"]);
    await isSaved();
    await waitFor(async () => expect(await kept()).toEqual(["party: household", "activity: registers the move"]));
    at("registers the move", true);
    press("A");
    expect(here()).toEqual(["party: household"]);
  });

  test("a mark within another one is taken off alone, from inside to outside; over a selection all of them", () => {
    at("registers the move", true);
    press("a");
    at("the move.", true);
    press("p");
    at("the move");
    useBrief.setState({ selected: null });
    press("x");
    expect(here()).toEqual(["activity: registers the move"]);
    at("the move");
    press("Backspace");
    expect(here()).toEqual([]);
    at("household");
    press("o");
    at("front desk", true);
    press("r");
    act(() => void editor.commands.selectAll());
    act(() => removeMarksHere(editor));
    expect(here()).toEqual([]);
  });

  test("in mark mode nothing slips into the text; F2 writes, and there the letters mark with Alt", () => {
    const before = editor.getText();
    at("household");
    for (const key of ["z", "5", "Enter"]) press(key);
    expect(editor.getText()).toBe(before);
    press("F2");
    expect(useBrief.getState().mode).toBe("write");
    at("front desk", true);
    press("r");
    expect(here()).toEqual([]);
    press("r", { altKey: true });
    expect(here()).toEqual(["role: front desk"]);
    press("Escape");
    expect(useBrief.getState().mode).toBe("mark");
  });

  test("a mark stays within its paragraph, and one on blanks alone is none", () => {
    act(() => void editor.commands.insertContentAt(editor.state.doc.content.size, "<p>Next one.</p>"));
    const end = editor.state.doc.content.size;
    act(() => void editor.commands.setTextSelection({ from: end - 16, to: end }));
    press("a");
    expect(here()[0]).not.toMatch(/Next/);
    const count = here().length;
    at("  ".trim() === "" ? " " : "", true);
    press("d");
    expect(here()).toHaveLength(count);
  });

  test("words that are copied get a name of their own; words that are cut and put elsewhere keep theirs", () => {
    at("household");
    press("o");
    const [first] = placesOf(editor);
    const words = editor.state.doc.slice(first?.from ?? 0, first?.to ?? 0);
    act(() =>
      editor.view.dispatch(
        editor.state.tr.insert(editor.state.doc.content.size, editor.schema.node("paragraph", null, words.content)),
      ),
    );
    const ids = placesOf(editor).map(({ id }) => id);
    expect(ids).toHaveLength(2);
    expect(ids[0]).toBe(first?.id);
    expect(new Set(ids).size).toBe(2);
    // Cut out of its place and put at the end in one act: still the first one's name.
    const [place] = placesOf(editor);
    act(() => {
      const change = editor.state.tr.delete(place?.from ?? 0, place?.to ?? 0);
      change.insert(change.doc.content.size, editor.schema.node("paragraph", null, words.content));
      editor.view.dispatch(change);
    });
    expect(placesOf(editor).map(({ id }) => id)).toContain(first?.id);
  });

  test("U goes from one sentence that nothing accounts for to the next, and round again", () => {
    const sentence = () => {
      const text = editor.state.doc.textBetween(0, editor.state.selection.from, "\n", "\n");
      return text.split(". ").length;
    };
    press("u");
    expect(sentence()).toBe(1);
    press("u");
    expect(sentence()).toBe(2);
    press("u");
    press("u");
    expect(sentence()).toBe(1);
  });
});

describe("suggestions", () => {
  beforeEach(() => open(told));
  const open_ = () => useBrief.getState().suggestions?.length ?? 0;

  test("are gone through by key: taken, refused and never made again, left for later", async () => {
    press("g");
    const many = open_();
    expect(many).toBeGreaterThan(4);
    await screen.findByText(`Suggestion 1 of ${many}`);
    press("Tab");
    await screen.findByText(`Suggestion 2 of ${many}`);
    press("Tab", { shiftKey: true });
    press("Tab", { shiftKey: true });
    await screen.findByText(`Suggestion ${many} of ${many}`);
    press("Tab");
    const refused = useBrief.getState().suggestions?.[0];
    press("Backspace");
    expect(open_()).toBe(many - 1);
    expect(here()).toEqual([]);
    const accepted = useBrief.getState().suggestions?.[0];
    press("Enter");
    expect(here()).toEqual([`${accepted?.kind}: ${accepted?.text}`]);
    // A letter marks nothing while suggestions are open.
    press("a");
    expect(here()).toHaveLength(1);
    press("Escape");
    expect(useBrief.getState().suggestions).toBeNull();
    press("g");
    expect(useBrief.getState().suggestions?.map(({ kind, text }) => `${kind} ${text}`)).not.toContain(
      `${refused?.kind} ${refused?.text}`,
    );
    press("Enter", { shiftKey: true });
    expect(useBrief.getState().suggestions).toBeNull();
    expect(here().length).toBeGreaterThanOrEqual(many - 2);
    await isSaved();
    await waitFor(async () => expect((await stored())?.content.refused).toHaveLength(1));
  });

  test("when there are none left, that is said", async () => {
    press("g");
    await button(/^Refuse all/);
    press("g");
    await screen.findByText("There is nothing more to suggest in this text.");
  });
});

describe("what is built of it", () => {
  const marked =
    "When [trigger#t: a household moves], the [role#r: front desk] [activity#a: registers the move]. The desk [activity#b: files the form].";

  test("is gone on with in Steps; built again after the text grew, what it will do is shown first, to be taken or left", async () => {
    await open(marked);
    await button("Build 1 process");
    await screen.findByText(/^Built: /);
    await screen.findByText(/100 % covered|% covered: 2 of 2/);
    const { links, processes } = await held();
    expect(links.map(({ mark }) => mark).sort()).toEqual(["a", "b", "r", "t"]);
    expect(processes.length).toBeGreaterThan(0);
    await look();
    act(
      () => void editor.commands.insertContentAt(editor.state.doc.content.size - 1, " The desk tells the household."),
    );
    at("tells the household", true);
    press("a");
    await isSaved();
    await button(/^Add 1 new step to the process/);
    const dialog = within(await screen.findByRole("dialog"));
    expect(dialog.getByText("New in the text")).toBeTruthy();
    const [box] = dialog.getAllByRole("checkbox");
    expect(box).toHaveProperty("checked", true);
    await app.user.click(dialog.getByRole("button", { name: "Build what is taken" }));
    await waitFor(async () => expect((await held()).links).toHaveLength(5));
  });

  test("a build whose answer is lost is told; asked for again, nothing is built twice", async () => {
    await open(marked);
    app.next("buildProcesses", "unanswered");
    await button("Build 1 process");
    await screen.findByText(/The server did not answer/);
    await waitFor(async () => expect((await held()).links).toHaveLength(4));
    await button(/^All that is marked is built/);
    await waitFor(async () => expect(app.asked().filter((name) => name === "previewBuild").length).toBeGreaterThan(0));
    expect((await held()).links).toHaveLength(4);
  });
});

describe("two at one text", () => {
  beforeEach(() => open(told));
  const clash = async () => {
    await save("Somebody else wrote this.", 1);
    act(() => void editor.commands.insertContentAt(editor.state.doc.content.size - 1, " Mine."));
    await waitFor(() => expect(screen.getByTestId("brief-state").textContent).toBe("changed-elsewhere"));
  };

  test("what was written elsewhere is not overwritten: it can be taken", async () => {
    await clash();
    await button("Take that text");
    await isSaved();
    await look();
    expect(editor.getText()).toBe("Somebody else wrote this.");
  });

  test("or mine put in its place, knowingly", async () => {
    await clash();
    await button("Keep mine");
    await isSaved();
    await waitFor(async () => expect(JSON.stringify((await stored())?.content)).toContain("Mine."));
    await look();
    expect(editor.getText()).toMatch(/^When a household moves.* Mine\.$/);
  });

  test("a save that is lost is tried again by itself, and one that was done already is not a clash", async () => {
    app.next("saveBrief", "lost");
    app.next("saveBrief", "unanswered");
    act(() => void editor.commands.insertContentAt(editor.state.doc.content.size - 1, " Once."));
    await screen.findByText(/^The description is not saved yet/);
    await isSaved();
    // The first one wrote nothing, the second one did, and the third one knows that as its own.
    expect((await stored())?.revision).toBe(3);
    expect(screen.queryByText(/^The description is not saved yet/)).toBeNull();
  });
});
