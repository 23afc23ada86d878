// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { LogRow, OpenedLogRow } from "@/contract/evidence";
import type { HomeData } from "@/contract/home";
import { matchElements } from "@/core/compare";
import { chain, end, file, modelOf, processOf, start, task } from "@/core/live/testing/models";
import { isActivity, nameOf, processesOf } from "@/core/model";
import { scenariosOf } from "@/core/scenario";
import { importModel, run, send, storedModel } from "@/server/testing/workspace";
import { useLookedAt } from "./lookedAt";

const model = modelOf(
  file(
    processOf(
      `${start}${task("a")}${task("b")}${task("c")}${end}${chain("s", "a", "b", "c", "e")}`
        .replace('name="a"', 'name="Register"')
        .replace('name="b"', 'name="Study the feeder"')
        .replace('name="c"', 'name="Book a visit"'),
    ),
  ),
);

/** Ten cases: in two the study is skipped, in one something is done that nobody foresaw. */
const ways = [
  ...Array(7).fill("Register,Study the feeder,Book a visit"),
  "Register,Book a visit",
  "Register,Book a visit",
];
const table = (head: string, extra: string[] = []) =>
  [
    head,
    ...[...ways, "Register,Ask the neighbour,Study the feeder,Book a visit"].flatMap((way, number) =>
      way
        .split(",")
        .map(
          (activity: string, place: number) =>
            `${number + 1},${activity},2027-03-0${(number % 9) + 1} 1${place}:00,Ole`,
        ),
    ),
    ...extra,
  ].join("\n");
const fileOf = (text: string, name = "register.csv") => new File([text], name, { type: "text/csv" });

let app: Application;
let version: string;
beforeEach(async () => {
  useLookedAt.setState({ view: "differences", log: undefined, filters: {}, overviews: {} });
  app = await openApplication("/", async () => {
    version = await importModel("Plant", model);
  });
  app.goTo(`/v/${version}/live?evidence`);
});
afterEach(() => app.close());

const press = async (name: string | RegExp, inside: Pick<typeof screen, "findByRole"> = screen) =>
  app.user.click(await inside.findByRole("button", { name }));
const choose = async (text: string, name?: string) => {
  const dialog = await screen.findByTestId("import-log");
  await app.user.upload(dialog.querySelector("input[type=file]") as HTMLInputElement, fileOf(text, name));
  return within(dialog);
};
const importing = async (text: string, name?: string) => {
  await press("Import a log …");
  const dialog = await choose(text, name);
  await dialog.findByTestId("log-found");
  await kept();
};
const kept = async () => {
  await press("Keep it");
  await screen.findByTestId("differences");
  // A window over the page keeps the pointer until it has gone.
  await waitFor(() => expect(document.body.style.pointerEvents).not.toBe("none"));
};
const view = async (name: string) => app.user.click(await screen.findByRole("radio", { name }));
const sentences = () =>
  screen.getAllByTestId("difference").map((row) => row.querySelector("button > span")?.textContent);
const fits = (words: string) => expect.poll(() => screen.queryByTestId("log-fits")?.textContent).toBe(words);
const logs = async () => (await run<{ logs: LogRow[] }>("listLogs", { version })).logs;
const opened = async () => run<OpenedLogRow>("openLog", { version, log: (await logs())[0]?.id ?? "" });
const undo = () => fireEvent.keyDown(document.body, { key: "z", ctrlKey: true });

