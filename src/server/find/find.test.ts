import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { importModel, leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";

interface Found {
  readonly kind: string;
  readonly title: string;
  readonly detail: string;
  readonly version?: string;
  readonly element?: string;
}
interface Row {
  readonly element: string;
  readonly name: string;
  readonly excerpt: string;
}

let version: string;
beforeAll(async () => {
  await openWorkspace();
  version = await importModel("Applications");
  await run("createEntry", { id: "desk", kind: "role", name: "Front desk" });
  await run("createEntry", { id: "register", kind: "system", name: "Case register" });
  await send(
    version,
    { type: "tieLane", lane: "desk", role: { entry: "desk", name: "Front desk" } },
    { type: "useSystem", step: "check", system: { entry: "register", name: "Case register" }, use: "writes" },
    { type: "describe", id: "approve", text: "Ask the engineer about the feeder first." },
    { type: "rename", id: "reject", name: "100 % refused_by letter" },
  );
});
afterAll(leaveWorkspace);

const find = async (text: string) => (await run<{ found: Found[] }>("find", { text })).found;
const search = (input: object) => run<{ total: number; rows: Row[] }>("searchElements", { text: "", ...input });

describe("finding anything", () => {
  test("processes, entries and elements, each by a part of its name, whatever its case", async () => {
    expect((await find("APPLICATIONS"))[0]).toMatchObject({ kind: "process", title: "Applications", version });
    expect(await find("case reg")).toMatchObject([{ kind: "entry", title: "Case register", detail: "system" }]);
    expect(await find("check app")).toMatchObject([{ kind: "element", element: "check" }]);
    expect(await find("nobody has this")).toEqual([]);
  });

  test("what a pattern means to the database means itself", async () => {
    expect((await find("100 %")).map(({ element }) => element)).toEqual(["reject"]);
    expect((await find("refused_by")).map(({ element }) => element)).toEqual(["reject"]);
    expect(await find("refusedXby")).toEqual([]);
    expect(await find("\\")).toEqual([]);
    expect(await find("'; drop table elements; --")).toEqual([]);
  });

  test("a new name is found at once and the old one no more; what is deleted is not found until it is back", async () => {
    await send(version, { type: "rename", id: "approve", name: "Say yes" });
    expect(await find("say yes")).toHaveLength(1);
    expect(await find("approve design")).toEqual([]);
    const { process } = await run<{ process: { id: string } }>("openVersion", { version });
    const { at } = await run<{ at: string }>("deleteProcess", { id: process.id });
    expect(await find("say yes")).toEqual([]);
    await run("undelete", { at });
    expect(await find("say yes")).toHaveLength(1);
    await send(version, { type: "rename", id: "approve", name: "Approve design" });
  });
});

describe("searching in all processes", () => {
  test("by what is written about an element, with the place where it stands", async () => {
    const { total, rows } = await search({ text: "feeder" });
    expect([total, rows[0]?.element]).toEqual([1, "approve"]);
    expect(rows[0]?.excerpt).toContain("about the feeder");
  });

  test("by type, system and role; all that are given must hold", async () => {
    expect((await search({ type: "start event" })).rows.map(({ element }) => element)).toEqual(["start"]);
    expect((await search({ system: "register" })).rows.map(({ element }) => element)).toEqual(["check"]);
    const ofDesk = (await search({ role: "desk" })).rows.map(({ element }) => element);
    expect(ofDesk).toContain("check");
    expect((await search({ role: "desk", system: "register" })).rows.map(({ element }) => element)).toEqual(["check"]);
    expect((await search({ role: "desk", system: "register", text: "approve" })).total).toBe(0);
    expect((await search({ role: "nobody" })).total).toBe(0);
  });

  test("types with how many there are of each, most first, and none that there is none of", async () => {
    const { types } = await run<{ types: { type: string; count: number }[] }>("listTypes", {});
    expect(types.find(({ type }) => type === "start event")?.count).toBe(1);
    expect(types.every(({ count }) => count > 0)).toBe(true);
    expect(types.some(({ type }) => type === "sequence flow" || type === "data object")).toBe(
      types.some(({ type }) => type === "data object"),
    );
  });
});
