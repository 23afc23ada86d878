import "fake-indexeddb/auto";
import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { type BriefContent, emptyBrief, markedText } from "@/core/brief";
import { type Answer, type Fate, Network } from "../testing/network";
import { useBrief } from "./briefStore";

interface Save {
  readonly brief: string;
  readonly base: number;
  readonly save: string;
  readonly unanswered: readonly string[];
  readonly content: BriefContent;
}

/** Holds one description per process as the server does: a save on an older one is refused, unless that is the sender's own. */
class StandInServer {
  readonly briefs = new Map<string, { id: string; revision: number; save: string; content: BriefContent }>();
  readonly network = new Network((useCase, input) => this.#answer(useCase, input));

  #answer(useCase: string, input: Save & { readonly process: string }): Answer {
    const held = this.briefs.get(input.process);
    if (useCase === "openBrief") return { status: 200, body: { brief: held ?? null, processes: [], links: [] } };
    if (held && held.revision !== input.base && !input.unanswered.includes(held.save))
      return { status: 409, body: { error: { code: "changed-elsewhere", message: "Changed elsewhere." } } };
    const revision = (held?.revision ?? 0) + 1;
    this.briefs.set(input.process, { id: input.brief, revision, save: input.save, content: input.content });
    return { status: 200, body: { revision } };
  }

  /** As another window saves. */
  write(process: string, words: string): void {
    const { id, revision } = this.briefs.get(process) ?? { id: "theirs", revision: 0 };
    const content = { ...emptyBrief, document: markedText(words) };
    this.briefs.set(process, { id, revision: revision + 1, save: "theirs", content });
  }

  words = (process: string) => JSON.stringify(this.briefs.get(process)?.content.document ?? null);
}

describe("an open description", () => {
  let server: StandInServer;
  beforeEach(() => {
    vi.useFakeTimers();
    server = new StandInServer();
    vi.stubGlobal("fetch", server.network.fetch);
  });
  afterEach(async () => {
    await vi.advanceTimersByTimeAsync(30_000);
    vi.unstubAllGlobals();
    vi.useRealTimers();
  });
  const open = async (process: string) => {
    const opening = useBrief.getState().open(process);
    await vi.advanceTimersByTimeAsync(20_000);
    await opening;
  };
  const write = (words: string) => useBrief.getState().setDocument(markedText(words));

  test("is saved half a second after the last word, not before", async () => {
    await open("rest");
    write("When a household applies");
    await vi.advanceTimersByTimeAsync(400);
    write("When a household applies, the front desk");
    await vi.advanceTimersByTimeAsync(400);
    expect(server.briefs.size).toBe(0);
    expect(useBrief.getState().status).toBe("saving");
    await vi.advanceTimersByTimeAsync(1_000);
    expect(server.briefs.get("rest")?.revision).toBe(1);
    expect(server.words("rest")).toContain("the front desk");
    expect(useBrief.getState().status).toBe("saved");
  });

  test("what is written while it is being saved is saved next", async () => {
    await open("while");
    write("One.");
    await vi.advanceTimersByTimeAsync(510);
    write("One. Two.");
    await vi.advanceTimersByTimeAsync(2_000);
    expect(server.words("while")).toContain("One. Two.");
    expect(useBrief.getState()).toMatchObject({ status: "saved", revision: 2 });
  });

  test("waits for the server, and says so", async () => {
    await open("waits");
    server.network.fates.push("lost", "lost");
    write("One.");
    await vi.advanceTimersByTimeAsync(1_000);
    expect(useBrief.getState().status).toBe("waiting");
    await vi.advanceTimersByTimeAsync(10_000);
    expect(useBrief.getState().status).toBe("saved");
    expect(server.words("waits")).toContain("One.");
  });

  test("settling sends at once", async () => {
    await open("settles");
    write("One.");
    const settled = useBrief.getState().settle();
    await vi.advanceTimersByTimeAsync(250);
    await settled;
    expect(server.words("settles")).toContain("One.");
  });

  test.each([
    ["take", "Theirs."],
    ["keep", "Mine."],
  ] as const)("changed elsewhere: %s leaves %s", async (choice, left) => {
    server.write(choice, "Before.");
    await open(choice);
    server.write(choice, "Theirs.");
    write("Mine.");
    await vi.advanceTimersByTimeAsync(2_000);
    expect(useBrief.getState().status).toBe("changed-elsewhere");
    expect(server.words(choice)).toContain("Theirs.");
    // One may go on writing while one makes up one's mind; nothing is sent.
    write("Mine.");
    await vi.advanceTimersByTimeAsync(5_000);
    expect(server.words(choice)).toContain("Theirs.");
    const resolved = useBrief.getState().resolve(choice);
    await vi.advanceTimersByTimeAsync(5_000);
    await resolved;
    expect(useBrief.getState().status).toBe("saved");
    expect(server.words(choice)).toContain(left);
    expect(JSON.stringify(useBrief.getState().content.document)).toContain(left);
  });

  test("what was not sent before the browser went is written on when it is opened again", async () => {
    await open("crash");
    server.network.fates.push(...Array<Fate>(40).fill("lost"));
    write("Not sent.");
    await vi.advanceTimersByTimeAsync(20_000);
    expect(useBrief.getState().status).toBe("waiting");
    server.network.fates.length = 0;
    // The page is opened anew: what it had in memory is gone.
    vi.resetModules();
    const { useBrief: anew } = await import("./briefStore");
    const opening = anew.getState().open("crash");
    await vi.advanceTimersByTimeAsync(200);
    await opening;
    expect(JSON.stringify(anew.getState().content.document)).toContain("Not sent.");
    await vi.advanceTimersByTimeAsync(2_000);
    expect(server.words("crash")).toContain("Not sent.");
    expect(anew.getState().status).toBe("saved");
  });

  test("one that is left while it cannot be sent does not become another's text", async () => {
    await open("left");
    server.network.fates.push("lost");
    write("Of the first.");
    await vi.advanceTimersByTimeAsync(520);
    await open("entered");
    write("Of the second.");
    await vi.advanceTimersByTimeAsync(20_000);
    expect(server.words("entered")).toContain("Of the second.");
    expect(server.words("entered")).not.toContain("Of the first.");
    expect(server.words("left")).not.toContain("Of the second.");
  });

  test("one window is never told that it was changed elsewhere, and the last word is what is stored", async () => {
    let count = 0;
    const fates = fc.array(fc.constantFrom<Fate>("well", "well", "lost", "unanswered"), { maxLength: 12 });
    const rests = fc.array(fc.constantFrom(0, 100, 520, 600, 1_500, 4_000), { minLength: 1, maxLength: 10 });
    await fc.assert(
      fc.asyncProperty(fates, rests, async (lost, pauses) => {
        const process = `alone-${count++}`;
        await open(process);
        server.network.fates.push(...lost);
        for (const [at, pause] of pauses.entries()) {
          write(`Word ${at}.`);
          await vi.advanceTimersByTimeAsync(pause);
          expect(useBrief.getState().status).not.toBe("changed-elsewhere");
        }
        await vi.advanceTimersByTimeAsync(60_000);
        expect(useBrief.getState().status).toBe("saved");
        expect(server.words(process)).toContain(`Word ${pauses.length - 1}.`);
        expect(useBrief.getState().revision).toBe(server.briefs.get(process)?.revision);
      }),
      { numRuns: 100 },
    );
  });
});