describe("a log", () => {
  test("is looked at before it is kept, then held against the model; deleted, it can be brought again", async () => {
    await screen.findByTestId("no-logs");
    await press("Import a log …");
    const dialog = await choose(table("case,activity,time,who", ["9,,2027-03-01 10:00,Ole", "9,Register,soon,Ole"]));
    const found = await dialog.findByTestId("log-found");
    expect(found.textContent).toMatch(/10 cases, 29 events, 1 person\..*2 rows cannot be used and are left out/);
    expect(found.textContent).toMatch(/Line 31: the row names no activity.*Line 32: “soon” is no time/);
    expect(await logs()).toEqual([]);
    await app.user.click(dialog.getByRole("checkbox", { name: "Other names for people" }));
    await press("Keep it");
    await fits("7 of 10 cases go as modelled.");
    expect(sentences()).toEqual([
      "“Study the feeder” is skipped in 20 % of the traces.",
      "“Ask the neighbour” is done behind “Register” in 10 % of the traces, which the model does not have.",
    ]);
    await view("Overview");
    const overview = within(await screen.findByTestId("log-overview"));
    await overview.findAllByText("Person 1");
    expect(overview.queryByText("Ole")).toBeNull();
    await press("Delete");
    await screen.findByTestId("no-logs");
    undo();
    await screen.findByTestId("log-overview");
  });

  test("whose columns nobody can tell asks what they are, and is read as it is said", async () => {
    await press("Import a log …");
    const dialog = await choose(table("Vorgang,Was,Wann,Wer"));
    await dialog.findByText(/The first row names no column for cases/);
    expect((await screen.findByRole("button", { name: "Keep it" })).hasAttribute("disabled")).toBe(true);
    const say = async (column: string, what: string) =>
      app.user.selectOptions(await dialog.findByLabelText(`What the columns are: ${column}`), what);
    await say("Vorgang", "Case");
    await say("Was", "Activity");
    await dialog.findByText("It has no times.");
    await say("Wann", "Time, or end");
    await dialog.findByText(/From 1 Mar 2027 to 9 Mar 2027/);
    await press("Keep it");
    await fits("7 of 10 cases go as modelled.");
  });

  test("whose rows are broken is corrected by hand, row by row, and says so after it was kept", async () => {
    await press("Import a log …");
    const dialog = await choose(table("case,activity,time,who", ["9,,2027-03-01 10:00,Ole", "9,Register,soon,Ole"]));
    await dialog.findByText(/2 rows cannot be used/);
    await press("Correct them", within(dialog.getByTestId("correct-rows")));
    await app.user.type(dialog.getByLabelText("Line 31: Activity"), "Register");
    const time = dialog.getByLabelText("Line 32: Time, or end");
    expect(time).toHaveProperty("value", "soon");
    await app.user.clear(time);
    await app.user.type(time, "in a while");
    await press("Read again with 2 corrections", dialog);
    await dialog.findByText(/1 row cannot be used/);
    await dialog.findByText(/^2 rows are read as corrected by hand/);
    // Corrected once more, only the one that is still wrong.
    await press("Correct them", dialog);
    const again = dialog.getByLabelText("Line 32: Time, or end");
    expect(again).toHaveProperty("value", "in a while");
    await app.user.clear(again);
    await app.user.type(again, "2027-03-02 10:00");
    await press("Read again with 1 correction", dialog);
    await waitFor(() => expect(dialog.queryByText(/cannot be used/)).toBeNull());
    expect(dialog.getByTestId("log-found").textContent).toMatch(/10 cases, 31 events/);
    await kept();
    await view("Overview");
    await screen.findByText("2 rows were corrected by hand.");
  });

  test("is narrowed down by what is said of single events", async () => {
    await press("Import a log …");
    const room = (at: number) => (at % 3 === 0 ? "hall" : "yard");
    const lines = Array.from({ length: 12 }, (_, at) => [
      `${at},Register,2027-03-01 08:00,desk`,
      `${at},Study the feeder,2027-03-02 08:00,${room(at)}`,
    ]);
    const dialog = await choose(["case,activity,time,room", ...lines.flat()].join("\n"));
    await dialog.findByText(/12 cases, 24 events/);
    await kept();
    await view("Overview");
    const overview = within(await screen.findByTestId("log-overview"));
    await overview.findByText("room, of what was done");
    await app.user.click(await overview.findByRole("button", { name: "Only cases whose room is hall" }));
    await screen.findByText("have something done whose room is hall");
    await waitFor(() => expect(screen.getByTestId("log-overview").textContent).toMatch(/Cases4\D/));
  });

  test("that is none is refused in words, and another one can be chosen", async () => {
    await press("Import a log …");
    const dialog = await choose("<html><body>Not found</body></html>", "log.xes");
    expect((await dialog.findByRole("alert")).textContent).toMatch(/its root is “html” where a log has “log”/);
    await choose(table("case,activity,time,who"));
    await dialog.findByTestId("log-found");
  });

  test("that could not be sent is kept by asking once more; one whose answer was lost is kept once", async () => {
    await press("Import a log …");
    const dialog = await choose(table("case,activity,time,who"));
    await dialog.findByTestId("log-found");
    app.next("restoreLog", "lost");
    await press("Keep it");
    await dialog.findByRole("alert");
    await press("Keep it");
    await fits("7 of 10 cases go as modelled.");
    expect(await logs()).toHaveLength(1);
  });
});

