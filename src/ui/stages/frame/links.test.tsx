// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
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
  const dialog = await screen.findByTestId("links");
  // The menu keeps the pointer until it has gone.
  await waitFor(() => expect(document.body.style.pointerEvents).not.toBe("none"));
  return within(dialog);
};

describe("links in a window", () => {
  test("one is made, shown once, and withdrawn", async () => {
    const dialog = await open();
    expect(dialog.getByRole("button", { name: "Make a link" })).toHaveProperty("disabled", true);
    await app.user.type(dialog.getByLabelText("For whom"), "The board");
    await app.user.click(dialog.getByRole("button", { name: "Make a link" }));
    const made = within(await dialog.findByTestId("link-made"));
    const address = (made.getByLabelText("Links to read it") as HTMLInputElement).value;
    const token = address.slice(address.lastIndexOf("/") + 1);
    expect((await openLink(token)).kind).toBe("page");
    expect((made.getByLabelText(/as a picture/) as HTMLInputElement).value).toBe(`${address}/picture`);
    await app.user.click(await dialog.findByRole("button", { name: "Withdraw the link The board" }));
    await dialog.findByText("withdrawn");
    expect((await openLink(token)).kind).toBe("gone");
  });

  test("a password that is too short is told where it is asked for, and nothing is made", async () => {
    const dialog = await open();
    await app.user.type(dialog.getByLabelText("For whom"), "The board");
    await app.user.type(dialog.getByLabelText("Password"), "short");
    await app.user.click(dialog.getByRole("button", { name: "Make a link" }));
    expect((await dialog.findByRole("alert")).textContent).toMatch(/8 letters at least/);
    expect(await listed()).toEqual([]);
    await app.user.type(dialog.getByLabelText("Password"), " but longer{Enter}");
    await dialog.findByTestId("link-made");
    await waitFor(async () => expect((await listed()).map(({ hasPassword }) => hasPassword)).toEqual([true]));
  });
});
