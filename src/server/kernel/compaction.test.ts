import { and, eq, isNotNull, sql } from "drizzle-orm";
import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { seededRandom } from "@/core/testing/randomProcess";
import { database } from "@/data/database";
import { heads, log, revisions } from "@/data/schema";
import { fileUseCases, localMember, runUseCase } from "@/server";
import { leaveWorkspace, makeProcess, openWorkspace, run, send } from "../testing/workspace";
import { backgroundDone } from "./background";
import { compact } from "./compaction";
import { forgetHeads } from "./heads";

afterAll(leaveWorkspace);
beforeEach(() => openWorkspace());

const opened = (version: string, number: number) => run<{ model: object }>("openRevision", { version, number });
const whole = async (version: string) => {
  const { db } = await database();
  const rows = await db
    .select({ number: revisions.number })
    .from(revisions)
    .where(and(eq(revisions.version, version), isNotNull(revisions.model)))
    .orderBy(revisions.number);
  return rows.map(({ number }) => number);
};

/** Steps and many revisions of them, with what each held as it was kept. */
async function edited(version: string, diagram: string, states: number): Promise<Map<number, object>> {
  const random = seededRandom(states);
  const kept = new Map<number, object>();
  for (let at = 0; at < states; at++) {
    for (let edit = 0; edit < 1 + Math.floor(random() * 4); edit++) {
      const id = `step-${at}-${edit}`;
      const place = {
        type: "place",
        diagram,
        id,
        kind: { type: "userTask" },
        at: { x: 200 + at * 20, y: 300 },
        name: id,
      };
      await send(version, random() < 0.5 ? place : { type: "rename", id: "check", name: `Check ${at} ${edit}` });
      if (random() < 0.2) await send(version, { type: "delete", ids: [id] }).catch(() => undefined);
    }
    const { number } = await run<{ number: number }>("nameRevision", { version, reason: `state ${at}` });
    const { model } = await run<{ model: object }>("openVersion", { version });
    kept.set(number, model);
  }
  return kept;
}

