import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { leftIn } from "../../testing/leftOut";
import { expectOk } from "../../testing/models";
import {
  columnsIn,
  type EventLog,
  eventAt,
  filtered,
  openedLog,
  overviewOf,
  packedLog,
  readLogCsv,
  type SaidOfTable,
  textPieces,
  traceAt,
} from "..";
import { rowsOf, UnclosedQuote } from "./logTable";

const read = (lines: readonly string[], said: SaidOfTable = {}): EventLog => {
  const result = readLogCsv([lines.join("\n")], said);
  if (!result.ok) throw new Error(result.problems[0]?.message);
  return result.value;
};
const told = (log: EventLog) =>
  log.cases.map((name, trace) => [
    name,
    ...traceAt(log, trace).events.map(({ activity, at, lifecycle }) => `${activity} ${lifecycle} ${at ?? ""}`.trim()),
  ]);

describe("the rows of a table", () => {
  const cell = fc.oneof(
    fc.string({ maxLength: 6 }),
    fc.constantFrom("a,b", 'say "so"', "two\nlines", "line\r\nend", ";", "", "ü"),
  );
  const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`;
  const rows = fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 8 });

  test("are the same wherever its text is cut", () => {
    fc.assert(
      fc.property(rows, fc.array(fc.integer({ min: 1, max: 40 }), { maxLength: 6 }), (all, cuts) => {
        const text = ["x,y,z", ...all.map((own) => own.map(quoted).join(","))].join("\n");
        const pieces: string[] = [];
        let from = 0;
        for (const cut of cuts) {
          pieces.push(text.slice(from, from + cut));
          from += cut;
        }
        pieces.push(text.slice(from));
        expect([...rowsOf(pieces)]).toEqual([...rowsOf([text])]);
        expect([...rowsOf(pieces)].slice(1).map(({ cells }) => cells)).toEqual(all.map((own) => [...own]));
      }),
    );
  });

  test("know the line they begin in, though cells before them hold line ends, and empty lines stand between", () => {
    const text = 'a,b\n1,"x\ny"\n\n2,z\n"3\r\n\r\n3",w\n4,v\n';
    expect([...rowsOf([text])].map(({ line, cells }) => [line, cells[0]])).toEqual([
      [1, "a"],
      [2, "1"],
      [5, "2"],
      [6, "3\r\n\r\n3"],
      [9, "4"],
    ]);
  });

  test.each([
    [
      "a;b\n1;2\n3;4",
      [
        ["a", "b"],
        ["1", "2"],
        ["3", "4"],
      ],
    ],
    [
      "a\tb\n1\t2,5",
      [
        ["a", "b"],
        ["1", "2,5"],
      ],
    ],
    [
      "a|b\n1|2",
      [
        ["a", "b"],
        ["1", "2"],
      ],
    ],
    [
      'a,b\n1,5" pipe\n2,"x"',
      [
        ["a", "b"],
        ["1", '5" pipe'],
        ["2", "x"],
      ],
    ],
    [
      "\uFEFFa,b\r\n1,2\r\n",
      [
        ["a", "b"],
        ["1", "2"],
      ],
    ],
    ["", []],
  ])("%j", (text, wanted) => {
    expect([...rowsOf([text])].map(({ cells }) => cells)).toEqual(wanted);
  });

  test("a quotation mark that is never closed is told with the line of its row", () => {
    const text = 'a,b\n1,2\n3,"four\n5,6\n';
    expect(() => [...rowsOf([text])]).toThrow(UnclosedQuote);
    const result = readLogCsv([`case,activity\n1,a\n2,"b\n3,c\n`]);
    expect(result).toMatchObject({ ok: false, problems: [{ code: "bad-table", line: 3 }] });
  });
});

