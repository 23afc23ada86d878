import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { emptyBrief, markedText } from "@/core/brief";
import { leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);

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
    const { built } = await run<Built>("buildProcesses", { version: "v" });
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

  test("built by two at once, each process is there once, and every step once", async () => {
    await save(0);
    const both = await Promise.all([
      run<Built>("buildProcesses", { version: "v" }),
      run<Built>("buildProcesses", { version: "v" }),
    ]);
    // One of them built all of it, the other found it built.
    expect(both.map(({ built }) => built.map(({ added }) => added)).sort()).toEqual([
      [0, 0],
      [3, 3],
    ]);
    const { processes } = await run<Opened>("openBrief", { process: "connect" });
    expect(processes.map(({ name }) => name)).toEqual(["Connect a plant", "Reading"]);
  });

  test("a look at what would be built, beside a build, says either what comes or that nothing does", async () => {
    await save(0);
    const [preview] = await Promise.all([
      run<{ growth: readonly { readonly added: readonly unknown[] }[] }>("previewBuild", { version: "v" }),
      run<Built>("buildProcesses", { version: "v" }),
    ]);
    expect(preview).toBeDefined();
    expect((await run<Built>("buildProcesses", { version: "v" })).built.map(({ added }) => added)).toEqual([0, 0]);
  });

  test("a build whose answer was lost is done once: asked for again it finds all built", async () => {
    await save(0);
    // Nobody heard the first answer.
    await run<Built>("buildProcesses", { version: "v" });
    const { version } = (await run<Built>("buildProcesses", { version: "v" })).built[0] as { version: string };
    const { model } = await run<{ model: { elements: { type: string; name?: string }[] } }>("openVersion", { version });
    expect(model.elements.filter(({ name }) => name === "Register application")).toHaveLength(1);
    const { entries } = await run<{ entries: { name: string }[] }>("openDirectory", {});
    expect(new Set(entries.map(({ name }) => name)).size).toBe(entries.length);
  });

  test("a text that is saved while its processes are built is neither lost nor built half", async () => {
    await save(0);
    const grown = text.replace(
      "case register].",
      "case register]. The front desk [activity#a3: thanks the household].",
    );
    const [built] = await Promise.allSettled([run<Built>("buildProcesses", { version: "v" }), save(1, grown)]);
    expect(built?.status).toBe("fulfilled");
    // Whichever came first: what is there at last is the text that was saved, and building once more brings the rest.
    const { brief } = await run<Opened & { brief: { content: object } }>("openBrief", { process: "connect" });
    if (JSON.stringify(brief?.content).includes("thanks")) {
      await run("buildProcesses", { version: "v" });
      expect((await run<Built>("buildProcesses", { version: "v" })).built.map(({ added }) => added)).toEqual([0, 0]);
    }
  });

  test("where one process cannot be built none is, and it is told which and why; the others can be built by themselves", async () => {
    const { model } = await run<{ model: { diagrams: { id: string }[] } }>("openVersion", { version: "v" });
    const diagram = model.diagrams[0]?.id;
    await send("v", { type: "place", diagram, id: "x", kind: { type: "task" }, at: { x: 200, y: 100 } });
    await save(0);
    await expect(run("buildProcesses", { version: "v" })).rejects.toMatchObject({
      code: "not-built",
      status: 409,
      message: expect.stringMatching(/^Nothing was built\. "Connection": .* no start event/),
      details: [{ code: "t1" }],
    });
    // Nothing is left behind: no second process, no mark said to be built.
    const { brief, processes, links } = await run<Opened>("openBrief", { process: "connect" });
    expect([brief?.content.built, processes.length, links]).toEqual([{}, 1, []]);
    const { built } = await run<Built>("buildProcesses", { version: "v", frames: ["t2"] });
    expect(built).toMatchObject([{ name: "Reading" }]);
  });

  describe("again, after the text changed", () => {
    interface Growth {
      readonly processes: readonly {
        readonly version: string;
        readonly added: readonly { readonly mark: string; readonly name: string; readonly lane: string }[];
        readonly renamed: readonly { readonly mark: string; readonly now: string; readonly to: string }[];
        readonly lost: readonly { readonly element: string; readonly name: string }[];
      }[];
    }
    const changed = async (words: string) => {
      const { brief } = await run<Opened>("openBrief", { process: "connect" });
      const own = { ...brief?.content, document: markedText(words) };
      await run("saveBrief", { process: "connect", brief: "b", base: brief?.revision, content: own });
      return (await run<Growth>("previewBuild", { version: "v" })).processes;
    };
    const names = async () => {
      const { model } = await run<{ model: { elements: { type: string; name?: string }[] } }>("openVersion", {
        version: "v",
      });
      return model.elements.filter(({ type }) => /[tT]ask$/.test(type)).map(({ name }) => name);
    };
    const grown = text
      .replace("registers the application]", "books the application]")
      .replace("case register].", "case register]. The front desk [activity#a3: thanks the household].");

    beforeEach(async () => {
      await save(0);
      await run("buildProcesses", { version: "v" });
    });

    test("what is new and what is called otherwise is shown beforehand, and changes nothing", async () => {
      const [first, second] = await changed(grown);
      expect(first).toMatchObject({
        added: [{ mark: "a3", name: "Thank household", lane: "Front desk" }],
        renamed: [{ mark: "a1", now: "Register application", to: "Book application" }],
        lost: [],
      });
      expect(second).toMatchObject({ added: [], renamed: [], lost: [] });
      expect(await names()).toEqual(["Register application"]);
    });

    test("taken, it is built; left, it is neither built nor asked again", async () => {
      await changed(grown);
      await run("buildProcesses", { version: "v", leave: ["a3"], rename: ["a1"] });
      expect(await names()).toEqual(["Book application"]);
      expect((await changed(grown))[0]).toMatchObject({ added: [], renamed: [], lost: [] });
      await run("buildProcesses", { version: "v" });
      expect(await names()).toEqual(["Book application"]);
    });

    test("a name somebody gave in the model is not taken for one the text changed", async () => {
      const { model } = await run<{ model: { elements: { id: string; name?: string }[] } }>("openVersion", {
        version: "v",
      });
      const step = model.elements.find(({ name }) => name === "Register application")?.id;
      await send("v", { type: "rename", id: step, name: "Enter application" });
      expect((await changed(text))[0]?.renamed).toEqual([]);
      expect((await changed(grown))[0]?.renamed).toMatchObject([{ now: "Enter application", to: "Book application" }]);
    });

    test("what has lost its words is told, and taken out where that is chosen", async () => {
      const without = text.replace(
        " [activity#a1: registers the application] in the [system#s1: case register]",
        " listens",
      );
      const [first] = await changed(without);
      expect(first?.lost).toMatchObject([{ name: "Register application" }]);
      await run("buildProcesses", { version: "v" });
      expect(await names()).toEqual(["Register application"]);
      const drop = [{ version: "v", element: first?.lost[0]?.element }];
      await run("buildProcesses", { version: "v", drop });
      expect(await names()).toEqual([]);
      expect((await changed(without))[0]?.lost).toEqual([]);
    });
  });
});
