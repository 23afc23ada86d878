import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { chain, end, file, processOf, start, task } from "@/core/live/testing/models";
import { leaveWorkspace, openWorkspace, run, send, storedModel } from "../testing/workspace";
import { act, started } from "./testing/startedRun";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

const sequence = file(processOf(start + task("first") + task("second") + end + chain("s", "first", "second", "e")));
interface Moves {
  readonly moves: readonly { readonly number: number; readonly edition: number; readonly why: readonly string[] }[];
}

describe("a run takes a newer package", () => {
  test("new cases take it, those under way stay with theirs, and are moved when somebody says so", async () => {
    const { at, version, begin, work, complete, open } = await started(sequence);
    const before = await begin();
    await expect(run("renewRun", { ...at, edition: 2 })).rejects.toMatchObject({ code: "nothing-newer" });
    await send(version, { type: "rename", id: "second", name: "second, in two" });
    expect(await run("renewRun", { ...at, edition: 2 })).toEqual({ edition: 2 });
    // Asked once more after a lost answer.
    expect(await run("renewRun", { ...at, edition: 2 })).toEqual({ edition: 2 });
    await expect(run("renewRun", { ...at, edition: 4 })).rejects.toMatchObject({ code: "renewed-already" });
    // What a run is by now is told in the list and where it is opened.
    expect(await run("listRuns", { version })).toMatchObject({ runs: [{ id: "r", edition: 2, revision: 0 }] });
    expect(await run("openRun", at)).toMatchObject({ run: { edition: 2, open: 1 }, alerts: [] });
    const later = await begin();
    expect((await open(before)).row.edition).toBe(1);
    expect((await open(later)).row.edition).toBe(2);
    const [item] = await work();
    if (!item) throw new Error("no work");
    // What somebody has begun, and filled in half, goes along.
    await run("assignWork", { ...at, number: before, wait: item.wait, act: act(), to: "member-local" });
    await run("saveWork", { ...at, number: before, wait: item.wait, act: act(), values: { roof: "half" } });
    expect((await run<Moves>("listMoves", at)).moves).toEqual([{ number: before, edition: 1, why: [] }]);
    const moving = { ...at, numbers: [before, later], act: "move", reason: "one way for all" };
    expect(await run("moveCases", moving)).toEqual({ moved: 1, refused: [] });
    expect(await run("moveCases", moving)).toEqual({ moved: 0, refused: [] });
    const moved = await open(before);
    expect(moved.row.edition).toBe(2);
    expect(moved.audit.find(({ kind }) => kind === "moved to a newer package")).toMatchObject({
      reason: "one way for all",
      data: { from: 1, to: 2 },
    });
    const opened = await run<{ draft: object; item: { memberName: string } }>("openWork", {
      ...at,
      number: before,
      wait: item.wait,
    });
    expect(opened).toMatchObject({ draft: { roof: "half" }, item: { memberName: "Mara Aldous" } });
    await complete("first", { roof: "flat" });
    // What waits longer is listed first.
    expect((await open(before)).row.at).toEqual(["second, in two"]);
  });

  test("a case that stands where nothing is any more stays, and is told why", async () => {
    const { at, version, begin, complete, open } = await started(sequence);
    const [gone, stays] = [await begin(), await begin()];
    await complete("first");
    const diagram = [...(await storedModel(version)).diagrams][0]?.id;
    await send(version, { type: "delete", ids: ["second"] });
    await send(version, { type: "connect", diagram, source: "first", target: "e", id: "direct" });
    await run("renewRun", { ...at, edition: 2 });
    const where = (await open(gone)).row.at;
    const { moves } = await run<Moves>("listMoves", at);
    const refusedOne = where[0] === "second" ? gone : stays;
    expect(moves.find(({ number }) => number === refusedOne)?.why).toEqual([
      "“second”, where it stands, is not there any more.",
    ]);
    const result = await run<{ moved: number; refused: { number: number }[] }>("moveCases", {
      ...at,
      numbers: [gone, stays],
      act: "move",
      reason: "shorter",
    });
    expect(result.moved).toBe(1);
    expect(result.refused.map(({ number }) => number)).toEqual([refusedOne]);
    await complete("second");
    expect((await open(refusedOne)).row.state).toBe("completed");
    await complete("first");
    const other = refusedOne === gone ? stays : gone;
    expect((await open(other)).row.state).toBe("completed");
    expect((await open(other)).path.map(({ element }) => element)).not.toContain("second");
  });

  test("of two who take it at once one does, and both are told the same", async () => {
    const { at, version } = await started(sequence);
    await send(version, { type: "rename", id: "first", name: "before all" });
    const both = await Promise.all([run("renewRun", { ...at, edition: 2 }), run("renewRun", { ...at, edition: 2 })]);
    expect(both).toEqual([{ edition: 2 }, { edition: 2 }]);
  });
});
