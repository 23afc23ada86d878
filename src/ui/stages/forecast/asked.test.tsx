// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  inARow,
  modelOf,
  needs,
  of,
  resource,
  start,
  task,
  timeOf,
} from "@/core/forecast/testing/models";
import { type Scenario, scenariosOf } from "@/core/scenario";
import { importModel, storedModel } from "@/server/testing/workspace";

/** Cases come every hour to a check of 40 minutes, and then to a filing of 5: the clerk of the check is what they wait for. */
const file = bpmnWith(
  `${inARow(start, task("check"), task("file"), end)}`,
  of("s", every(exponential(60))) +
    of("check", timeOf(exponential(40)) + needs("clerk")) +
    of("file", timeOf(exponential(5)) + needs("filer")) +
    resource("clerk", 1, 40) +
    resource("filer", 3, 20),
  "",
  clerks("clerk", "filer"),
).replace('baseCurrencyUnit="EUR"/>', 'baseCurrencyUnit="EUR" replication="2" seed="1"/>');

let app: Application;
let version: string;
const open = async () => {
  app = await openApplication("/", async () => {
    version = await importModel("Checking", modelOf(file));
  });
  app.goTo(`/v/${version}/forecast`);
  await screen.findByTestId("forecast-sentence");
};
afterEach(() => app.close());
const asked = async (name: RegExp) => {
  await app.user.click(await screen.findByRole("button", { name }));
  return within(await screen.findByRole("dialog"));
};
const write = async (dialog: ReturnType<typeof within>, label: string, value: string) => {
  const field = dialog.getByLabelText(label);
  await app.user.clear(field);
  await app.user.type(field, value);
};
const scenario = async () => scenariosOf(await storedModel(version))[0] as Scenario;
const cells = (row: HTMLElement) =>
  within(row)
    .getAllByRole("cell")
    .map(({ textContent }) => textContent ?? "");

describe("what if", () => {
  const whatIf = () => asked(/^What if/);
  const turn = async (dialog: ReturnType<typeof within>, words: RegExp, label = "Turn") => {
    const select = dialog.getByLabelText(label) as HTMLSelectElement;
    const option = [...select.options].find(({ text }) => words.test(text));
    await app.user.selectOptions(select, option?.value ?? "");
  };

  test("one more clerk: each number is a forecast, and with more people fewer wait", async () => {
    await open();
    const dialog = await whatIf();
    dialog.getByText(/Choose what is turned/);
    await turn(dialog, /^clerk: how many/);
    expect(dialog.getByLabelText("from")).toHaveProperty("value", "1");
    expect(dialog.getByLabelText("to")).toHaveProperty("value", "4");
    await app.user.click(dialog.getByRole("button", { name: "Look" }));
    await app.user.click(await dialog.findByRole("button", { name: "Table" }));
    const rows = dialog.getAllByRole("row").slice(1).map(cells);
    expect(rows.map(([count]) => count)).toEqual(["1", "2", "3", "4"]);
    const hours = rows.map((row) => Number(/([\d.]+)/.exec(row[1] ?? "")?.[1]));
    expect(hours[0]).toBeGreaterThan((hours[1] as number) * 1.5);
    expect(hours[2]).toBeLessThanOrEqual((hours[1] as number) * 1.01);
    // Nothing of the scenario was changed by looking.
    expect((await scenario()).of.get("clerk")?.quantity).toEqual([{ value: 1 }]);
  });

  test("two against each other: a table of both", async () => {
    await open();
    const dialog = await whatIf();
    await turn(dialog, /^clerk: how many/);
    await turn(dialog, /^check: working time/, "And turn");
    await write(dialog, "to", "2");
    await write(dialog, "second from", "20 min");
    await write(dialog, "second to", "40 min");
    await app.user.click(dialog.getByRole("button", { name: "Look" }));
    await app.user.click(await dialog.findByRole("button", { name: "Table" }));
    const rows = dialog.getAllByRole("row").slice(1).map(cells);
    expect(rows.map((row) => row.slice(0, 2).join(" × "))).toEqual(
      ["20", "25", "30", "35", "40"].flatMap((minutes) => [`1 × ${minutes}`, `2 × ${minutes}`]).sort(),
    );
    const hours = (count: string, minutes: string) =>
      Number(rows.find((row) => row[0] === count && row[1] === minutes)?.[2]);
    expect(hours("2", "20")).toBeLessThan(hours("1", "40"));
  });

  test("a range that is none is told, and nothing runs", async () => {
    await open();
    const dialog = await whatIf();
    await turn(dialog, /^check: working time/);
    for (const [from, to] of [
      ["soon", "later"],
      ["60 min", "20 min"],
      ["-5", "10 min"],
    ] as const) {
      await write(dialog, "from", from);
      await write(dialog, "to", to);
      await app.user.click(dialog.getByRole("button", { name: "Look" }));
      await waitFor(() => expect(dialog.getByRole("alert").textContent).toContain(`${from} … ${to}`));
    }
    dialog.getByText(/Choose what is turned/);
  });

  test("which input matters: the clerk's time before the filer's", async () => {
    await open();
    const dialog = await whatIf();
    await app.user.click(dialog.getByRole("button", { name: "Which matters most" }));
    const told = within(await dialog.findByTestId("what-matters"));
    const ranked = told.getAllByRole("listitem").map(({ textContent }) => textContent ?? "");
    const place = (words: RegExp) => ranked.findIndex((one) => words.test(one));
    expect(place(/^check: working time/)).toBeGreaterThanOrEqual(0);
    expect(place(/^check: working time/)).toBeLessThan(place(/^file: working time/));
    expect(place(/^clerk: how many/)).toBeLessThan(place(/^filer: how many/));
    expect(ranked[0]).toMatch(/less: .+more: /);
  });
});

