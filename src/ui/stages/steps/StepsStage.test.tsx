// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { laneOf } from "@/core/model";
import { importModel, run, send, storedModel } from "@/server/testing/workspace";

let app: Application;
let version: string;
const open = async (isEmpty = false) => {
  app = await openApplication("/", async () => {
    if (isEmpty) {
      await run("createArea", { id: "area", name: "Connections", parent: null });
      await run("createEntry", { id: "desk", kind: "role", name: "Front desk" });
      version = (await run<{ version: string }>("createProcess", { name: "Repair", area: "area" })).version;
    } else version = await importModel("Applications");
  });
  app.goTo(`/v/${version}/steps`);
  await screen.findByRole("treegrid");
};
afterEach(() => app.close());

const rows = () => within(screen.getByRole("treegrid")).getAllByRole("row");
const row = (words: string) =>
  waitFor(() => {
    const found = rows().find((one) => one.textContent?.includes(words));
    if (!found) throw new Error(`no row says ${words}`);
    return found;
  });
const cell = async (words: string) => within(await row(words)).getAllByRole("gridcell")[0] as HTMLElement;
const saved = () => waitFor(() => expect(screen.getByTestId("saved-state").textContent).toBe("Saved"));
const names = async () =>
  [...(await storedModel(version)).elements]
    .flatMap(({ type, name }) => (/[tT]ask$/.test(type) ? [String(name)] : []))
    .sort();
const paste = (text: string) =>
  fireEvent.paste(screen.getByRole("treegrid"), {
    clipboardData: { getData: () => text, types: ["text/plain"], files: [] },
  });

describe("the Steps stage", () => {
  test("a name is written over in its cell, in the drawing beside it, and on the server", async () => {
    await open();
    await app.user.click(await cell("Check application"));
    await app.user.keyboard("{F2}");
    await app.user.keyboard("{Control>}a{/Control}Look through the application{Enter}");
    await row("Look through the application");
    await waitFor(() =>
      expect(
        screen.getByTestId("following-page").querySelector('[aria-label^="Look through the application"]'),
      ).toBeTruthy(),
    );
    await saved();
    expect((await storedModel(version)).elements.get("check")?.name).toBe("Look through the application");
    await app.user.keyboard("{Escape}{Control>}z{/Control}");
    await row("Check application");
    await saved();
    expect((await storedModel(version)).elements.get("check")?.name).toBe("Check application");
  });

  test("rows of a spreadsheet become steps, one after the other, and one undo takes them all away", async () => {
    await open(true);
    paste("Step\tWho\r\nTake the call\tFront desk\r\nFind the fault\tField crew\r\nWrite the bill\tBilling");
    await row("Write the bill");
    await saved();
    expect(await names()).toEqual(["Find the fault", "Take the call", "Write the bill"]);
    const model = await storedModel(version);
    const step = [...model.elements].find(({ name }) => name === "Find the fault");
    expect(laneOf(model, step?.id ?? "")?.name).toBe("Field crew");
    (document.activeElement as HTMLElement | null)?.blur();
    await app.user.keyboard("{Control>}z{/Control}");
    await saved();
    await waitFor(async () => expect(await names()).toEqual([]));
  });

  test("what is written without an answer of the server is kept, and sent when it answers again", async () => {
    await open();
    app.next("applyCommands", "lost");
    app.next("applyCommands", "unanswered");
    await app.user.click(await cell("Check application"));
    await app.user.keyboard("{F2}");
    await app.user.keyboard("{Control>}a{/Control}Written in the dark{Enter}");
    await row("Written in the dark");
    await saved();
    expect((await storedModel(version)).elements.get("check")?.name).toBe("Written in the dark");
    // Stored once, though it was sent three times.
    const { changes } = await run<{ changes: unknown[] }>("elementHistory", { version, element: "check" });
    expect(changes).toHaveLength(1);
  });

  test("what somebody else writes in another row comes in beside what is written here", async () => {
    await open();
    await row("Check application");
    await send(version, { type: "rename", id: "approve", name: "Say yes" });
    await row("Say yes");
    await app.user.click(await cell("Check application"));
    await app.user.keyboard("{F2}");
    await app.user.keyboard("{Control>}a{/Control}Look{Enter}");
    await saved();
    const model = await storedModel(version);
    expect([model.elements.get("check")?.name, model.elements.get("approve")?.name]).toEqual(["Look", "Say yes"]);
  });

  test("a sheet of columns nobody can tell asks what they are, and takes nothing before", async () => {
    await open(true);
    paste("Open the letter;Front desk\nRead it;Front desk\nAnswer it;Billing");
    const dialog = await screen.findByRole("dialog");
    expect(dialog.textContent).toContain("What do the columns mean?");
    expect(await names()).toEqual([]);
    await app.user.selectOptions(within(dialog).getByRole("combobox", { name: "Column 2" }), "by");
    await app.user.click(within(dialog).getByRole("button", { name: "Insert 3 steps" }));
    await row("Answer it");
    await saved();
    expect(await names()).toHaveLength(3);
  });

  test("a row moves by keyboard, and its flows with it", async () => {
    await open(true);
    paste("Step\r\nOpen the letter\r\nRead it\r\nAnswer it");
    await row("Answer it");
    await app.user.click(await cell("Read it"));
    await app.user.keyboard("{Alt>}{ArrowUp}{/Alt}");
    await waitFor(() => {
      const order = rows().map((one) => one.textContent ?? "");
      expect(order.findIndex((one) => one.includes("Read it"))).toBeLessThan(
        order.findIndex((one) => one.includes("Open the letter")),
      );
    });
    await saved();
    const { elements } = await storedModel(version);
    const idOf = (name: string) => [...elements].find((one) => one.name === name)?.id;
    const follows = [...elements].some(
      (one) =>
        one.type === "sequenceFlow" && one.sourceRef === idOf("Read it") && one.targetRef === idOf("Open the letter"),
    );
    expect(follows).toBe(true);
  });
});
