// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { importModel, nameOfElement, run, send } from "@/server/testing/workspace";

let app: Application;
let version: string;
const open = async () => {
  app = await openApplication("/", async () => {
    version = await importModel("Applications");
    await run("nameRevision", { version, reason: "as it came" });
    await send(version, { type: "rename", id: "check", name: "Check every page" });
  });
  app.goTo(`/v/${version}/check`);
  await menu("History");
  return within(await screen.findByRole("dialog"));
};
const menu = async (item: string | RegExp) => {
  await app.user.click(await screen.findByRole("button", { name: "As-is" }));
  await app.user.click(await screen.findByRole("menuitem", { name: item }));
};
afterEach(() => app.close());

describe("the history of a version", () => {
  test("kept states with what was done since, newest first; one is looked at", async () => {
    const dialog = await open();
    expect(await dialog.findByLabelText("Name of revision 1")).toHaveProperty("value", "as it came");
    await app.user.click(dialog.getByText("Changed since then"));
    expect(await dialog.findByText(/Check every page/)).toBeTruthy();
    await app.user.click(dialog.getByRole("button", { name: "Look at it" }));
    expect(await dialog.findByText("You are looking at revision 1; it cannot be changed.")).toBeTruthy();
    expect(document.querySelector('[aria-label="Check application, user task"]')).toBeTruthy();
  });

  test("what was said of one in a review stands with it", async () => {
    const dialog = await open();
    await run("setMember", { id: "oran", name: "Oran Veltri", roles: [] });
    await run("askReview", { version, review: "r", reviewers: ["oran"], question: "", due: null });
    expect((await dialog.findByTestId("reviewed")).textContent).toBe(
      "Waiting for answers: Oran Veltri has not answered yet",
    );
  });

  test("one is put back, and what was there before is kept too", async () => {
    const dialog = await open();
    await app.user.click(await dialog.findByRole("button", { name: "Restore" }));
    await waitFor(async () => expect(await nameOfElement(version, "check")).toBe("Check application"));
    const { revisions } = await run<{ revisions: { reason: string }[] }>("listRevisions", { version });
    expect(revisions.map(({ reason }) => reason)).toEqual([
      "revision 1 restored",
      "before restoring revision 1",
      "as it came",
    ]);
  });

  test("one is given another name, and one that somebody else keeps meanwhile is listed", async () => {
    const dialog = await open();
    const name = await dialog.findByLabelText("Name of revision 1");
    await app.user.clear(name);
    await app.user.type(name, "as agreed in March{Enter}");
    await waitFor(async () => {
      const { revisions } = await run<{ revisions: { reason: string }[] }>("listRevisions", { version });
      expect(revisions[0]?.reason).toBe("as agreed in March");
    });
    await run("nameRevision", { version, reason: "from elsewhere" });
    await waitFor(() => expect(dialog.getByLabelText("Name of revision 2")).toHaveProperty("value", "from elsewhere"));
  });

  test("a restore whose answer is lost is told, and the window shows what the server holds", async () => {
    const dialog = await open();
    app.next("restoreRevision", "unanswered");
    await app.user.click(await dialog.findByRole("button", { name: "Restore" }));
    expect(await screen.findByText(/The server did not answer/)).toBeTruthy();
    expect(await nameOfElement(version, "check")).toBe("Check application");
  });
});

describe("versions", () => {
  test("a to-be is started with its aim, gone to, and becomes the as-is", async () => {
    await open();
    await app.user.keyboard("{Escape}");
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    await menu("Start a to-be");
    const dialog = within(await screen.findByRole("dialog"));
    const name = dialog.getByLabelText("Name");
    await app.user.clear(name);
    await app.user.type(name, "Engineer decides");
    await app.user.type(dialog.getByLabelText(/^Aim/), "One pair of eyes less.");
    await app.user.click(dialog.getByRole("button", { name: "Start a to-be" }));
    await waitFor(() => expect(app.address()).not.toContain(version));
    const [, , toBe = ""] = app.address().split("/");
    expect(await run("openVersion", { version: toBe })).toMatchObject({
      version: { kind: "to-be", name: "Engineer decides", aim: "One pair of eyes less." },
    });
    await send(toBe, { type: "rename", id: "check", name: "Engineer checks" });
    await run("adoptToBe", { version: toBe });
    expect(await nameOfElement(version, "check")).toBe("Engineer checks");
  });
});
