import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { checkModel, type Finding, keyOf } from "@/core/check";
import { type StoredModel, trustStored } from "@/core/model";
import { leaveWorkspace, makeProcess, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);
beforeEach(async () => {
  await openWorkspace();
});

interface Opened {
  readonly profile: string;
  readonly adaption: object;
  readonly waivers: readonly { readonly finding: string; readonly reason: string; readonly member: string }[];
  readonly verdicts: readonly {
    readonly revision: number;
    readonly profile: string;
    readonly holds: boolean;
    readonly member: string;
    readonly content: { readonly counts: { readonly error: number }; readonly waivers: readonly unknown[] };
  }[];
}
const opened = () => run<Opened>("openCheck", { version: "v" });
const findings = async (): Promise<Finding[]> => {
  const { model } = await run<{ model: StoredModel }>("openVersion", { version: "v" });
  return checkModel(trustStored(model));
};

/** Start, check, end: nothing is wrong with it. */
async function makeWhole(): Promise<string> {
  const { diagram } = await makeProcess();
  await send(
    "v",
    {
      type: "place",
      diagram,
      id: "start",
      kind: { type: "startEvent" },
      at: { x: 60, y: 100 },
      name: "Application received",
    },
    { type: "connect", diagram, id: "f1", source: "start", target: "check" },
    {
      type: "append",
      diagram,
      from: "check",
      id: "end",
      flow: "f2",
      kind: { type: "endEvent" },
      name: "Application checked",
    },
  );
  return diagram;
}

/** The same with a step that nothing leads to: an error. */
async function makeFaulty(): Promise<void> {
  const diagram = await makeWhole();
  await send("v", {
    type: "place",
    diagram,
    id: "lost",
    kind: { type: "task" },
    at: { x: 200, y: 260 },
    name: "Archive papers",
  });
}

describe("accepting a finding", () => {
  test("keeps who and why; withdrawn, it is open again", async () => {
    await makeFaulty();
    const [error] = (await findings()).filter((one) => one.severity === "error");
    const finding = keyOf(error as Finding);
    await run("waive", { version: "v", finding, reason: "Only a sketch so far." });
    expect((await opened()).waivers).toMatchObject([
      { finding, reason: "Only a sketch so far.", member: "Mara Aldous" },
    ]);
    // A better reason takes the place of the first.
    await run("waive", { version: "v", finding, reason: "It is drawn next week." });
    expect((await opened()).waivers).toMatchObject([{ reason: "It is drawn next week." }]);
    await run("withdrawWaiver", { version: "v", finding });
    expect((await opened()).waivers).toEqual([]);
  });

  test("needs a reason, and a finding that is there", async () => {
    await makeFaulty();
    const [error] = await findings();
    await expect(run("waive", { version: "v", finding: keyOf(error as Finding), reason: " " })).rejects.toMatchObject({
      code: "bad-input",
    });
    await expect(
      run("waive", { version: "v", finding: "deadlock nowhere", reason: "No reason." }),
    ).rejects.toMatchObject({ code: "no-finding", status: 409 });
  });
});

describe("signing", () => {
  test("is refused while an error is open", async () => {
    await makeFaulty();
    await expect(run("signVerdict", { version: "v" })).rejects.toMatchObject({ code: "errors-open", status: 409 });
    expect((await opened()).verdicts).toEqual([]);
  });

  test("keeps a revision and holds until the next change; then it is signed anew", async () => {
    await makeWhole();
    const { revision } = await run<{ revision: number }>("signVerdict", { version: "v" });
    expect((await opened()).verdicts).toMatchObject([
      { revision, profile: "review", holds: true, member: "Mara Aldous", content: { counts: { error: 0 } } },
    ]);
    const { revisions } = await run<{ revisions: { number: number; reason: string }[] }>("listRevisions", {
      version: "v",
    });
    expect(revisions[0]).toMatchObject({ number: revision, reason: "signed" });
    await send("v", { type: "rename", id: "check", name: "Check the application" });
    expect((await opened()).verdicts).toMatchObject([{ revision, holds: false }]);
    await run("signVerdict", { version: "v" });
    expect((await opened()).verdicts.map(({ holds }) => holds)).toEqual([true, false]);
  });
});

