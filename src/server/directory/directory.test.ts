import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { fileUseCases, localMember, runUseCase } from "@/server";
import {
  importModel,
  leaveWorkspace,
  makeProcess,
  nameOfElement,
  openWorkspace,
  run,
  send,
} from "../testing/workspace";

afterAll(leaveWorkspace);
beforeEach(async () => {
  await openWorkspace();
});

interface Entry {
  readonly id: string;
  readonly name: string;
  readonly unit: string | null;
  readonly description: string;
  readonly headcount: number | null;
  readonly uses: number;
}
const entries = async () => (await run<{ entries: Entry[] }>("openDirectory", {})).entries;
const entry = async (id: string) => (await entries()).find((one) => one.id === id);

describe("an entry is changed", () => {
  test("and what is not said stays as it was", async () => {
    await run("createEntry", {
      id: "crew",
      kind: "role",
      name: "Field crew",
      description: "Works on site",
      headcount: 6,
    });
    await run("changeEntry", { id: "crew", name: "Site crew" });
    expect(await entry("crew")).toMatchObject({ name: "Site crew", description: "Works on site", headcount: 6 });
  });
  test("but a unit never stands in itself, however far down", async () => {
    for (const [id, unit] of [
      ["a", null],
      ["b", "a"],
      ["c", "b"],
    ])
      await run("createEntry", { id, kind: "unit", name: `Unit ${id}`, unit });
    await expect(run("changeEntry", { id: "a", unit: "c" })).rejects.toMatchObject({ code: "unit-in-itself" });
    await expect(run("changeEntry", { id: "c", unit: "a" })).resolves.toBeDefined();
  });
});

describe("two entries are made one", () => {
  test("in every head, in the tree, and the one that goes is gone", async () => {
    const { version } = await makeProcess();
    await run("createEntry", { id: "one", kind: "role", name: "Field crew" });
    await run("createEntry", { id: "two", kind: "role", name: "Field crews", description: "On site", headcount: 3 });
    await send(version, {
      type: "assignRole",
      step: "check",
      role: { entry: "two", name: "Field crews" },
      part: "responsible",
      id: "r",
    });
    expect(await run("mergeEntries", { from: "two", into: "one" })).toMatchObject({ versions: [version] });
    expect(await entry("one")).toMatchObject({ description: "On site", headcount: 3, uses: 1 });
    expect(await entry("two")).toBeUndefined();
    const { model } = await run<{ model: { elements: { type: string; name?: string }[] } }>("openVersion", { version });
    expect(model.elements.filter((one) => one.type === "resource").map((one) => one.name)).toEqual(["Field crew"]);
  });
  test("but not a role and a system", async () => {
    await run("createEntry", { id: "one", kind: "role", name: "Billing" });
    await run("createEntry", { id: "two", kind: "system", name: "Billing" });
    await expect(run("mergeEntries", { from: "two", into: "one" })).rejects.toMatchObject({ code: "other-kind" });
  });
});

test("a file of entries is taken over whole or not at all; units may come in any order", async () => {
  await run("createEntry", { id: "known", kind: "role", name: "Field crew", description: "Works on site" });
  const file =
    "Kind,Name,Description,Part of,Headcount\r\nrole,Clerk,,Office,2\r\nunit,Office,,,\r\nrole,field-crew,,Office,4\r\n";
  expect(await run("importDirectory", { text: file })).toMatchObject({ made: 2, known: 1 });
  const office = (await entries()).find((one) => one.name === "Office");
  expect(await entry("known")).toMatchObject({ description: "Works on site", headcount: 4, unit: office?.id });
  await expect(run("importDirectory", { text: "Kind,Name\r\nrole,New\r\nplanet,Mars\r\n" })).rejects.toMatchObject({
    code: "unreadable",
  });
  expect((await entries()).some((one) => one.name === "New")).toBe(false);
});

test("elements are found by word, type, role and system; letters that mean something to a database are letters", async () => {
  const { version } = await makeProcess();
  await run("createEntry", { id: "map", kind: "system", name: "Network map" });
  await run("createEntry", { id: "desk", kind: "role", name: "Front desk" });
  await send(
    version,
    { type: "useSystem", step: "check", system: { entry: "map", name: "Network map" }, use: "reads" },
    { type: "assignRole", step: "check", role: { entry: "desk", name: "Front desk" }, part: "informed", id: "r" },
    { type: "describe", id: "check", text: "At most 80 % of the feeder_rating" },
  );
  const search = async (input: object) =>
    (await run<{ rows: { element: string; excerpt: string }[] }>("searchElements", input)).rows;
  for (const input of [
    { text: "check app" },
    { text: "80 %" },
    { text: "feeder_" },
    { type: "user task" },
    { role: "desk" },
    { system: "map", text: "application" },
  ])
    expect((await search(input)).map((row) => row.element)).toEqual(["check"]);
  expect((await search({ text: "80 %" }))[0]?.excerpt).toContain("At most 80 % of");
  for (const input of [{ text: "8_ %" }, { text: "%%" }, { system: "none" }, { role: "map" }, { type: "timer" }])
    expect(await search(input)).toEqual([]);
});

