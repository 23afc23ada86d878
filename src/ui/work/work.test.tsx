// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { OpenCase } from "@/contract/live";
import { chain, end, file, modelOf, processOf, start, task } from "@/core/live/testing/models";
import { performAll } from "@/core/testing/models";
import { importModel, run } from "@/server/testing/workspace";

const model = performAll(
  modelOf(file(processOf(start + task("record") + task("tell") + end + chain("s", "record", "tell", "e")))),
  { type: "defineData", process: "p", id: "power", name: "power", schema: '{"type":"number","minimum":0}' },
  { type: "setDataUse", step: "record", data: "power", use: "creates" },
  { type: "setForm", id: "record", form: { items: [{ path: ["power"], label: "Rated power" }] } },
);

let app: Application;
let version = "";
afterEach(() => app.close());
let acts = 0;
const at = () => ({ version, run: "r" });
const begin = (count: number) =>
  Promise.all(
    Array.from({ length: count }, () => run("beginLiveCase", { ...at(), act: `begin ${++acts}`, values: {} })),
  );
const open = async (count: number) => {
  app = await openApplication("/work", async () => {
    version = await importModel("Plant", model);
    await run("startRun", { ...at(), name: "Trial", pace: 0 });
    await run("setMember", { id: "ines", name: "Ines Orr", roles: [] });
    await begin(count);
  });
  return within(await screen.findByTestId("worklist"));
};
const held = (number: number) => run<OpenCase>("openCase", { ...at(), number });
const press = async (name: string | RegExp) => app.user.click(await screen.findByRole("button", { name }));
const tick = async (list: ReturnType<typeof within>, ...places: readonly number[]) => {
  for (const place of places) await app.user.click(list.getAllByRole("checkbox")[place] as HTMLElement);
};

describe("the worklist", () => {
  test("several pieces of the same step are done by one form, each an act of its own", async () => {
    const list = await open(3);
    await tick(list, 0, 2);
    const several = within(await screen.findByTestId("several"));
    expect((await several.findByRole("heading")).textContent).toBe("record, 2 at once");
    await app.user.type(await several.findByRole("textbox", { name: /^Rated power/ }), "8");
    await press("Done, all 2");
    await screen.findByText("2 pieces of work done.");
    await waitFor(() => expect(screen.queryByTestId("several")).toBeNull());
    for (const [number, where] of [
      [1, "tell"],
      [2, "record"],
      [3, "tell"],
    ] as const)
      expect((await held(number)).row.at).toEqual([where]);
    expect((await held(3)).data).toEqual({ power: 8 });
    expect(screen.getByTestId("done-today").textContent).toContain("2 pieces");
  });

  test("what is amiss in the form of several is said, and none is done", async () => {
    const list = await open(2);
    await tick(list, 0, 1);
    const several = within(await screen.findByTestId("several"));
    await app.user.type(await several.findByRole("textbox", { name: /^Rated power/ }), "much");
    await press("Done, all 2");
    expect((await several.findAllByRole("alert")).map(({ textContent }) => textContent).join()).toContain("amiss");
    expect((await held(1)).row.at).toEqual(["record"]);
  });

  test("of several, one that does not get through is told and stays chosen; the others are done", async () => {
    const list = await open(3);
    await tick(list, 0, 1, 2);
    await screen.findByRole("button", { name: "Done, all 3" });
    app.next("completeWork", "lost");
    await press("Done, all 3");
    await screen.findByText(/^1 piece could not be done/);
    await screen.findByRole("button", { name: "Done, all 1" });
    expect((await held(1)).row.at).toEqual(["record"]);
    expect((await held(3)).row.at).toEqual(["tell"]);
    await press("Done, all 1");
    await waitFor(async () => expect((await held(1)).row.at).toEqual(["tell"]));
  });

  test("of several, one whose answer was lost is done once", async () => {
    const list = await open(2);
    await tick(list, 0, 1);
    await screen.findByRole("button", { name: "Done, all 2" });
    app.next("completeWork", "unanswered");
    await press("Done, all 2");
    await waitFor(async () => expect((await held(1)).row.at).toEqual(["tell"]));
    await waitFor(async () => expect((await held(2)).row.at).toEqual(["tell"]));
    expect((await held(1)).audit.filter(({ kind }) => kind === "completed work")).toHaveLength(1);
  });

  test("different steps are taken on and handed over together, but not done by one form", async () => {
    const list = await open(2);
    const [wait] = (await held(1)).waits;
    await run("completeWork", { ...at(), number: 1, wait: wait?.wait, act: "ahead", values: { power: 1 } });
    await list.findByRole("button", { name: /^tell/ });
    await tick(list, 0, 1);
    await screen.findByText("Several can be done at once where they are the same step.");
    await press("Take it on");
    await waitFor(async () => expect((await held(1)).waits[0]?.memberName).toBe("Mara Aldous"));
    await waitFor(async () => expect((await held(2)).waits[0]?.memberName).toBe("Mara Aldous"));
    expect(screen.getByTestId("several").textContent).toContain("2 chosen");
    await app.user.selectOptions(await screen.findByLabelText("Hand to"), "Ines Orr");
    await waitFor(() => expect(screen.queryByTestId("worklist")).toBeNull());
    await screen.findByText(/Nothing is to be done/);
  });

  test("a date is set and taken off; what is overdue stands first, in words", async () => {
    const list = await open(2);
    await app.user.click(list.getAllByRole("button")[1] as HTMLElement);
    const form = within(await screen.findByTestId("work-form"));
    expect(form.getByTestId("due-by").textContent).toBe("no date");
    const field = form.getByLabelText("Until");
    await app.user.clear(field);
    await app.user.type(field, "2020-01-01T08:00");
    await press("Set");
    await waitFor(() => expect(form.getByTestId("due-by").textContent).toMatch(/^overdue by/));
    expect(list.getAllByRole("listitem")[0]?.textContent).toContain("case 2");
    expect(list.getAllByRole("listitem")[0]?.textContent).toMatch(/overdue by/);
    await press("No date");
    await waitFor(() => expect(screen.getByTestId("due-by").textContent).toBe("no date"));
    await waitFor(() => expect(list.getAllByRole("listitem")[0]?.textContent).toContain("case 1"));
  });
});
