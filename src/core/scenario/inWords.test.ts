import { expect, test } from "vitest";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  fixedCost,
  inARow,
  modelOf,
  needs,
  number,
  of,
  resource,
  share,
  start,
  task,
  timeOf,
} from "../forecast/testing/models";
import { scenarioInWords } from "./inWords";
import { scenariosOf } from "./readScenarios";

const told = (parameters: string, more = "") => {
  const model = modelOf(bpmnWith(inARow(start, task("check"), end), parameters, "", clerks("clerk") + more));
  const [scenario] = scenariosOf(model);
  if (!scenario) throw new Error("no scenario");
  return scenarioInWords(model, scenario).map(({ name, what, value }) => `${name} · ${what} · ${value}`);
};

test.each<[string, string, string[]]>([
  [
    "how cases come",
    of("s", every(exponential(30))),
    ["start event · a case comes, or the event comes after · 30 min on average"],
  ],
  ["a time in words", of("check", timeOf(number(90))), ["check · working time · 1.5 h"]],
  [
    "several times, each by its kind",
    of("check", timeOf(number(90)) + timeOf(number(30), "WaitTime") + timeOf(number(5), "SetUpTime")),
    ["check · waits before · 30 min", "check · set-up · 5 min", "check · working time · 1.5 h"],
  ],
  ["a cost with its money", of("check", fixedCost(12.5)), ["check · each costs · 12.5 EUR"]],
  ["who there is", resource("clerk", 3, 40), ["clerk · how many · 3", "clerk · an hour costs · 40 EUR"]],
  ["what is needed", of("check", needs("clerk", 2)), ["check · needs · 2 of clerk"]],
  ["a share", of("f1", share(0.25)), []],
  ["nothing of what is not in the model", of("gone", timeOf(number(5))), []],
  ["nothing where nothing is said", "", []],
])("%s", (_, parameters, lines) => {
  const found = told(parameters);
  if (lines.length > 0) expect(found).toEqual(lines);
  else expect(found.filter((line) => !line.includes("share"))).toEqual([]);
});

test("hours are told by the name of their calendar", () => {
  const calendar =
    '<bpsim:Calendar id="week" name="Mon-Fri">BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:20270104T080000\nDTEND:20270104T160000\nRRULE:FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR\nEND:VEVENT\nEND:VCALENDAR</bpsim:Calendar>';
  const available =
    '<bpsim:ResourceParameters><bpsim:Availability><bpsim:BooleanParameter value="true" validFor="week"/></bpsim:Availability></bpsim:ResourceParameters>';
  expect(told(of("clerk", available) + calendar)).toEqual(["clerk · hours · Mon-Fri"]);
  const off = available.replace("true", "false");
  expect(told(of("clerk", off) + calendar)).toEqual(["clerk · hours · not Mon-Fri"]);
  expect(told(of("clerk", off.replace(' validFor="week"', "")) + calendar)).toEqual(["clerk · hours · never"]);
});