describe("revisions kept by the log", () => {
  test("every kept state opens as it was, though few are kept whole; the newest is", async () => {
    const { version, diagram } = await makeProcess();
    const kept = await edited(version, diagram, 30);
    await backgroundDone();
    forgetHeads();
    expect((await whole(version)).length).toBeLessThan(kept.size / 2);
    expect((await whole(version)).at(-1)).toBe(Math.max(...kept.keys()));
    for (const [number, model] of kept) expect((await opened(version, number)).model).toEqual(model);
    // Put back, it is what the version holds, and what it was built on still is there.
    await run("restoreRevision", { version, number: 7 });
    expect((await run<{ model: object }>("openVersion", { version })).model).toEqual(kept.get(7));
    await backgroundDone();
    for (const [number, model] of kept) expect((await opened(version, number)).model).toEqual(model);
  }, 60_000);

  /** What stands in the row of a kept state, as an earlier release, or two processes at once, may have left it. */
  const leave = async (version: string, number: number, set: { model: never | null; builtOn: number | null }) => {
    const { db } = await database();
    await db
      .update(revisions)
      .set(set)
      .where(and(eq(revisions.version, version), eq(revisions.number, number)));
  };

  test("one that is made from one that was left to the log itself opens, and goes through a backup", async () => {
    const { version, diagram } = await makeProcess();
    const kept = await edited(version, diagram, 4);
    await backgroundDone();
    expect(await whole(version)).toEqual([1, 4]);
    await leave(version, 3, { model: null, builtOn: 2 });
    const { bytes } = (await runUseCase(localMember, fileUseCases.backup, {})) as { bytes: Uint8Array };
    await runUseCase(localMember, fileUseCases.restore, { bytes });
    for (const [number, model] of kept) expect((await opened(version, number)).model).toEqual(model);
    // In a circle there is nothing that it could be made from: told, not looked for without end.
    await leave(version, 2, { model: null, builtOn: 3 });
    await expect(opened(version, 3)).rejects.toMatchObject({ code: "damaged" });
    const { bytes: circle } = (await runUseCase(localMember, fileUseCases.backup, {})) as { bytes: Uint8Array };
    await expect(runUseCase(localMember, fileUseCases.restore, { bytes: circle })).rejects.toMatchObject({
      code: "not-a-backup",
    });
  }, 60_000);

  test("one that another is made from stays whole", async () => {
    const { version, diagram } = await makeProcess();
    const kept = await edited(version, diagram, 4);
    await backgroundDone();
    await leave(version, 2, { model: kept.get(2) as never, builtOn: null });
    await leave(version, 3, { model: null, builtOn: 2 });
    await compact(version);
    expect(await whole(version)).toEqual([1, 2, 4]);
    for (const [number, model] of kept) expect((await opened(version, number)).model).toEqual(model);
    await leave(version, 3, { model: null, builtOn: 1 });
    await compact(version);
    expect(await whole(version)).toEqual([1, 4]);
  }, 60_000);

  test("whole ones take no more room than the log between them, however many states are kept", async () => {
    const { version, diagram } = await makeProcess();
    await edited(version, diagram, 40);
    await backgroundDone();
    const { db } = await database();
    const [{ models, logged } = { models: 0, logged: 0 }] = await db
      .select({
        models: sql<number>`(select sum(pg_column_size(model)) from revisions)::int`,
        logged: sql<number>`sum(pg_column_size(${log.edits}))::int`,
      })
      .from(log);
    const [{ last } = { last: 0 }] = await db
      .select({ last: sql<number>`max(pg_column_size(${revisions.model}))` })
      .from(revisions);
    // The first and the newest are whole besides those that the log pays for.
    expect(models).toBeLessThanOrEqual(logged + 2 * last);
  }, 60_000);

  test("what the log does not lead to stays whole", async () => {
    const { version, diagram } = await makeProcess();
    await run("nameRevision", { version, reason: "first" });
    // A head that could not be read was replaced: the log has no edits for that.
    const { db } = await database();
    await db
      .update(heads)
      .set({ snapshot: { schemaVersion: 2 } as never })
      .where(eq(heads.version, version));
    forgetHeads();
    await run("restoreRevision", { version, number: 1 });
    await db.update(log).set({ edits: [] }).where(eq(log.version, version));
    await send(version, { type: "place", diagram, id: "b", kind: { type: "userTask" }, at: { x: 500, y: 100 } });
    for (const reason of ["second", "third"]) await run("nameRevision", { version, reason });
    await backgroundDone();
    await compact(version);
    const rows = await whole(version);
    for (const number of rows) await opened(version, number);
    const { revisions: all } = await run<{ revisions: { number: number }[] }>("listRevisions", { version });
    for (const { number } of all) expect((await opened(version, number)).model).toBeTruthy();
  });

  test("they go through a backup, and one whose ground is missing is refused", async () => {
    const { version, diagram } = await makeProcess();
    const kept = await edited(version, diagram, 12);
    await backgroundDone();
    const { bytes } = (await runUseCase(localMember, fileUseCases.backup, {})) as { bytes: Uint8Array };
    await runUseCase(localMember, fileUseCases.restore, { bytes });
    for (const [number, model] of kept) expect((await opened(version, number)).model).toEqual(model);
    const { db } = await database();
    const [ground] = await whole(version);
    await db.delete(revisions).where(and(eq(revisions.version, version), eq(revisions.number, ground ?? 0)));
    const torn = (await runUseCase(localMember, fileUseCases.backup, {})) as { bytes: Uint8Array };
    await expect(runUseCase(localMember, fileUseCases.restore, { bytes: torn.bytes })).rejects.toMatchObject({
      code: "not-a-backup",
      message: expect.stringContaining("what it is made from is missing"),
    });
    await expect(opened(version, (ground ?? 0) + 1)).rejects.toMatchObject({ code: "damaged" });
  }, 60_000);

  test("compacting beside edits and new revisions loses neither", async () => {
    const { version, diagram } = await makeProcess();
    const kept = await edited(version, diagram, 8);
    await Promise.all([
      ...Array.from({ length: 4 }, () => compact(version)),
      ...Array.from({ length: 6 }, async (_, at) => {
        await send(version, {
          type: "place",
          diagram,
          id: `late-${at}`,
          kind: { type: "task" },
          at: { x: 90, y: 90 * at },
        });
        await run("nameRevision", { version, reason: `meanwhile ${at}` });
      }),
    ]);
    await backgroundDone();
    for (const [number, model] of kept) expect((await opened(version, number)).model).toEqual(model);
    const { revisions: all } = await run<{ revisions: { number: number }[] }>("listRevisions", { version });
    expect(all).toHaveLength(14);
    for (const { number } of all) await opened(version, number);
  }, 60_000);
});