describe("differences", () => {
  beforeEach(() => importing(table("case,activity,time,who")));
  const first = async () => {
    await app.user.click(await screen.findByText("“Study the feeder” is skipped in 20 % of the traces."));
  };

  test("are repaired in one act that is undone in one, after what it does was shown", async () => {
    await first();
    await press("Repair the model");
    const bar = await screen.findByTestId("repaired");
    expect(bar.textContent).toMatch(/9 of 10 cases then go as modelled, now 7\./);
    const before = [...(await storedModel(version)).elements].length;
    await press("Make it so");
    await fits("9 of 10 cases go as modelled.");
    expect(sentences()).toHaveLength(1);
    await waitFor(async () => expect([...(await storedModel(version)).elements].length).toBeGreaterThan(before));
    undo();
    await fits("7 of 10 cases go as modelled.");
    await waitFor(async () => expect([...(await storedModel(version)).elements].length).toBe(before));
  });

  test("are repaired one after the other until none is left", async () => {
    await press("Repair until none is left");
    const bar = await screen.findByTestId("repaired");
    expect(bar.textContent).toMatch(/2 repairs, one after the other\. 10 of 10 cases then go as modelled, now 7\./);
    await press("Make it so");
    await fits("10 of 10 cases go as modelled.");
    await screen.findByText("Nothing differs: every case goes as modelled.");
    await waitFor(async () => {
      const names = [...(await storedModel(version)).elements].map(({ id }) => id);
      expect(names.length).toBeGreaterThan(10);
    });
    const repaired = await storedModel(version);
    expect([...repaired.elements].map(({ id }) => nameOf(repaired, id))).toContain("Ask the neighbour");
  });

  test("that stay are judged with a note, and are open no more; what is open again is so everywhere", async () => {
    await first();
    await press("Misconduct");
    const dialog = await screen.findByRole("dialog");
    await app.user.type(within(dialog).getByLabelText("Note"), "told the team");
    await press("Misconduct", within(dialog));
    await waitFor(() => expect(sentences()).toHaveLength(1));
    expect((await opened()).judged).toMatchObject([{ as: "misconduct", note: "told the team" }]);
    await view("All 2");
    await first();
    await screen.findByText(/: told the team$/);
    await press("Not any more");
    await waitFor(async () => expect((await opened()).judged).toEqual([]));
    undo();
    await waitFor(async () => expect((await opened()).judged).toHaveLength(1));
  });

  test("are computed anew when the model changes, and when a colleague says what an activity is", async () => {
    await send(version, { type: "rename", id: "b", name: "Look at the feeder" });
    await fits("0 of 10 cases go as modelled.");
    const log = (await logs())[0]?.id ?? "";
    await run("sayStep", { version, log, activity: "Study the feeder", steps: ["b"] });
    await fits("7 of 10 cases go as modelled.");
  });
});

