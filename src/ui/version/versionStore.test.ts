import type { VersionData } from "@/contract/version";
import "fake-indexeddb/auto";
import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { type Command, perform } from "@/core/commands";
import { meet, replacementEdits } from "@/core/merge";
import { type Edit, type Model, nameOf, toStored } from "@/core/model";
import { commandFor, smallModel } from "@/core/testing/models";
import { type Answer, type Fate, Network } from "../testing/network";
import { createVersionStore, type VersionStore } from "./versionStore";

/** Holds a version as the server does: batches one after another, each performed on what there is, each only once. */
class StandInServer {
  model: Model;
  generation = 0;
  rights: VersionData["rights"] = ["read", "edit"];
  log: { readonly batch: string; readonly edits: readonly Edit[] }[] = [];
  readonly network = new Network((useCase, input) => this.#answer(useCase, input));

  constructor(model: Model) {
    this.model = model;
  }

  info(): VersionData {
    return {
      version: { id: "v", name: "As-is", kind: "as-is", source: null, aim: "", adoptedAt: null, builds: null },
      process: { id: "p", name: "Rooftop solar connection" },
      trail: [],
      siblings: [],
      sequence: this.log.length,
      generation: this.generation,
      handedOff: 0,
      live: { runs: 0, incidents: 0, logs: 0 },
      member: "Mara Aldous",
      rights: this.rights,
      brief: null,
      model: toStored(this.model),
    };
  }

  #answer(useCase: string, input: { batch: string; base: number; generation: number; commands: Command[] }): Answer {
    const refused = (code: string, message = "", status = 409): Answer => ({
      status,
      body: { error: { code, message } },
    });
    if (useCase === "openVersion") return { status: 200, body: this.info() };
    if (input.generation !== this.generation) return refused("restored");
    if (JSON.stringify(input).includes("never")) return refused("unstorable-text", "This cannot be kept.", 400);
    if (useCase === "applyCommands" && !this.log.some(({ batch }) => batch === input.batch)) {
      let { model } = this;
      const edits: Edit[] = [];
      for (const command of input.commands) {
        const done = perform(model, command);
        if (!done.ok) return refused("refused", done.problems[0]?.message);
        model = done.value.model;
        edits.push(...done.value.edits);
      }
      if (
        meet(
          edits,
          this.log.slice(input.base).flatMap((one) => one.edits),
        )
      )
        return refused("met");
      this.model = model;
      this.log.push({ batch: input.batch, edits });
    }
    return { status: 200, body: { sequence: this.log.length, since: this.log.slice(input.base) } };
  }
}

const opened: VersionStore[] = [];

function open(server: StandInServer): VersionStore {
  const store = createVersionStore(server.info());
  opened.push(store);
  return store;
}

/** Lets time pass until nobody has anything to send; what two people disagree on is decided for one's own. */
async function quiet(...stores: VersionStore[]): Promise<void> {
  for (let round = 0; round < 120; round++) {
    await vi.advanceTimersByTimeAsync(1_000);
    for (const store of stores) if (store.getState().disagreement) store.getState().decide(() => "ours");
    if (round > 2 && stores.every((store) => store.getState().pending.length === 0 && !store.getState().disagreement))
      break;
  }
  await vi.advanceTimersByTimeAsync(3_000);
}

const rename = (element: string, name: string): Command => ({ type: "rename", id: element, name });

