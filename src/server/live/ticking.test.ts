import { Worker } from "node:worker_threads";
import { eq } from "drizzle-orm";
import { afterAll, beforeEach, expect, test, vi } from "vitest";
import type { OpenRun } from "@/contract/live";
import { chain, edge, end, file, node, processOf, start, task, timer } from "@/core/live/testing/models";
import { database } from "@/data/database";
import { runs } from "@/data/schema";
import { leaveWorkspace, openWorkspace, run } from "../testing/workspace";
import { shownAt, shownInRow } from "./clock";
import { act, started } from "./testing/startedRun";
import { passTime } from "./ticking";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

const late = file(
  processOf(
    start +
      task("a") +
      edge("late", "a", timer("timeDuration", "PT1H")) +
      end +
      node("endEvent", "e2") +
      chain("s", "a", "e") +
      chain("late", "e2"),
  ),
);

test("that nothing has come due is one question, however many runs there are; what has, is found among them", async () => {
  const { version, at, begin } = await started(late);
  const others = ["r2", "r3", "r4"].map((id) => ({ version, run: id }));
  await begin();
  for (const other of others) {
    await run("startRun", { ...other, name: "Another", pace: 0 });
    await run("beginLiveCase", { ...other, act: act(), values: {} });
  }
  const posted = vi.spyOn(Worker.prototype, "postMessage");
  const asked = () => posted.mock.calls.filter(([message]) => message.what === "query").length;
  try {
    expect(await passTime()).toBe(0);
    expect(asked()).toBe(1);
  } finally {
    posted.mockRestore();
  }
  await run("setClock", { ...at, run: "r3", to: "next" });
  expect(await passTime()).toBe(1);
  expect(await passTime()).toBe(0);
  const open = [];
  for (const one of [at, ...others]) open.push((await run<OpenRun>("openRun", one)).run.open);
  expect(open).toEqual([1, 1, 0, 1]);
});

test("the database tells the time of a run as everybody else does, to the last digit", async () => {
  const { db } = await database();
  const { at } = await started(late);
  for (const pace of [1, 0, 3600, 1 / 3]) {
    const clock = { real: 1_790_000_000_123, shows: 1_780_000_000_000.25, pace };
    await db.update(runs).set({ clock }).where(eq(runs.id, at.run));
    for (const now of [clock.real - 5_000, clock.real, clock.real + 1, clock.real + 86_400_123.5]) {
      const [row] = await db
        .select({ shows: shownInRow(runs.clock, now) })
        .from(runs)
        .where(eq(runs.id, at.run));
      expect(row?.shows).toBe(shownAt(clock, now));
    }
  }
});
