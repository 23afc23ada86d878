import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { estimatesOf } from "../scenario";
import { expectOk, performAll, smallModel } from "../testing/models";
import { brokenInvariants, currentSchemaVersion, fromStored, type LoggedEdits, toStored } from ".";

/** A golden file for each form that a release has carried: a head with its log, and a revision. */
const golden = (form: number) =>
  JSON.parse(readFileSync(new URL(`golden/form-${form}.json`, import.meta.url), "utf8")) as {
    readonly head: { readonly snapshot: unknown };
    readonly log: readonly LoggedEdits[];
    readonly revision: unknown;
  };

test("each past form has a golden file, and opens with what its log says was done since", () => {
  for (let form = 1; form < currentSchemaVersion; form++) {
    const { head, log, revision } = golden(form);
    const edits = log.map((batch) => ({ ...batch, form }));
    const model = expectOk(fromStored(head.snapshot, { edits }));
    expect(brokenInvariants(model)).toEqual([]);
    expect(model.elements.get("check")?.name).toBe("Check the application");
    expect(estimatesOf(model).get("check")).toEqual({ time: "PT45M", cost: 12.5 });
    expect(estimatesOf(expectOk(fromStored(revision))).get("check")).toEqual({ time: "PT30M", cost: 12.5 });
  }
});

test("a log goes on over a change of form: older batches in their form, newer ones in this", () => {
  const { head, log } = golden(1);
  const older = log.map((batch) => ({ ...batch, form: 1 }));
  const newer: LoggedEdits = {
    sequence: log.length + 1,
    form: currentSchemaVersion,
    edits: [{ kind: "set", table: "figures", id: "check processingTime", field: "value", from: "PT45M", to: "PT50M" }],
  };
  const model = expectOk(fromStored(head.snapshot, { edits: [...older, newer] }));
  expect(estimatesOf(model).get("check")?.time).toBe("PT50M");
});

test("what is opened is what was stored", () => {
  const model = performAll(smallModel(), { type: "setEstimate", id: "check", time: "5 min", cost: 2 });
  const stored = JSON.parse(JSON.stringify(toStored(model)));
  expect(toStored(expectOk(fromStored(stored)))).toEqual(toStored(model));
});

const stored = () => JSON.parse(JSON.stringify(toStored(smallModel())));
test.each<[what: string, change: (model: ReturnType<typeof stored>) => void, code: string]>([
  ["a shape without bounds", (model) => delete model.shapes[0].bounds, "not-a-model"],
  ["no root", (model) => (model.root = "nobody"), "not-a-model"],
  [
    "a circle of parents",
    (model) => (model.elements.find((one: { id: string }) => one.id === "desk").parent = "desk"),
    "not-a-model",
  ],
  ["a newer form", (model) => (model.schemaVersion = 99), "newer-schema"],
  ["a form without its number", (model) => (model.schemaVersion = -1), "not-a-model"],
])("%s is told as damage, not opened", (_, change, code) => {
  const model = stored();
  change(model);
  const opened = fromStored(model);
  expect(opened.ok || opened.problems[0]?.code).toBe(code);
});

test("a log that does not fit says which change", () => {
  const edits: LoggedEdits[] = [
    {
      sequence: 7,
      form: currentSchemaVersion,
      edits: [{ kind: "set", table: "elements", id: "gone", field: "name", from: null, to: "x" }],
    },
  ];
  const opened = fromStored(stored(), { edits });
  expect(opened.ok || opened.problems[0]?.message).toContain("change 7");
});
