import { eq } from "drizzle-orm";
import { afterAll, beforeEach, describe, expect, test } from "vitest";
import type { LogRow, OpenedLogRow } from "@/contract/evidence";
import { emptyModel } from "@/core/model";
import { database } from "@/data/database";
import { logs } from "@/data/schema";
import { fileUseCases, localMember, runUseCase } from "@/server";
import { importModel, leaveWorkspace, makeProcess, openWorkspace, run } from "../testing/workspace";

afterAll(leaveWorkspace);
let version: string;
beforeEach(async () => {
  await openWorkspace();
  ({ version } = await makeProcess());
});

const another = emptyModel({ definitions: "d", process: "other", diagram: "page" }, "Other");
const facts = { cases: 3, events: 12, first: 0, last: 1_000 };
const keep = (log: string, of = version, bytes = new Uint8Array([1, 2, 3])) =>
  runUseCase(localMember, fileUseCases.keepLog, { version: of, log, name: `Log ${log}`, facts, bytes });
const content = (log: string, of = version) => runUseCase(localMember, fileUseCases.logContent, { version: of, log });
const listed = async (of = version) =>
  (await run<{ logs: LogRow[] }>("listLogs", { version: of })).logs.map(({ id }) => id).sort();
const opened = (log: string, of = version) => run<OpenedLogRow>("openLog", { version: of, log });

describe("a log", () => {
  test("is kept with its process: every version of it has it, and no other process", async () => {
    await keep("one");
    const { version: improved } = await run<{ version: string }>("createToBe", { source: version, name: "To-be" });
    expect(await listed(improved)).toEqual(["one"]);
    expect(await opened("one", improved)).toMatchObject({ name: "Log one", facts, bytes: 3, member: localMember.name });
    expect((await content("one", improved)).bytes).toEqual(new Uint8Array([1, 2, 3]));
    const other = await importModel("Other", another);
    expect(await listed(other)).toEqual([]);
    for (const ask of [() => opened("one", other), () => content("one", other)])
      await expect(ask()).rejects.toMatchObject({ code: "not-found" });
    await expect(run("deleteLog", { version: other, log: "one" })).rejects.toMatchObject({ code: "not-found" });
  });

  test("asked for to be kept twice is kept once; another process cannot take its id", async () => {
    await keep("one");
    expect(await keep("one", version, new Uint8Array([9]))).toEqual({ log: "one" });
    expect((await content("one")).bytes).toEqual(new Uint8Array([1, 2, 3]));
    const other = await importModel("Other", another);
    await expect(keep("one", other)).rejects.toMatchObject({ status: 409 });
  });

  test("is deleted, and brought again with all that was said of it", async () => {
    await keep("one");
    await run("sayStep", { version, log: "one", activity: "Look", steps: ["check"] });
    await run("deleteLog", { version, log: "one" });
    expect(await listed()).toEqual([]);
    await expect(opened("one")).rejects.toMatchObject({ code: "not-found" });
    await expect(run("sayStep", { version, log: "one", activity: "Look", steps: null })).rejects.toMatchObject({
      code: "not-found",
    });
    await run("restoreLog", { version, log: "one" });
    expect((await opened("one")).steps).toEqual({ Look: ["check"] });
  });
});

test("what was deleted a month ago goes for good when the next log is kept; what was deleted lately can be brought again", async () => {
  for (const log of ["old", "late", "there"]) await keep(log);
  for (const log of ["old", "late"]) await run("deleteLog", { version, log });
  const { db } = await database();
  await db.update(logs).set({ deletedAt: "2026-01-01T00:00:00Z" }).where(eq(logs.id, "old"));
  await keep("next");
  for (const log of ["old", "late"]) await run("restoreLog", { version, log });
  expect(await listed()).toEqual(["late", "next", "there"]);
});

describe("what is said of a log", () => {
  test("which steps an activity is is kept, taken back, and taken over by the next log", async () => {
    await keep("one");
    const say = (activity: string, steps: string[] | null) =>
      run<{ before: string[] | null }>("sayStep", { version, log: "one", activity, steps });
    expect(await say("Look", ["check"])).toEqual({ before: null });
    expect(await say("Look", [])).toEqual({ before: ["check"] });
    await say("Ask", ["mend"]);
    await keep("two");
    expect((await opened("two")).steps).toEqual({ Look: [], Ask: ["mend"] });
    expect(await say("Look", null)).toEqual({ before: [] });
    expect((await opened("one")).steps).toEqual({ Ask: ["mend"] });
    expect((await opened("two")).steps).toEqual({ Look: [], Ask: ["mend"] });
  });

  test("a difference is judged with note and member, judged otherwise, and the judgement is taken back", async () => {
    await keep("one");
    const judge = (key: string, judged: object | null) =>
      run<{ before: object | null }>("judgeDifference", { version, log: "one", key, judged });
    expect(await judge("a", { as: "exception", note: " only in winter " })).toEqual({ before: null });
    expect(await judge("a", { as: "misconduct", note: "" })).toEqual({
      before: { as: "exception", note: "only in winter" },
    });
    await judge("b", { as: "exception", note: "" });
    expect((await opened("one")).judged).toMatchObject([
      { key: "a", as: "misconduct", note: "", member: localMember.name },
      { key: "b", as: "exception", member: localMember.name },
    ]);
    expect(await judge("a", null)).toEqual({ before: { as: "misconduct", note: "" } });
    expect((await opened("one")).judged.map(({ key }) => key)).toEqual(["b"]);
  });

  test("by two at once is all kept", async () => {
    await keep("one");
    const names = Array.from({ length: 8 }, (_, at) => `activity ${at}`);
    await Promise.all(names.map((activity) => run("sayStep", { version, log: "one", activity, steps: ["check"] })));
    expect(Object.keys((await opened("one")).steps).sort()).toEqual(names);
  });

  test("stands in a backup", async () => {
    await keep(
      "one",
      version,
      new Uint8Array(1_000).map((_, at) => at % 251),
    );
    await run("judgeDifference", { version, log: "one", key: "a", judged: { as: "exception", note: "so" } });
    const { bytes } = await runUseCase(localMember, fileUseCases.backup, {});
    const before = await opened("one");
    await run("deleteLog", { version, log: "one" });
    await runUseCase(localMember, fileUseCases.restore, { bytes });
    expect(await opened("one")).toEqual(before);
    expect((await content("one")).bytes[999]).toBe(999 % 251);
  });
});
