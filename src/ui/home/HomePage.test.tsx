// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { HomeData } from "@/contract/home";
import { readBpmn, writeBpmn } from "@/core/bpmn";
import type { Model } from "@/core/model";
import { expectOk, smallModel } from "@/core/testing/models";
import { importModel, run, send } from "@/server/testing/workspace";

/** A process of this id that calls another one, if that is named. */
const drawn = (id: string, calls?: string): Model => {
  const step = calls
    ? `<callActivity id="c" name="Have it reviewed" calledElement="${calls}"/>`
    : `<task id="c" name="Review it"/>`;
  const content = `<startEvent id="s" name="Asked"/>${step}<endEvent id="e" name="Done"/><sequenceFlow id="f" sourceRef="s" targetRef="c"/><sequenceFlow id="g" sourceRef="c" targetRef="e"/>`;
  const xml = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="x"><process id="${id}">${content}</process></definitions>`;
  return expectOk(readBpmn(new TextEncoder().encode(xml)));
};

let app: Application;
const open = async (fill: () => Promise<unknown> = async () => {}) => {
  app = await openApplication("/", fill);
  await screen.findAllByRole("button", { name: /New area|New process/ });
};
afterEach(async () => {
  await app.close();
  localStorage.clear();
});

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

  test("what was done is taken back on the way to the next page, while neither page is there", async () => {
    await open(() => importModel("Monthly bill"));
    await app.user.click(within(await menuOf("Monthly bill")).getByRole("menuitem", { name: /^Rename/ }));
    await ask("Name of the process", "Yearly bill");
    await waitFor(async () => expect(await processes()).toEqual(["Yearly bill"]));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    const { versions } = await run<HomeData>("openHome", {});
    act(() => app.goTo(`/v/${versions[0]?.id}/diagram`));
    expect(screen.queryByRole("banner")).toBeNull();
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect(await processes()).toEqual(["Monthly bill"]));
  });

  test("typing narrows the list, and one that nothing fits says so", async () => {
    await open(async () => {
      await importModel("Monthly bill");
      for (let at = 1; at <= 9; at++) await run("createProcess", { name: `Meter exchange ${at}`, area: "area" });
    });
    await app.user.keyboard("2");
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

  test("areas are lanes, with their processes, what matters of each, and what leads from one to another", async () => {
    await open(async () => {
      const first = await importModel("Applications", drawn("application-process", "review-process"));
      await importModel("Review", drawn("review-process"));
      await run("createArea", { id: "inner", name: "On site", parent: "area" });
      await run("createProcess", { name: "Nothing yet", area: "inner" });
      await send(first, { type: "delete", ids: ["g"] });
    });
    const lane = await screen.findByRole("region", { name: "Connections" });
    expect(within(screen.getByTestId("map")).getByRole("button", { name: /^Connections: 2 processes/ })).toBeTruthy();
    expect(lane).toBeTruthy();
    const empty = await screen.findByRole("article", { name: "Nothing yet" });
    await waitFor(() => expect(empty.textContent).toContain("nothing drawn yet"));
    expect(screen.getByRole("img", { name: "Applications calls Review" })).toBeTruthy();
    const card = screen.getByRole("article", { name: "Applications" });
    await waitFor(() => expect(card.getAttribute("data-need")).not.toBe("nothing"));
    expect(within(card).getByText(/^Check: needs attention/)).toBeTruthy();
    // The head of the page says how many need attention, and leads to just those.
    await app.user.click(await screen.findByRole("button", { name: "2 need attention" }));
    expect(((await screen.findByLabelText("only what needs attention")) as HTMLInputElement).checked).toBe(true);
    await waitFor(() => expect(screen.queryByText("Nothing yet")).toBeNull());
    expect(screen.getByText("Applications")).toBeTruthy();
  });

  test("a process is dropped on another area, and a lane folds to a number", async () => {
    await open(async () => {
      await run("createArea", { id: "area", name: "Connections", parent: null });
      await run("createArea", { id: "other", name: "Accounts", parent: null });
      await run("createProcess", { name: "Monthly bill", area: "area", processId: "bill" });
    });
    await screen.findByRole("article", { name: "Monthly bill" });
    const other = document.querySelector<HTMLElement>('[data-area="other"]') as HTMLElement;
    expect(within(other).getByText(/No process here yet/)).toBeTruthy();
    const dataTransfer = { getData: () => "bill", files: [], types: [] };
    fireEvent.drop(other, { dataTransfer });
    await waitFor(() => expect(within(other).queryByText(/No process here yet/)).toBeNull());
    await app.user.click(screen.getByRole("button", { name: "Accounts: 1 process" }));
    await waitFor(() => expect(screen.queryByRole("article", { name: "Monthly bill" })).toBeNull());
    await app.user.click(screen.getByRole("button", { name: /^1 process/ }));
    await screen.findByRole("article", { name: "Monthly bill" });
  });

  test("many processes come folded, and what one look cannot hold stands in the table", async () => {
    await open(async () => {
      await run("createArea", { id: "area", name: "Connections", parent: null });
      for (let at = 1; at <= 62; at++)
        await run("createProcess", { name: `Process ${at}`, area: "area", processId: `p${at}` });
    });
    expect(screen.queryAllByRole("article")).toEqual([]);
    expect(screen.getByTestId("process-count").textContent).toBe("62 processes");
    await app.user.click(screen.getByRole("button", { name: /^62 processes/ }));
    await waitFor(() => expect(screen.getAllByRole("article")).toHaveLength(40));
    await app.user.click(screen.getByRole("button", { name: /^22 processes more/ }));
    expect(await screen.findByText("1 to 50 of 62")).toBeTruthy();
    expect((screen.getByLabelText("Only in this area") as HTMLSelectElement).value).toBe("area");
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
    await waitFor(() => expect(app.address()).toMatch(/\/diagram$/));
    const { processes: made } = await home();
    expect(made).toHaveLength(1);
  });

  test("one that was opened before says so, and leads to the first one", async () => {
    await open(() => run("createArea", { id: "area", name: "Connections", parent: null }));
    await drop(bpmn("Plants.bpmn"), bpmn("Again.bpmn"));
    expect(await screen.findByText(/Again\.bpmn was opened before/)).toBeTruthy();
    await app.user.click(screen.getByRole("button", { name: "Open the first one" }));
    await waitFor(() => expect(app.address()).toMatch(/\/diagram$/));
  });

  test("one that is no BPMN says where it is wrong, nothing is made, and the next one is read all the same", async () => {
    await open(() => run("createArea", { id: "area", name: "Connections", parent: null }));
    await drop(new File(["<definitions><process"], "bad.bpmn"), bpmn("good.bpmn"));
    expect(await screen.findByText(/not well-formed|bad\.bpmn/)).toBeTruthy();
    await waitFor(async () => expect(await processes()).toHaveLength(1));
  });
});
