import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type DirectoryEntry, directoryEntrySchema } from "../directory";
import { expectOk } from "../testing/models";
import { readDirectoryFile, writeDirectoryCsv, writeDirectoryJson } from ".";

const entry = (id: string, name: string, more: Partial<DirectoryEntry> = {}): DirectoryEntry =>
  directoryEntrySchema.parse({ id, kind: "role", name, ...more });

describe("the directory goes out and comes back as a file", () => {
  const text = fc
    .string({ minLength: 1, maxLength: 20 })
    .map((words) => words.replace(/\s+/g, " ").trim())
    .filter((words) => words !== "" && !words.startsWith("'"));
  const entries = fc.array(
    fc.record({
      kind: fc.constantFrom("role" as const, "system" as const, "term" as const),
      name: text,
      description: fc.option(text, { nil: "" }),
      headcount: fc.option(fc.integer({ min: 0, max: 500 })),
      costPerHour: fc.option(fc.integer({ min: 0, max: 50_000 }).map((cents) => cents / 100)),
      hoursPerWeek: fc.option(fc.integer({ min: 0, max: 168 })),
    }),
    { maxLength: 8 },
  );
  test("as CSV and as JSON, unchanged", () => {
    fc.assert(
      fc.property(entries, (rows) => {
        const all = rows.map((row, at) => entry(`e${at}`, row.name, row));
        const bare = all.map(({ id: _, ...rest }) => rest);
        expect(expectOk(readDirectoryFile(writeDirectoryJson(all)))).toEqual(bare);
        expect(expectOk(readDirectoryFile(writeDirectoryCsv(all)))).toEqual(bare);
      }),
    );
  });
  test("units are named, not numbered", () => {
    const csv = writeDirectoryCsv([entry("u", "Network", { kind: "unit" }), entry("r", "Field crew", { unit: "u" })]);
    expect(csv.split("\r\n")[2]).toBe("role,Field crew,,Network,,,,");
  });
  test.each([
    ["Name,Kind\r\n", ""],
    ["Kind,Name\r\nplanet,Mars\r\n", "Row 2: kind"],
    ["Kind,Name,Headcount\r\nrole,Crew,many\r\n", "Row 2: headcount"],
    ["Kind,Name,Hours per week\r\nrole,Crew,200\r\n", "Row 2: hoursPerWeek"],
    ["Step,By\r\nCheck,Crew\r\n", "The first row has to name the columns"],
    ['{"format":"other"}', "This JSON is no directory"],
    ["{oops", "not valid JSON"],
  ])("%j says what is wrong", (file, problem) => {
    const read = readDirectoryFile(file);
    expect(read.ok ? "" : read.problems[0]?.message).toContain(problem);
  });
  test("kinds are understood as people write them", () => {
    const read = expectOk(readDirectoryFile('Kind,Name,Cost per hour\r\nRoles,Crew,"52,50"\r\nIT system,Map,\r\n'));
    expect(read.map(({ kind, costPerHour }) => [kind, costPerHour])).toEqual([
      ["role", 52.5],
      ["system", null],
    ]);
  });
});
