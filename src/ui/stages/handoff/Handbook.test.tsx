// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { handbookParts } from "@/core/handbook";
import { smallModel } from "@/core/testing/models";
import { importModel, run, send } from "@/server/testing/workspace";
import { partMoved, useHandbookChoice } from "./handbookChoice";

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
