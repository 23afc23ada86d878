import { Worker } from "node:worker_threads";
import { eq } from "drizzle-orm";
import { afterAll, beforeEach, expect, test, vi } from "vitest";
import type { OpenRun } from "@/contract/live";
import { chain, edge, end, file, node, processOf, start, task, timer } from "@/core/live/testing/models";
import { database } from "@/data/database";
import { runs } from "@/data/schema";
import { feed } from "../kernel/events";
import { leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";
import { shownAt, shownInRow } from "./clock";
import { act, started } from "./testing/startedRun";
import { lookAtTargets, passTime } from "./ticking";
import { ToLookAt } from "./toLookAt";

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

/** How many questions to the database something takes. */
async function questionsOf(does: () => Promise<unknown>): Promise<number> {
  const posted = vi.spyOn(Worker.prototype, "postMessage");
  try {
    await does();
    return posted.mock.calls.filter(([message]) => message.what === "query").length;
  } finally {
    posted.mockRestore();
  }
}

test("that nothing has come due is one question, however many runs there are; what has, is found among them", async () => {
  const { version, at, begin } = await started(late);
  const others = ["r2", "r3", "r4"].map((id) => ({ version, run: id }));
  await begin();
  for (const other of others) {
    await run("startRun", { ...other, name: "Another", pace: 0 });
    await run("beginLiveCase", { ...other, act: act(), values: {} });
  }
  expect(await questionsOf(async () => expect(await passTime()).toBe(0))).toBe(1);
  await run("setClock", { ...at, run: "r3", to: "next" });
  expect(await passTime()).toBe(1);
  expect(await passTime()).toBe(0);
  const open = [];
  for (const one of [at, ...others]) open.push((await run<OpenRun>("openRun", one)).run.open);
  expect(open).toEqual([1, 1, 0, 1]);
});

test("targets of a run are measured again once something was done to it, and not before", async () => {
  const { version, begin } = await started(late);
  await send(version, {
    type: "setTargets",
    id: "a",
    targets: [{ what: "rework", seconds: 60, share: 0.1, days: 30 }],
  });
  const toLookAt = new ToLookAt();
  feed().listeners.add(toLookAt.hear);
  try {
    const look = () => questionsOf(() => lookAtTargets(toLookAt));
    const first = await look();
    expect(first).toBeGreaterThan(3);
    // Which runs there are.
    expect(await look()).toBe(1);
    await begin();
    expect(await look()).toBeGreaterThan(3);
    expect(await look()).toBe(1);
  } finally {
    feed().listeners.delete(toLookAt.hear);
  }
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
