// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { TemplateRow } from "@/contract/handbook";
import { handbookParts } from "@/core/handbook";
import { smallModel } from "@/core/testing/models";
import { importModel, run, send } from "@/server/testing/workspace";
import { partMoved, useHandbookChoice } from "./handbookChoice";

/** One red pixel. */
const pixel = "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==";
let app: Application;
let version: string;
const given: Blob[] = [];
beforeEach(async () => {
  given.length = 0;
  useHandbookChoice.setState(useHandbookChoice.getInitialState());
  URL.createObjectURL = vi.fn((blob: Blob) => {
    given.push(blob);
    return "blob:given";
  });
  URL.revokeObjectURL = vi.fn();
  app = await openApplication("/", async () => {
    version = await importModel("Applications", smallModel());
  });
  app.goTo(`/v/${version}/hand-off?part=handbook`);
});
afterEach(() => app.close());

const preview = async () => ((await screen.findByTitle(/^Preview of the handbook/)) as HTMLIFrameElement).srcdoc;
const part = (name: string) => screen.findByRole("checkbox", { name: `Take in: ${name}` });

describe("the handbook in a window", () => {
  test("is previewed, without anything that runs, and follows the model", async () => {
    expect(await preview()).toContain("Check application");
    expect(await preview()).not.toContain("<script>");
    expect((await screen.findByTitle(/^Preview/)).getAttribute("sandbox")).toBe("");
    await send(version, { type: "rename", id: "check", name: "Look at it" });
    await expect.poll(preview).toContain("Look at it");
  });

  test("has the parts one chooses, in the order one gives them", async () => {
    await preview();
    await app.user.click(await part("Diagram"));
    await expect.poll(preview).not.toContain("<svg");
    await app.user.click(await screen.findByRole("button", { name: "Roles one place up" }));
    await expect
      .poll(async () => {
        const page = await preview();
        return page.indexOf(">Roles</h3>") < page.indexOf(">Steps</h3>") && page.includes(">Roles</h3>");
      })
      .toBe(true);
    for (const box of screen.getAllByRole("checkbox", { checked: true })) await app.user.click(box);
    expect(await screen.findByText("Choose at least one part.")).toBeTruthy();
    expect(screen.getByRole("button", { name: "PDF" })).toHaveProperty("disabled", true);
  });

  test("is taken as a file, in the language that is chosen", async () => {
    await app.user.selectOptions(await screen.findByLabelText("Language"), "de");
    await expect.poll(preview).toContain("Schritte");
    const kinds = within(screen.getByRole("group", { name: "Take it as" }));
    await app.user.click(kinds.getByRole("button", { name: "Markdown" }));
    await waitFor(() => expect(given).toHaveLength(1));
    expect(await given[0]?.text()).toContain("### Schritte");
  });

  test("has the lenses that are chosen over its diagrams", async () => {
    const lens = { name: "By hand", which: "all", feel: "", pen: "teal", line: "double", sign: "person" };
    const content = { ...lens, conditions: [{ field: "kind", test: "is", value: "byHand" }] };
    expect(await preview()).not.toContain("lens check");
    await run("saveLens", { id: "by-hand", lens: content, revision: 0 });
    await app.user.click(await screen.findByRole("checkbox", { name: "By hand" }));
    await expect.poll(preview).toContain('data-element="lens check"');
    await app.user.click(screen.getByRole("checkbox", { name: "By hand" }));
    await expect.poll(preview).not.toContain("lens check");
  });

  test("is made by a template that everybody keeps: taken, changed, deleted, each taken back", async () => {
    const templates = async () => (await run<{ templates: TemplateRow[] }>("listTemplates", {})).templates;
    await preview();
    await app.user.click(await part("Roles"));
    await app.user.click(screen.getByRole("button", { name: "Diagram one place up" }));
    await app.user.click(screen.getByRole("checkbox", { name: "Numbers before its parts" }));
    await expect.poll(preview).toContain(">1 Diagram</h3>");
    await app.user.click(screen.getByRole("button", { name: "Keep as a template …" }));
    const asked = within(await screen.findByRole("dialog"));
    await app.user.type(asked.getByLabelText("Name of the template"), "House");
    await app.user.click(asked.getByRole("button", { name: "Keep it" }));
    await waitFor(async () => expect((await templates()).map(({ template }) => template.name)).toEqual(["House"]));
    const [kept] = await templates();
    expect(kept?.template).toMatchObject({ isNumbered: true, logo: null });
    expect(kept?.template.parts.slice(0, 2)).toEqual(["diagram", "process"]);
    expect(kept?.template.parts).not.toContain("roles");
    const choice = await screen.findByLabelText("Template");
    await waitFor(() => expect(choice).toHaveProperty("value", kept?.id));

    // Somebody else goes on from nothing, and takes it.
    act(() => useHandbookChoice.setState(useHandbookChoice.getInitialState()));
    expect(await part("Roles")).toHaveProperty("checked", true);
    await app.user.selectOptions(await screen.findByLabelText("Template"), "House");
    expect(await part("Roles")).toHaveProperty("checked", false);
    expect(screen.getByRole("checkbox", { name: "Numbers before its parts" })).toHaveProperty("checked", true);

    // Changed on an older state, it is told; on the present one, kept.
    await app.user.click(await part("Roles"));
    const { id, template, revision } = kept as TemplateRow;
    await run("saveTemplate", { id, template: { ...template, isNumbered: false }, revision });
    await waitFor(() => expect(app.asked()).toContain("listTemplates"));
    app.next("saveTemplate", "lost");
    await app.user.click(await screen.findByRole("button", { name: "Keep in “House”" }));
    await screen.findByText(/^The server did not answer/);
    await app.user.click(await screen.findByRole("button", { name: "Keep in “House”" }));
    await waitFor(async () => expect((await templates())[0]?.template.parts).toContain("roles"));
    await app.user.click(screen.getByRole("button", { name: "Delete “House”" }));
    await waitFor(async () => expect(await templates()).toEqual([]));
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect((await templates()).map(({ template: one }) => one.name)).toEqual(["House"]));
  });

  test("has a logo, which has to be a PNG of a reasonable size", async () => {
    await preview();
    const [input] = screen.getAllByLabelText("Choose a PNG").filter((one) => one.tagName === "INPUT");
    const give = (bytes: Uint8Array<ArrayBuffer>, name: string) =>
      fireEvent.change(input as HTMLElement, { target: { files: [new File([bytes], name, { type: "image/png" })] } });
    give(new TextEncoder().encode("no picture"), "a.png");
    await screen.findByText(/^a\.png is no PNG/);
    give(new Uint8Array([0x89, 0x50, 0x4e, 0x47, ...new Array<number>(250_000).fill(0)]), "b.png");
    await screen.findByText(/^b\.png is too large for a logo/);
    expect(await preview()).not.toContain("<img");
    give(new Uint8Array(Buffer.from(pixel, "base64")), "c.png");
    await expect.poll(preview).toContain('<img alt="" width="144" height="48" src="data:image/png;base64,');
    await app.user.click(screen.getByRole("button", { name: "None" }));
    await expect.poll(preview).not.toContain("<img");
  });

  test("of the area of the process, or of all", async () => {
    await app.user.selectOptions(await screen.findByLabelText("About"), "the area of this process");
    await expect.poll(preview).toContain("<h1>Connections</h1>");
    await app.user.selectOptions(screen.getByLabelText("About"), "all processes (as-is)");
    await expect.poll(preview).toContain("<h1>Processes</h1>");
  });
});

test("a part moves by one place, and stays at the ends", () => {
  const parts = handbookParts.map((one) => ({ part: one, isIn: true }));
  const names = (moved: typeof parts | ReturnType<typeof partMoved>) => moved.map((one) => one.part);
  expect(names(partMoved(parts, "diagram", -1)).slice(0, 2)).toEqual(["diagram", "process"]);
  expect(partMoved(parts, "process", -1)).toBe(parts);
  expect(partMoved(parts, "comments", 1)).toBe(parts);
});