describe("what is looked at", () => {
  beforeEach(() => importing(table("case,activity,time,who")));

  test("is narrowed down by sentences that hold everywhere, and are taken away again", async () => {
    await view("Overview");
    const overview = within(await screen.findByTestId("log-overview"));
    await app.user.click(await overview.findByRole("button", { name: "Only cases that did Ask the neighbour" }));
    const filters = within(screen.getByTestId("filters"));
    await filters.findByText("did “Ask the neighbour”");
    await view("Differences");
    await fits("0 of 1 cases go as modelled.");
    await app.user.click(filters.getByRole("button", { name: /^No longer only cases/ }));
    await fits("7 of 10 cases go as modelled.");
    await app.user.click(filters.getByRole("button", { name: "Narrow down …" }));
    const dialog = within(await screen.findByRole("dialog"));
    await app.user.selectOptions(dialog.getByLabelText("What they have in common"), "took so long");
    await app.user.type(dialog.getByLabelText("At least"), "soon");
    await press("Narrow down", dialog);
    expect((await dialog.findByRole("alert")).textContent).toMatch(/“soon” is no length of time/);
    await app.user.clear(dialog.getByLabelText("At least"));
    await app.user.type(dialog.getByLabelText("At least"), "3 h");
    await press("Narrow down", dialog);
    await filters.findByText("took 3 h or longer");
    await fits("0 of 1 cases go as modelled.");
  });

  test("are the ways cases went, and each case with what was done in it", async () => {
    await view("Variants");
    const variants = within(await screen.findByTestId("log-variants"));
    expect(await variants.findAllByRole("button", { name: "Only these" })).toHaveLength(3);
    await app.user.type(variants.getByLabelText("Find a case"), "10");
    await app.user.click(await variants.findByRole("button", { name: "10" }));
    const one = within(await screen.findByTestId("log-case"));
    expect(one.getByText("Ask the neighbour")).toBeTruthy();
    await press("Close", one);
    await app.user.click(variants.getAllByRole("button", { name: "Only these" })[0] as HTMLElement);
    await waitFor(() => expect(variants.getAllByRole("button", { name: "Only these" })).toHaveLength(1));
  });

  test("are dots, with what they are said beside them", async () => {
    await view("Dotted chart");
    const dots = within(await screen.findByTestId("log-dots"));
    expect(dots.getAllByRole("listitem").map(({ textContent }) => textContent)).toEqual([
      "Register",
      "Study the feeder",
      "Book a visit",
      "Ask the neighbour",
    ]);
  });

  test("activities are given their steps by hand; what was found by name comes back", async () => {
    await send(version, { type: "rename", id: "b", name: "Study of the feeder" });
    await view("Activities and steps");
    const steps = within(await screen.findByTestId("log-steps"));
    await app.user.click(await steps.findByRole("button", { name: "Is it “Study of the feeder”?" }));
    await waitFor(async () => expect((await opened()).steps).toEqual({ "Study the feeder": ["b"] }));
    const choice = await steps.findByLabelText("Which step “Study the feeder” is");
    await waitFor(() => expect(choice).toHaveProperty("value", "b"));
    await app.user.selectOptions(choice, "As found by name");
    await waitFor(async () => expect((await opened()).steps).toEqual({}));
    undo();
    await waitFor(async () => expect((await opened()).steps).toEqual({ "Study the feeder": ["b"] }));
  });

  test("are a map, of as many paths as are wished, and a process that is made of it and deleted again by one undo", async () => {
    await view("Map");
    const map = within(await screen.findByTestId("log-map"));
    await map.findByTestId("map-page");
    await app.user.selectOptions(map.getByLabelText("Activities"), "40 %");
    await map.findByText(/^Not shown: 2 activities/);
    await press("Make a process of this log …", map);
    const dialog = within(await screen.findByRole("dialog"));
    const name = dialog.getByLabelText("Name");
    await app.user.clear(name);
    await app.user.type(name, "As told");
    await app.user.selectOptions(dialog.getByLabelText("It becomes"), "a process of its own, beside this one");
    await press("Make it", dialog);
    await waitFor(() => expect(app.address()).toMatch(/\/diagram$/));
    const made = app.address().split("/")[2] ?? "";
    const told = await storedModel(made);
    expect([...told.elements].flatMap(({ id, type }) => (type === "task" ? [nameOf(told, id)] : [])).sort()).toEqual([
      "Ask the neighbour",
      "Book a visit",
      "Register",
      "Study the feeder",
    ]);
    undo();
    await waitFor(() => expect(storedModel(made)).rejects.toThrow());
  });

  test("become a to-be of the process, which is compared with it step by step", async () => {
    await view("Map");
    const map = within(await screen.findByTestId("log-map"));
    await press("Make a process of this log …", map);
    const dialog = within(await screen.findByRole("dialog"));
    expect(dialog.getByLabelText("It becomes")).toHaveProperty("value", "toBe");
    await press("Make it", dialog);
    await waitFor(() => expect(app.address()).toMatch(/\/diagram$/));
    const made = app.address().split("/")[2] ?? "";
    expect(made).not.toBe(version);
    const home = await run<HomeData>("openHome", {});
    expect(home.processes).toHaveLength(1);
    expect(home.versions.find(({ id }) => id === made)).toMatchObject({ kind: "to-be", source: version });
    const [as, to] = [await storedModel(version), await storedModel(made)];
    expect(processesOf(to).map(({ id }) => id)).toEqual(processesOf(as).map(({ id }) => id));
    // Steps of the same name are the same one: only what is done otherwise differs.
    const pairs = matchElements(as, to);
    const isStep = (id: string) => isActivity(as.elements.get(id)?.type ?? "");
    expect([...pairs.keys()].filter(isStep).map((id) => nameOf(as, id))).toEqual([
      "Register",
      "Study the feeder",
      "Book a visit",
    ]);
    undo();
    await waitFor(async () => expect((await run<HomeData>("openHome", {})).versions).toHaveLength(1));
  });

  test("are two groups beside each other, when there are two", async () => {
    await view("Groups");
    const groups = within(await screen.findByTestId("log-groups"));
    await groups.findByText("Narrow down to the cases that are to be compared with all others.");
    await app.user.selectOptions(groups.getByLabelText("Compare"), "cases from a day on with those before");
    fireEvent.change(await groups.findByLabelText("From this day on"), { target: { value: "2027-03-08" } });
    await groups.findByText("2 cases against 8.");
    await groups.findByText("“Study the feeder” is done in 0 % of these cases and in 100 % of the others.");
    fireEvent.change(groups.getByLabelText("From this day on"), { target: { value: "2030-01-01" } });
    await groups.findByText("One of the two groups has no case.");
  });
});

