import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { type LensRow, mostLenses } from "@/contract/lenses";
import type { Lens } from "@/core/lens";
import { smallModel } from "@/core/testing/models";
import { localMember, runUseCase } from "@/server";
import { exportPicture } from "../files/exports";
import { closeWorkspace, importModel, openWorkspace, run } from "../testing/workspace";

beforeEach(() => openWorkspace());
afterAll(closeWorkspace);

const lens = (name: string): Lens => ({
  ...{ name, which: "all", feel: "", pen: "teal", line: "double", sign: "machine" },
  conditions: [{ field: "system", test: "isMissing" }],
});
const save = (id: string, content: Lens, revision: number) =>
  run<{ revision: number }>("saveLens", { id, lens: content, revision });
const names = async () =>
  (await run<{ lenses: LensRow[] }>("listLenses", {})).lenses.map((row) => `${row.lens.name} ${row.revision}`);

describe("a lens", () => {
  test("is kept for everybody, changed on what it was, deleted and brought back", async () => {
    await save("a", lens("No system"), 0);
    await save("b", lens("Another"), 0);
    expect(await names()).toEqual(["No system 1", "Another 1"]);
    expect(await save("a", lens("No system at all"), 1)).toEqual({ revision: 2 });
    // Two windows from one state: the second is told.
    await expect(save("a", lens("Otherwise"), 1)).rejects.toMatchObject({ code: "changed-elsewhere", status: 409 });
    await run("deleteLens", { id: "a" });
    expect(await names()).toEqual(["Another 1"]);
    await expect(run("deleteLens", { id: "a" })).rejects.toMatchObject({ status: 404 });
    await run("restoreLens", { id: "a" });
    await run("restoreLens", { id: "a" });
    expect(await names()).toEqual(["No system at all 2", "Another 1"]);
    await run("deleteLens", { id: "a" });
    expect(await save("a", lens("Once more"), 2)).toEqual({ revision: 3 });
    expect(await names()).toEqual(["Once more 3", "Another 1"]);
  });

  test("whose answer was lost is kept once; of two new ones at once under one id one is told", async () => {
    expect(await save("a", lens("No system"), 0)).toEqual({ revision: 1 });
    expect(await save("a", lens("No system"), 0)).toEqual({ revision: 1 });
    const both = await Promise.allSettled([save("c", lens("One"), 0), save("c", lens("Two"), 0)]);
    expect(both.map(({ status }) => status).sort()).toEqual(["fulfilled", "rejected"]);
  });

  test("is one of so many at most", async () => {
    for (let at = 0; at < mostLenses; at++) await save(`l${at}`, lens(`Lens ${at}`), 0);
    await expect(save("more", lens("More"), 0)).rejects.toMatchObject({ code: "too-many" });
    await run("deleteLens", { id: "l0" });
    await save("more", lens("More"), 0);
    await expect(run("restoreLens", { id: "l0" })).rejects.toMatchObject({ code: "too-many" });
  });

  test("goes along into a picture, with what it means", async () => {
    const version = await importModel("Applications", smallModel());
    const seen = { name: "Waits <long>", pen: "brick", line: "dotted", sign: "clock", marked: ["check", "not there"] };
    const { bytes } = await runUseCase(localMember, exportPicture, { version, format: "svg", lenses: [seen] });
    const svg = new TextDecoder().decode(bytes);
    expect(svg).toContain('data-element="lens check"');
    expect(svg).toContain("#A63A2B");
    expect(svg).toContain(">Waits &lt;long&gt;</text>");
    const { bytes: paper } = await runUseCase(localMember, exportPicture, { version, format: "pdf", lenses: [seen] });
    expect(new TextDecoder("latin1").decode(paper.slice(0, 5))).toBe("%PDF-");
  });
});
