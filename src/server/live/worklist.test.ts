import { afterAll, beforeEach, describe, expect, test } from "vitest";
import type { DoneWork, WorkItem } from "@/contract/live";
import { chain, end, file, processOf, start, task } from "@/core/live/testing/models";
import { leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";
import { act, started } from "./testing/startedRun";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

const sequence = file(processOf(start + task("first") + task("second") + end + chain("s", "first", "second", "e")));
const hour = 3_600_000;
interface Listed {
  readonly items: readonly WorkItem[];
  readonly total: number;
  readonly done: readonly DoneWork[];
}
const listed = (more: object = {}) => run<Listed>("listWork", more);

describe("the worklist", () => {
  test("what is due first stands first, then what has waited longest; it says how much there is beyond what is shown", async () => {
    const { at, begin } = await started(sequence);
    const numbers = [];
    for (let count = 0; count < 5; count++) numbers.push(await begin());
    const { items } = await listed();
    expect(items.map(({ number }) => number)).toEqual(numbers);
    const third = items[2] as WorkItem;
    const on = { ...at, number: third.number, wait: third.wait };
    await run("setDue", { ...on, act: act(), dueBy: third.now + 2 * hour });
    const after = await listed({ count: 2 });
    expect(after.items.map(({ number, dueBy }) => [number, dueBy])).toEqual([
      [3, third.now + 2 * hour],
      [1, null],
    ]);
    expect(after.total).toBe(5);
    await run("setDue", { ...on, act: act(), dueBy: null });
    expect((await listed()).items.map(({ number }) => number)).toEqual(numbers);
  });

  test("a target of a step is until when its work should be done; whoever has taken it on is reminded", async () => {
    const { at, version, begin } = await started(sequence);
    await send(version, {
      type: "setTargets",
      id: "first",
      targets: [{ what: "duration", seconds: 2 * 3600, share: 0.9, days: 30 }],
    });
    await run("renewRun", { ...at, edition: 2 });
    const number = await begin();
    const [item] = (await listed()).items;
    expect(item?.dueBy).toBe((item?.since ?? 0) + 2 * hour);
    expect(await run("remindWork", {})).toEqual({ overdue: 0, soon: 0 });
    await run("assignWork", { ...at, number, wait: item?.wait, act: act(), to: "member-local" });
    expect(await run("remindWork", {})).toEqual({ overdue: 0, soon: 0 });
    await run("setClock", { ...at, to: (item?.now ?? 0) + 1.5 * hour });
    expect(await run("remindWork", {})).toEqual({ overdue: 0, soon: 1 });
    await run("setClock", { ...at, to: (item?.now ?? 0) + 3 * hour });
    expect(await run("remindWork", {})).toEqual({ overdue: 1, soon: 0 });
    // What stands there still is as it was when it comes to be stored once more.
    await run("saveWork", { ...at, number, wait: item?.wait, act: act(), values: { roof: "half" } });
    expect((await listed()).items[0]?.dueBy).toBe(item?.dueBy);
  });

  test("what one has done in the last day is listed, by the clock of its run, with its note", async () => {
    const { at, begin, complete } = await started(sequence);
    await begin();
    const [item] = (await listed()).items;
    await run("completeWork", { ...at, number: 1, wait: item?.wait, act: act(), values: {}, note: "by telephone" });
    expect((await listed()).done).toMatchObject([{ label: "first", number: 1, note: "by telephone", run: "r" }]);
    await run("setClock", { ...at, to: (item?.now ?? 0) + 25 * hour });
    await complete("second");
    expect((await listed()).done.map(({ label }) => label)).toEqual(["second"]);
  });
});