test("a process knows who calls it", async () => {
  const { version, diagram } = await makeProcess();
  await run("createProcess", {
    name: "Switch on",
    area: "area",
    processId: "on",
    versionId: "w",
    bpmnId: "process-on",
  });
  await send(
    version,
    { type: "replace", diagram, id: "check", kind: { type: "callActivity" } },
    { type: "setField", id: "check", field: "calledElement", value: "process-on" },
  );
  const { callers } = await run<{ callers: object[] }>("listCallers", { version: "w" });
  expect(callers).toMatchObject([{ version, element: "check", elementName: await nameOfElement(version, "check") }]);
  const { links } = await run<{ links: object[] }>("openMap", {});
  expect(links).toMatchObject([{ from: { id: "connect" }, to: { id: "on" }, kind: "calls", count: 1 }]);
});

describe("files", () => {
  const keep = (name: string, bytes: Uint8Array) =>
    runUseCase(localMember, fileUseCases.keepFile, { name, bytes }) as Promise<{ id: string }>;
  test("come back as they went in, with a type of ours", async () => {
    const { id } = await keep("plan.PDF", new Uint8Array([1, 2, 3]));
    expect(await runUseCase(localMember, fileUseCases.openFile, { id })).toMatchObject({
      name: "plan.PDF",
      type: "application/pdf",
      bytes: new Uint8Array([1, 2, 3]),
    });
  });
  test.each([
    ["run.exe", 3, "file-type"],
    ["page.html", 3, "file-type"],
    ["drawing.svg", 3, "file-type"],
    ["nothing.txt", 0, "empty-file"],
    ["large.pdf", 10 * 1024 * 1024 + 1, "too-large"],
  ])("%s of %i bytes is refused", async (name, size, code) => {
    await expect(keep(name, new Uint8Array(size))).rejects.toMatchObject({ code });
  });
});

test("what was deleted of the directory is restored; types of the workspace are counted; a kept state takes another name", async () => {
  await openWorkspace();
  await makeProcess();
  await run("createEntry", { id: "map", kind: "system", name: "Network map" });
  await run("deleteEntry", { id: "map" });
  const names = async () =>
    (await run<{ entries: { name: string }[] }>("openDirectory", {})).entries.map(({ name }) => name);
  expect(await names()).toEqual([]);
  await run("restoreEntry", { id: "map" });
  expect(await names()).toEqual(["Network map"]);
  const { types } = await run<{ types: { type: string; count: number }[] }>("listTypes", {});
  expect(types).toContainEqual({ type: "user task", count: 1 });
  const { number } = await run<{ number: number }>("nameRevision", { version: "v", reason: "first draft" });
  await run("labelRevision", { version: "v", number, reason: "as agreed" });
  const { revisions } = await run<{ revisions: { reason: string }[] }>("listRevisions", { version: "v" });
  expect(revisions[0]?.reason).toBe("as agreed");
  await expect(run("labelRevision", { version: "v", number: 99, reason: "x" })).rejects.toMatchObject({ status: 404 });
});

test("where a role is used: its lanes, the steps it does by them, and the steps that name it", async () => {
  const version = await importModel("Applications");
  await run("createEntry", { id: "desk-role", kind: "role", name: "Front desk" });
  await send(
    version,
    { type: "tieLane", lane: "desk", role: { entry: "desk-role", name: "Front desk" } },
    {
      type: "assignRole",
      step: "approve",
      role: { entry: "desk-role", name: "Front desk" },
      part: "consulted",
      id: "consulted",
    },
  );
  const usesNow = async () => {
    const { uses } = await run<{ uses: { element: string; how: string }[] }>("whereUsed", { id: "desk-role" });
    return uses.map(({ element, how }) => `${element}: ${how}`).sort();
  };
  const before = await usesNow();
  for (const use of ["approve: consulted", "check: by its lane", "desk: lane"]) expect(before).toContain(use);
  // Said once for each step and part.
  expect(new Set(before).size).toBe(before.length);
  // A step with somebody of its own is not done by its lane's role; one moved out of the lane neither.
  await send(version, { type: "moveToLane", diagram: "page", ids: ["check"], lane: "engineer" });
  expect(await usesNow()).toEqual(before.filter((use) => use !== "check: by its lane"));
});

