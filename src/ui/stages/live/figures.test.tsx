// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { openLive } from "@/app/testing/live";
import { chain, end, file, modelOf, node, processOf, start, task } from "@/core/live/testing/models";
import { scenariosOf } from "@/core/scenario";
import { performAll } from "@/core/testing/models";
import { run, storedModel } from "@/server/testing/workspace";

const store = '<dataOutputAssociation id="to-store"><targetRef>register</targetRef></dataOutputAssociation>';
const plain = modelOf(
  file(
    processOf(
      `<dataStoreReference id="register" name="Plant register"/>${start}${task("first", store)}${task("second")}${end}${chain("s", "first", "second", "e")}`,
    ),
  ),
);
const minutes = (count: number) => ({ kind: "constant" as const, value: count * 60 });
const withScenario = performAll(
  plain,
  { type: "setAssumption", scenario: "estimates", element: "s", parameter: "interval", value: minutes(240) },
  { type: "setAssumption", scenario: "estimates", element: "first", parameter: "processing", value: minutes(30) },
  { type: "setAssumption", scenario: "estimates", element: "second", parameter: "processing", value: minutes(10) },
);

let live: Awaited<ReturnType<typeof openLive>>;
afterEach(() => live.app.close());
const worked = async (model = plain) => {
  live = await openLive(model);
  await live.start();
  await run("runStaff", { ...(await live.at()), days: 30, most: 400 });
  live.app.goTo(`/v/${live.version}/live`);
  await waitFor(() => expect(screen.getByTestId("live-counts").textContent).toMatch(/open of 1\d\d cases/));
};

describe("figures of a run", () => {
  test("are pictures with their tables, and a sentence; the days can be chosen", async () => {
    await worked();
    await live.choose("Figures");
    const figures = within(await screen.findByTestId("live-figures"));
    await figures.findByText(/cases came to an end in 30 days, after .+ on average; 9 of 10 within/);
    for (const name of ["Begun and ended", "Under way", "Durations, one case after the other", "Work by role"]) {
      const panel = within(figures.getByRole("region", { name }));
      await live.press("Table", panel);
      expect(panel.getAllByRole("row").length).toBeGreaterThan(1);
    }
    const begun = within(figures.getByRole("region", { name: "Begun and ended" })).getAllByRole("row");
    expect(begun).toHaveLength(31);
    await live.app.user.selectOptions(figures.getByLabelText("Last days"), "7");
    await figures.findByText(/in 7 days/);
    expect(within(figures.getByRole("region", { name: "Begun and ended" })).getAllByRole("row")).toHaveLength(8);
  });

  test("of a run without a case say so; of one with a single case that limits cannot be told", async () => {
    live = await openLive(plain);
    await live.start();
    await live.choose("Figures");
    await screen.findByText("Nothing has happened in these days.");
    await live.beginCase();
    await screen.findByText("Two cases have to come to their end before limits can be told.");
    expect(screen.getByRole("button", { name: "Take these figures into a scenario" })).toHaveProperty("disabled", true);
    expect(screen.getByText(/No scenario to forecast with/)).toBeTruthy();
  });

  test("become a scenario that holds what was measured, and inherits the rest", async () => {
    await worked(withScenario);
    await live.choose("Figures");
    await live.press("Take these figures into a scenario");
    await waitFor(async () => expect(scenariosOf(await storedModel(live.version))).toHaveLength(2));
    const [first, measured] = scenariosOf(await storedModel(live.version));
    expect(measured?.name).toBe("Measured in Trial");
    expect(measured?.inherits).toBe(first?.id);
    // Simulated people took just as long as the first scenario said.
    expect(measured?.own.get("first")?.times.processing?.[0]?.value).toEqual(minutes(30));
    expect(measured?.own.get("second")?.times.processing?.[0]?.value).toEqual(minutes(10));
    expect(measured?.own.get("s")?.interval?.[0]?.value).toEqual(minutes(240));
  });
});

describe("tables of databases that are stood in for", () => {
  test("show what was written, the latest first, and open its case", async () => {
    await worked();
    await live.choose("Tables");
    const table = within(await screen.findByTestId("written"));
    const rows = table.getAllByRole("row");
    expect(rows).toHaveLength(51);
    expect(rows[0]?.textContent).toBe("CaseWhenWritten by");
    await live.press("More");
    await waitFor(() => expect(table.getAllByRole("row").length).toBeGreaterThan(60));
    await live.app.user.click(within(table.getAllByRole("row")[1] as HTMLElement).getByRole("button"));
    await screen.findByTestId("live-case");
  });

  test("of a process that writes nowhere say so", async () => {
    live = await openLive(modelOf(file(processOf(start + node("userTask", "a") + end + chain("s", "a", "e")))));
    await live.start();
    await live.choose("Tables");
    await screen.findByText("No step of this process writes into a data store or an IT system.");
  });
});

describe("the log of a run", () => {
  test("leaves as XES and as CSV, with names or without", async () => {
    live = await openLive(plain);
    await live.start();
    await live.press("Log");
    const dialog = await live.dialog();
    const link = (name: string) =>
      new URL(dialog.getByRole("link", { name }).getAttribute("href") ?? "", "http://here");
    expect(link("As XES").searchParams.get("as")).toBe("xes");
    expect(link("As CSV").searchParams.get("anonymised")).toBeNull();
    await live.app.user.click(dialog.getByLabelText(/Replace the names/));
    expect(link("As CSV").searchParams.get("anonymised")).toBe("1");
    expect(link("As CSV").searchParams.get("run")).toBe((await live.theRun()).id);
  });
});
