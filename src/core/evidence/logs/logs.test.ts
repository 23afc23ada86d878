import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { logCsv, logXes } from "../../live";
import { leftIn } from "../../testing/leftOut";
import { expectOk } from "../../testing/models";
import {
  classifiersIn,
  columnsOf,
  type EventLog,
  type LoggedEvent,
  mostNamed,
  readLogCsv,
  readXes,
  traceAt,
  variantsOf,
} from "..";
import { formOfMoments, momentFrom } from "./moments";

const xes = (inner: string) => `<?xml version="1.0"?><log xmlns="http://www.xes-standard.org/">${inner}</log>`;
const attribute = (key: string, value: string, kind = "string") => `<${kind} key="${key}" value="${value}"/>`;
const event = (name: string, ...more: string[]) => `<event>${attribute("concept:name", name)}${more.join("")}</event>`;
const read = (text: string): EventLog => {
  const result = readXes([text]);
  if (!result.ok) throw new Error(result.problems[0]?.message);
  return result.value;
};
const table = (...lines: string[]): EventLog => {
  const result = readLogCsv([lines.join("\n")]);
  if (!result.ok) throw new Error(result.problems[0]?.message);
  return result.value;
};
const tracesIn = (log: EventLog) => log.cases.map((_, trace) => traceAt(log, trace));
const said = (event_: LoggedEvent | undefined) => [event_?.activity, event_?.lifecycle, event_?.role, event_?.who];

describe("a log in XES", () => {
  // IEEE 1849-2016, the standard extensions; from memory of its schema.
  test("gives traces with name, time, lifecycle, role and resource, and passes over the rest", () => {
    const log = read(
      xes(
        `<extension name="Concept" prefix="concept" uri="x"/><global scope="trace">${attribute("concept:name", "none")}</global><classifier name="Activity" keys="concept:name"/>${attribute("concept:name", "the log")}<trace>${attribute("concept:name", "case 7")}${event(
          "Check &amp; sign",
          attribute("time:timestamp", "2027-03-01T08:00:00.000+01:00", "date"),
          attribute("lifecycle:transition", "COMPLETE"),
          attribute("org:role", "Front desk"),
          attribute("org:resource", "Tilda Quist"),
          `<string key="place" value="x">${attribute("concept:name", "nested, not the name")}</string>`,
          `<list key="papers"><values>${attribute("concept:name", "nor this")}</values></list>`,
        )}</trace>`,
      ),
    );
    expect(tracesIn(log).map(({ case: name }) => name)).toEqual(["case 7"]);
    const [one] = tracesIn(log)[0]?.events ?? [];
    expect(said(one)).toEqual(["Check & sign", "complete", "Front desk", "Tilda Quist"]);
    expect(one?.at).toBe(Date.UTC(2027, 2, 1, 7));
  });

  test("says for all events what a global says, where an event does not", () => {
    const log = read(
      xes(
        `<global scope="event">${attribute("lifecycle:transition", "complete")}${attribute("org:role", "Desk")}</global><trace>${event("a")}${event("b", attribute("org:role", "Crew"))}</trace>`,
      ),
    );
    expect(tracesIn(log)[0]?.events.map(said)).toEqual([
      ["a", "complete", "Desk", ""],
      ["b", "complete", "Crew", ""],
    ]);
  });

  test("an event without a name or with a time that is none is left out, counted, and named with its line", () => {
    const lines = [
      "<trace>",
      "<event></event>",
      event("a", attribute("time:timestamp", "soon", "date")),
      event("b"),
      "</trace>",
    ];
    const log = read(`<log>\n${lines.join("\n")}\n</log>`);
    expect(tracesIn(log)[0]?.events.map(({ activity }) => activity)).toEqual(["b"]);
    expect(log.leftOut).toBe(2);
    expect(leftIn(log)).toEqual([
      { line: 3, why: "the event has no name (concept:name)" },
      { line: 4, why: "“soon” is no time (time:timestamp)" },
    ]);
  });

  test.each([
    ["<bpmn/>", 1, /its root is “bpmn”/],
    ["<log><trace></log>", 1, /./],
    ['<!DOCTYPE log [<!ENTITY x "y">]><log/>', 1, /document type/],
    ["<log>\n<trace>", 2, /./],
  ])("%s is unusable, with its line", (text, line, why) => {
    const result = readXes([text]);
    if (result.ok) throw new Error("it was read");
    expect(result.problems[0]?.line).toBe(line);
    expect(result.problems[0]?.message).toMatch(why);
  });

  test("is the same read in pieces of any size", () => {
    const text = xes(
      `<trace>${attribute("concept:name", "1")}${event("ä <b>".replace("<b>", "&lt;b&gt;"))}${event("b")}</trace>`,
    );
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), (size) => {
        const pieces = text.match(new RegExp(`[^]{1,${size}}`, "g")) ?? [];
        expect(readXes(pieces)).toEqual(readXes([text]));
      }),
    );
  });

  test("that Live wrote is read as it was, as XES and as a table", () => {
    const words = fc
      .string({ minLength: 1, maxLength: 12 })
      .filter((text) => text.trim() === text && !/[\p{Cc}\p{Cs}\p{Cn}]/u.test(text) && !/^['=+@-]/.test(text));
    const events = fc.array(
      fc.record({
        activity: words,
        at: fc.integer({ min: 0, max: 4e12 }),
        lifecycle: fc.constantFrom("start" as const, "complete" as const),
        role: fc.oneof(words, fc.constant("")),
      }),
      { minLength: 1, maxLength: 8 },
    );
    fc.assert(
      fc.property(fc.array(events, { minLength: 1, maxLength: 5 }), (all) => {
        const traces = all.map((own, at) => ({
          case: String(at + 1),
          events: [...own].sort((a, b) => a.at - b.at),
        }));
        const wanted = traces.map(({ events: own }) => own.map(({ activity, at, role }) => [activity, at, role]));
        for (const log of [read(logXes(traces, "log")), table(logCsv(traces))])
          expect(
            tracesIn(log).map(({ events: own }) => own.map(({ activity, at, role }) => [activity, at, role])),
          ).toEqual(wanted);
      }),
    );
  });
});