describe("figures", () => {
  test("are taken from a log into a scenario by one act, whose forecast is held against the log", async () => {
    const rows = Array.from({ length: 30 }, (_, number) => {
      const day = String((number % 28) + 1).padStart(2, "0");
      return ["Register,08:00,08:1", "Study the feeder,09:00,09:3", "Book a visit,11:00,11:0"].map((row) => {
        const [activity, from, until] = row.split(",");
        return `${number},${activity},2027-03-${day} ${from},2027-03-${day} ${until}${number % 10}`;
      });
    });
    await importing(["case,activity,start,end", ...rows.flat()].join("\n"));
    await view("Figures");
    const figures = within(await screen.findByTestId("log-figures"));
    expect((await figures.findByText("Register")).closest("tr")?.textContent).toMatch(/work.*30/);
    await app.user.selectOptions(figures.getByLabelText("Times are taken"), "as they were measured");
    await waitFor(() => expect(figures.getByLabelText("Times are taken")).toHaveProperty("value", "measured"));
    await press("Hold its forecast against the log", figures);
    await figures.findByText("Half of the cases took at most");
    await press("Into a scenario", figures);
    const scenarios = async () => scenariosOf(await storedModel(version)).map(({ name }) => name);
    await waitFor(async () => expect(await scenarios()).toContain("As measured: register"));
    undo();
    await waitFor(async () => expect(await scenarios()).not.toContain("As measured: register"));
  });
});

test("an activity can be one of several steps, as somebody says", async () => {
  await importing(table("case,activity,time,who"));
  await view("Activities and steps");
  await app.user.selectOptions(await screen.findByLabelText("Which step “Ask the neighbour” is"), "Register");
  await app.user.selectOptions(
    await screen.findByLabelText("Another step that “Ask the neighbour” can be"),
    "Study the feeder",
  );
  await screen.findByText("one of Register, Study the feeder");
  expect((await opened()).steps["Ask the neighbour"]).toHaveLength(2);
});

