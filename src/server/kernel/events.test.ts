import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { concerns, type Happened } from "@/contract/events";
import { localMember } from "@/server";
import { leaveWorkspace, makeProcess, openWorkspace, run, send } from "../testing/workspace";
import { feed, feedPosition, hear, hearFeed } from "./events";

beforeEach(async () => {
  await openWorkspace();
  await makeProcess();
});
afterAll(leaveWorkspace);

function listening(after: string | null = null, member = localMember) {
  const heard: (Happened & { readonly id: string })[] = [];
  const stop = hearFeed(member, after, (id, text) => heard.push({ ...(JSON.parse(text) as Happened), id }));
  return { heard, stop };
}

describe("what happened elsewhere", () => {
  test("is told once it is done: by what, to what, and how far a version's content has come", async () => {
    const { heard, stop } = listening();
    const { sequence } = await send("v", { type: "rename", id: "check", name: "Check at once" });
    await run("renameArea", { id: "area", name: "Connections and meters" });
    await run("chooseProfile", { version: "v", profile: "draft" });
    expect(heard.map(({ by, things }) => ({ by, things }))).toEqual([
      { by: "applyCommands", things: [{ kind: "version", id: "v" }] },
      { by: "renameArea", things: [{ kind: "area", id: "area" }] },
      { by: "chooseProfile", things: [{ kind: "version", id: "v" }] },
    ]);
    expect(heard[0]?.sequences).toEqual({ v: sequence });
    stop();
  });

  test("is told of every version a change of the directory reaches", async () => {
    await run("createEntry", { id: "desk", kind: "role", name: "Front desk" });
    await send("v", {
      type: "assignRole",
      step: "check",
      role: { entry: "desk", name: "Front desk" },
      part: "responsible",
      id: "who",
    });
    const { heard, stop } = listening();
    await run("changeEntry", { id: "desk", name: "Customer desk" });
    expect(heard[0]?.things).toContainEqual({ kind: "directory" });
    expect(heard[0]?.things).toContainEqual({ kind: "version", id: "v" });
    stop();
  });

  test("nothing is told of what was refused, and of what only looks", async () => {
    const { heard, stop } = listening();
    await expect(send("v", { type: "rename", id: "nothing", name: "x" })).rejects.toThrow();
    await run("openHome", {});
    await run("listRevisions", { version: "v" });
    expect(heard.filter(({ by }) => by !== "counted")).toEqual([]);
    stop();
  });

  test("who was away for a moment hears what was missed, and who was away too long that all has to be looked at", async () => {
    const first = listening();
    await run("renameArea", { id: "area", name: "One" });
    const last = first.heard.at(-1)?.id as string;
    first.stop();
    await run("renameArea", { id: "area", name: "Two" });
    await run("renameArea", { id: "area", name: "Three" });
    const again = listening(last);
    expect(again.heard.map(({ by }) => by)).toEqual(["renameArea", "renameArea"]);
    again.stop();
    const elsewhere = listening("another-7");
    expect(elsewhere.heard).toMatchObject([{ things: [{ kind: "workspace" }] }]);
    elsewhere.stop();
    for (let at = 0; at < 1_100; at++) hear(JSON.stringify({ by: "x", things: [] }));
    const late = listening(last);
    expect(late.heard).toMatchObject([{ things: [{ kind: "workspace" }] }]);
    late.stop();
    expect(feed().recent.length).toBeLessThanOrEqual(1_000);
  });

  test("a page is told what was done since it was made, and nothing from before", async () => {
    await run("renameArea", { id: "area", name: "Before" });
    const made = feedPosition() as string;
    const nothing = listening(made);
    expect(nothing.heard).toEqual([]);
    nothing.stop();
    await run("renameArea", { id: "area", name: "Meanwhile" });
    const { heard, stop } = listening(made);
    await run("renameArea", { id: "area", name: "Afterwards" });
    expect(heard.map(({ id }) => id)).toEqual(
      [1, 2].map((more) => made.replace(/\d+$/, (at) => `${Number(at) + more}`)),
    );
    expect(feedPosition()).toBe(heard.at(-1)?.id);
    stop();
  });

  test("one that cannot say when it was made is told to look at everything", () => {
    const { heard, stop } = listening("");
    expect(heard).toMatchObject([{ things: [{ kind: "workspace" }] }]);
    stop();
  });

  test("where other processes are not heard yet, a page does not wait for it, and knows no moment", () => {
    const own = feed();
    const { isListening, listening } = own;
    Object.assign(own, { isListening: false, listening: new Promise(() => {}) });
    process.env.DATABASE_URL = "postgres://nowhere.invalid/none";
    try {
      expect(feedPosition()).toBeUndefined();
      own.isListening = true;
      expect(feedPosition()).toMatch(/-\d+$/);
    } finally {
      delete process.env.DATABASE_URL;
      Object.assign(own, { isListening, listening });
    }
  });

  test("who may not see something does not hear of it", async () => {
    const { heard, stop } = listening(null, { id: "guest", name: "A guest", rights: [] });
    await run("renameArea", { id: "area", name: "Secret" });
    expect(heard).toEqual([]);
    stop();
  });
});

test.each<[asked: string, done: string, isConcerned: boolean]>([
  ["version v", "version v", true],
  ["version v", "version w", false],
  ["version v", "directory", false],
  ["directory", "directory", true],
  ["version v", "workspace", true],
  ["workspace", "version v", true],
  ["area a", "area a", true],
])("an answer about %s may be another one after something was done to %s: %s", (asked, done, isConcerned) => {
  const thing = (text: string) => {
    const [kind, id] = text.split(" ");
    return { kind, ...(id && { id }) } as never;
  };
  expect(concerns([thing(asked)], [thing(done)])).toBe(isConcerned);
});
