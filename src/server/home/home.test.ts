import { afterAll, beforeEach, describe, expect, test } from "vitest";
import {
  countedHome,
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

interface Home {
  readonly areas: readonly { readonly id: string; readonly name: string; readonly parent: string | null }[];
  readonly processes: readonly { readonly id: string; readonly name: string; readonly area: string }[];
  readonly versions: readonly {
    readonly id: string;
    readonly process: string;
    readonly kind: string;
    readonly name: string;
    readonly source: string | null;
  }[];
}
const home = () => countedHome<Home>();

describe("areas and processes", () => {
  test("are renamed and moved, and Home says so", async () => {
    await makeProcess();
    await run("createArea", { id: "grid", name: "Grid", parent: "area" });
    await run("renameArea", { id: "grid", name: "Low-voltage grid" });
    await run("renameProcess", { id: "connect", name: "Connect a rooftop plant" });
    await run("moveProcess", { id: "connect", area: "grid" });
    const { areas, processes } = await home();
    expect(areas).toEqual([
      { id: "area", name: "Connections", parent: null, processes: 1 },
      { id: "grid", name: "Low-voltage grid", parent: "area", processes: 1 },
    ]);
    expect(processes).toMatchObject([{ id: "connect", name: "Connect a rooftop plant", area: "grid" }]);
    const { trail } = await run<{ trail: string[] }>("openVersion", { version: "v" });
    expect(trail).toEqual(["Connections", "Low-voltage grid"]);
  });

  test.each([
    ["renameArea", { id: "nowhere", name: "x" }],
    ["moveArea", { id: "nowhere", parent: null }],
    ["moveArea", { id: "area", parent: "nowhere" }],
    ["createArea", { id: "new", name: "New", parent: "nowhere" }],
    ["renameProcess", { id: "nothing", name: "x" }],
    ["moveProcess", { id: "nothing", area: "area" }],
    ["moveProcess", { id: "connect", area: "nowhere" }],
    ["deleteProcess", { id: "nothing" }],
    ["deleteVersion", { id: "nothing" }],
    ["copyProcess", { id: "nothing", name: "x", area: "area" }],
    ["copyProcess", { id: "connect", name: "x", area: "nowhere" }],
    ["createProcess", { name: "x", area: "nowhere" }],
    ["openVersion", { version: "nothing" }],
    ["describeVersion", { id: "nothing", name: "x", aim: "" }],
    ["chooseProfile", { version: "nothing", profile: "draft" }],
    ["changeWalkTest", { version: "v", test: "nothing", name: "x" }],
    ["adaptRule", { profile: "draft", rule: "no-such-rule", level: "off" }],
  ] as const)("%s of what is not there is refused: %o", async (useCase, input) => {
    await makeProcess();
    await expect(run(useCase, input)).rejects.toMatchObject({ code: "not-found", status: 404 });
  });

  test("nothing is put into an area that was deleted, and no id is given twice", async () => {
    await makeProcess();
    await run("createArea", { id: "old", name: "Old", parent: null });
    await run("deleteArea", { id: "old" });
    await expect(run("createProcess", { name: "x", area: "old" })).rejects.toMatchObject({ code: "not-found" });
    await expect(run("moveProcess", { id: "connect", area: "old" })).rejects.toMatchObject({ code: "not-found" });
    await expect(run("createProcess", { name: "x", area: "area", processId: "connect" })).rejects.toMatchObject({
      code: "id-taken",
      status: 409,
    });
  });

  test("a name of blanks is no name", async () => {
    await makeProcess();
    await expect(run("renameProcess", { id: "connect", name: "   " })).rejects.toMatchObject({ code: "bad-input" });
  });

  test("a deleted process is gone from Home, from search and from what can be called, and comes back whole", async () => {
    await makeProcess();
    const { at } = await run<{ at: string }>("deleteProcess", { id: "connect" });
    expect((await home()).processes).toEqual([]);
    expect(await run("find", { text: "Check" })).toEqual({ found: [] });
    expect(await run("listCallable", {})).toEqual({ callable: [] });
    await expect(run("openVersion", { version: "v" })).rejects.toMatchObject({ status: 404 });
    await expect(run("deleteProcess", { id: "connect" })).rejects.toMatchObject({ status: 404 });
    await run("undelete", { at });
    expect((await home()).processes).toHaveLength(1);
    expect(await nameOfElement("v", "check")).toBe("Check application");
  });
});

describe("versions", () => {
  test("a to-be is deleted and comes back; the as-is stays as long as its process", async () => {
    await makeProcess();
    const { version } = await run<{ version: string }>("createToBe", { source: "v", name: "Shorter" });
    await expect(run("deleteVersion", { id: "v" })).rejects.toMatchObject({ code: "as-is-stays", status: 409 });
    const { at } = await run<{ at: string }>("deleteVersion", { id: version });
    expect((await home()).versions.map((one) => one.id)).toEqual(["v"]);
    await run("undelete", { at });
    expect((await home()).versions.map((one) => one.id)).toEqual(["v", version]);
  });

  test("a to-be is given another name and aim", async () => {
    await makeProcess();
    const { version } = await run<{ version: string }>("createToBe", { source: "v", name: "Shorter", aim: "Two days" });
    await run("describeVersion", { id: version, name: "Much shorter", aim: "One day" });
    expect(await run("openVersion", { version })).toMatchObject({
      version: { name: "Much shorter", aim: "One day", kind: "to-be", source: "v" },
    });
  });
});

describe("a copy of a process", () => {
  test("has all its versions as they are now, tied to each other, with aims, kept walks and reasons", async () => {
    await makeProcess();
    const { version: toBe } = await run<{ version: string }>("createToBe", {
      source: "v",
      name: "Shorter",
      aim: "Fast",
    });
    await send(toBe, { type: "rename", id: "check", name: "Check at once" });
    const content = { process: "p", told: {}, outcome: "completed", path: null };
    await run("keepWalkTests", { version: toBe, tests: [{ name: "Straight through", content }] });
    const reason = { pains: ["waiting"], note: "Less waiting.", effect: "", state: "proposed" };
    await run("giveReason", { version: toBe, against: "v", change: "check", words: "Renamed.", reason });
    const made = await run<{ process: string; version: string }>("copyProcess", {
      id: "connect",
      name: "Connect a plant, copy",
      area: "area",
    });
    const copies = (await home()).versions.filter((one) => one.process === made.process);
    expect(copies.map(({ kind, name }) => [kind, name])).toEqual([
      ["as-is", "As-is"],
      ["to-be", "Shorter"],
    ]);
    const [asIsCopy, toBeCopy] = copies;
    expect(toBeCopy?.source).toBe(asIsCopy?.id);
    expect(await run("openVersion", { version: toBeCopy?.id })).toMatchObject({ version: { aim: "Fast" } });
    expect(await nameOfElement(toBeCopy?.id ?? "", "check")).toBe("Check at once");
    const { tests } = await run<{ tests: { name: string }[] }>("listWalkTests", { version: toBeCopy?.id });
    expect(tests).toMatchObject([{ name: "Straight through" }]);
    const { reasons } = await run<{ reasons: { words: string }[] }>("listReasons", {
      version: toBeCopy?.id,
      against: asIsCopy?.id,
    });
    expect(reasons).toMatchObject([{ words: "Renamed." }]);
    // The copy goes its own way.
    await send(asIsCopy?.id ?? "", { type: "rename", id: "check", name: "Only in the copy" });
    expect(await nameOfElement("v", "check")).toBe("Check application");
  });
});

describe("steps taken out", () => {
  test("become a process beside theirs; what would be torn apart is refused with the reason", async () => {
    const { version, diagram } = await makeProcess();
    const made = await run<{ process: string; version: string; calledElement: string }>("extractProcess", {
      version,
      diagram,
      ids: ["check"],
      name: "Check an application",
    });
    const { processes } = await home();
    expect(processes.find((one) => one.id === made.process)).toMatchObject({
      name: "Check an application",
      area: "area",
    });
    const { model } = await run<{ model: { elements: { name?: string }[] } }>("openVersion", { version: made.version });
    expect(model.elements.map((one) => one.name)).toContain("Check application");
    const { callable } = await run<{ callable: { bpmnId: string; name: string }[] }>("listCallable", {});
    expect(callable).toContainEqual(
      expect.objectContaining({ bpmnId: made.calledElement, name: "Check an application" }),
    );
    await expect(run("extractProcess", { version, diagram, ids: ["nothing"], name: "Nothing" })).rejects.toMatchObject({
      code: "not-apart",
      status: 422,
    });
  });
});

describe("finding", () => {
  test("by a part of a name: processes, steps and directory entries, each with where it is", async () => {
    const { version } = await makeProcess();
    await run("createEntry", { kind: "role", name: "Plant engineer" });
    const { found } = await run<{ found: { kind: string; title: string; detail: string }[] }>("find", {
      text: "PLANT",
    });
    expect(found.map(({ kind, title }) => [kind, title])).toEqual([
      ["process", "Connect a plant"],
      ["entry", "Plant engineer"],
    ]);
    const steps = await run<{ found: unknown[] }>("find", { text: "applic" });
    expect(steps.found).toEqual([
      {
        kind: "element",
        title: "Check application",
        detail: "user task, Connect a plant, As-is",
        version,
        element: "check",
      },
    ]);
  });

  test("letters that stand for others in a database are letters", async () => {
    await makeProcess();
    await send("v", { type: "rename", id: "check", name: "Take off 10_% of it" });
    expect((await run<{ found: unknown[] }>("find", { text: "10_%" })).found).toHaveLength(1);
    expect((await run<{ found: unknown[] }>("find", { text: "1__%" })).found).toHaveLength(0);
  });
});