describe("a table of events", () => {
  test("of which each has a beginning and an end is two for each row, in the order of their times", () => {
    const log = read([
      "Case ID,Activity,Start Time,End Time",
      "7,b,2027-01-01T10:00Z,2027-01-01T11:00Z",
      "7,a,2027-01-01T08:00Z,2027-01-01T10:30Z",
    ]);
    const hour = (at: number) => Date.UTC(2027, 0, 1, 0, at * 60);
    expect(told(log)).toEqual([
      ["7", `a start ${hour(8)}`, `b start ${hour(10)}`, `a complete ${hour(10.5)}`, `b complete ${hour(11)}`],
    ]);
  });

  test("with only one time has no beginnings, whatever that is called", () => {
    expect(columnsIn(["case", "activity", "start"])).toMatchObject({ at: 2, began: undefined });
    expect(told(read(["case,activity,start", "1,a,2027-01-01"]))).toEqual([["1", `a  ${Date.UTC(2027, 0, 1)}`]]);
  });

  test("that names its columns otherwise takes them as they are said; the rest are attributes of cases", () => {
    const lines = [
      "Vorgang,Was,Wann,Region,Note",
      "1,a,03.04.2027,north,x",
      "1,b,04.04.2027,north,y",
      "2,a,03.05.2027,south,",
    ];
    const columns = {
      case: 0,
      activity: 1,
      at: 2,
      began: undefined,
      lifecycle: undefined,
      role: undefined,
      who: undefined,
    };
    expect(readLogCsv([lines.join("\n")])).toMatchObject({ ok: false, problems: [{ code: "no-columns" }] });
    const log = read(lines, { columns });
    expect(told(log)).toEqual([
      ["1", `a  ${Date.UTC(2027, 3, 3)}`, `b  ${Date.UTC(2027, 3, 4)}`],
      ["2", `a  ${Date.UTC(2027, 4, 3)}`],
    ]);
    // What says different things within a case says nothing of the case.
    expect(log.attributes.map(({ name, words, of }) => [name, [...of].map((word) => words[word])])).toEqual([
      ["Region", ["north", "south"]],
    ]);
    expect(log.eventAttributes.map(({ name, words, of }) => [name, [...of].map((word) => words[word])])).toEqual([
      ["Note", ["x", "y", ""]],
    ]);
  });

  test("of clocks that are ahead of UTC is set back, but not where a time tells its own zone", () => {
    const lines = ["case,activity,time", "1,a,2027-01-01 10:00", "1,b,2027-01-01T10:00:00Z"];
    expect(told(read(lines, { ahead: 60 }))).toEqual([
      ["1", `a  ${Date.UTC(2027, 0, 1, 9)}`, `b  ${Date.UTC(2027, 0, 1, 10)}`],
    ]);
  });

  test("in which days come last is read as it is said", () => {
    const lines = ["case,activity,time", "1,a,03/04/2027"];
    expect(told(read(lines))[0]?.[1]).toBe(`a  ${Date.UTC(2027, 3, 3)}`);
    expect(told(read(lines, { form: "monthFirst" }))[0]?.[1]).toBe(`a  ${Date.UTC(2027, 2, 4)}`);
  });

  test("keeps what tells cases apart, not what is another thing of each", () => {
    const lines = Array.from({ length: 100 }, (_, at) => `${at},a,${at % 2 ? "paper" : "form"},number ${at}`);
    expect(read(["case,activity,channel,number", ...lines]).attributes.map(({ name }) => name)).toEqual(["channel"]);
    expect(read(["case,activity,channel,number", ...lines]).eventAttributes).toEqual([]);
  });

  test("what is said of events stays with them, in whatever order they come, and of the beginning as of the end of a row", () => {
    const lines = [
      "case,activity,start,end,room",
      "1,b,2027-01-02 09:00,2027-01-02 10:00,",
      "1,a,2027-01-01 09:00,2027-01-01 10:00,hall",
      "2,a,2027-01-01 09:00,2027-01-01 10:00,yard",
      "1,c,2027-01-03 09:00,2027-01-03 10:00,yard",
      "2,b,2027-01-03 09:00,2027-01-03 10:00,",
    ];
    const log = read(lines);
    const [room] = log.eventAttributes;
    const of = (trace: number) =>
      [...(room?.of.subarray(log.from[trace], log.until[trace]) ?? [])].map((word, at) => [
        eventAt(log, (log.from[trace] as number) + at).activity,
        room?.words[word],
      ]);
    expect(of(0)).toEqual([
      ["a", "hall"],
      ["a", "hall"],
      ["b", ""],
      ["b", ""],
      ["c", "yard"],
      ["c", "yard"],
    ]);
    expect(of(1)).toEqual([
      ["a", "yard"],
      ["a", "yard"],
      ["b", ""],
      ["b", ""],
    ]);
    const kept = (is: boolean) =>
      filtered(log, [{ kind: "eventAttribute", name: "room", value: "hall", is }]).cases.join();
    expect([kept(true), kept(false)]).toEqual(["1", "2"]);
    expect(filtered(log, [{ kind: "eventAttribute", name: "none", value: "hall", is: true }]).cases).toEqual([]);
    expect(overviewOf(log).eventAttributes).toEqual([
      {
        name: "room",
        values: [
          { name: "yard", count: 2 },
          { name: "hall", count: 1 },
        ],
      },
    ]);
  });

  test("a row that ends before it begins is left out; one that ends on the day it begins is not", () => {
    const log = read([
      "case,activity,began,time",
      "1,a,2027-01-04 09:00,2027-01-04 08:59",
      "1,b,2027-01-04 09:00,2027-01-04 09:00",
      "1,c,2027-01-04 09:00,2027-01-04",
      "1,d,2027-01-05 00:00,2027-01-04",
      "1,e,2027-01-04 09:00,",
    ]);
    expect(leftIn(log).map(({ line, why }) => [line, why])).toEqual([
      [2, "it ends (“2027-01-04 08:59”) before it begins (“2027-01-04 09:00”)"],
      [5, "it ends (“2027-01-04”) before it begins (“2027-01-05 00:00”)"],
    ]);
    const activities = new Set(traceAt(log, 0).events.map(({ activity }) => activity));
    expect([...activities].sort()).toEqual(["b", "c", "e"]);
  });

  test("a row that was corrected by hand is read as it was corrected; the others name their cells", () => {
    const lines = [
      "case,activity,time,room",
      "1,a,soon,hall",
      ",b,2027-01-01,",
      '2,"c\nd",never,yard',
      "2,e,2027-01-02,",
    ];
    const before = read(lines);
    expect(leftIn(before)).toEqual([
      { line: 2, why: "“soon” is no time", cells: ["1", "a", "soon", "hall"] },
      { line: 3, why: "the row names no case", cells: ["", "b", "2027-01-01", ""] },
      { line: 4, why: "“never” is no time", cells: ["2", "c\nd", "never", "yard"] },
    ]);
    const corrected = { 2: ["1", "a", "2027-01-03", "hall"], 4: ["2", "c", "later", "yard"], 99: ["x", "y"] };
    const log = read(lines, { corrected });
    expect(told(log).map(([name]) => name)).toEqual(["1", "2"]);
    expect(log.left.map(({ line, why }) => [line, why.text])).toEqual([
      [3, "the row names no case"],
      [4, "“later” is no time"],
    ]);
    // Two rows were corrected, though one of them is still none; a line that the file has not counts for nothing.
    expect([log.corrected, log.leftOut]).toEqual([2, 2]);
    const again = expectOk(openedLog(packedLog(log)));
    expect([again.corrected, leftIn(again), again.eventAttributes]).toEqual([
      2,
      log.left.map(({ line, why }) => ({ line, why: why.text })),
      log.eventAttributes,
    ]);
  });

  test("a log that was kept before events had attributes is read as it was", () => {
    const bytes = packedLog(read(["case,activity", "1,a", "1,b"]));
    const size = new DataView(bytes.buffer).getUint32(0, true);
    const { eventAttributes, corrected, ...former } = JSON.parse(new TextDecoder().decode(bytes.subarray(4, 4 + size)));
    expect([eventAttributes, corrected]).toEqual([[], 0]);
    const words = new TextEncoder().encode(JSON.stringify(former));
    const old = new Uint8Array(4 + words.length + bytes.length - 4 - size);
    new DataView(old.buffer).setUint32(0, words.length, true);
    old.set(words, 4);
    old.set(bytes.subarray(4 + size), 4 + words.length);
    expect(expectOk(openedLog(old))).toMatchObject({ cases: ["1"], eventAttributes: [], corrected: 0 });
  });
});

describe("the text of a log", () => {
  const encoded = (text: string) => [...textPieces(new TextEncoder().encode(text))].join("");
  test("is UTF-8, with letters of several bytes wherever it is cut", () => {
    const long = "häuser für 1 € ".repeat(400_000);
    expect(encoded(long) === long).toBe(true);
  });

  test("that is no UTF-8 is what spreadsheets write instead", () => {
    // windows-1252: 0x80 is the euro sign, 0xE4 is "ä" (WHATWG Encoding Standard, index windows-1252).
    expect([...textPieces(new Uint8Array([0x80, 0x20, 0xe4]))].join("")).toBe("€ ä");
  });

  test("in UTF-16 is told by its mark", () => {
    expect([...textPieces(new Uint8Array([0xff, 0xfe, 0x61, 0, 0xe4, 0]))].join("")).toBe("aä");
  });
});
