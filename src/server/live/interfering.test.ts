import { afterAll, beforeEach, describe, expect, test } from "vitest";
import type { CasePreview } from "@/contract/live";
import { chain, edge, end, file, flow, node, processOf, start, task, timer } from "@/core/live/testing/models";
import { leaveWorkspace, openWorkspace, run } from "../testing/workspace";
import { act, started } from "./testing/startedRun";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

const text = file(
  processOf(
    start +
      task("ask") +
      edge("late", "ask", timer("timeDuration", "P1D")) +
      node("exclusiveGateway", "g") +
      task("a") +
      task("b") +
      task("remind") +
      end +
      chain("s", "ask", "g") +
      flow("g", "a", "n > 1", "fa") +
      flow("g", "b", "n < 0", "fb") +
      chain("a", "e") +
      chain("b", "e") +
      chain("late", "remind", "e"),
  ),
);

describe("what would follow", () => {
  test.each<[what: string, doing: (wait: number) => object, ends: string[], comes: string[], state: string]>([
    ["leaving a step out", (wait) => ({ what: "skip", wait, values: { n: 5 } }), ["ask", "late"], ["a"], "open"],
    ["leaving it out undecided", (wait) => ({ what: "skip", wait }), ["ask", "late"], ["g"], "open"],
    ["moving on", (wait) => ({ what: "move", wait, to: "b" }), ["ask", "late"], ["b"], "open"],
    ["cancelling", () => ({ what: "cancel" }), ["ask", "late"], [], "cancelled"],
    ["suspending", () => ({ what: "suspend" }), [], [], "open"],
    ["changing data", () => ({ what: "data", values: { n: 7 } }), [], [], "open"],
  ])("of %s is told, nothing is done, and it is what then happens", async (_, doing, ends, comes, state) => {
    const { at, begin, open } = await started(text);
    const number = await begin();
    const before = await open(number);
    const wait = before.waits.find(({ kind }) => kind === "work")?.wait ?? 0;
    const asked = doing(wait) as { what: string; values?: object; to?: string };
    const preview = await run<CasePreview>("previewCase", { ...at, number, doing: asked });
    expect(preview).toMatchObject({ refused: null, state });
    expect(preview.ends.map(({ name }) => name).sort()).toEqual(ends);
    expect(preview.comes.map(({ name }) => name).sort()).toEqual(comes);
    expect(await open(number)).toEqual(before);
    const on = { ...at, number, act: act(), reason: "tried" };
    const useCases = {
      skip: () => run("skipStep", { ...on, wait, values: asked.values ?? {} }),
      move: () => run("moveToken", { ...on, wait, to: asked.to }),
      cancel: () => run("cancelCase", on),
      suspend: () => run("suspendCase", { ...on, isSuspended: true }),
      data: () => run("setCaseData", { ...on, values: asked.values }),
    };
    await useCases[asked.what as keyof typeof useCases]();
    const after = await open(number);
    expect(after.row.state).toBe(state);
    const left = before.waits.map(({ label }) => label).filter((label) => !ends.includes(label));
    expect(after.waits.map(({ label }) => label).sort()).toEqual([...left, ...comes].sort());
  });

  test("what the semantics forbid is refused in words, beforehand and when it is done", async () => {
    const { at, begin, open } = await started(text);
    const number = await begin();
    const wait = (await open(number)).waits.find(({ kind }) => kind === "work")?.wait ?? 0;
    const preview = (doing: object) => run<CasePreview>("previewCase", { ...at, number, doing });
    expect((await preview({ what: "move", wait, to: "nowhere" })).refused).toMatch(/can come there/);
    expect((await preview({ what: "happen", wait })).refused).toMatch(/no event/);
    expect((await preview({ what: "skip", wait: 999 })).refused).toMatch(/not waited for/);
    await run("endRun", at);
    expect((await preview({ what: "cancel" })).refused).toMatch(/has ended/);
    await expect(run("cancelCase", { ...at, number, act: act(), reason: "x" })).rejects.toMatchObject({
      code: "run-ended",
    });
  });
});