describe("a log as a table", () => {
  test.each<[head: string, columns: (number | undefined)[]]>([
    ["case,activity,timestamp,lifecycle,role", [0, 1, 2, 3, 4, undefined]],
    ["Case ID;Activity;Complete Timestamp;Resource", [0, 1, 2, undefined, undefined, 3]],
    ["case:concept:name,concept:name,time:timestamp,org:resource,lifecycle:transition", [0, 1, 2, 4, undefined, 3]],
    ["when,TIME,Task,Order-ID", [3, 2, 1, undefined, undefined, undefined]],
  ])("%s: its columns are told by their names", (head, [of, activity, at, lifecycle, role, who]) => {
    expect(columnsOf(head.split(/[,;]/))).toEqual({ case: of, activity, at, began: undefined, lifecycle, role, who });
  });

  test("cases are gathered from anywhere in it, each in the order of its times, and of one time as it stands", () => {
    const log = table(
      "case;activity;timestamp",
      "2;b;02.01.2027 09:00",
      "1;a;13.01.2027 08:00",
      "2;a;02.01.2027 08:30",
      "2;c;02.01.2027 09:00",
    );
    expect(
      tracesIn(log).map(({ case: name, events }) => [name, events.map(({ activity }) => activity).join("")]),
    ).toEqual([
      ["2", "abc"],
      ["1", "a"],
    ]);
    expect(tracesIn(log)[0]?.events[0]?.at).toBe(Date.UTC(2027, 0, 2, 8, 30));
  });

  test("rows that cannot be used are left out, counted all and named the first", () => {
    const log = table("case,activity,time", "1,a,2027-01-01", "1,,2027-01-02", ",b,2027-01-02", "1,c,tomorrow", "");
    expect(tracesIn(log)[0]?.events).toHaveLength(1);
    expect(leftIn(log)).toEqual([
      { line: 3, why: "the row names no activity", cells: ["1", "", "2027-01-02"] },
      { line: 4, why: "the row names no case", cells: ["", "b", "2027-01-02"] },
      { line: 5, why: "“tomorrow” is no time", cells: ["1", "c", "tomorrow"] },
    ]);
    const many = table("case,activity", ...Array.from({ length: 500 }, () => ",a"));
    expect([many.leftOut, many.left.length]).toEqual([500, mostNamed]);
  });

  test("without a column for cases or activities, or with a cell that is never closed, it is unusable", () => {
    for (const [text, why] of [
      ["name,when\nx,y", /no column for cases/],
      ["", /no column/],
      ['case,activity\n1,"a', /not closed/],
    ] as const) {
      const result = readLogCsv(text);
      expect(result.ok ? "" : result.problems[0]?.message).toMatch(why);
    }
  });
});

