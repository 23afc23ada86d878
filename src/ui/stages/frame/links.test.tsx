// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { LinkRow } from "@/contract/links";
import { smallModel } from "@/core/testing/models";
import { openLink } from "@/server";
import { importModel, run } from "@/server/testing/workspace";

let app: Application;
let version: string;
beforeEach(async () => {
  app = await openApplication("/", async () => {
    version = await importModel("Applications", smallModel());
  });
  app.goTo(`/v/${version}/diagram`);
});
afterEach(() => app.close());

const listed = async () => (await run<{ links: LinkRow[] }>("listLinks", { version })).links;
const open = async () => {
  await app.user.click(await screen.findByRole("button", { name: /As-is/ }));
  await app.user.click(await screen.findByRole("menuitem", { name: "Links to read it …" }));
  return within(await screen.findByTestId("links"));
};
/** By events on the fields themselves: the menu that the window came from takes the keyboard for a moment as it goes. */
const fill = (field: HTMLElement, value: string) => fireEvent.change(field, { target: { value } });
const press = (button: HTMLElement) => fireEvent.click(button);

describe("links in a window", () => {
  test("one is made, shown once, and withdrawn", async () => {
    const dialog = await open();
    expect(dialog.getByRole("button", { name: "Make a link" })).toHaveProperty("disabled", true);
    fill(dialog.getByLabelText("For whom"), "The board");
    press(dialog.getByRole("button", { name: "Make a link" }));
    const made = within(await dialog.findByTestId("link-made"));
    const address = (made.getByLabelText("Links to read it") as HTMLInputElement).value;
    const token = address.slice(address.lastIndexOf("/") + 1);
    expect((await openLink(token)).kind).toBe("page");
    expect((made.getByLabelText(/as a picture/) as HTMLInputElement).value).toBe(`${address}/picture`);
    press(await dialog.findByRole("button", { name: "Withdraw the link The board" }));
    await dialog.findByText("withdrawn");
    expect((await openLink(token)).kind).toBe("gone");
  });

  test("the keyboard that goes back to the menu for a moment does not close the window with what is typed in it", async () => {
    const dialog = await open();
    fill(dialog.getByLabelText("For whom"), "The board");
    const outside = screen.getByRole("button", { name: /As-is/, hidden: true });
    fireEvent.focusIn(outside);
    // It is still there to be written in.
    await app.user.type(dialog.getByLabelText("For whom"), ", until May");
    expect(screen.getByLabelText("For whom")).toHaveProperty("value", "The board, until May");
    await app.user.keyboard("{Escape}");
    await waitFor(() => expect(screen.queryByTestId("links")).toBeNull());
  });

  test("a password that is too short is told where it is asked for, and nothing is made", async () => {
    const dialog = await open();
    fill(dialog.getByLabelText("For whom"), "The board");
    fill(dialog.getByLabelText("Password"), "short");
    press(dialog.getByRole("button", { name: "Make a link" }));
    expect((await dialog.findByRole("alert")).textContent).toMatch(/8 letters at least/);
    expect(await listed()).toEqual([]);
    fill(dialog.getByLabelText("Password"), "short but longer");
    press(dialog.getByRole("button", { name: "Make a link" }));
    await dialog.findByTestId("link-made");
    await waitFor(async () => expect((await listed()).map(({ hasPassword }) => hasPassword)).toEqual([true]));
  });
});
