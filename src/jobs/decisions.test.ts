import { describe, expect, test } from "vitest";
import { inspectionDecisions } from "@/demo/decisions";
import { readDecisionFile } from "./decisionFiles";
import { decisionFindings, decisionProposals } from "./decisions";

const content = inspectionDecisions();
const tell = () => {};
/** The table of the risk with its second rule taken out. */
const open = content.replace(/<rule(?:(?!<\/rule>)[\s\S])*&gt; 10[\s\S]*?<\/rule>/, "");

describe("a decision of a file", () => {
  test("is proven, and its test cases are run", async () => {
    const found = await decisionFindings({}, { content, decision: "inspection" }, tell);
    expect(found.proof).toMatchObject({ complete: true, overlaps: [] });
    expect(found.outcomes.length).toBeGreaterThan(2);
    expect(found.outcomes.every(({ isPassed }) => isPassed)).toBe(true);
  });
  test("gets what would make it whole", async () => {
    const asked = { content: open, decision: "grid-risk" };
    expect((await decisionFindings({}, asked, tell)).proof?.complete).toBe(false);
    expect((await decisionProposals({}, asked, tell)).missing).toEqual({ rules: [["[0..2)", "> 10"]], isFewest: true });
    expect(await decisionProposals({}, { content, decision: "expected-rise" }, tell)).toEqual({
      missing: undefined,
      joined: undefined,
    });
  });
  test("that is not there, or in a file that cannot be read, gives nothing", async () => {
    for (const asked of [
      { content, decision: "none" },
      { content: "<a/>", decision: "inspection" },
    ]) {
      expect(await decisionFindings({}, asked, tell)).toEqual({ proof: undefined, outcomes: [] });
      expect(await decisionProposals({}, asked, tell)).toEqual({ missing: undefined, joined: undefined });
    }
  });
});

test("a file says what it decides and what can come out; what is none says why", async () => {
  expect(await readDecisionFile({}, { content }, tell)).toMatchObject({
    name: "Inspections",
    decisions: [
      { id: "expected-rise", answers: null },
      { id: "grid-risk", answers: ["low", "raised", "high"] },
      { id: "inspection", answers: ["none", "by photo", "on site"] },
    ],
  });
  expect(await readDecisionFile({}, { content: "<a>" }, tell)).toMatchObject({
    problem: { message: expect.stringMatching(/XML/) },
  });
});