describe("what happened, on the diagram", () => {
  test("counts and times, cases as they came, and one case move by move", async () => {
    await importing(table("case,activity,time,who"));
    await view("Replay");
    expect((await screen.findByTestId("log-bottleneck")).textContent).toMatch(/^Most of all, cases wait for “/);
    const rows = within(await screen.findByTestId("log-replay")).getAllByRole("row");
    expect(rows.map((row) => row.textContent)).toContainEqual(expect.stringMatching(/^Study the feeder82/));
    await view("Cases as they came");
    expect((await screen.findByTestId("replay-standing")).textContent).toBe("2 under way, 0 over");
    const slider = screen.getByRole("slider", { name: "Moment" }) as HTMLInputElement;
    fireEvent.change(slider, { target: { value: slider.max } });
    await expect.poll(() => screen.getByTestId("replay-standing").textContent).toBe("0 under way, 10 over");
    await view("One case");
    expect(await screen.findByText(/Choose a case under Variants/)).toBeTruthy();
    await view("Variants");
    await app.user.click(await screen.findByRole("button", { name: "8" }));
    await press("On the diagram", within(await screen.findByTestId("log-case")));
    const moves = async () => (await screen.findAllByTestId("case-move")).map((one) => one.getAttribute("data-kind"));
    expect(await moves()).toEqual(["both", "model", "both"]);
    await app.user.click(await screen.findByRole("button", { name: /Study the feeder\s*left out/ }));
    expect(screen.getByRole("button", { pressed: true }).textContent).toContain("left out");
  });

  test("playing goes on to the end and stops there; played again it begins anew", async () => {
    await importing(table("case,activity,time,who"));
    await view("Replay");
    await view("Cases as they came");
    await app.user.selectOptions(await screen.findByLabelText("All of it in"), "20 seconds");
    await press("Play");
    const moment = () => screen.getByTestId("replay-moment").textContent;
    const first = moment();
    await expect.poll(moment).not.toBe(first);
    await press("Pause");
    const slider = screen.getByRole("slider", { name: "Moment" }) as HTMLInputElement;
    fireEvent.change(slider, { target: { value: slider.max } });
    await press("Play");
    await expect.poll(() => Number(slider.value)).toBeLessThan(Number(slider.max));
  });

  test("a case that the sentences above leave out is not shown", async () => {
    await importing(table("case,activity,time,who"));
    useLookedAt.getState().showCase("no such case");
    expect(await screen.findByText("This case is not among those that are looked at.")).toBeTruthy();
  });
});

describe("what costs nothing to align", () => {
  test("a target that is not kept is told with its share, is judged, and has no repair", async () => {
    await send(version, {
      type: "setTargets",
      id: "c",
      targets: [{ what: "duration", seconds: 60, share: 0.9, days: 30 }],
    });
    await importing(table("case,activity,time,who"));
    await expect
      .poll(sentences)
      .toContainEqual(expect.stringMatching(/“Book a visit” takes longer than 1 min in 100 %/));
    const row = screen.getAllByTestId("difference").find((one) => one.getAttribute("data-kind") === "late");
    await app.user.click(within(row as HTMLElement).getByRole("button", { expanded: false }));
    expect(within(row as HTMLElement).queryByRole("button", { name: "Repair the model" })).toBeNull();
    expect(within(row as HTMLElement).getByRole("button", { name: /exception/i })).toBeTruthy();
  });
});

describe("the report", () => {
  test("is taken as a file, of what is narrowed down to", async () => {
    const given: Blob[] = [];
    URL.createObjectURL = (blob: Blob) => {
      given.push(blob);
      return "blob:given";
    };
    URL.revokeObjectURL = () => undefined;
    await importing(table("case,activity,time,who"));
    await press("Report …");
    const dialog = within(await screen.findByRole("dialog"));
    await app.user.click(dialog.getByRole("button", { name: "Markdown" }));
    await waitFor(() => expect(given).toHaveLength(1));
    expect(await given[0]?.text()).toContain("7 of 10 cases (70.0 %) went as the model has it");
  });
});
