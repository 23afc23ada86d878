// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { emptyBrief, markedText } from "@/core/brief";
import { fieldOf } from "@/core/data";
import { dataOfProcess, type Element, formOf, processesOf, wordsOf } from "@/core/model";
import { makeProcess, run, send, storedModel } from "@/server/testing/workspace";

let app: Application;
let version = "";
const process = async () => processesOf(await storedModel(version))[0]?.id as string;
const open = async (part: "data" | "forms", commandsFor: (process: string) => unknown[] = () => []) => {
  app = await openApplication("/", async () => {
    ({ version } = await makeProcess());
    const commands = commandsFor(await process());
    if (commands.length > 0) await send(version, ...commands);
  });
  app.goTo(`/v/${version}/steps?part=${part}`);
  await screen.findByRole("radio", { name: part === "data" ? "Data" : "Forms", checked: true });
};
afterEach(() => app.close());

const data = async () => {
  const model = await storedModel(version);
  return dataOfProcess(model, await process()).map(({ name, schema }) => fieldOf(name, JSON.parse(schema ?? "{}")));
};
const form = async () => {
  const step = (await storedModel(version)).elements.get("check");
  return step && formOf(step)?.items;
};

describe("the data of a process", () => {
  test("is typed by name, said more of, and renamed; each of it taken back", async () => {
    await open("data");
    await app.user.type(await screen.findByLabelText("New piece of data"), "rated power{Enter}");
    await app.user.selectOptions(await screen.findByRole("combobox", { name: "Kind: rated power" }), "number");
    await app.user.type(screen.getByRole("textbox", { name: "May be: rated power" }), "0 to 100{Enter}");
    await waitFor(async () =>
      expect(await data()).toMatchObject([{ name: "rated power", kind: "number", least: 0, most: 100 }]),
    );
    const name = screen.getByRole("textbox", { name: "Name of rated power" });
    await app.user.clear(name);
    await app.user.type(name, "power{Enter}");
    await waitFor(async () => expect((await data())[0]?.name).toBe("power"));
    await app.user.click(screen.getByRole("heading", { name: /^Data of/ }));
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect((await data())[0]?.name).toBe("rated power"));
  });
  test("a default that does not fit its field is told, and not kept", async () => {
    await open("data");
    await app.user.type(await screen.findByLabelText("New piece of data"), "power{Enter}");
    await app.user.selectOptions(await screen.findByRole("combobox", { name: "Kind: power" }), "number");
    await app.user.type(screen.getByRole("textbox", { name: "Default: power" }), "much{Enter}");
    expect(await screen.findByText(/A number is asked for here/)).toBeTruthy();
    await waitFor(async () => expect(await data()).toHaveLength(1));
    expect((await data())[0]?.usual).toBeUndefined();
  });
  test("comes from an example that is pasted; what cannot be read says why", async () => {
    await open("data");
    await app.user.click(screen.getByRole("button", { name: "From an example…" }));
    const dialog = await screen.findByRole("dialog");
    await app.user.type(within(dialog).getByLabelText("What it is called"), "plant");
    const text = within(dialog).getByLabelText(/^JSON/);
    await app.user.click(text);
    await app.user.paste("{");
    expect(within(dialog).getByRole("status").textContent).toMatch(/cannot be read/);
    await app.user.clear(text);
    await app.user.paste('{"power": 5, "roof": {"kind": "flat"}}');
    await app.user.click(within(dialog).getByRole("button", { name: "Make the data" }));
    await waitFor(async () => expect((await data())[0]?.fields?.map(({ kind }) => kind)).toEqual(["number", "record"]));
    expect(await screen.findByRole("textbox", { name: "Name of plant.roof.kind" })).toBeTruthy();
  });
  test("comes from the documents a description speaks of, tied to its words", async () => {
    const told = markedText("The desk files the [document#paper: application] with the address and the rated power.");
    app = await openApplication("/", async () => {
      ({ version } = await makeProcess());
      const content = { ...emptyBrief, document: told };
      await run("saveBrief", { process: "connect", brief: "brief", base: 0, content });
    });
    app.goTo(`/v/${version}/steps?part=data`);
    await app.user.click(await screen.findByRole("button", { name: "Make data of Application, with 2 parts" }));
    await waitFor(async () =>
      expect((await data())[0]).toMatchObject({
        name: "Application",
        description: "The desk files the application with the address and the rated power.",
        fields: [
          { name: "address", kind: "text" },
          { name: "rated power", kind: "number" },
        ],
      }),
    );
    await waitFor(() => expect(screen.queryByRole("group", { name: "From the description" })).toBeNull());
    const model = await storedModel(version);
    const [datum] = dataOfProcess(model, await process());
    expect(datum && wordsOf(model.elements.get(datum.id) as Element)).toEqual(["paper"]);
  });
  test("a letter says what a step does with it", async () => {
    await open("data");
    await app.user.type(await screen.findByLabelText("New piece of data"), "power{Enter}");
    const grid = await screen.findByRole("grid", { name: "Who reads and writes it" });
    const cell = within(grid).getByRole("gridcell", { name: /^Check application, power: nothing/ });
    cell.focus();
    await app.user.keyboard("c");
    expect(await within(grid).findByRole("gridcell", { name: "Check application, power: creates" })).toBeTruthy();
    await app.user.keyboard("m");
    expect(await within(grid).findByRole("gridcell", { name: "Check application, power: changes" })).toBeTruthy();
    await app.user.keyboard("{Delete}");
    expect(await within(grid).findByRole("gridcell", { name: /^Check application, power: nothing/ })).toBeTruthy();
  });
});

describe("a form", () => {
  const withData = async () =>
    open("forms", (of) => [
      { type: "defineData", process: of, id: "power", name: "power", schema: '{"type":"number","maximum":50}' },
      {
        type: "defineData",
        process: of,
        id: "roof",
        name: "roof",
        schema: '{"type":"string","enum":["flat","pitched"]}',
      },
    ]);
  test("is made from the data, moved by key, and says at once what is wrong while it is tried", async () => {
    await withData();
    await app.user.click(await screen.findByRole("button", { name: "Make it from the data" }));
    await waitFor(async () => expect((await form())?.map(({ path }) => path.join())).toEqual(["power", "roof"]));
    const items = screen.getByTestId("form-items");
    within(items)
      .getByRole("button", { name: /^Power/ })
      .focus();
    await app.user.keyboard("{Alt>}{ArrowDown}{/Alt}");
    await waitFor(async () => expect((await form())?.map(({ path }) => path.join())).toEqual(["roof", "power"]));
    const preview = screen.getByRole("region", { name: "As it will look" });
    const power = within(preview).getByLabelText(/^Power/);
    await app.user.clear(power);
    await app.user.type(power, "60");
    await app.user.tab();
    expect((await within(preview).findByRole("alert")).textContent).toMatch(/At most 50/);
  });
  test("needs data first, and says so", async () => {
    await open("forms");
    await app.user.click(await screen.findByRole("button", { name: "Make it from the data" }));
    expect(await screen.findByText(/no data yet to make a form from/)).toBeTruthy();
  });
  test("a condition that is no FEEL is told where it stands", async () => {
    await withData();
    await app.user.click(await screen.findByRole("button", { name: "Make it from the data" }));
    await app.user.click(await screen.findByRole("button", { name: /^Roof/ }));
    await app.user.type(screen.getByRole("textbox", { name: "Shown when: roof" }), "when it is large{Enter}");
    expect((await screen.findByRole("alert")).textContent).toMatch(/is not FEEL/);
  });
});
