import { afterAll, afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { goneAfter, type Here } from "@/contract/presence";
import { hearFeed, localMember, type Member, runUseCase, useCases } from "@/server";
import { whoIsHere } from "../kernel/events";
import { leaveWorkspace, makeProcess, openWorkspace } from "../testing/workspace";

beforeEach(async () => {
  await openWorkspace();
  await makeProcess();
  // Whoever another test has let come.
  for (const { window } of whoIsHere("v")) await say(localMember, window, { isGone: true });
});
afterEach(() => vi.useRealTimers());
afterAll(leaveWorkspace);

const oran: Member = { id: "oran", name: "Oran Veltri", rights: ["read"] };
const say = async (member: Member, window: string, more: object = {}) =>
  (
    (await runUseCase(member, useCases.sayWhereIAm, {
      ...{ window, version: "v", stage: "diagram", page: null, selection: [], view: null, isGone: false },
      ...more,
    })) as { others: readonly Here[] }
  ).others.map(({ name, stage, selection }) => `${name}, ${stage}, ${selection.join(" ")}`);

/** What windows are told of who is where. */
function listening() {
  const heard: Here[] = [];
  const stop = hearFeed(localMember, null, (_, text) => {
    const { here } = JSON.parse(text) as { here?: Here };
    if (here) heard.push(here);
  });
  return { heard, stop };
}

describe("who is here", () => {
  test("is told to who comes, and to who is there already; who goes is gone", async () => {
    expect(await say(localMember, "one")).toEqual([]);
    const { heard, stop } = listening();
    expect(await say(oran, "two", { selection: ["check"] })).toEqual(["Mara Aldous, diagram, "]);
    expect(heard.map(({ member, selection }) => [member, selection])).toEqual([["oran", ["check"]]]);
    expect(await say(localMember, "one")).toEqual(["Oran Veltri, diagram, check"]);
    await say(oran, "two", { isGone: true });
    expect(heard.at(-1)?.isGone).toBe(true);
    expect(await say(localMember, "one")).toEqual([]);
    stop();
  });

  test("says nothing of other versions, and forgets who has not been heard of for long", async () => {
    await say(oran, "three", { version: "elsewhere" }).catch(() => undefined);
    await say(oran, "two");
    expect(await say(localMember, "one")).toEqual(["Oran Veltri, diagram, "]);
    vi.useFakeTimers({ now: Date.now() + (goneAfter + 1) * 1_000, toFake: ["Date"] });
    expect(await say(localMember, "one")).toEqual([]);
  });

  test("is in the name of who asks, whatever is sent; and no window remembers it as something that happened", async () => {
    const { heard, stop } = listening();
    await say(oran, "two", { member: "member-local", name: "Mara Aldous" }).catch(() => undefined);
    await say(oran, "two");
    expect(new Set(heard.map(({ name }) => name))).toEqual(new Set(["Oran Veltri"]));
    stop();
    const late = listening();
    expect(late.heard).toEqual([]);
    late.stop();
  });

  test("with thousands chosen says that somebody is there, within what a database carries", async () => {
    const { heard, stop } = listening();
    await say(oran, "two", { selection: Array.from({ length: 50 }, (_, at) => `${at}${"x".repeat(190)}`) });
    expect(heard.at(-1)?.selection).toEqual([]);
    stop();
  });
});
