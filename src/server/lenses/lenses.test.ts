import { gzipSync } from "node:zlib";
import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { type LensRow, mostLenses } from "@/contract/lenses";
import { packedLog, readLogCsv } from "@/core/evidence";
import type { Lens } from "@/core/lens";
import { performAll, smallModel } from "@/core/testing/models";
import { fileUseCases, localMember, openLink, openLinkPicture, runUseCase } from "@/server";
import { exportPicture } from "../files/exports";
import { importModel, leaveWorkspace, openWorkspace, run } from "../testing/workspace";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

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

describe("lenses laid over what others see", () => {
  const waits: Lens = {
    ...{ name: "Waits long", which: "all", feel: "", pen: "brick", line: "dashed", sign: "clock" },
    conditions: [{ field: "waits", test: "more", value: 3_600 }],
  };
  const talked: Lens = { ...waits, name: "Talked about", conditions: [{ field: "comments", test: "more", value: 0 }] };
  const skipped: Lens = {
    ...waits,
    name: "Often skipped",
    conditions: [{ field: "deviates", test: "more", value: 0.3 }],
  };
  const minutes = (count: number) => ({ kind: "constant" as const, value: count * 60 });
  const model = performAll(
    smallModel(),
    { type: "setAssumption", scenario: "estimates", element: "start", parameter: "interval", value: minutes(600) },
    { type: "setAssumption", scenario: "estimates", element: "approve", parameter: "transfer", value: minutes(180) },
  );
  /** The process with three lenses, something said of a step, and a log that leaves one out. */
  const prepared = async () => {
    const version = await importModel("Applications", model);
    for (const [id, content] of Object.entries({ waits, talked, skipped })) await save(id, content, 0);
    await run("startThread", {
      version,
      thread: "t",
      said: "s",
      about: { kind: "element", key: "reject", words: "Reject application" },
      text: "Why?",
      mentions: [],
      assigned: null,
    });
    const rows = Array.from({ length: 10 }, (_, at) =>
      ["Application received", ...(at < 4 ? [] : ["Check application"]), "Approve design", "Approved"]
        .filter((name) => !name.startsWith("App") || name === "Approve design")
        .map((name, place) => `${at},${name},2027-03-0${(at % 9) + 1} 1${place}:00`),
    ).flat();
    const log = readLogCsv([["case,activity,time", ...rows].join("\n")]);
    if (!log.ok) throw new Error("no log");
    const bytes = new Uint8Array(gzipSync(packedLog(log.value)));
    const facts = { cases: 10, events: rows.length, first: null, last: null };
    await runUseCase(localMember, fileUseCases.keepLog, { version, log: "log", name: "Log", facts, bytes });
    return version;
  };
  const marked = (svg: string, id: string) => svg.includes(`data-element="lens ${id}"`);
  const pictureOf = async (version: string, lensIds: readonly string[]) => {
    const { bytes } = await runUseCase(localMember, exportPicture, { version, format: "svg", lensIds });
    return new TextDecoder().decode(bytes);
  };

  test("mark what the forecast, the comments and the newest log say", async () => {
    const version = await prepared();
    for (const [lens, here, name] of [
      ["waits", "approve", "Waits long"],
      ["talked", "reject", "Talked about"],
      ["skipped", "check", "Often skipped"],
    ] as const) {
      const svg = await pictureOf(version, [lens]);
      expect(svg).toContain(name);
      for (const id of ["approve", "reject", "check"])
        expect([lens, id, marked(svg, id)]).toEqual([lens, id, id === here]);
    }
    // A log of the process holds for all its versions.
    const { version: toBe } = await run<{ version: string }>("createToBe", { source: version, name: "Faster" });
    expect(await pictureOf(toBe, ["skipped"])).toContain('data-element="lens ');
    const all = await pictureOf(version, ["waits", "talked", "skipped", "none"]);
    for (const id of ["approve", "reject", "check"]) expect(marked(all, id)).toBe(true);
    // One that was deleted is passed over.
    await run("deleteLens", { id: "talked" });
    expect(marked(await pictureOf(version, ["talked", "waits"]), "reject")).toBe(false);
  });

  test("go along with a link: its page and its picture, as current as the link", async () => {
    const version = await prepared();
    const made = { version, link: "l", name: "For the board", revision: null, until: null, password: null };
    const { token } = await run<{ token: string }>("makeLink", { ...made, lenses: ["talked"] });
    const picture = async () => {
      const opened = await openLinkPicture(token);
      return opened.kind === "picture" ? new TextDecoder().decode(opened.svg) : "";
    };
    const page = async () => {
      const opened = await openLink(token);
      return opened.kind === "page" ? new TextDecoder().decode(opened.html) : "";
    };
    expect(marked(await picture(), "reject")).toBe(true);
    expect(await page()).toContain("Talked about");
    expect(await page()).toContain('data-element="lens reject"');
    // What is settled is marked no more.
    await run("settleThread", { version, thread: "t", isResolved: true });
    expect(marked(await picture(), "reject")).toBe(false);
    const { token: plain } = await run<{ token: string }>("makeLink", { ...made, link: "m" });
    const opened = await openLink(plain);
    expect(opened.kind === "page" && new TextDecoder().decode(opened.html)).not.toContain("lens reject");
  });

  test.each(["html", "md", "pdf", "docx"] as const)("stand in a handbook as %s, with their legend", async (kind) => {
    const version = await prepared();
    const asked = { about: { kind: "version", version }, kind, parts: ["diagram"], language: null, title: "" };
    const made = async (lenses: readonly string[]) =>
      (await runUseCase(localMember, fileUseCases.handbookFile, { ...asked, lenses })).bytes;
    const [plain, with_] = [await made([]), await made(["waits"])];
    expect(with_.length).not.toBe(plain.length);
    if (kind === "html") {
      const text = new TextDecoder().decode(with_);
      expect(marked(text, "approve")).toBe(true);
      expect(text).toContain("Waits long");
    }
  });
});
