import { afterAll, beforeEach, describe, expect, test } from "vitest";
import type { HomeData } from "@/contract/home";
import type { MyReview, ReviewRow } from "@/contract/review";
import { fileUseCases, localMember, type Member, runUseCase, useCases } from "@/server";
import { leaveWorkspace, makeProcess, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);
let version: string;
beforeEach(async () => {
  await openWorkspace();
  ({ version } = await makeProcess());
  await run("setMember", { id: "oran", name: "Oran Veltri", roles: [] });
  await run("setMember", { id: "tess", name: "Tess Ardent", roles: [] });
});

const oran: Member = { ...localMember, id: "oran", name: "Oran Veltri" };
const tess: Member = { ...localMember, id: "tess", name: "Tess Ardent" };
const as = <Output = unknown>(member: Member, name: keyof typeof useCases, input: unknown) =>
  runUseCase(member, useCases[name] as never, input) as Promise<Output>;
const askFor = (review: string, reviewers: readonly string[] = ["oran", "tess"], more: object = {}) =>
  run<{ revision: number }>("askReview", { version, review, reviewers, question: "Right so?", due: null, ...more });
const say = (member: Member, answer: string, note = "", review = "r") =>
  as(member, "answerReview", { version, review, answer, note });
const rounds = async () => (await run<{ reviews: ReviewRow[] }>("listReviews", { version })).reviews;
const last = async () => (await rounds())[0];
const waiting = async (member: Member) =>
  (await as<{ reviews: MyReview[] }>(member, "myReviews", {})).reviews.map(({ id }) => id);
const change = () => send(version, { type: "rename", id: "check", name: `Look ${Math.random()}` });
const onHome = async () => (await run<HomeData>("openHome", {})).versions[0]?.review;

describe("a round of review", () => {
  test("keeps what the version holds, is asked for once, and waits for all who are asked", async () => {
    const { revision } = await askFor("r");
    expect(await askFor("r", ["tess"])).toEqual({ revision });
    expect(await rounds()).toHaveLength(1);
    expect(await last()).toMatchObject({ revision, state: "asked", holds: true, isMine: true, question: "Right so?" });
    await say(oran, "approve");
    expect((await last())?.state).toBe("asked");
    await say(tess, "remarks", "Mind the winter.");
    expect(await last()).toMatchObject({
      state: "approved",
      reviewers: [
        { name: "Oran Veltri", answer: "approve" },
        { name: "Tess Ardent", answer: "remarks", note: "Mind the winter." },
      ],
    });
    expect(await onHome()).toBe("approved");
  });

  test.each<[answers: [Member, string][], state: string]>([
    [[[oran, "approve"]], "asked"],
    [[[oran, "reject"]], "rejected"],
    [
      [
        [oran, "approve"],
        [tess, "reject"],
      ],
      "rejected",
    ],
    [
      [
        [oran, "reject"],
        [oran, "approve"],
        [tess, "approve"],
      ],
      "approved",
    ],
  ])("after %j it is %s", async (answers, state) => {
    await askFor("r");
    for (const [member, answer] of answers) await say(member, answer);
    expect((await last())?.state).toBe(state);
  });

  test("its approval lapses with the next change, and says so on Home", async () => {
    await askFor("r", ["oran"]);
    await say(oran, "approve");
    expect(await last()).toMatchObject({ state: "approved", holds: true });
    await change();
    expect(await last()).toMatchObject({ state: "approved", holds: false });
    expect(await onHome()).toBe("lapsed");
  });

  test("only who was asked answers, only who asked withdraws; what was withdrawn takes no answer", async () => {
    await askFor("r", ["oran"]);
    await expect(say(tess, "approve")).rejects.toMatchObject({ code: "not-asked" });
    await expect(as(oran, "withdrawReview", { version, review: "r" })).rejects.toMatchObject({ code: "not-yours" });
    await run("withdrawReview", { version, review: "r" });
    await expect(say(oran, "approve")).rejects.toMatchObject({ code: "withdrawn" });
    expect((await last())?.state).toBe("withdrawn");
    expect(await onHome()).toBeNull();
  });

  test("two answers at once are both kept", async () => {
    await askFor("r");
    await Promise.all([say(oran, "approve"), say(tess, "approve")]);
    expect((await last())?.state).toBe("approved");
  });

  test("is not asked of nobody, of somebody unknown, or by another version's id", async () => {
    await expect(askFor("r", [])).rejects.toMatchObject({ status: 400 });
    await expect(askFor("r", ["nobody"])).rejects.toMatchObject({ code: "not-found" });
    await expect(askFor("r", ["oran"], { due: "soon" })).rejects.toMatchObject({ status: 400 });
    await askFor("r", ["oran"]);
    const { version: other } = await run<{ version: string }>("createToBe", { source: version, name: "To-be" });
    await expect(askFor("r", ["oran"], { version: other })).rejects.toMatchObject({ status: 409 });
    // A to-be begins without rounds: they were about another state.
    expect((await run<{ reviews: ReviewRow[] }>("listReviews", { version: other })).reviews).toEqual([]);
  });
});

describe("whose answer a round waits for", () => {
  test("those who have not answered; of several rounds on a version only the last one", async () => {
    await askFor("r");
    expect([await waiting(oran), await waiting(tess), await waiting(localMember)]).toEqual([["r"], ["r"], []]);
    await say(oran, "approve");
    expect(await waiting(oran)).toEqual([]);
    await change();
    await askFor("again", ["oran"], { due: "2027-03-01" });
    expect([await waiting(oran), await waiting(tess)]).toEqual([["again"], []]);
    await run("withdrawReview", { version, review: "again" });
    expect(await waiting(tess)).toEqual(["r"]);
  });
});

describe("in the handbook", () => {
  const handbook = async () => {
    const about = { kind: "version", version };
    const asked = { about, kind: "md", parts: ["steps", "changes"], language: null, title: "" };
    const { bytes } = await runUseCase(localMember, fileUseCases.handbookFile, asked);
    return new TextDecoder().decode(bytes);
  };

  test("who approved stands in it as long as it holds; afterwards what has changed since", async () => {
    const { revision } = await askFor("r", ["oran"]);
    expect(await handbook()).not.toContain("**Approved:**");
    await say(oran, "approve");
    expect(await handbook()).toMatch(/\*\*Approved:\*\* Oran Veltri, \d{4}-/);
    expect(await handbook()).toContain(`Nothing has changed since revision ${revision}`);
    await send(version, { type: "rename", id: "check", name: "Look at it" });
    const words = await handbook();
    expect(words).not.toContain("**Approved:**");
    expect(words).toMatch(new RegExp(`Since revision ${revision}[\\s\\S]*Look at it`));
  });
});
