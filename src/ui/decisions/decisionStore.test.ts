import "fake-indexeddb/auto";
import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { inspectionDecisions } from "@/demo/decisions";
import { nextInHistory, undoLast } from "../kernel/history";
import { type Answer, type Fate, Network } from "../testing/network";
import { useDecisions } from "./decisionStore";

interface Save {
  readonly id: string;
  readonly base: number;
  readonly save: string;
  readonly unanswered: readonly string[];
  readonly content: string;
}

/** Holds files as the server does: a save on an older one is refused, unless that is the sender's own. */
class StandInServer {
  readonly files = new Map<string, { revision: number; save: string; content: string }>();
  readonly network = new Network((useCase, input) => this.#answer(useCase, input));

  #answer(useCase: string, input: Save): Answer {
    const held = this.files.get(input.id);
    if (!held) return { status: 404, body: { error: { code: "unknown", message: "It is no longer there." } } };
    if (useCase === "openDecisionFile")
      return { status: 200, body: { id: input.id, name: input.id, uses: [], ...held } };
    if (held.revision !== input.base && !input.unanswered.includes(held.save))
      return { status: 409, body: { error: { code: "changed-elsewhere", message: "Changed elsewhere." } } };
    const revision = held.revision + 1;
    this.files.set(input.id, { revision, save: input.save, content: input.content });
    return { status: 200, body: { revision } };
  }

  /** As another window saves, or makes it. */
  write(id: string, name = "Inspections"): void {
    const revision = (this.files.get(id)?.revision ?? 0) + 1;
    const content = inspectionDecisions().replace(/(<definitions[^>]* name=")[^"]*/, `$1${name}`);
    this.files.set(id, { revision, save: "theirs", content });
  }

  holds = (id: string) => /<definitions[^>]* name="([^"]*)/.exec(this.files.get(id)?.content ?? "")?.[1];
}

let server: StandInServer;
beforeEach(() => {
  vi.useFakeTimers();
  server = new StandInServer();
  vi.stubGlobal("fetch", server.network.fetch);
});
afterEach(async () => {
  await vi.advanceTimersByTimeAsync(30_000);
  useDecisions.setState({ file: null, document: null });
  vi.unstubAllGlobals();
  vi.useRealTimers();
});
const open = async (id: string) => {
  const opening = useDecisions.getState().open(id);
  await vi.advanceTimersByTimeAsync(20_000);
  await opening;
};
const opened = async (id: string) => {
  server.write(id);
  await open(id);
};
const call = (name: string) => useDecisions.getState().edit(`call it ${name}`, { type: "nameAll", name });
const status = () => useDecisions.getState().status;

describe("an open file of decisions", () => {
  test("is saved a moment after the last change, with what was changed meanwhile", async () => {
    await opened("rest");
    expect(call("One")).toBe(true);
    await vi.advanceTimersByTimeAsync(200);
    expect(server.files.get("rest")?.revision).toBe(1);
    expect(status()).toBe("saving");
    call("Two");
    await vi.advanceTimersByTimeAsync(2_000);
    expect(server.holds("rest")).toBe("Two");
    expect(status()).toBe("saved");
  });

  test("a change that cannot be is refused, and nothing is sent", async () => {
    await opened("refused");
    expect(useDecisions.getState().edit("rename", { type: "rename", id: "nowhere", name: "x" })).toBe(false);
    await vi.advanceTimersByTimeAsync(2_000);
    expect(server.files.get("refused")?.revision).toBe(1);
    expect(status()).toBe("saved");
  });

  test("what was changed is taken back by its name, also from another file", async () => {
    await opened("first");
    call("Renamed");
    await vi.advanceTimersByTimeAsync(2_000);
    await opened("second");
    expect(nextInHistory().undo).toBe("call it Renamed");
    const undone = undoLast();
    await vi.advanceTimersByTimeAsync(20_000);
    await undone;
    expect(server.holds("first")).not.toBe("Renamed");
    expect(useDecisions.getState().file).toBe("first");
    expect(server.holds("second")).toBe("Inspections");
  });

  test("one that is gone says so, and one that cannot be read as well", async () => {
    await open("gone");
    expect(status()).toBe("gone");
    server.files.set("torn", { revision: 1, save: "theirs", content: "<definitions" });
    await open("torn");
    expect(useDecisions.getState().document).toBeNull();
  });

  test.each([
    ["take", "Theirs"],
    ["keep", "Mine"],
  ] as const)("changed elsewhere: %s leaves %s", async (choice, left) => {
    await opened(choice);
    server.write(choice, "Theirs");
    call("Mine");
    await vi.advanceTimersByTimeAsync(2_000);
    expect(status()).toBe("changed-elsewhere");
    expect(server.holds(choice)).toBe("Theirs");
    const resolved = useDecisions.getState().resolve(choice);
    await vi.advanceTimersByTimeAsync(5_000);
    await resolved;
    expect(status()).toBe("saved");
    expect(server.holds(choice)).toBe(left);
  });

  test("one that is left while it cannot be sent does not become another's text", async () => {
    await opened("left");
    server.network.fates.push("lost");
    call("Of the first");
    await vi.advanceTimersByTimeAsync(320);
    await opened("entered");
    call("Of the second");
    await vi.advanceTimersByTimeAsync(20_000);
    expect(server.holds("entered")).toBe("Of the second");
    expect(server.holds("left")).not.toBe("Of the second");
  });

  test("whatever becomes of questions and answers, the last change is what is stored, and nobody is told of himself", async () => {
    let count = 0;
    const fates = fc.array(fc.constantFrom<Fate>("well", "well", "lost", "unanswered"), { maxLength: 10 });
    const rests = fc.array(fc.constantFrom(0, 100, 320, 400, 1_500, 4_000), { minLength: 1, maxLength: 8 });
    await fc.assert(
      fc.asyncProperty(fates, rests, async (lost, pauses) => {
        const id = `alone-${count++}`;
        server.network.fates.length = 0;
        await opened(id);
        server.network.fates.push(...lost);
        for (const [at, pause] of pauses.entries()) {
          call(`Name ${at}`);
          await vi.advanceTimersByTimeAsync(pause);
          expect(status()).not.toBe("changed-elsewhere");
        }
        await vi.advanceTimersByTimeAsync(60_000);
        expect(status()).toBe("saved");
        expect(server.holds(id)).toBe(`Name ${pauses.length - 1}`);
        expect(useDecisions.getState().revision).toBe(server.files.get(id)?.revision);
      }),
      { numRuns: 30 },
    );
  });
});
