import { afterAll, beforeEach, expect, test } from "vitest";
import { compareModels } from "@/core/compare";
import { counterpartsOf, type StoredModel, trustStored } from "@/core/model";
import { leaveWorkspace, makeProcess, nameOfElement, openWorkspace, run, send } from "../testing/workspace";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

const modelOf = async (version: string) =>
  trustStored((await run<{ model: StoredModel }>("openVersion", { version })).model);

test("a to-be that is adopted becomes the as-is; the old one stays in its history, and other to-bes keep their links", async () => {
  const { version, diagram } = await makeProcess();
  const { version: first } = await run<{ version: string }>("createToBe", {
    source: version,
    name: "Less by hand",
    aim: "Nobody copies figures.",
  });
  const { version: second } = await run<{ version: string }>("createToBe", { source: version, name: "Other way" });
  await send(first, { type: "rename", id: "check", name: "Check by itself" });
  await send(first, {
    type: "append",
    diagram,
    from: "check",
    id: "tell",
    flow: "tell-flow",
    kind: { type: "sendTask" },
    name: "Tell household",
  });
  const { number } = await run<{ number: number }>("adoptToBe", { version: first });
  const now = await modelOf(version);
  expect(compareModels(now, await modelOf(first)).changes).toEqual([]);
  expect([...now.elements].flatMap(counterpartsOf)).toEqual([]);
  const { revisions } = await run<{ revisions: { number: number; reason: string }[] }>("listRevisions", { version });
  expect(revisions.slice(0, 2).map(({ reason }) => reason)).toEqual([
    "“Less by hand” adopted",
    "before adopting “Less by hand”",
  ]);
  expect(revisions[0]?.number).toBe(number);
  const old = await run<{ model: StoredModel }>("openRevision", { version, number: number - 1 });
  expect(trustStored(old.model).elements.get("check")?.name).toBe("Check application");
  const { counterparts } = await run<{ counterparts: { element: string; name: string }[] }>("listCounterparts", {
    version: second,
    element: "check",
  });
  expect(counterparts.map(({ name }) => name)).toEqual(["Check by itself", "Check by itself"]);
  await expect(run("adoptToBe", { version })).rejects.toThrow("as-is already");
  const info = await run<{ siblings: { id: string; aim: string; adoptedAt: string | null }[] }>("openVersion", {
    version,
  });
  expect(info.siblings.find(({ id }) => id === first)).toMatchObject({ aim: "Nobody copies figures." });
  expect(info.siblings.find(({ id }) => id === first)?.adoptedAt).not.toBeNull();
  expect(await nameOfElement(second, "check")).toBe("Check application");
});

test("links are made and removed by hand, also to several", async () => {
  const { version, diagram } = await makeProcess();
  const { version: toBe } = await run<{ version: string }>("createToBe", { source: version, name: "Parted" });
  await send(toBe, {
    type: "append",
    diagram,
    from: "check",
    id: "second",
    flow: "f",
    kind: { type: "userTask" },
    name: "Check the plant",
  });
  await send(toBe, { type: "setCounterparts", id: "second", counterparts: ["check"] });
  const found = await run<{ counterparts: { element: string }[] }>("listCounterparts", { version, element: "check" });
  expect(found.counterparts.map(({ element }) => element).sort()).toEqual(["check", "second"]);
  await send(toBe, { type: "setCounterparts", id: "check", counterparts: [] });
  const left = await run<{ counterparts: { element: string }[] }>("listCounterparts", { version, element: "check" });
  expect(left.counterparts.map(({ element }) => element)).toEqual(["second"]);
  const none = await run<{ counterparts: unknown[] }>("listCounterparts", { version: toBe, element: "check" });
  expect(none.counterparts).toEqual([]);
});

test("a reason stays with its change until it is taken back", async () => {
  const { version } = await makeProcess();
  const { version: toBe } = await run<{ version: string }>("createToBe", { source: version, name: "Quicker" });
  const reason = { pains: ["waiting"], note: "A week lies between.", effect: "A week less", state: "proposed" };
  const change = { version: toBe, against: version, change: "check", words: "Check is gone." };
  await run("giveReason", { ...change, reason });
  await run("giveReason", { ...change, reason: { ...reason, state: "agreed" } });
  const listed = () =>
    run<{ reasons: { reason: { state: string } }[] }>("listReasons", { version: toBe, against: version });
  expect((await listed()).reasons.map((row) => row.reason.state)).toEqual(["agreed"]);
  await run("giveReason", { ...change, reason: null });
  expect((await listed()).reasons).toEqual([]);
});

test("who changed an element last, and how; and what was done between two states", async () => {
  const { version } = await makeProcess();
  await send(version, { type: "rename", id: "check", name: "Check papers" });
  await run("nameRevision", { version, reason: "as agreed" });
  await send(version, { type: "describe", id: "check", text: "Look at every page." });
  const { changes } = await run<{ changes: { label: string; member: string; sequence: number }[] }>("elementHistory", {
    version,
    element: "check",
  });
  expect(changes.map(({ label }) => label)).toEqual([
    expect.stringContaining("Check papers"),
    expect.stringContaining("Check papers"),
    expect.stringContaining("Check application"),
  ]);
  expect(changes[0]?.member).toBe("Mara Aldous");
  const { revisions } = await run<{ revisions: { sequence: number }[] }>("listRevisions", { version });
  const between = await run<{ changes: unknown[] }>("listHistory", {
    version,
    after: revisions[0]?.sequence,
    upTo: 1_000,
  });
  expect(between.changes).toHaveLength(1);
});