describe("how many people", () => {
  const howMany = () => asked(/^How many people/);

  test("the cheapest that keeps the aim is first; it is taken into the scenario by one act", async () => {
    await open();
    const dialog = await howMany();
    await write(dialog, "are to be done within", "2 h");
    await app.user.click(dialog.getByRole("button", { name: "Search" }));
    const table = within(await dialog.findByTestId("staffings"));
    table.getByText("These keep it, the cheapest first");
    const rows = table.getAllByRole("row").slice(1).map(cells);
    const costs = rows.map((row) => Number(/([\d.,]+)/.exec(row.at(-3) ?? "")?.[1]?.replace(",", "")));
    expect(costs).toEqual([...costs].sort((a, b) => a - b));
    // Three filers are two too many, and one clerk is not enough.
    expect(rows[0]?.slice(0, 2)).toEqual(["2", "1"]);
    for (const row of rows) expect(Number.parseFloat(row.at(-2) ?? "")).toBeGreaterThanOrEqual(90);
    await app.user.click(table.getAllByRole("button", { name: "Take" })[0] as HTMLElement);
    await waitFor(async () => expect((await scenario()).of.get("clerk")?.quantity).toEqual([{ value: 2 }]));
    expect((await scenario()).of.get("filer")?.quantity).toEqual([{ value: 1 }]);
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect((await scenario()).of.get("filer")?.quantity).toEqual([{ value: 3 }]));
  });

  test("where no number of people keeps the aim, what came nearest is told", async () => {
    await open();
    const dialog = await howMany();
    await write(dialog, "are to be done within", "1 min");
    await app.user.click(dialog.getByRole("button", { name: "Search" }));
    within(await dialog.findByTestId("staffings")).getByText("None of what was tried keeps it; this came nearest");
  });

  test("an aim that is none is told, and nothing is searched", async () => {
    await open();
    const dialog = await howMany();
    for (const [of10, time] of [
      ["9", "soon"],
      ["0", "2 h"],
      ["11", "3 h"],
      ["9", "0 h"],
    ] as const) {
      await write(dialog, "Of 10 cases", of10);
      await write(dialog, "are to be done within", time);
      await app.user.click(dialog.getByRole("button", { name: "Search" }));
      await waitFor(() => expect(dialog.getByRole("alert").textContent).toContain(time));
    }
    expect(dialog.queryByTestId("staffings")).toBeNull();
  });
});