describe("profiles", () => {
  test("a version is checked for what was chosen", async () => {
    await makeProcess();
    expect((await opened()).profile).toBe("review");
    await run("chooseProfile", { version: "v", profile: "draft" });
    expect((await opened()).profile).toBe("draft");
  });

  test("a workspace gives rules other levels, and takes them back, one by one", async () => {
    await makeWhole();
    await run("adaptRule", { profile: "review", rule: "no-way-in", level: "off" });
    await run("adaptRule", { profile: "draft", rule: "no-way-in", level: "error" });
    expect((await opened()).adaption).toMatchObject({
      review: { "no-way-in": "off" },
      draft: { "no-way-in": "error" },
    });
    await run("adaptRule", { profile: "review", rule: "no-way-in", level: null });
    const { adaption } = (await opened()) as { adaption: { review: object; draft: object } };
    expect(adaption.review).not.toHaveProperty("no-way-in");
    expect(adaption.draft).toEqual({ "no-way-in": "error" });
  });

  test("what is an error here stops signing, what is switched off does not", async () => {
    await makeFaulty();
    await expect(run("signVerdict", { version: "v" })).rejects.toMatchObject({ code: "errors-open" });
    const errors = (await findings()).filter((one) => one.severity === "error");
    for (const rule of new Set(errors.map((one) => one.rule)))
      await run("adaptRule", { profile: "review", rule, level: "off" });
    await run("signVerdict", { version: "v" });
    expect((await opened()).verdicts).toHaveLength(1);
  });
});

describe("kept walks", () => {
  const straight = { process: "", told: { start: "start" }, outcome: "completed", path: null };
  const kept = () => run<{ tests: { id: string; name: string }[] }>("listWalkTests", { version: "v" });

  test("stand in the order they were kept in, and are renamed and deleted", async () => {
    await makeWhole();
    const { model } = await run<{ model: StoredModel }>("openVersion", { version: "v" });
    const process = model.elements.find((one) => one.type === "process")?.id;
    const content = { ...straight, process };
    await run("keepWalkTests", {
      version: "v",
      tests: [
        { name: "First", content },
        { name: "Second", content },
      ],
    });
    await run("keepWalkTests", { version: "v", tests: [{ name: "Third", content }] });
    const { tests } = await kept();
    expect(tests.map((one) => one.name)).toEqual(["First", "Second", "Third"]);
    await run("changeWalkTest", { version: "v", test: tests[0]?.id, name: "Straight through" });
    await run("deleteWalkTest", { version: "v", test: tests[1]?.id });
    expect((await kept()).tests.map((one) => one.name)).toEqual(["Straight through", "Third"]);
  });
});

test("a verdict asked for again, since its answer was lost, is one signature; after a change of what was accepted it is another", async () => {
  await openWorkspace();
  await makeFaulty();
  for (const one of (await findings()).filter(({ severity }) => severity === "error"))
    await run("waive", { version: "v", finding: keyOf(one), reason: "for this test" });
  const first = await run("signVerdict", { version: "v" });
  expect(await run("signVerdict", { version: "v" })).toEqual(first);
  const count = async () => (await run<{ verdicts: unknown[] }>("openCheck", { version: "v" })).verdicts.length;
  expect(await count()).toBe(1);
  const [advice] = (await findings()).filter(({ severity }) => severity !== "error");
  if (advice) {
    await run("waive", { version: "v", finding: keyOf(advice), reason: "accepted later" });
    await run("signVerdict", { version: "v" });
    expect(await count()).toBe(2);
  }
});