describe("times of a table", () => {
  test.each<[cells: string[], form: string | undefined]>([
    [["2027-03-04", "2027-03-04T08:00:00Z"], "iso"],
    [["2027-03-04 08:00:00.123+01:00"], "iso"],
    [["03/04/2027", "31/12/2027 23:59"], "dayFirst"],
    [["03/04/2027", "12/31/2027 23:59"], "monthFirst"],
    [["03.04.2027"], "dayFirst"],
    [["soon", "2027-01-01"], undefined],
    [[""], undefined],
  ])("%o are written as %s", (cells, form) => {
    expect(formOfMoments(cells)).toBe(form);
  });

  test("are what the platform's own dates make of them, in any zone", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 4_000_000_000 }),
        fc.integer({ min: -14 * 60, max: 14 * 60 }),
        (second, zone) => {
          const at = second * 1000;
          const sign = zone < 0 ? "-" : "+";
          const two = (value: number) => String(value).padStart(2, "0");
          const local = new Date(at + zone * 60_000).toISOString().slice(0, 19);
          const away = `${sign}${two(Math.floor(Math.abs(zone) / 60))}:${two(Math.abs(zone) % 60)}`;
          expect(momentFrom(`${local}${away}`, "iso")).toBe(Date.parse(`${local}${away}`));
          expect(momentFrom(new Date(at).toISOString(), "iso")).toBe(at);
        },
      ),
    );
  });

  test.each(["2027-02-29", "2027-13-01", "2027-01-01 25:00", "2027-01-01 10:61"])("%s is no time", (cell) => {
    expect(momentFrom(cell, "iso")).toBeUndefined();
  });
});

describe("XES: attributes inside others, and classifiers", () => {
  const file = xes(`
    <classifier name="Activity and lifecycle" keys="concept:name lifecycle:transition"/>
    <classifier name="Odd key" keys="'plant kind' concept:name"/>
    <trace><string key="concept:name" value="1"/>
      <string key="region" value="North"><string key="office" value="Quillmere"/></string>
      <list key="plant"><values><float key="power" value="9.5"/><container key="roof"><string key="kind" value="flat"/></container></values></list>
      <event><string key="concept:name" value="Check"/><string key="lifecycle:transition" value="start"/><string key="plant kind" value="small"><string key="x" value="y"/></string></event>
      <event><string key="concept:name" value="Check"/><string key="lifecycle:transition" value="complete"/></event>
      <string key="late" value="yes"/>
    </trace>
    <trace><string key="concept:name" value="2"/><string key="region" value="South"/>
      <event><string key="concept:name" value="Check"/><string key="lifecycle:transition" value="complete"/></event></trace>`);
  const read = (classifier?: string) => expectOk(readXes([file], classifier === undefined ? {} : { classifier }));

  test("attributes of a case are called by their whole way; those of an event are none of the case", () => {
    const { attributes } = read();
    expect(attributes.map(({ name }) => name)).toEqual([
      "region",
      "region / office",
      "plant / power",
      "plant / roof / kind",
      "late",
    ]);
    // Of an event what is neither its name nor its time, but only where it tells events apart.
    const kinds = xes(
      ["small", "large", "small"]
        .map(
          (kind, at) =>
            `<trace><string key="concept:name" value="${at}"/><event><string key="concept:name" value="a"/><string key="kind" value="${kind}"/></event><event><string key="concept:name" value="b"/><string key="kind" value="none"/></event></trace>`,
        )
        .join(""),
    );
    const { eventAttributes } = expectOk(readXes([kinds]));
    expect(eventAttributes.map(({ name, words, of }) => [name, [...of].map((word) => words[word])])).toEqual([
      ["kind", ["small", "none", "large", "none", "small", "none"]],
    ]);
  });

  test("the classifiers that a file has, with their keys", () => {
    expect(classifiersIn(file.slice(0, 400))).toEqual([
      { name: "Activity and lifecycle", keys: ["concept:name", "lifecycle:transition"] },
      { name: "Odd key", keys: ["plant kind", "concept:name"] },
    ]);
    expect(classifiersIn("no <xml")).toEqual([]);
  });

  test("events are named by the classifier one asks for, and each of them counts", () => {
    expect(variantsOf(read()).map(({ activities }) => activities)).toEqual([["Check"]]);
    expect(variantsOf(read("Activity and lifecycle")).map(({ activities }) => activities)).toEqual([
      ["Check+start", "Check+complete"],
      ["Check+complete"],
    ]);
    expect(variantsOf(read("Odd key")).map(({ activities }) => activities)).toContainEqual(["small+Check", "+Check"]);
    // One that the file does not have changes nothing.
    expect(variantsOf(read("None"))).toEqual(variantsOf(read()));
  });
});
