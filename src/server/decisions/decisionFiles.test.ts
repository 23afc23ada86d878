import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { type DecisionEdit, documentText, edited, openDocument, tableFileText } from "@/core/decisions";
import { expectOk } from "@/core/testing/models";
import { leaveWorkspace, makeProcess, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);
beforeEach(async () => {
  await openWorkspace();
});

/** A file with a table that answers with some words. */
function withAnswers(...answers: readonly string[]): string {
  const document = expectOk(openDocument(new TextEncoder().encode(tableFileText("Inspections", "inspection"))));
  const edit: DecisionEdit = {
    type: "table",
    id: "decision",
    sheet: {
      hitPolicy: "FIRST",
      aggregator: undefined,
      inputs: [{ expression: "rated power", type: "number", allowed: "", label: "" }],
      outputs: [{ name: "", label: "", type: "string", allowed: "", usual: "", from: 0 }],
      notes: [],
      rules: answers.map((answer, at) => ({
        inputs: [`<= ${(at + 1) * 10}`],
        outputs: [JSON.stringify(answer)],
        notes: [],
      })),
    },
  };
  return documentText(expectOk(edited(document, edit)));
}

interface File {
  readonly id: string;
  readonly name: string;
  readonly decisions: readonly { id: string; name: string; answers: readonly string[] | null }[];
  readonly uses: number;
}
const files = async () => (await run<{ files: File[] }>("listDecisionFiles", {})).files;
const make = (content?: string) =>
  run<{ id: string }>("createDecisionFile", { id: "d", name: "Inspections", ...(content && { content }) });
const save = (base: number, content: string, more: { save?: string; unanswered?: string[] } = {}) =>
  run<{ revision: number }>("saveDecisionFile", { id: "d", base, save: "s", unanswered: [], content, ...more });
const opened = () =>
  run<{ content: string; revision: number; uses: { element: string }[] }>("openDecisionFile", { id: "d" });

describe("a file of decisions", () => {
  test("is listed with what it decides and what can come out", async () => {
    await make(withAnswers("none", "full"));
    expect(await files()).toMatchObject([
      { name: "Inspections", uses: 0, decisions: [{ name: "inspection", answers: ["none", "full"] }] },
    ]);
  });
  test("begins empty, and is never what cannot be read", async () => {
    await make();
    const { content, revision } = await opened();
    expect(content).toContain('name="Inspections"');
    for (const wrong of ["<a/>", "no xml", '<!DOCTYPE x [<!ENTITY e "e">]><x/>'])
      await expect(save(revision, wrong)).rejects.toMatchObject({ code: "no-decisions" });
    expect((await opened()).content).toBe(content);
  });
  test("is not overwritten by who did not see the last change; a save whose answer was lost is known again", async () => {
    await make();
    const first = await save(1, withAnswers("a"), { save: "one" });
    await expect(save(1, withAnswers("b"), { save: "two" })).rejects.toMatchObject({ code: "changed-elsewhere" });
    // The same save once more, and one that builds on an answer that was lost.
    await save(1, withAnswers("a"), { save: "one" });
    const again = await save(1, withAnswers("c"), { save: "three", unanswered: ["one"] });
    expect(again.revision).toBeGreaterThan(first.revision);
    expect((await opened()).content).toContain("c");
  });
  test("of two saves at once on one state, one is refused", async () => {
    await make();
    const both = await Promise.allSettled([
      save(1, withAnswers("a"), { save: "one" }),
      save(1, withAnswers("b"), { save: "two" }),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual(["fulfilled", "rejected"]);
  });
});

describe("a step that decides by it", () => {
  const tie = async () => {
    const { version } = await makeProcess();
    await make(withAnswers("none", "full"));
    await send(
      version,
      { type: "retype", id: "check", to: "businessRuleTask" },
      {
        type: "decideBy",
        id: "check",
        to: { file: "d", decision: "decision", name: "inspection", answers: ["none", "full"] },
      },
    );
    return version;
  };
  const stepOf = async (version: string) =>
    JSON.stringify(
      (await run<{ model: { elements: { id: string }[] } }>("openVersion", { version })).model.elements.find(
        ({ id }) => id === "check",
      ),
    );

  test("is told where the file is used, and keeps it from being deleted", async () => {
    await tie();
    expect((await files())[0]?.uses).toBe(1);
    expect((await opened()).uses).toMatchObject([{ element: "check" }]);
    await expect(run("deleteDecisionFile", { id: "d" })).rejects.toMatchObject({ code: "in-use" });
  });
  test("knows what can come out after each change of the table", async () => {
    const version = await tie();
    await save(1, withAnswers("none", "by photo"));
    expect(await stepOf(version)).toContain("by photo");
    expect(await stepOf(version)).not.toContain("full");
  });
});

test("decisions are found by a part of their name, and by that of their file", async () => {
  await make(withAnswers("none"));
  const found = async (text: string) =>
    (await run<{ found: { kind: string; title: string }[] }>("find", { text })).found.map(({ kind, title }) => [
      kind,
      title,
    ]);
  expect(await found("nspectio")).toEqual([
    ["decision", "Inspections"],
    ["decision", "inspection"],
  ]);
  expect(await found("50 %")).toEqual([]);
});

test("a file that is not used goes and comes back", async () => {
  await make();
  await run("deleteDecisionFile", { id: "d" });
  expect(await files()).toEqual([]);
  await expect(opened()).rejects.toMatchObject({ status: 404 });
  expect(await run("decisionTexts", { ids: ["d"] })).toEqual({ files: [] });
  await run("restoreDecisionFile", { id: "d" });
  expect((await run<{ files: object[] }>("decisionTexts", { ids: ["d", "other"] })).files).toHaveLength(1);
});
