import { afterAll, beforeEach, describe, expect, test } from "vitest";
import type { MyThread, ThreadRow } from "@/contract/comments";
import type { HomeData } from "@/contract/home";
import { localMember, type Member, runUseCase, useCases } from "@/server";
import { leaveWorkspace, makeProcess, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);
let version: string;
beforeEach(async () => {
  await openWorkspace();
  ({ version } = await makeProcess());
  await run("setMember", { id: "oran", name: "Oran Veltri", roles: [] });
});

const oran: Member = { ...localMember, id: "oran", name: "Oran Veltri" };
const as = <Output = unknown>(member: Member, name: keyof typeof useCases, input: unknown) =>
  runUseCase(member, useCases[name] as never, input) as Promise<Output>;
const about = { kind: "element", key: "check", words: "Check application" } as const;
const start = (thread: string, more: object = {}, member = localMember) =>
  as(member, "startThread", {
    ...{ version, thread, said: `${thread} 1`, about, text: "Why twice?", mentions: [], assigned: null },
    ...more,
  });
const listed = async (of = version) => (await run<{ threads: ThreadRow[] }>("listThreads", { version: of })).threads;
const mine = async (member: Member) => (await as<{ threads: MyThread[] }>(member, "myThreads", {})).threads;

describe("a thread", () => {
  test("is begun once however often it is asked for, and says who said what when", async () => {
    await start("t");
    await start("t", { text: "Something else" });
    const [thread, ...more] = await listed();
    expect(more).toEqual([]);
    expect(thread).toMatchObject({
      about,
      assigned: null,
      resolved: null,
      said: [{ id: "t 1", name: localMember.name, text: "Why twice?", editedAt: null }],
    });
  });

  test("is answered once however often it is asked for; several at once all stand in it", async () => {
    await start("t");
    const answer = (said: string) =>
      as(oran, "answerThread", { version, thread: "t", said, text: said, mentions: [localMember.id] });
    await Promise.all(["a", "b", "c", "a", "b"].map(answer));
    const [thread] = await listed();
    expect(thread?.said.map(({ id }) => id).sort()).toEqual(["a", "b", "c", "t 1"]);
    expect(thread?.said.at(-1)?.name).toBe("Oran Veltri");
  });

  test("is resolved and opened again; whoever answers what was resolved opens it", async () => {
    await start("t");
    await as(oran, "settleThread", { version, thread: "t", isResolved: true });
    expect((await listed())[0]?.resolved?.name).toBe("Oran Veltri");
    await run("answerThread", { version, thread: "t", said: "x", text: "Not yet", mentions: [] });
    expect((await listed())[0]?.resolved).toBeNull();
  });

  test("only who said something says it otherwise; only who began it deletes it, and brings it again", async () => {
    await start("t");
    const edit = { version, thread: "t", said: "t 1", text: "Why thrice?", mentions: [] };
    await expect(as(oran, "editSaid", edit)).rejects.toMatchObject({ code: "not-yours" });
    expect(await run("editSaid", edit)).toEqual({ before: { text: "Why twice?", mentions: [] } });
    expect((await listed())[0]?.said[0]).toMatchObject({ text: "Why thrice?", editedAt: expect.any(String) });
    await expect(as(oran, "deleteThread", { version, thread: "t" })).rejects.toMatchObject({ code: "not-yours" });
    await run("deleteThread", { version, thread: "t" });
    expect(await listed()).toEqual([]);
    await as(oran, "restoreThread", { version, thread: "t" });
    expect(await listed()).toEqual([]);
    await run("restoreThread", { version, thread: "t" });
    expect(await listed()).toHaveLength(1);
  });

  test("is found only in its version, and its id is taken by no other", async () => {
    await start("t");
    const { version: other } = await run<{ version: string }>("createToBe", { source: version, name: "To-be" });
    await expect(run("settleThread", { version: other, thread: "t", isResolved: true })).rejects.toMatchObject({
      code: "not-found",
    });
    await expect(start("t", { version: other })).rejects.toMatchObject({ status: 409 });
  });
});

describe("whom a thread asks for", () => {
  test("those who are mentioned and who is to see to it, as long as it is open", async () => {
    await start("mentioned", { mentions: ["oran"] });
    await start("assigned", { assigned: "oran" });
    await start("neither");
    expect((await mine(oran)).map(({ id }) => id).sort()).toEqual(["assigned", "mentioned"]);
    expect(await mine(oran)).toMatchObject([{ process: "Connect a plant" }, { versionName: "As-is" }]);
    expect(await mine(localMember)).toEqual([]);
    expect(await run("assignThread", { version, thread: "assigned", assigned: null })).toEqual({ before: "oran" });
    await run("settleThread", { version, thread: "mentioned", isResolved: true });
    expect(await mine(oran)).toEqual([]);
    await expect(run("assignThread", { version, thread: "neither", assigned: "nobody" })).rejects.toMatchObject({
      code: "not-found",
    });
  });
});

describe("threads and versions", () => {
  test("go along into a to-be, and what was settled there is settled when that is adopted", async () => {
    await start("t");
    await start("u");
    const { version: toBe } = await run<{ version: string }>("createToBe", { source: version, name: "To-be" });
    const copies = await listed(toBe);
    expect(copies.map(({ said }) => said[0]?.text)).toEqual(["Why twice?", "Why twice?"]);
    expect(copies.map(({ id }) => id)).not.toContain("t");
    await run("settleThread", { version: toBe, thread: copies[0]?.id, isResolved: true });
    const { version: now } = await run<{ version: string }>("adoptToBe", { version: toBe });
    expect((await listed(now)).filter(({ resolved }) => resolved !== null)).toHaveLength(1);
    expect(await listed(now)).toHaveLength(2);
  });

  test("stay with their element when that is changed, and are counted on Home while they are open", async () => {
    await start("t");
    await send(version, { type: "rename", id: "check", name: "Look" });
    expect((await listed())[0]?.about.key).toBe("check");
    const comments = async () => (await run<HomeData>("openHome", {})).versions.map((one) => one.comments);
    expect(await comments()).toEqual([1]);
    await run("settleThread", { version, thread: "t", isResolved: true });
    expect(await comments()).toEqual([0]);
  });
});
