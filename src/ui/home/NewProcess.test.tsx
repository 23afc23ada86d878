// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { run } from "@/server/testing/workspace";
import { areaPaths } from "./NewProcess";

let app: Application;
const open = async () => {
  app = await openApplication("/", async () => {
    await run("createArea", { id: "connections", name: "Connections", parent: null });
    await run("createArea", { id: "on-site", name: "On site", parent: "connections" });
    await run("createArea", { id: "accounts", name: "Accounts", parent: null });
  });
  await app.user.click((await screen.findAllByRole("button", { name: "New process" }))[0] as HTMLElement);
  return within(await screen.findByRole("dialog"));
};
const home = () => run<{ processes: { name: string; area: string }[] }>("openHome", {});

describe("a new process", () => {
  afterEach(async () => {
    localStorage.clear();
    await app.close();
  });

  test("asks for its area and where one begins; the next one begins where the last did", async () => {
    const dialog = await open();
    const area = dialog.getByLabelText("In the area", { selector: "select" }) as HTMLSelectElement;
    expect([...area.options].map(({ text }) => text)).toEqual(["Accounts", "Connections", "Connections / On site"]);
    await app.user.selectOptions(area, "Connections / On site");
    await app.user.selectOptions(dialog.getByLabelText("Begin in", { selector: "select" }), "Steps");
    await app.user.type(dialog.getByLabelText("Name of the process"), "Read the meter{Enter}");
    await waitFor(() => expect(app.address()).toMatch(/^\/v\/[^/]+\/steps$/));
    expect((await home()).processes).toMatchObject([{ name: "Read the meter", area: "on-site" }]);
    await screen.findByRole("treegrid");
    app.goTo("/");
    await app.user.click((await screen.findAllByRole("button", { name: "New process" }))[0] as HTMLElement);
    const again = within(await screen.findByRole("dialog"));
    expect(again.getByLabelText("Begin in", { selector: "select" })).toHaveProperty("value", "steps");
  });

  test("begins in the diagram until somebody says otherwise; a name alone is enough", async () => {
    const dialog = await open();
    await app.user.type(dialog.getByLabelText("Name of the process"), "Bill a month{Enter}");
    await waitFor(() => expect(app.address()).toMatch(/^\/v\/[^/]+\/diagram$/));
  });
});

test("areas are told with those they stand in, also where some mistake of old makes a ring", () => {
  const area = (id: string, name: string, parent: string | null) => ({ id, name, parent, processes: 0 });
  expect(areaPaths([area("b", "Below", "a"), area("a", "Above", null)])).toEqual([
    ["a", "Above"],
    ["b", "Above / Below"],
  ]);
  expect(areaPaths([area("a", "One", "b"), area("b", "Other", "a")])).toHaveLength(2);
});
