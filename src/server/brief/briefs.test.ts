import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { emptyBrief, markedText } from "@/core/brief";
import { closeWorkspace, openWorkspace, run, send } from "../testing/workspace";

afterAll(closeWorkspace);

const text = `
# Connection

When [trigger#t1: a [party#p1: household] applies], the [role#r1: front desk] [activity#a1: registers the application] in the [system#s1: case register].

# Reading

[trigger#t2: Every night], [role#r2: billing] [activity#a2: reads all meters].`;
const content = (words = text) => ({
  ...emptyBrief,
  organisation: "Quillmere Power Cooperative",
  document: markedText(words),
});

interface Opened {
  readonly brief: { readonly revision: number; readonly content: { readonly built: object } } | null;
  readonly processes: readonly { readonly name: string; readonly version: string }[];
  readonly links: readonly { readonly mark: string; readonly version: string; readonly name: string }[];
}
interface Built {
  readonly built: readonly { readonly name: string; readonly version: string; readonly added: number }[];
  readonly refused: readonly unknown[];
}

describe("briefs", () => {
  beforeEach(async () => {
    await openWorkspace();
    await run("createArea", { id: "area", name: "Connections", parent: null });
    await run("createProcess", { name: "Connect a plant", area: "area", processId: "connect", versionId: "v" });
  });
  const save = (base: number, words?: string) =>
    run<{ revision: number }>("saveBrief", { process: "connect", brief: "b", base, content: content(words) });

  test("one saved on an older text is refused, and nothing is overwritten", async () => {
    expect((await save(0)).revision).toBe(1);
    expect((await save(1, "A text of one window.")).revision).toBe(2);
    await expect(save(1, "A text of another window.")).rejects.toMatchObject({
      code: "changed-elsewhere",
      status: 409,
    });
    const { brief } = await run<Opened>("openBrief", { process: "connect" });
    expect(JSON.stringify(brief?.content)).toContain("of one window");
  });

  test("a save whose answer was lost is no change from elsewhere; one by somebody else after it is", async () => {
    const send = (base: number, name: string, words: string, unanswered: string[] = []) =>
      run<{ revision: number }>("saveBrief", {
        process: "connect",
        brief: "b",
        base,
        save: name,
        unanswered,
        content: content(words),
      });
    await send(0, "first", "A text.");
    // Nobody heard that it was saved: sent again, with what was written meanwhile.
    expect(await send(0, "second", "A text, and more.", ["first"])).toEqual({ revision: 2 });
    await send(2, "theirs", "A text of another window.");
    await expect(send(0, "third", "A text, and still more.", ["first", "second"])).rejects.toMatchObject({
      code: "changed-elsewhere",
    });
  });

  test("what was built stays with a text that was written meanwhile, by one who does not know of it", async () => {
    await save(0);
    await run("buildProcesses", { version: "v" });
    expect(await save(1, `${text} And more.`)).toEqual({ revision: 2 });
    const { brief } = await run<Opened>("openBrief", { process: "connect" });
    expect(Object.values(brief?.content.built ?? {}).flat()).toEqual(expect.arrayContaining(["a1", "a2"]));
    expect((await run<Built>("buildProcesses", { version: "v" })).built.map(({ added }) => added)).toEqual([0, 0]);
  });

  test("its processes are built: the first into the process it was opened from, others beside it, each tied to its words", async () => {
    await save(0);
    const { built, refused } = await run<Built>("buildProcesses", { version: "v" });
    expect(refused).toEqual([]);
    expect(built.map(({ name, added }) => [name, added])).toEqual([
      ["Connection", 3],
      ["Reading", 3],
    ]);
    expect(built[0]?.version).toBe("v");
    const opened = await run<Opened>("openBrief", { process: "connect" });
    expect(opened.processes.map((process) => process.name)).toEqual(["Connect a plant", "Reading"]);
    const of = (mark: string) => opened.links.filter((link) => link.mark === mark).map((link) => link.name);
    expect(of("a1")).toEqual(["Register application"]);
    expect(of("r2")).toEqual(["Billing"]);
    expect(of("s1")).toEqual(["Register application"]);
    const { entries } = await run<{ entries: { kind: string; name: string }[] }>("openDirectory", {});
    expect(entries.map((entry) => entry.name)).toEqual(["Billing", "Case register", "Front desk"]);
  });

  test("built again, nothing is added; after the text grew, only what is new", async () => {
    await save(0);
    await run("buildProcesses", { version: "v" });
    const again = await run<Built>("buildProcesses", { version: "v" });
    expect(again.built.map((one) => one.added)).toEqual([0, 0]);
    const { brief } = await run<Opened>("openBrief", { process: "connect" });
    const grown = text.replace(
      "case register].",
      "case register]. The front desk [activity#a3: thanks the household].",
    );
    await run("saveBrief", {
      process: "connect",
      brief: "b",
      base: brief?.revision,
      content: { ...brief?.content, document: markedText(grown) },
    });
    const more = await run<Built>("buildProcesses", { version: "v" });
    expect(more.built.map((one) => one.added)).toEqual([1, 0]);
    const { revisions } = await run<{ revisions: { reason: string }[] }>("listRevisions", { version: "v" });
    expect(revisions[0]?.reason).toBe("before building from the brief");
  });

  test("into a process that has steps but no start nothing is built, and the reason is told", async () => {
    const { model } = await run<{ model: { diagrams: { id: string }[] } }>("openVersion", { version: "v" });
    const diagram = model.diagrams[0]?.id;
    await send("v", { type: "place", diagram, id: "x", kind: { type: "task" }, at: { x: 200, y: 100 } });
    await save(0);
    const { refused } = await run<Built>("buildProcesses", { version: "v" });
    expect(refused).toMatchObject([{ name: "Connection" }]);
  });
});
