import { gzipSync } from "node:zlib";
import { afterAll, beforeEach, expect, test } from "vitest";
import { packedLog, readLogCsv, textPieces } from "@/core/evidence";
import { chain, end, file, modelOf, processOf, start, task } from "@/core/live/testing/models";
import { expectOk } from "@/core/testing/models";
import { fileUseCases, localMember, runUseCase } from "@/server";
import { importModel, leaveWorkspace, openWorkspace, run } from "../testing/workspace";

afterAll(leaveWorkspace);
const model = modelOf(
  file(processOf(`${start}${task("a")}${task("b")}${task("c")}${end}${chain("s", "a", "b", "c", "e")}`)),
);
const rows = ["a,b,c", "a,b,c", "a,c", "a,b,x,c"].flatMap((way, number) =>
  way.split(",").map((activity, place) => `${number + 1},${activity},2027-03-0${number + 1} 1${place}:00`),
);
const log = expectOk(readLogCsv(textPieces(new TextEncoder().encode(["case,activity,time", ...rows].join("\n")))));
let version: string;
beforeEach(async () => {
  await openWorkspace();
  version = await importModel("Plant", model);
  await runUseCase(localMember, fileUseCases.keepLog, {
    version,
    log: "l",
    name: "Case register",
    facts: { cases: 4, events: rows.length, first: 0, last: 1 },
    bytes: new Uint8Array(gzipSync(packedLog(log))),
  });
});

const report = async (more: object = {}) => {
  const asked = { version, log: "l", kind: "md", filters: [], ...more };
  const { name, bytes } = await runUseCase(localMember, fileUseCases.reportFile, asked);
  return { name, bytes, words: new TextDecoder().decode(bytes) };
};

test("the report says what fits, what differs with its share, and what was done", async () => {
  const { name, words } = await report();
  expect(name).toBe("Plant evidence");
  expect(words).toContain("# Evidence: Plant");
  expect(words).toContain("**Log:** Case register");
  expect(words).toContain("2 of 4 cases (50.0 %) went as the model has it, in 3 ways.");
  expect(words).toMatch(/\| 2 \| .*“x” is done.*\| 1 \(25\.0 %\)/);
  expect(words).toMatch(/“b” is skipped/);
  expect(words).toMatch(/\| x \| not in the model \| 1 \| 1 \|/);
  expect(words).toContain("a · b · c");
});

test("what was decided stands in it, with who said so and when; what is narrowed down to holds", async () => {
  const key = JSON.stringify(["skipped", ["b"], null, null, null, null]);
  await run("judgeDifference", { version, log: "l", key, judged: { as: "misconduct", note: "told the team" } });
  const { words } = await report();
  expect(words).toMatch(
    new RegExp(`“b” is skipped[^|]*\\| misconduct \\| told the team \\| ${localMember.name}, \\d{4}-`),
  );
  const narrowed = await report({ filters: [{ kind: "passes", activity: "b", is: true }] });
  expect(narrowed.words).toContain("**Cases:** 3");
  expect(narrowed.words).toContain("**Only cases that:** did “b”");
  expect(narrowed.words).toContain("A difference that these cases do not show");
});

test.each(["pdf", "docx", "html"])("as %s", async (kind) => {
  expect((await report({ kind })).bytes.length).toBeGreaterThan(5_000);
});

test("of a log or version that is not there is refused in words", async () => {
  await expect(report({ log: "none" })).rejects.toMatchObject({ code: "not-found" });
  await expect(report({ version: "none" })).rejects.toMatchObject({ code: "not-found" });
  await run("deleteLog", { version, log: "l" });
  await expect(report()).rejects.toMatchObject({ code: "not-found" });
});