describe("a merge or an import taken back", () => {
  const tree = async () =>
    (await entries()).map(({ uses: _, ...rest }) => rest).sort((a, b) => a.id.localeCompare(b.id));
  const stored = async (version: string) =>
    (await run<{ model: { elements: unknown[] } }>("openVersion", { version })).model.elements;
  const merged = async () => {
    const { version } = await makeProcess();
    await run("createEntry", { id: "one", kind: "unit", name: "Field crew" });
    await run("createEntry", { id: "two", kind: "unit", name: "Field crews", description: "On site" });
    await run("createEntry", { id: "inner", kind: "role", name: "Fitter", unit: "two" });
    await run("createEntry", { id: "map", kind: "system", name: "Network map" });
    await run("createEntry", { id: "maps", kind: "system", name: "Network maps" });
    const system = { entry: "maps", name: "Network maps" };
    await send(version, { type: "useSystem", step: "check", system, use: "reads" });
    return version;
  };

  test("a merge leaves the directory and every version as they were, and can be done again", async () => {
    const version = await merged();
    const before = [await tree(), await stored(version)];
    const units = await run<{ before: object }>("mergeEntries", { from: "two", into: "one" });
    const systems = await run<{ before: object }>("mergeEntries", { from: "maps", into: "map" });
    expect(await entry("inner")).toMatchObject({ unit: "one" });
    expect(await entry("map")).toMatchObject({ uses: 1 });
    await run("takeBackDirectory", systems.before);
    await run("takeBackDirectory", units.before);
    expect([await tree(), await stored(version)]).toEqual(before);
    expect(await entry("maps")).toMatchObject({ uses: 1 });
    const again = await run<{ before: object }>("mergeEntries", { from: "maps", into: "map" });
    await run("takeBackDirectory", again.before);
    expect([await tree(), await stored(version)]).toEqual(before);
  });

  test("what was changed in a version since stays changed", async () => {
    const version = await merged();
    const { before } = await run<{ before: object }>("mergeEntries", { from: "maps", into: "map" });
    await send(version, { type: "rename", id: "check", name: "Check every page" });
    await run("takeBackDirectory", before);
    expect(await stored(version)).toContainEqual(expect.objectContaining({ id: "check", name: "Check every page" }));
    expect(await entry("maps")).toMatchObject({ uses: 1 });
  });

  test("of what nobody did, nothing is taken back, and nothing half", async () => {
    const version = await merged();
    await run("mergeEntries", { from: "maps", into: "map" });
    const before = await tree();
    const wrong = { gone: ["maps"], made: [], changed: [], batches: [{ version, batch: "never written" }] };
    await expect(run("takeBackDirectory", wrong)).rejects.toMatchObject({ code: "too-old" });
    // Nor what somebody did in a version otherwise, nor units that would be part of themselves.
    const { sequence: base } = await run<{ sequence: number }>("openVersion", { version });
    const commands = [{ type: "rename", id: "check", name: "Check every page" }];
    await run("applyCommands", { version, batch: "theirs", base, commands });
    const other = { gone: [], made: [], changed: [], batches: [{ version, batch: "theirs" }] };
    await expect(run("takeBackDirectory", other)).rejects.toMatchObject({ code: "no-merge" });
    const circle = { gone: [], made: [], changed: [{ id: "one", fields: { unit: "one" } }], batches: [] };
    await expect(run("takeBackDirectory", circle)).rejects.toMatchObject({ code: "unit-in-itself" });
    expect(await tree()).toEqual(before);
  });

  test("an import leaves what was known as it was, and its new entries go, unless one is used by now", async () => {
    const { version } = await makeProcess();
    await run("createEntry", { id: "known", kind: "role", name: "Field crew", description: "Works on site" });
    const before = await tree();
    const text =
      "Kind,Name,Description,Part of,Headcount\r\nrole,Clerk,,Office,2\r\nunit,Office,,,\r\nrole,field-crew,Drives,Office,4\r\n";
    const first = await run<{ before: object }>("importDirectory", { text });
    expect((await tree()).length).toBe(3);
    await run("takeBackDirectory", first.before);
    expect(await tree()).toEqual(before);
    const second = await run<{ before: { made: string[] } }>("importDirectory", { text });
    const clerk = (await entries()).find(({ name }) => name === "Clerk")?.id as string;
    const role = { entry: clerk, name: "Clerk" };
    await send(version, { type: "assignRole", step: "check", role, part: "responsible", id: "r" });
    await expect(run("takeBackDirectory", second.before)).rejects.toMatchObject({ code: "in-use" });
    expect((await tree()).length).toBe(3);
  });
});
