import fc from "fast-check";
import Papa from "papaparse";
import { describe, expect, test } from "vitest";
import { applyEdits, type Edit, elementsOfType, nameOf, processesOf, referrersOf } from "../model";
import { readTable, writeTable } from "../table";
import { commandScript, expectOk, performAll, runScript, smallModel } from "../testing/models";
import { listOf, type Resolve, readAmount, readSheet, recogniseHeadings, stepSheetOf, writeSheet } from ".";

const resolve: Resolve = (kind, name) => ({ entry: `${kind}:${name}`, name });
const counted = () => {
  let made = 0;
  return (of: string) => `${of}-${++made}`;
};
const read = (text: string) => readSheet(text, "Imported", counted(), resolve);

describe("tables as RFC 4180 has them", () => {
  // The numbered rules of RFC 4180, section 2.
  test.each([
    [
      "1: records on lines of their own, ended by CRLF",
      "aaa,bbb\r\nccc,ddd\r\n",
      [
        ["aaa", "bbb"],
        ["ccc", "ddd"],
      ],
    ],
    [
      "2: the last line end may be missing",
      "aaa,bbb\r\nccc,ddd",
      [
        ["aaa", "bbb"],
        ["ccc", "ddd"],
      ],
    ],
    [
      "5: fields may be quoted",
      '"aaa","bbb"\r\nzzz,yyy',
      [
        ["aaa", "bbb"],
        ["zzz", "yyy"],
      ],
    ],
    [
      "6: line breaks, quotes and commas stand in quotes",
      '"a\r\nb","c,d"\r\nx,y',
      [
        ["a\r\nb", "c,d"],
        ["x", "y"],
      ],
    ],
    ["7: a quotation mark inside is doubled", '"a""b",c', [['a"b', "c"]]],
  ])("rule %s", (_, text, rows) => {
    expect(expectOk(readTable(text))).toEqual(rows);
  });

  test.each([
    [
      "tabs, as a spreadsheet copies them",
      "Step\tBy\nCheck\tFront desk",
      [
        ["Step", "By"],
        ["Check", "Front desk"],
      ],
    ],
    [
      "semicolons",
      "Step;By\nCheck;Front desk",
      [
        ["Step", "By"],
        ["Check", "Front desk"],
      ],
    ],
    [
      "a byte-order mark and empty lines",
      "﻿Step,By\n\n,\nCheck,Desk\n",
      [
        ["Step", "By"],
        ["Check", "Desk"],
      ],
    ],
  ])("%s", (_, text, rows) => {
    expect(expectOk(readTable(text))).toEqual(rows);
  });

  test("an open quotation mark is named with its row", () => {
    const answer = readTable('Step,By\r\n"Check,Front desk');
    expect(answer).toMatchObject({ ok: false, problems: [{ code: "open-quote" }] });
  });

  test("no cell that is written runs as a formula, and each comes back as it was", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.array(
            fc.string().map((cell) => cell.trim()),
            { minLength: 2, maxLength: 4 },
          ),
          { minLength: 1 },
        ),
        (cells) => {
          const rows = [["Step", "By"], ...cells];
          const text = writeTable(rows);
          for (const cell of Papa.parse<string[]>(text).data.flat()) expect(cell).not.toMatch(/^[=+\-@]/);
          const kept = rows.filter((row) => row.some((cell) => cell !== ""));
          const plain = kept.every((row) =>
            row.every((cell) => !/^'[=+\-@\t\r]|^﻿/.test(cell) && cell === cell.replace(/\r\n?|\n/g, " ")),
          );
          if (plain && kept.length === rows.length) expect(expectOk(readTable(text))).toEqual(rows);
        },
      ),
    );
  });
});

describe("headings", () => {
  test.each([
    ["our own", ["No", "Level", "Kind", "Step", "By", "Uses", "Needs", "Gives", "Guidance"], true],
    ["what people write", ["Activity", "Role", "IT system", "Input", "Output", "Notes"], true],
    ["one that is not known", ["Step", "Who", "Colour"], false],
  ])("%s", (_, headings, isClear) => {
    expect(recogniseHeadings([headings, headings.map(() => "x")])).toMatchObject({ hasHeadings: true, isClear });
  });

  test("a single column without a heading is the steps", () => {
    expect(recogniseHeadings([["Register"], ["Check"]])).toMatchObject({
      hasHeadings: false,
      map: { step: 0 },
      isClear: true,
    });
  });

  test("several columns without headings are not guessed", () => {
    expect(
      recogniseHeadings([
        ["Register", "Desk"],
        ["Check", "Crew"],
      ]),
    ).toMatchObject({ hasHeadings: false, isClear: false });
  });
});

