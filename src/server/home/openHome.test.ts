import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { backgroundDone } from "../kernel/background";
import { countedHome, leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";

interface Home {
  readonly areas: { id: string; processes: number }[];
  readonly total: number;
  readonly processes: { name: string }[];
  readonly versions: { id: string; summary: { errors: number; steps: number } | null }[];
  readonly counting: number;
}
const home = (input: object = {}) => run<Home>("openHome", input);
const names = ({ processes }: Home) => processes.map(({ name }) => name);

beforeAll(async () => {
  await openWorkspace();
  for (const [id, parent] of [
    ["top", null],
    ["inner", "top"],
    ["other", null],
  ] as const)
    await run("createArea", { id, name: id, parent });
  for (let at = 0; at < 30; at++)
    await run("createProcess", {
      name: `Process ${String(at).padStart(2, "0")}${at % 10 === 0 ? " 100%_sure" : ""}`,
      area: at < 10 ? "inner" : at < 15 ? "top" : "other",
      processId: `p${at}`,
      versionId: `v${at}`,
    });
});
afterAll(leaveWorkspace);

describe("Home", () => {
  test("shows a page at a time, in the order one wants, of one area with all it holds", async () => {
    const all = await home({ count: 10 });
    expect(all.total).toBe(30);
    expect(names(all)).toHaveLength(10);
    expect(names(await home({ count: 10, from: 20 }))).toEqual(names(await home({ count: 30 })).slice(20));
    expect(names(await home({ from: 30 }))).toEqual([]);
    expect((await home({ area: "top" })).total).toBe(15);
    expect((await home({ area: "inner" })).total).toBe(10);
    expect(all.areas.map(({ id, processes }) => [id, processes])).toEqual([
      ["inner", 10],
      ["other", 15],
      ["top", 15],
    ]);
  });

  test("finds a part of a name as it stands", async () => {
    expect(names(await home({ text: "process 0" }))).toHaveLength(10);
    expect(names(await home({ text: "100%_s" }))).toHaveLength(3);
    expect((await home({ text: "%" })).total).toBe(3);
    expect((await home({ text: "nothing" })).total).toBe(0);
  });

  test("puts first what was changed last, and what most is open of", async () => {
    await send("v7", { type: "rename", id: "x", name: "y" }).catch(() => undefined);
    const { model } = await run<{ model: { diagrams: { id: string }[] } }>("openVersion", { version: "v17" });
    const diagram = model.diagrams[0]?.id;
    await send("v17", {
      type: "place",
      diagram,
      id: "step",
      kind: { type: "userTask" },
      at: { x: 200, y: 100 },
      name: "Alone",
    });
    expect(names(await home({ order: "changed" }))[0]).toBe("Process 17");
    await countedHome();
    expect(names(await home({ order: "findings" }))[0]).toBe("Process 17");
    expect(names(await home({ order: "name" }))[0]).toMatch(/^Process 00/);
  });

  test("says at once what was counted last, and counts anew what has changed", async () => {
    const summaryOf = (data: Home) => data.versions.find(({ id }) => id === "v17")?.summary;
    expect(summaryOf(await countedHome<Home>())?.steps).toBe(1);
    const { model } = await run<{ model: { diagrams: { id: string }[] } }>("openVersion", { version: "v17" });
    await send("v17", {
      type: "append",
      diagram: model.diagrams[0]?.id,
      from: "step",
      id: "next",
      flow: "flow",
      kind: { type: "userTask" },
    });
    await home();
    await backgroundDone();
    const counted = await home();
    expect(summaryOf(counted)?.steps).toBe(2);
    expect(counted.counting).toBe(0);
  });
});
