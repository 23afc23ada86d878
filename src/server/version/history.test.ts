import { eq, sql } from "drizzle-orm";
import { afterAll, beforeEach, expect, test } from "vitest";
import { database } from "@/data/database";
import { log } from "@/data/schema";
import { leaveWorkspace, makeProcess, openWorkspace, run, send } from "../testing/workspace";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

const counted = (version: string, groups: { [group: string]: string[] }) =>
  run<{ days: { [group: string]: number }; over: number }>("changeDays", { version, groups });

/** Moves what was logged last so many days back. */
async function daysAgo(version: string, days: number): Promise<void> {
  const { db } = await database();
  await db
    .update(log)
    .set({ at: new Date(Date.now() - days * 86_400_000).toISOString() })
    .where(eq(log.sequence, sql`(select max(${log.sequence}) from ${log} where ${log.version} = ${version})`));
}

test("days on which steps were changed are counted by group, without the day they were drawn", async () => {
  const { version } = await makeProcess();
  await daysAgo(version, 100);
  for (const [name, days] of [
    ["Check papers", 100],
    ["Check the papers", 60],
    ["Check all papers", 60],
    ["Check every paper", 20],
  ] as const) {
    await send(version, { type: "rename", id: "check", name });
    await daysAgo(version, days);
  }
  const { days, over } = await counted(version, { a: ["check"], b: ["nothing"], both: ["check", "nothing"] });
  expect(days).toEqual({ a: 2, b: 0, both: 2 });
  expect(over).toBeCloseTo(100, 1);
});

test("what its as-is went through counts for an improvement", async () => {
  const { version } = await makeProcess();
  await daysAgo(version, 50);
  await send(version, { type: "rename", id: "check", name: "Check papers" });
  await daysAgo(version, 10);
  await run("createToBe", { source: version, name: "To-be", aim: "Faster", versionId: "better" });
  expect((await counted("better", { a: ["check"] })).days).toEqual({ a: 1 });
});

test("nothing is asked of a version without groups", async () => {
  const { version } = await makeProcess();
  expect(await counted(version, {})).toMatchObject({ days: {} });
});
