import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { checkModel, keyOf } from "@/core/check";
import { type StoredModel, trustStored } from "@/core/model";
import { database } from "@/data/database";
import { registered } from "@/data/register";
import { leaveWorkspace, makeProcess, openWorkspace, run, send } from "../testing/workspace";

beforeEach(async () => {
  await openWorkspace();
  await makeProcess();
});
afterAll(leaveWorkspace);

const walk = { process: "p", told: {}, outcome: "completed", path: null };
const keep = (version: string, ...names: string[]) =>
  run("keepWalkTests", { version, tests: names.map((name) => ({ name, content: walk })) });
const walksOf = async (version: string) =>
  (await run<{ tests: { name: string }[] }>("listWalkTests", { version })).tests.map(({ name }) => name);
const acceptedIn = async (version: string) =>
  (await run<{ waivers: { reason: string }[] }>("openCheck", { version })).waivers.map(({ reason }) => reason);

/** Accepts the first finding of a version. */
async function accept(version: string, reason: string): Promise<void> {
  const { model } = await run<{ model: StoredModel }>("openVersion", { version });
  const [first] = checkModel(trustStored(model), { profile: "review" });
  if (!first) throw new Error("There is nothing to accept.");
  await run("waive", { version, finding: keyOf(first), reason });
}

describe("what hangs on a version", () => {
  test("goes along into a to-be and into a copy of the process, and stays what it was where it came from", async () => {
    await keep("v", "straight through", "the long way");
    await accept("v", "known, and mended next month");
    const { version: toBe } = await run<{ version: string }>("createToBe", { source: "v", name: "Less by hand" });
    const { version: copy } = await run<{ version: string }>("copyProcess", {
      id: "connect",
      name: "Copy",
      area: "area",
    });
    for (const version of ["v", toBe, copy]) {
      expect(await walksOf(version)).toEqual(["straight through", "the long way"]);
      expect(await acceptedIn(version)).toEqual(["known, and mended next month"]);
    }
    const { tests } = await run<{ tests: { id: string }[] }>("listWalkTests", { version: toBe });
    await run("deleteWalkTest", { version: toBe, test: tests[0]?.id });
    expect(await walksOf("v")).toHaveLength(2);
    // What is of one version is not reached by the name of another.
    await expect(run("changeWalkTest", { version: "v", test: tests[1]?.id, name: "x" })).rejects.toMatchObject({
      status: 404,
    });
  });

  test("comes along when a to-be is adopted, in the place of what is the same; the rest of the as-is stays", async () => {
    await keep("v", "straight through", "only as it is");
    const { version: toBe } = await run<{ version: string }>("createToBe", { source: "v", name: "Less by hand" });
    await send(toBe, { type: "rename", id: "check", name: "Check at once" });
    await keep(toBe, "by telephone");
    await accept(toBe, "the first step of all");
    await run("adoptToBe", { version: toBe });
    expect((await walksOf("v")).sort()).toEqual(["by telephone", "only as it is", "straight through"]);
    expect(await acceptedIn("v")).toContain("the first step of all");
    expect(await walksOf(toBe)).toContain("by telephone");
  });

  test("every table that says its rows go along has them copied, with names of their own", async () => {
    const { db } = await database();
    await keep("v", "straight through");
    await accept("v", "known");
    const about = { kind: "version", key: "", words: "As-is" };
    const said = { version: "v", thread: "t", said: "s", about, text: "Why?", mentions: [], assigned: null };
    await run("startThread", said);
    await run("giveReason", {
      version: "v",
      against: "v",
      change: "c",
      words: "w",
      reason: { pains: ["waiting"], note: "", effect: "", state: "proposed" },
    });
    const before = new Map<string, number>();
    for (const [name, { table }] of registered) before.set(name, (await db.select().from(table)).length);
    await run("copyProcess", { id: "connect", name: "Copy", area: "area" });
    for (const [name, { table, hangs }] of registered) {
      if (!hangs?.intoCopy) continue;
      const rows = (await db.select().from(table)) as { id?: string }[];
      expect(rows.length, name).toBe(2 * (before.get(name) ?? 0));
      expect(rows.length, `there are ${name} to copy`).toBeGreaterThan(0);
      if (rows[0]?.id !== undefined) expect(new Set(rows.map(({ id }) => id)).size, name).toBe(rows.length);
    }
  });
});
