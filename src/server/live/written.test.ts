import { afterAll, beforeEach, describe, expect, test } from "vitest";
import type { WrittenRow } from "@/contract/live";
import { chain, end, file, node, processOf, start, task } from "@/core/live/testing/models";
import { fileUseCases, localMember, runUseCase } from "@/server";
import { leaveWorkspace, openWorkspace, run } from "../testing/workspace";
import { started } from "./testing/startedRun";
import { passTime } from "./ticking";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

interface Written {
  readonly stores: readonly string[];
  readonly rows: readonly WrittenRow[];
  readonly total: number;
}
const store = (step: string) =>
  `<dataOutputAssociation id="${step}-out"><targetRef>register</targetRef></dataOutputAssociation>`;
const text = file(
  processOf(
    '<dataStoreReference id="register" name="Plant register"/>' +
      start +
      task("record", store("record")) +
      node("serviceTask", "enter", store("enter")) +
      task("tell") +
      end +
      chain("s", "record", "enter", "tell", "e"),
  ),
);

describe("a database that is stood in for", () => {
  test("keeps a row each time a step writes into it, with what the case held then and who wrote", async () => {
    const { at, begin, complete } = await started(text, 0);
    await begin({ power: 5 });
    await complete("record", { roof: "flat" });
    await run("setClock", { ...at, to: "next" });
    await passTime();
    await complete("tell", { told: true });
    const { stores, rows, total } = await run<Written>("listWritten", at);
    expect(stores).toEqual(["Plant register"]);
    expect(total).toBe(2);
    expect(rows.map(({ step, number, data }) => [step, number, data])).toEqual([
      ["enter", 1, { power: 5, roof: "flat" }],
      ["record", 1, { power: 5, roof: "flat" }],
    ]);
    expect((await run<Written>("listWritten", { ...at, count: 1, from: 1 })).rows.map(({ step }) => step)).toEqual([
      "record",
    ]);
    expect((await run<Written>("listWritten", { ...at, store: "another" })).rows).toEqual([]);
  });

  test("where no step writes there is none", async () => {
    const { at } = await started(file(processOf(start + task("a") + end + chain("s", "a", "e"))));
    expect(await run<Written>("listWritten", at)).toEqual({ stores: [], rows: [], total: 0 });
  });

  test("the log names who did what; anonymised it does not", async () => {
    const { at, begin, complete } = await started(file(processOf(start + task("a") + end + chain("s", "a", "e"))));
    await begin();
    await complete("a");
    const log = (more: object) => runUseCase(localMember, fileUseCases.downloadLog, { ...at, ...more });
    const plain = (await log({ as: "csv" })).text;
    expect(plain.split("\r\n")[0]).toBe("\uFEFFcase,activity,timestamp,lifecycle,role,resource");
    expect(plain).toContain("Mara Aldous");
    expect((await log({ as: "xes" })).text).toContain('<string key="org:resource" value="Mara Aldous"/>');
    const hidden = (await log({ as: "xes", isAnonymised: true })).text;
    expect(hidden).not.toContain("Mara");
    expect(hidden).toContain('<string key="org:resource" value="Person 1"/>');
  });
});
