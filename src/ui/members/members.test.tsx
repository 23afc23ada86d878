// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { MemberRow } from "@/contract/members";
import { run } from "@/server/testing/workspace";

let app: Application;
beforeEach(async () => {
  app = await openApplication("/members", async () => {
    await run("createArea", { id: "accounts", name: "Accounts", parent: null });
    await run("createArea", { id: "connections", name: "Connections", parent: null });
    await run("createEntry", { id: "planner", kind: "role", name: "Planner" });
    await run("setMember", { id: "ines", name: "Ines Orr", roles: [], seat: "reader", areas: [] });
  });
  await line("Ines Orr");
});
afterEach(() => app.close());

const members = async () => (await run<{ members: MemberRow[] }>("listMembers", {})).members;
const member = async (name: string) => (await members()).find((one) => one.name === name);
const line = async (name: string) => within(await screen.findByRole("listitem", { name }));
const press = async (name: string | RegExp, inside: Pick<typeof screen, "findByRole"> = screen) =>
  app.user.click(await inside.findByRole("button", { name }));
const dialog = async () => within(await screen.findByRole("dialog"));
const isClosed = () => waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());

describe("who has access", () => {
  test("a member is added with a seat, more in an area, and the roles it fills", async () => {
    await press("Add a member …");
    const asked = await dialog();
    expect(asked.getByRole("button", { name: "Save" })).toHaveProperty("disabled", true);
    // Where nobody signs in, no address is asked for.
    expect(asked.queryByLabelText(/E-mail/)).toBeNull();
    await app.user.type(asked.getByRole("textbox"), "Tilda Quist");
    await app.user.selectOptions(asked.getByLabelText("Seat"), "Reviewer");
    asked.getByText("reads, judges findings, comments, answers reviews, works cases");
    await app.user.selectOptions(await asked.findByLabelText("Add an area"), "Accounts");
    await app.user.selectOptions(asked.getByLabelText("Seat, Accounts"), "Developer");
    await app.user.selectOptions(asked.getByLabelText("Add an area"), "Connections");
    await press("No seat of its own in Connections", asked);
    await app.user.click(await asked.findByRole("checkbox", { name: "Planner" }));
    await press("Save", asked);
    await isClosed();
    expect(await member("Tilda Quist")).toMatchObject({
      seat: "reviewer",
      areas: [{ area: "accounts", seat: "developer" }],
      roles: ["planner"],
    });
    const shown = await line("Tilda Quist");
    shown.getByText("Reviewer");
    shown.getByText("Developer in Accounts");
  });

  test("one is changed; an answer that is lost leaves what was typed, and once more is once", async () => {
    await press("Change Ines Orr", await line("Ines Orr"));
    const asked = await dialog();
    const name = asked.getByRole("textbox");
    await app.user.clear(name);
    await app.user.type(name, "Ines Orr-Vale");
    app.next("setMember", "lost");
    await press("Save", asked);
    await asked.findByRole("alert");
    expect(name).toHaveProperty("value", "Ines Orr-Vale");
    expect(await member("Ines Orr")).toBeTruthy();
    app.next("setMember", "unanswered");
    await press("Save", asked);
    await asked.findByText(/^The server did not answer/);
    await press("Save", asked);
    await isClosed();
    expect((await members()).map((one) => one.name).sort()).toEqual(["Ines Orr-Vale", "Mara Aldous"]);
  });

  test("access is taken away after one was asked, not otherwise", async () => {
    const confirm = vi.spyOn(window, "confirm").mockReturnValue(false);
    await press("Take Ines Orr's access away", await line("Ines Orr"));
    expect(confirm.mock.calls[0]?.[0]).toMatch(/^Take all access of Ines Orr away\?/);
    expect(await member("Ines Orr")).toBeTruthy();
    confirm.mockReturnValue(true);
    await press("Take Ines Orr's access away", await line("Ines Orr"));
    await waitFor(() => expect(screen.queryByRole("listitem", { name: "Ines Orr" })).toBeNull());
    expect(await member("Ines Orr")).toBeUndefined();
    confirm.mockRestore();
    // Nobody takes away their own.
    const me = await line("Mara Aldous");
    me.getByText("(you)");
    expect(me.queryByRole("button", { name: /access away/ })).toBeNull();
  });

  test("the last owner stays one, and is told why", async () => {
    await press("Change Mara Aldous", await line("Mara Aldous"));
    const asked = await dialog();
    await app.user.selectOptions(asked.getByLabelText("Seat"), "Reader");
    await press("Save", asked);
    expect((await asked.findByRole("alert")).textContent).toMatch(/owner/i);
    expect((await member("Mara Aldous"))?.seat).toBe("owner");
  });

  test("what somebody else does to members is seen", async () => {
    await run("setMember", { id: "jon", name: "Jon Vale", roles: [], seat: "operator", areas: [] });
    (await line("Jon Vale")).getByText("Operator");
    await run("setMember", { id: "jon", name: "Jon Vale", roles: [], seat: "reader", areas: [] });
    await waitFor(async () => (await line("Jon Vale")).getByText("Reader"));
  });
});

describe("what was done", () => {
  test("is told with who and when, for everybody or for one", async () => {
    await press("Add a member …");
    const asked = await dialog();
    await app.user.type(asked.getByRole("textbox"), "Tilda Quist");
    await press("Save", asked);
    await isClosed();
    await app.user.click(screen.getByRole("radio", { name: "What was done" }));
    const rows = await screen.findAllByRole("row");
    expect(rows.length).toBeGreaterThan(2);
    expect(rows.map(({ textContent }) => textContent).join("\n")).toContain("Mara Aldous");
    await app.user.selectOptions(screen.getByLabelText("Of"), "Ines Orr");
    await screen.findByText("Nothing was done yet.");
    await app.user.selectOptions(screen.getByLabelText("Of"), "everybody");
    await waitFor(() => expect(screen.getAllByRole("row").length).toBe(rows.length));
  });
});
