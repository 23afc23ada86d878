// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { writeBpmn } from "@/core/bpmn";
import { smallModel } from "@/core/testing/models";
import { importModel, run } from "@/server/testing/workspace";

let app: Application;
const open = async (fill: () => Promise<unknown> = async () => {}) => {
  app = await openApplication("/", fill);
  await screen.findAllByRole("button", { name: /New area|New process/ });
};
afterEach(() => app.close());

const home = () => run<{ areas: { name: string }[]; processes: { id: string; name: string }[] }>("openHome", {});
const processes = async () => (await home()).processes.map(({ name }) => name);
const menuOf = async (name: string) => {
  await app.user.click(await screen.findByRole("button", { name: `What to do with ${name}` }));
  return screen.findByRole("menu");
};
const ask = async (label: string, value: string) => {
  const dialog = await screen.findByRole("dialog");
  const field = within(dialog).getByLabelText(label);
  await app.user.clear(field);
  await app.user.type(field, `${value}{Enter}`);
};

describe("Home", () => {
  test("an area and a process are made from nothing, and the process is gone to", async () => {
    await open();
    expect(screen.getByText(/No process here yet/)).toBeTruthy();
    await app.user.click(screen.getByRole("button", { name: "New area" }));
    await ask("Name of the area", "Accounts");
    await waitFor(async () => expect((await home()).areas.map(({ name }) => name)).toEqual(["Accounts"]));
    await app.user.click((await screen.findAllByRole("button", { name: "New process" }))[0] as HTMLElement);
    await ask("Name of the process", "Monthly bill");
    await waitFor(async () => expect(await processes()).toEqual(["Monthly bill"]));
    await waitFor(() => expect(app.address()).toMatch(/^\/v\/[^/]+\//));
  });

  test("a process is renamed, copied, deleted, and each is taken back by name", async () => {
    await open(() => importModel("Monthly bill"));
    await app.user.click(within(await menuOf("Monthly bill")).getByRole("menuitem", { name: /^Rename/ }));
    await ask("Name of the process", "Yearly bill");
    await waitFor(async () => expect(await processes()).toEqual(["Yearly bill"]));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect(await processes()).toEqual(["Monthly bill"]));
    await app.user.click(within(await menuOf("Monthly bill")).getByRole("menuitem", { name: /^Delete/ }));
    await waitFor(async () => expect(await processes()).toEqual([]));
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect(await processes()).toEqual(["Monthly bill"]));
    expect(await screen.findByRole("button", { name: "What to do with Monthly bill" })).toBeTruthy();
  });

  test("typing narrows the list, and one that nothing fits says so", async () => {
    await open(async () => {
      await importModel("Monthly bill");
      for (let at = 1; at <= 9; at++) await run("createProcess", { name: `Meter exchange ${at}`, area: "area" });
    });
    const filter = await screen.findByLabelText("Filter processes by name");
    await app.user.type(filter, "meter");
    await waitFor(() => expect(screen.queryByText("Monthly bill")).toBeNull());
    expect(screen.getAllByText(/^Meter exchange \d$/)).toHaveLength(9);
    await app.user.type(filter, " nobody");
    expect(await screen.findByText("No process here has this in its name.")).toBeTruthy();
  });

  test("what somebody else makes, renames and deletes is seen", async () => {
    await open(() => importModel("Monthly bill"));
    await screen.findByRole("button", { name: "What to do with Monthly bill" });
    const other = await importModel("Meter exchange");
    expect(await screen.findByRole("button", { name: "What to do with Meter exchange" })).toBeTruthy();
    const { process } = await run<{ process: { id: string } }>("openVersion", { version: other });
    await run("renameProcess", { id: process.id, name: "Meter change" });
    expect(await screen.findByRole("button", { name: "What to do with Meter change" })).toBeTruthy();
    await run("deleteProcess", { id: process.id });
    await waitFor(() => expect(screen.queryByRole("button", { name: "What to do with Meter change" })).toBeNull());
  });

  test("a name that the server refuses is told, and nothing is made", async () => {
    await open(() => importModel("Monthly bill"));
    await app.user.click(within(await menuOf("Monthly bill")).getByRole("menuitem", { name: /^Rename/ }));
    app.next("renameProcess", "lost");
    await ask("Name of the process", "Lost bill");
    expect(await screen.findByText(/The server did not answer/)).toBeTruthy();
    expect(await processes()).toEqual(["Monthly bill"]);
  });

  test("what somebody else has deleted meanwhile is not undone into being: it is told, and undo goes on with what was before", async () => {
    let version = "";
    await open(async () => {
      version = await importModel("Monthly bill");
    });
    await app.user.click(screen.getByRole("button", { name: "New area" }));
    await ask("Name of the area", "Accounts");
    await waitFor(async () => expect((await home()).areas).toHaveLength(2));
    await app.user.click(within(await menuOf("Monthly bill")).getByRole("menuitem", { name: /^Rename/ }));
    await ask("Name of the process", "Yearly bill");
    await waitFor(async () => expect(await processes()).toEqual(["Yearly bill"]));
    const { process } = await run<{ process: { id: string } }>("openVersion", { version });
    await run("deleteProcess", { id: process.id });
    await app.user.keyboard("{Control>}z{/Control}");
    expect(await screen.findByText(/This process/)).toBeTruthy();
    expect(await processes()).toEqual([]);
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect((await home()).areas).toHaveLength(1));
  });

  test("anything is found by a part of its name, and gone to", async () => {
    await open(() => importModel("Monthly bill"));
    await app.user.keyboard("{Control>}k{/Control}");
    const field = await screen.findByPlaceholderText("Find anything");
    await app.user.type(field, "check app");
    const item = await screen.findByText("Check application");
    await app.user.click(item);
    await waitFor(() => expect(app.address()).toMatch(/\/diagram\?element=check$/));
  });

  const drop = (...files: File[]) => app.user.upload(screen.getByTestId("open-file"), files);
  const bpmn = (name: string) => new File([writeBpmn(smallModel())], name, { type: "application/xml" });

  test("a file becomes a process, is gone to, and says what it holds", async () => {
    await open(() => run("createArea", { id: "area", name: "Connections", parent: null }));
    await drop(bpmn("Plants.bpmn"));
    await waitFor(() => expect(app.address()).toMatch(/\/diagram$/), { timeout: 20_000 });
    const { processes: made } = await home();
    expect(made).toHaveLength(1);
  });

  test("one that is no BPMN says where it is wrong, nothing is made, and the next one is read all the same", async () => {
    await open(() => run("createArea", { id: "area", name: "Connections", parent: null }));
    await drop(new File(["<definitions><process"], "bad.bpmn"), bpmn("good.bpmn"));
    expect(await screen.findByText(/not well-formed|bad\.bpmn/)).toBeTruthy();
    await waitFor(async () => expect(await processes()).toHaveLength(1), { timeout: 20_000 });
  });
});