describe("a sheet as a file", () => {
  test("a plain list becomes a drawn process with lanes, systems and documents", () => {
    const model = expectOk(
      read(
        "Step,Role,System,Output\nRegister,Front desk,Case register,Case file\nCheck feeder,Network engineer,Network map,\nInspect,Field crew,,Visit report",
      ),
    );
    expect(elementsOfType(model, "lane").map((lane) => lane.name)).toEqual([
      "Front desk",
      "Network engineer",
      "Field crew",
    ]);
    const process = processesOf(model)[0]?.id as string;
    expect(
      stepSheetOf(model, process).flatMap((row) => (row.kind === "step" && nameOf(model, row.element)) || []),
    ).toEqual(["Register", "Check feeder", "Inspect"]);
  });

  test("written, read and written again it is the same, byte for byte", () => {
    fc.assert(
      fc.property(commandScript(24), (script) => {
        const model = runScript(smallModel(), script);
        const once = writeSheet(model, "process");
        const answer = read(once);
        // An event that lost its definition stands where the standard has none; such a sheet is refused.
        if (!answer.ok && answer.problems[0]?.code === "event-position") return;
        const again = expectOk(answer);
        expect(writeSheet(again, processesOf(again)[0]?.id as string)).toBe(once);
      }),
      { numRuns: 40 },
    );
  });

  test("whatever things are called, a process without a name among them", () => {
    const odd = fc.oneof(
      fc.constantFrom(
        "'=1",
        "=1+1",
        "''",
        "a; b",
        "a\\",
        "\\;",
        " around ",
        "two\nlines",
        "\ttab",
        '"quoted"',
        "(reads)",
        "x (runs on)",
        "1",
        "path",
        "-",
      ),
      fc.string({ maxLength: 12 }),
    );
    fc.assert(
      fc.property(fc.array(odd, { minLength: 8, maxLength: 8 }), fc.boolean(), (names, isNamed) => {
        const ids = ["check", "approve", "reject", "decide", "f3", "f4", "start", "desk"];
        const edits = ids.flatMap((id, at): Edit[] => {
          const element = smallModel().elements.get(id);
          return [
            { kind: "set", table: "elements", id, field: "name", from: element?.name ?? null, to: names[at] || null },
          ];
        });
        const nameless: Edit[] = [
          { kind: "set", table: "elements", id: "process", field: "name", from: "Connect a plant", to: null },
        ];
        const model = expectOk(applyEdits(smallModel(), isNamed ? edits : [...edits, ...nameless]));
        const once = writeSheet(model, "process");
        const again = expectOk(read(once));
        expect(writeSheet(again, processesOf(again)[0]?.id as string)).toBe(once);
      }),
      { numRuns: 100 },
    );
  });

  test("a process without a name gets none from the file, and an event at an edge stands in its step's lane", () => {
    const model = performAll(smallModel(), {
      type: "attach",
      diagram: "page",
      host: "approve",
      id: "late-2",
      kind: { type: "boundaryEvent", trigger: "timerEventDefinition" },
    });
    const nameless: Edit[] = [
      { kind: "set", table: "elements", id: "process", field: "name", from: "Connect a plant", to: null },
    ];
    const again = expectOk(read(writeSheet(expectOk(applyEdits(model, nameless)), "process")));
    expect(processesOf(again)[0]?.name).toBeUndefined();
    for (const event of [...again.elements].filter((element) => element.type === "boundaryEvent")) {
      const listed = referrersOf(again, event.id, "flowNodeRef").map(({ id }) => id);
      expect(listed).toEqual(referrersOf(again, event.attachedToRef as string, "flowNodeRef").map(({ id }) => id));
      expect(listed).toHaveLength(1);
    }
  });

  test.each([
    ["no column of steps", "Colour,Size\nred,1", "no-steps"],
    ["an unknown kind", "Level,Kind,Step\n0,robot,Check", "unknown-kind"],
    ["a level that is none", "Level,Kind,Step\nx,task,Check", "level"],
    ["a jump to nowhere", "No,Level,Kind,Step\n1,0,task,Check\n,0,continues at,9", "sheet-structure"],
    ["a path without a step", "No,Level,Kind,Step\n,0,path,yes", "sheet-structure"],
    ["a row indented under nothing", "No,Level,Kind,Step\n1,0,task,Check\n2,4,task,Deep", "sheet-structure"],
  ])("%s is refused with its row", (_, text, code) => {
    expect(read(text)).toMatchObject({ ok: false, problems: [{ code }] });
  });

  test("time and cost are columns where any step has them, and come back as they were", () => {
    const text =
      'Step,Who,Duration,Cost\r\nTake the call,Desk,10 min,\r\nFind the fault,Crew,"1,5 h","1,200.50 EUR"\r\n';
    const model = expectOk(read(text));
    const written = writeSheet(model, processesOf(model)[0]?.id as string);
    const [head, , , first, second] = expectOk(readTable(written));
    expect(head?.slice(-2)).toEqual(["Time", "Cost"]);
    expect(first?.slice(-2)).toEqual(["10 min", ""]);
    expect(second?.slice(-2)).toEqual(["1.5 h", "1200.5"]);
    const again = expectOk(read(written));
    expect(writeSheet(again, processesOf(again)[0]?.id as string)).toBe(written);
  });

  test.each([
    ["12.50", 12.5],
    ["12,50", 12.5],
    ["1,200", 1200],
    ["1.200,00 EUR", 1200],
    ["free", undefined],
    ["-3", undefined],
  ])("the amount %s", (typed, amount) => expect(readAmount(typed)).toBe(amount));

  test("several names stand in one cell", () => {
    expect(listOf([["Check", "Front desk; Field crew"]], { step: 0, by: 1 })[0]?.by).toEqual([
      "Front desk",
      "Field crew",
    ]);
  });
});

test("what an event sends or brings comes back with the sheet", () => {
  const model = expectOk(
    read(
      [
        "No,Level,Kind,Step,By,Uses,Needs,Gives,Guidance,Time,Cost",
        "1,0,startEvent,Order received,Desk,,,order,,,",
        "2,0,task,Check it,Desk,,order,,,,",
        "3,0,endEvent,Told,Desk,,order,,,,",
      ].join("\r\n"),
    ),
  );
  const sheet = writeSheet(model, processesOf(model)[0]?.id ?? "");
  expect(sheet).toContain("startEvent,Order received,Desk,,,order,");
  expect(sheet).toContain("endEvent,Told,Desk,,order,,");
});
