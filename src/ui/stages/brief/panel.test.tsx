// @vitest-environment jsdom
import { act, screen, waitFor, within } from "@testing-library/react";
import type { Editor } from "@tiptap/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { BriefData } from "@/contract/brief";
import { emptyBrief, linksOf, markedText, readBrief } from "@/core/brief";
import { importModel, run, storedModel } from "@/server/testing/workspace";
import { useBrief } from "../../version/briefStore";
import { placesOf } from "./pageActions";

let app: Application;
let version: string;
let process: string;
let editor: Editor;
beforeEach(() => useBrief.setState(useBrief.getInitialState(), true));
afterEach(() => app.close());
const open = async (written: string) => {
  app = await openApplication("/", async () => {
    version = await importModel("Applications");
    process = (await run<{ process: { id: string } }>("openVersion", { version })).process.id;
    await run("saveBrief", { process, brief: "b", base: 0, content: { ...emptyBrief, document: markedText(written) } });
  });
  app.goTo(`/v/${version}/brief`);
  await waitFor(() => expect(screen.getByTestId("brief-state").textContent).toBe("saved"));
  editor = ((await screen.findByTestId("brief-page")) as HTMLElement & { editor: Editor }).editor;
};
const kept = async () => (await run<BriefData>("openBrief", { process })).brief?.content ?? emptyBrief;
const marks = async () => readBrief((await kept()).document).marks.map(({ id, kind }) => `${id}: ${kind}`);
const advice = async (kind: string) =>
  waitFor(() => {
    const found = document.querySelector<HTMLElement>(`[data-advice="${kind}"]`);
    if (!found) throw new Error(`no advice of this kind: ${screen.queryByTestId("advice")?.textContent}`);
    return within(found);
  });
const isGone = (kind: string) => waitFor(() => expect(document.querySelector(`[data-advice="${kind}"]`)).toBeNull());
const press = async (name: string | RegExp, inside: Pick<typeof screen, "findByRole"> = screen) =>
  app.user.click(await inside.findByRole("button", { name }));
const at = (mark: string) =>
  act(() => {
    const place = placesOf(editor).find(({ id }) => id === mark);
    editor.commands.setTextSelection((place?.from ?? 0) + 1);
  });

describe("the mark one is at", () => {
  const text =
    "When [trigger#t: an application arrives], the [role#r: desk] [activity#a: checks the application]. The desk files it.";

  test("is given another kind, and taken off, from the panel", async () => {
    await open(text);
    at("a");
    const detail = within(await screen.findByTestId("mark-detail"));
    await app.user.selectOptions(detail.getByLabelText("What the words are"), "Result");
    await waitFor(async () => expect(await marks()).toContain("a: result"));
    await press("unmark", detail);
    await waitFor(async () => expect(await marks()).toEqual(["t: trigger", "r: role"]));
  });

  test("is tied to an element by hand, and untied; the element knows its words", async () => {
    await open(text);
    at("a");
    const detail = within(await screen.findByTestId("mark-detail"));
    await app.user.selectOptions(detail.getByLabelText("Tie to an element of this version …"), "check");
    const link = await detail.findByRole("link", { name: "Check application" });
    expect(link.getAttribute("href")).toBe(`/v/${version}/diagram?element=check`);
    await waitFor(async () => expect(linksOf(await storedModel(version)).get("a")).toEqual(["check"]));
    // What is tied accounts for its sentence.
    await waitFor(() => expect(screen.getByTestId("coverage").textContent).toMatch(/1 of 2 sentences/));
    await press("untie", detail);
    await waitFor(async () => expect(linksOf(await storedModel(version)).get("a") ?? []).toEqual([]));
  });
});

describe("advice is followed by a button", () => {
  test("work that several triggers set off in one sentence is told, and cannot be parted where the words are shared", async () => {
    await open(
      "When [trigger#t: a letter comes] or when [trigger#u: a day is over], the [role#r: desk] [activity#a: files it].",
    );
    const remark = await advice("several-triggers");
    expect(remark.queryByRole("button", { name: "Make it a process of its own" })).toBeNull();
    act(() => void editor.commands.setTextSelection(editor.state.doc.content.size - 1));
    await press("Show", remark);
    expect(editor.state.selection.from).toBeLessThan(30);
  });

  test("a party that does inside work is one of outside", async () => {
    await open(
      "When [trigger#t: an application arrives], the [role#h: household] [activity#a: signs the form]. The [role#d: desk] [activity#b: files it].",
    );
    await press("Make it an outside party", await advice("party-as-lane"));
    await waitFor(async () => expect(await marks()).toContain("h: party"));
  });

  test("what comes again is a trigger", async () => {
    await open("[time#w: Every night at 2:00] the [role#r: desk] [activity#a: prints the bills].");
    await press("Make it a trigger", await advice("recurring-time"));
    await waitFor(async () => expect(await marks()).toContain("w: trigger"));
    await isGone("recurring-time");
  });

  test("an unaccounted sentence is set aside, and no model has to account for it", async () => {
    await open(
      "When [trigger#t: a call comes], the [role#r: desk] [activity#a: answers it]. People say it takes long.",
    );
    const before = screen.getByTestId("coverage").textContent ?? "";
    expect(before).toMatch(/of 2 sentences/);
    await press("Set aside as background", await advice("unaccounted"));
    await waitFor(() => expect(screen.getByTestId("coverage").textContent).toMatch(/of 1 sentence/));
    await waitFor(async () => expect(JSON.stringify((await kept()).document)).toContain('"aside"'));
  });

  test("it leads to its words, and of much advice the rest is shown when it is asked for", async () => {
    await open(
      [
        "When [trigger#t: a call comes], the [role#r: desk] [activity#a: answers it].",
        ...Array.from({ length: 6 }, (_, number) => `Sentence ${number} says nothing marked.`),
      ].join(" "),
    );
    const list = within(await screen.findByTestId("advice"));
    expect(list.getAllByRole("listitem")).toHaveLength(4);
    await press(/^\d+ more$/, list);
    expect(list.getAllByRole("listitem").length).toBeGreaterThan(4);
    const before = editor.state.selection.from;
    await app.user.click(
      within(list.getAllByRole("listitem").at(-1) as HTMLElement).getByRole("button", { name: "Show" }),
    );
    expect(editor.state.selection.from).not.toBe(before);
  });
});

describe("the processes of a text", () => {
  const two =
    "When [trigger#t: an application arrives], the [role#r: desk] [activity#a: checks it].\n\nWhen [trigger#u: a payment arrives], the desk [activity#b: books it].";

  test("are named otherwise, and built one by one", async () => {
    await open(two);
    const [first] = await screen.findAllByRole("textbox", { name: /Name of the process/ });
    await app.user.clear(first as HTMLElement);
    await app.user.type(first as HTMLElement, "Applications of households");
    await app.user.tab();
    await waitFor(async () =>
      expect((await kept()).frames.map(({ name }) => name)).toContain("Applications of households"),
    );
    const [build] = await screen.findAllByRole("button", { name: "build" });
    await app.user.click(build as HTMLElement);
    await screen.findByText(/^Built: /);
    const { processes } = await run<{ processes: { name: string }[] }>("openHome", {});
    // The other one is built when it is asked for.
    expect(processes.length).toBeLessThanOrEqual(2);
  });

  test("the organisation that runs them is kept with the text", async () => {
    await open(two);
    await app.user.type(await screen.findByLabelText("Organisation"), "Quillmere Cooperative");
    await app.user.tab();
    await waitFor(async () => expect((await kept()).organisation).toBe("Quillmere Cooperative"));
  });
});
