import { expect, test } from "vitest";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  inARow,
  modelOf,
  needs,
  number,
  of,
  resource,
  start,
  task,
  timeOf,
} from "@/core/forecast/testing/models";
import { hoursOf, scenariosOf } from "@/core/scenario";
import { performAll } from "@/core/testing/models";
import { sheetRows } from "../../version/figures/sheetRows";
import { readWeek, weekWords } from "../../version/figures/week";
import { readSheetTable, writeSheetTable } from "./sheetTable";

const model = modelOf(
  bpmnWith(
    inARow(start, task("check"), task("file"), end),
    of("s", every(exponential(120))) + of("check", timeOf(number(20)) + needs("clerk")) + resource("clerk", 2, 40),
    "",
    clerks("clerk"),
  ),
);
const rows = sheetRows(model);
const [scenario] = scenariosOf(model);
if (!scenario) throw new Error("no scenario");

test("the sheet has a row for each start, step and role, with the figures of its kind", () => {
  expect(rows.map(({ element, kind, says }) => [element, kind, says[0]])).toEqual([
    ["s", "start", "interval"],
    ["check", "step", "processing"],
    ["file", "step", "processing"],
    ["clerk", "people", "quantity"],
  ]);
});

test("a table that was written changes nothing when it is read", () => {
  const csv = writeSheetTable(rows, scenario);
  expect(csv).toContain("20 min");
  expect(readSheetTable(csv, rows, scenario)).toEqual({ commands: [], problems: [] });
});

test("what was changed in a table is said; what cannot be read is told with its line", () => {
  const csv =
    "What,Working time,How many,Hours\r\ncheck,10 to 30 min,,\r\nfile,soon,,\r\nclerk,,3,Mon-Fri 8:00-16:00\r\nnobody,5 min,,\r\n";
  const { commands, problems } = readSheetTable(csv, rows, scenario);
  const [changed] = scenariosOf(performAll(model, ...commands));
  expect(changed?.of.get("check")?.times.processing).toEqual([{ value: { kind: "uniform", min: 600, max: 1800 } }]);
  expect(changed?.of.get("clerk")?.quantity).toEqual([{ value: 3 }]);
  expect(changed?.of.get("clerk")?.available).toHaveLength(1);
  expect(problems).toHaveLength(2);
  expect(problems[0]).toMatch(/^Line 3: “soon” is no time/);
  expect(problems[1]).toContain("Line 5");
  expect(readSheetTable("a,b\r\n1,2", rows, scenario).problems).toHaveLength(1);
});

test.each([
  ["Mon-Fri 8:00-16:00", { days: ["MO", "TU", "WE", "TH", "FR"], from: "08:00", to: "16:00", off: [] }],
  ["Mon, Wed 9-12:30", { days: ["MO", "WE"], from: "09:00", to: "12:30", off: [] }],
  ["sat 10 to 14", { days: ["SA"], from: "10:00", to: "14:00", off: [] }],
  [
    "Mon-Tue 8-16, not 2027-05-03 2027-04-05",
    { days: ["MO", "TU"], from: "08:00", to: "16:00", off: ["2027-04-05", "2027-05-03"] },
  ],
  ["Mon-Tue 8-16, not 2027-02-30", undefined],
  ["Mon-Tue 8-16 except Easter", undefined],
  ["Fri-Mon 8-16", undefined],
  ["always", undefined],
  ["Mon 16-8", undefined],
])("%s is a working week", (words, week) => {
  expect(readWeek(words)).toEqual(week);
});

test("hours are told in the words in which they were said", () => {
  const { commands } = readSheetTable("What,Hours\r\nclerk,Mon-Fri 8:00-16:00", rows, scenario);
  const [changed] = scenariosOf(performAll(model, ...commands));
  const [calendar] = [...(changed?.calendars.values() ?? [])];
  expect(calendar && weekWords(calendar.events, "UTC")).toBe("Mon-Fri 8:00-16:00");
});

test("days off are kept with the hours, told again, and not worked", () => {
  const { commands } = readSheetTable(
    'What,Hours\r\nclerk,"Mon-Fri 8:00-16:00, not 2027-01-06, 2027-01-07"',
    rows,
    scenario,
  );
  const [changed] = scenariosOf(performAll(model, ...commands));
  const [calendar] = [...(changed?.calendars.values() ?? [])];
  expect(calendar && weekWords(calendar.events, "UTC")).toBe("Mon-Fri 8:00-16:00, not 2027-01-06, 2027-01-07");
  // The week from Monday 4 January 2027 on has three days of eight hours left.
  const start = Date.UTC(2027, 0, 4);
  expect(hoursOf(calendar?.events ?? [], start).between(0, 7 * 86_400)).toBe(3 * 8 * 3600);
});
