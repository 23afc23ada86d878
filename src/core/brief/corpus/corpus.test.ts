import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../../bpmn";
import { checkModel, processVerdicts } from "../../check";
import { brokenInvariants } from "../../model";
import { expectOk } from "../../testing/models";
import { asOneModel, buildAll } from "../buildAll";
import { emptyBrief } from "../document";
import { markAll } from "../markAll";
import { markedText } from "../markedText";
import { readBrief } from "../sentences";
import { suggestMarks } from "../suggest/suggest";
import { measure, totalOf, withoutMarks } from "./measure";

/**
 * Sixty descriptions written for this test and marked by hand. Rules were written with those in `known` at hand; of those in `unseen`
 * only the sums were looked at.
 */
const texts = (half: "known" | "unseen") => {
  const folder = join(import.meta.dirname, half);
  return readdirSync(folder).map((name) => [name, readFileSync(join(folder, name), "utf8")] as const);
};

describe.each([
  ["known", 0.96, 0.99, 0.97],
  ["unseen", 0.93, 0.95, 0.9],
] as const)("the %s half", (half, marks, marked, unmarked) => {
  test("marks and built processes are right as often as they were", () => {
    const all = texts(half);
    expect(all).toHaveLength(30);
    const total = totalOf(all.map(([, text]) => measure(text)));
    expect(total.marks.share).toBeGreaterThanOrEqual(marks);
    expect(total.marked.share).toBeGreaterThanOrEqual(marked);
    expect(total.unmarked.share).toBeGreaterThanOrEqual(unmarked);
  }, 180_000);

  test.each(texts(half))("%s becomes whole and sound processes, marked by hand or not", (_, file) => {
    const [words = ""] = file.split(/^--- facts$/m);
    const plain = markedText(withoutMarks(words));
    for (const document of [markedText(words), markAll(plain, suggestMarks(readBrief(plain), [], []))]) {
      const built = expectOk(buildAll({ ...emptyBrief, document }));
      const model = asOneModel(built.map((one) => one.model));
      expect(brokenInvariants(model)).toEqual([]);
      const read = expectOk(readBpmn(new TextEncoder().encode(writeBpmn(model))));
      expect(processVerdicts(read).every(({ sound }) => sound === true)).toBe(true);
      expect(checkModel(read).filter(({ severity }) => severity === "error")).toEqual([]);
    }
  });
});
