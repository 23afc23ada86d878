import { describe, expect, test } from "vitest";
import { packedLog, readLogCsv } from "@/core/evidence";
import type { Lens, LensCondition } from "@/core/lens";
import { chain, end, file, modelOf, processOf, start, task } from "@/core/live/testing/models";
import { expectOk } from "@/core/testing/models";
import { deviations, type LensedInput, lensed } from "./lenses";

const model = modelOf(
  file(processOf(`${start}${task("first")}${task("second")}${end}${chain("s", "first", "second", "e")}`)),
);
/** Ten cases, of which three leave the second step out, and one of them begins it twice. */
const log = expectOk(
  readLogCsv([
    "case,activity\n",
    ...Array.from({ length: 10 }, (_, at) => `${at},first\n${at < 3 ? "" : `${at},second\n`}`),
  ]),
);
const packed = async () => {
  const stream = new Blob([packedLog(log).slice()]).stream().pipeThrough(new CompressionStream("gzip"));
  return new Uint8Array(await new Response(stream).arrayBuffer());
};
const held = async (name: string) => ({ log: name, packed: await packed(), filters: [], steps: {} });
const lens = (condition: LensCondition): Lens => ({
  ...{ name: "x", which: "all", feel: "", pen: "teal", line: "solid", sign: "eye", conditions: [condition] },
});
const quiet = () => undefined;
const marked = async (condition: LensCondition, more: Partial<LensedInput> = {}) =>
  (await lensed({ model }, { lenses: [lens(condition)], roles: [], decisions: [], ...more }, quiet))[0]?.marked;

describe("what lenses mark, found out in a thread", () => {
  test("deviations are the share of cases in which something differs at an element", async () => {
    expect(await deviations({ model }, await held("a"), quiet)).toEqual([["second", 0.3]]);
    const more = { log: await held("b") };
    expect(await marked({ field: "deviates", test: "more", value: 0.2 }, more)).toEqual(["second"]);
    expect(await marked({ field: "deviates", test: "more", value: 0.3 }, more)).toEqual([]);
    // Without a log nobody knows.
    expect(await marked({ field: "deviates", test: "isMissing" })).toContain("second");
  });

  test("comments and what a run says are taken as they are told; where nothing stands, none does", async () => {
    expect(await marked({ field: "comments", test: "more", value: 0 }, { comments: [["first", 2]] })).toEqual([
      "first",
    ]);
    expect(await marked({ field: "cases", test: "less", value: 1 }, { cases: [["first", 4]] })).not.toContain("first");
    expect(await marked({ field: "incidents", test: "isMissing" })).toContain("first");
  });

  test("each lens has its own marks, in the order they were asked for", async () => {
    const asked = [
      lens({ field: "name", test: "is", value: "second" }),
      lens({ field: "name", test: "is", value: "first" }),
    ];
    const told = await lensed({ model }, { lenses: asked, roles: [], decisions: [] }, quiet);
    expect(told.map(({ marked: ids }) => ids)).toEqual([["second"], ["first"]]);
    expect(await lensed({ model }, { lenses: [], roles: [], decisions: [] }, quiet)).toEqual([]);
  });
});