describe("an open version", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal("document", {
      visibilityState: "visible",
      addEventListener: () => {},
      removeEventListener: () => {},
    });
  });
  afterEach(async () => {
    for (const store of opened.splice(0)) store.getState().close();
    // What is being written in the browser is written to its end; cut off, it would hold up the next test.
    await vi.advanceTimersByTimeAsync(1_000);
    vi.unstubAllGlobals();
    vi.useRealTimers();
  });
  const serve = (): StandInServer => {
    const server = new StandInServer(smallModel());
    vi.stubGlobal("fetch", server.network.fetch);
    return server;
  };

  test("shows a change at once, and has it stored a moment later", async () => {
    const server = serve();
    const store = open(server);
    expect(store.getState().dispatch(rename("check", "Check the papers"))).toBe(true);
    expect(nameOf(store.getState().model, "check")).toBe("Check the papers");
    expect(store.getState().pending).toHaveLength(1);
    const settled = store.getState().settled();
    await quiet(store);
    await settled;
    expect(nameOf(server.model, "check")).toBe("Check the papers");
    expect(store.getState().pending).toEqual([]);
  });

  test("says why a command is refused, and sends nothing", async () => {
    const server = serve();
    const store = open(server);
    expect(store.getState().dispatch(rename("nothing", "x"))).toBe(false);
    expect(store.getState().notice).toMatchObject({ kind: "refusal" });
    await quiet(store);
    expect(server.log).toEqual([]);
  });

  test("who may only look is told so, and nothing is sent", async () => {
    const server = serve();
    server.rights = ["read", "comment"];
    const store = open(server);
    expect(store.getState().dispatch(rename("check", "Check the papers"))).toBe(false);
    expect(store.getState().notice).toMatchObject({
      kind: "refusal",
      message: expect.stringContaining("not change it"),
    });
    await quiet(store);
    expect(server.log).toEqual([]);
  });

  test("undo and redo are sent like any change, by their names", async () => {
    const server = serve();
    const store = open(server);
    const { model: before } = store.getState();
    store.getState().dispatch(rename("check", "Check the papers"));
    store.getState().undo();
    expect(replacementEdits(before, store.getState().model)).toEqual([]);
    expect(store.getState().undoStack).toEqual([]);
    store.getState().redo();
    expect(nameOf(store.getState().model, "check")).toBe("Check the papers");
    store.getState().undo();
    await quiet(store);
    expect(server.log).toHaveLength(4);
    expect(replacementEdits(before, server.model)).toEqual([]);
  });

  test("an amended gesture is taken back as one", () => {
    const store = open(serve());
    const { model: before } = store.getState();
    store.getState().dispatch(rename("check", "Check the papers"));
    store.getState().amend(rename("approve", "Say yes"));
    expect(store.getState().undoStack).toHaveLength(1);
    store.getState().undo();
    expect(replacementEdits(before, store.getState().model)).toEqual([]);
  });

  test.each(["lost", "unanswered"] as const)("a question that is %s is sent again, and done once", async (fate) => {
    const server = serve();
    const store = open(server);
    server.network.fates.push(fate, fate, fate);
    store.getState().dispatch(rename("check", "Check the papers"));
    await vi.advanceTimersByTimeAsync(400);
    expect(store.getState().failing).toBe(true);
    await quiet(store);
    expect(store.getState().failing).toBe(false);
    expect(server.log).toHaveLength(1);
    expect(nameOf(server.model, "check")).toBe("Check the papers");
  });

  test("another window's change arrives within a second, and one's own undo leaves it alone", async () => {
    const server = serve();
    const [mine, theirs] = [open(server), open(server)];
    mine.getState().dispatch(rename("check", "Check the papers"));
    await quiet(mine, theirs);
    theirs.getState().dispatch(rename("approve", "Say yes"));
    await vi.advanceTimersByTimeAsync(1_000);
    expect(nameOf(mine.getState().model, "approve")).toBe("Say yes");
    mine.getState().undo();
    await quiet(mine, theirs);
    expect(nameOf(server.model, "check")).toBe(nameOf(smallModel(), "check"));
    expect(nameOf(server.model, "approve")).toBe("Say yes");
  });

  test("what one deletes while another fills it in is asked, and the answer is what is stored", async () => {
    const server = serve();
    const [mine, theirs] = [open(server), open(server)];
    theirs.getState().dispatch({ type: "delete", ids: ["approve"] });
    await vi.advanceTimersByTimeAsync(150);
    expect(server.model.elements.has("approve")).toBe(false);
    mine.getState().dispatch(rename("approve", "Say yes"));
    await vi.advanceTimersByTimeAsync(600);
    expect(mine.getState().disagreement?.conflicts).not.toEqual([]);
    expect(nameOf(mine.getState().model, "approve")).toBe("Say yes");
    mine.getState().decide(() => "ours");
    await quiet(mine, theirs);
    expect(nameOf(server.model, "approve")).toBe("Say yes");
    expect(replacementEdits(server.model, theirs.getState().model)).toEqual([]);
  });

  test("what one does while a refusal is looked into is kept", async () => {
    const server = serve();
    const [mine, theirs] = [open(server), open(server)];
    theirs.getState().dispatch({ type: "delete", ids: ["approve"] });
    await vi.advanceTimersByTimeAsync(150);
    mine.getState().dispatch(rename("approve", "Say yes"));
    // Asked, refused, and the state of the server asked for: meanwhile the next change.
    for (let at = 0; at < 40; at++) {
      await vi.advanceTimersByTimeAsync(10);
      mine.getState().dispatch(rename("check", `Check ${at}`));
    }
    await quiet(mine, theirs);
    expect(nameOf(server.model, "check")).toBe("Check 39");
    expect(replacementEdits(server.model, mine.getState().model)).toEqual([]);
  });

  test("opening anew while an answer is missing performs nothing twice", async () => {
    const server = serve();
    const store = open(server);
    server.network.fates.push("unanswered");
    store.getState().dispatch({ type: "move", diagram: "page", ids: ["check"], by: { x: 24, y: 0 } });
    await vi.advanceTimersByTimeAsync(300);
    expect(store.getState().failing).toBe(true);
    await Promise.all([store.getState().reload(), vi.advanceTimersByTimeAsync(300)]);
    await quiet(store);
    expect(store.getState().pending).toEqual([]);
    expect(replacementEdits(server.model, store.getState().model)).toEqual([]);
  });

  test("what a window left unsent is sent by the next one", async () => {
    const server = serve();
    const gone = open(server);
    server.network.fates.push(...Array<Fate>(40).fill("lost"));
    gone.getState().dispatch(rename("check", "Check the papers"));
    gone.getState().dispatch(rename("approve", "Say yes"));
    await vi.advanceTimersByTimeAsync(5_000);
    gone.getState().close();
    expect(server.log).toEqual([]);
    // Another window: the first one's memory is gone, what it kept in the browser is not.
    vi.resetModules();
    const next = await import("./versionStore");
    server.network.fates.length = 0;
    const store = next.createVersionStore(server.info());
    opened.push(store);
    await quiet(store);
    expect(nameOf(server.model, "check")).toBe("Check the papers");
    expect(nameOf(server.model, "approve")).toBe("Say yes");
    expect(nameOf(store.getState().model, "approve")).toBe("Say yes");
  });

  test("a change that the server will never take is set aside with its reason; what was made after it is saved", async () => {
    const server = serve();
    const store = open(server);
    store.getState().dispatch(rename("check", "Stored"));
    store.getState().dispatch(rename("approve", "never"));
    store.getState().dispatch({ type: "describe", id: "check", text: "After it" });
    await quiet(store);
    expect(store.getState().setAside).toMatchObject([{ reason: "This cannot be kept." }]);
    expect(store.getState().notice?.message).toContain("set aside");
    expect(nameOf(server.model, "check")).toBe("Stored");
    expect(server.model.elements.get("check")?.documentation?.[0]?.text).toBe("After it");
    expect(replacementEdits(server.model, store.getState().model)).toEqual([]);
    store.getState().forgetAside();
    expect(store.getState().setAside).toEqual([]);
  });

  test("waiting until all is saved ends with words where the server does not answer", async () => {
    const server = serve();
    const store = open(server);
    server.network.fates.push(...Array<Fate>(20).fill("lost"));
    store.getState().dispatch(rename("check", "Not yet"));
    const waited = store.getState().settled();
    const told = expect(waited).rejects.toThrow(/does not answer/);
    await vi.advanceTimersByTimeAsync(2_000);
    await told;
    server.network.fates.length = 0;
    await quiet(store);
    await store.getState().settled();
    expect(nameOf(server.model, "check")).toBe("Not yet");
  });

  test("an undo that meets another person's change lets the one before it be taken back", async () => {
    const server = serve();
    const [mine, theirs] = [open(server), open(server)];
    mine.getState().dispatch(rename("approve", "Mine, first"));
    mine.getState().dispatch(rename("check", "Mine, second"));
    await quiet(mine, theirs);
    theirs.getState().dispatch(rename("check", "Theirs"));
    await quiet(mine, theirs);
    mine.getState().undo();
    expect(mine.getState().notice?.kind).toBe("refusal");
    mine.getState().undo();
    await quiet(mine, theirs);
    expect(nameOf(server.model, "check")).toBe("Theirs");
    expect(nameOf(server.model, "approve")).toBe(nameOf(smallModel(), "approve"));
  });

  test("a name given without a connection does not go over what another gave meanwhile: both are asked for", async () => {
    const server = serve();
    const [mine, theirs] = [open(server), open(server)];
    server.network.fates.push("lost");
    mine.getState().dispatch(rename("check", "Without a connection"));
    await vi.advanceTimersByTimeAsync(200);
    theirs.getState().dispatch(rename("check", "Saved meanwhile"));
    for (let waited = 0; waited < 60 && !mine.getState().disagreement; waited++) await vi.advanceTimersByTimeAsync(200);
    expect(mine.getState().disagreement?.conflicts).toMatchObject([
      { element: "check", field: "name", ours: "Without a connection", theirs: "Saved meanwhile" },
    ]);
    mine.getState().decide(() => "theirs");
    await quiet(mine, theirs);
    expect(nameOf(server.model, "check")).toBe("Saved meanwhile");
    expect(mine.getState().failing).toBe(false);
  });

  test("two that open one version in one window keep what each has not sent", async () => {
    const server = serve();
    const [first, second] = [open(server), open(server)];
    server.network.fates.push(...Array<Fate>(60).fill("lost"));
    first.getState().dispatch(rename("check", "Of the first"));
    second.getState().dispatch(rename("approve", "Of the second"));
    await vi.advanceTimersByTimeAsync(3_000);
    first.getState().close();
    second.getState().close();
    vi.resetModules();
    const next = await import("./versionStore");
    server.network.fates.length = 0;
    const store = next.createVersionStore(server.info());
    opened.push(store);
    await quiet(store);
    expect([nameOf(server.model, "check"), nameOf(server.model, "approve")]).toEqual(["Of the first", "Of the second"]);
  });

  test("after a restore the version is opened anew, and what was not saved is made on it", async () => {
    const server = serve();
    const store = open(server);
    store.getState().dispatch(rename("approve", "Before the restore"));
    await quiet(store);
    server.model = smallModel();
    server.log = [];
    server.generation = 1;
    store.getState().dispatch(rename("check", "Not saved yet"));
    await quiet(store);
    expect(store.getState().notice?.message).toContain("replaced by a backup");
    expect(nameOf(server.model, "check")).toBe("Not saved yet");
    expect(nameOf(server.model, "approve")).toBe(nameOf(smallModel(), "approve"));
    expect(replacementEdits(server.model, store.getState().model)).toEqual([]);
  });

  const fates = fc.array(fc.constantFrom<Fate>("well", "well", "well", "lost", "unanswered"), { maxLength: 30 });
  const turns = (length: number) =>
    fc.array(
      fc.record({
        who: fc.nat(1),
        numbers: fc.array(fc.nat(1_000_000), { minLength: 8, maxLength: 8 }),
        rest: fc.constantFrom(0, 0, 40, 200, 900),
      }),
      { minLength: 1, maxLength: length },
    );

  test("two windows and the server come to the same, whatever each does and the network loses", async () => {
    await fc.assert(
      fc.asyncProperty(turns(14), fates, async (script, lost) => {
        const server = serve();
        const stores = [open(server), open(server)] as const;
        server.network.fates.push(...lost);
        for (const [step, { who, numbers, rest }] of script.entries()) {
          const store = stores[who] as VersionStore;
          let at = 0;
          const pick = (count: number) => (numbers[at++ % numbers.length] as number) % count;
          const { model, dispatch, undo, redo } = store.getState();
          if ((numbers[1] as number) % 17 === 0)
            void store
              .getState()
              .reload()
              .catch(() => {});
          if ((numbers[0] as number) % 8 === 0) redo();
          else if ((numbers[0] as number) % 9 === 0) undo();
          else dispatch(commandFor(model, { pick, id: `n${step}` }));
          await vi.advanceTimersByTimeAsync(rest);
        }
        await quiet(...stores);
        for (const store of stores) {
          expect(store.getState().pending).toEqual([]);
          expect(replacementEdits(server.model, store.getState().model)).toEqual([]);
          store.getState().close();
        }
      }),
      { numRuns: 40 },
    );
  });

  test("nobody's name goes over another's that they had not seen, without being asked", async () => {
    const nodes = ["check", "approve", "reject"];
    await fc.assert(
      fc.asyncProperty(turns(10), fates, async (script, lost) => {
        const server = serve();
        const stores = [open(server), open(server)] as const;
        server.network.fates.push(...lost);
        /** By each name given: who gave it, and what stood there for them. */
        const said = new Map<string, { readonly who: number; readonly seen: string }>();
        const asked = new Set<string>();
        const note = () => {
          for (const [who, store] of stores.entries())
            for (const { element } of store.getState().disagreement?.conflicts ?? []) asked.add(`${who} ${element}`);
        };
        for (const store of stores) store.subscribe(note);
        for (const [step, { who, numbers, rest }] of script.entries()) {
          const store = stores[who] as VersionStore;
          const node = nodes[(numbers[0] as number) % nodes.length] as string;
          said.set(`Named ${step}`, { who, seen: nameOf(store.getState().model, node) });
          store.getState().dispatch(rename(node, `Named ${step}`));
          await vi.advanceTimersByTimeAsync(rest);
        }
        await quiet(...stores);
        for (const { edits } of server.log)
          for (const edit of edits) {
            if (edit.kind !== "set" || edit.field !== "name") continue;
            const given = said.get(String(edit.to));
            const over = said.get(String(edit.from));
            if (!given || !over || over.who === given.who) continue;
            // Somebody who saw it may have given several names after it, one over the other, before any was saved.
            const isSeen = [...said.values()].some(({ who, seen }) => who === given.who && seen === edit.from);
            const isKnown = isSeen || asked.has(`${given.who} ${edit.id}`);
            expect([edit.from, edit.to, isKnown]).toEqual([edit.from, edit.to, true]);
          }
        for (const store of stores) {
          expect(replacementEdits(server.model, store.getState().model)).toEqual([]);
          store.getState().close();
        }
      }),
      { numRuns: 60, endOnFailure: true },
    );
  });

  test("no name given by either is lost, where nobody gave another", async () => {
    const nodes = ["start", "check", "decide", "approve", "reject", "done"];
    await fc.assert(
      fc.asyncProperty(turns(8), fates, async (script, lost) => {
        const server = serve();
        const stores = [open(server), open(server)] as const;
        server.network.fates.push(...lost);
        const said = new Map<string, string>();
        for (const [step, { who, numbers, rest }] of script.entries()) {
          // Each names nodes of their own.
          const node = nodes[who + 2 * ((numbers[0] as number) % 3)] as string;
          said.set(node, `Named ${step}`);
          (stores[who] as VersionStore).getState().dispatch(rename(node, `Named ${step}`));
          await vi.advanceTimersByTimeAsync(rest);
        }
        await quiet(...stores);
        for (const [node, name] of said) expect(nameOf(server.model, node)).toBe(name);
        for (const store of stores) store.getState().close();
      }),
      { numRuns: 40 },
    );
  });
});
