import { unzipSync } from "fflate";
import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { mostTemplates, type TemplateRow } from "@/contract/handbook";
import type { BookletKind } from "@/core/booklet";
import type { HandbookTemplate } from "@/core/handbook";
import { localMember, runUseCase } from "@/server";
import { importModel, leaveWorkspace, openWorkspace, run } from "../testing/workspace";
import { handbookFile } from "./handbooks";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

const template = (name: string): HandbookTemplate => ({
  ...{ name, parts: ["steps", "roles"], lenses: [], isNumbered: true, font: "plain" as const, logo: null },
});
const save = (id: string, content: HandbookTemplate, revision: number) =>
  run<{ revision: number }>("saveTemplate", { id, template: content, revision });
const names = async () =>
  (await run<{ templates: TemplateRow[] }>("listTemplates", {})).templates.map(
    (row) => `${row.template.name} ${row.revision}`,
  );

describe("a template", () => {
  test("is kept for everybody, changed on what it was, deleted and brought back", async () => {
    await save("a", template("House"), 0);
    await save("b", template("Board"), 0);
    expect(await save("a", template("Our house"), 1)).toEqual({ revision: 2 });
    await expect(save("a", template("Otherwise"), 1)).rejects.toMatchObject({ code: "changed-elsewhere", status: 409 });
    await run("deleteTemplate", { id: "a" });
    expect(await names()).toEqual(["Board 1"]);
    await expect(run("deleteTemplate", { id: "a" })).rejects.toMatchObject({ status: 404 });
    await run("restoreTemplate", { id: "a" });
    await run("restoreTemplate", { id: "a" });
    expect(await names()).toEqual(["Our house 2", "Board 1"]);
  });

  test("whose answer was lost is kept once; of two at once under one id one is told", async () => {
    expect(await save("a", template("House"), 0)).toEqual({ revision: 1 });
    expect(await save("a", template("House"), 0)).toEqual({ revision: 1 });
    const both = await Promise.allSettled([save("c", template("One"), 0), save("c", template("Two"), 0)]);
    expect(both.map(({ status }) => status).sort()).toEqual(["fulfilled", "rejected"]);
  });

  test("is one of so many at most", async () => {
    for (let at = 0; at < mostTemplates; at++) await save(`t${at}`, template(`Template ${at}`), 0);
    await expect(save("more", template("More"), 0)).rejects.toMatchObject({ code: "too-many" });
  });
});

describe("what a template says is in the file", () => {
  /** One red pixel. */
  const pixel = "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==";
  const made = async (
    kind: BookletKind,
    more: { readonly logo?: string; readonly isNumbered?: boolean; readonly font?: "plain" | "serif" },
  ) => {
    const version = await importModel("Applications");
    const about = { kind: "version" as const, version };
    const asked = { about, kind, parts: ["steps" as const, "roles" as const], language: null, title: "", ...more };
    return (await runUseCase(localMember, handbookFile, asked)).bytes;
  };

  test.each(["html", "md", "pdf", "docx"] as const)("a logo, in %s", async (kind) => {
    const [plain, with_] = [await made(kind, {}), await made(kind, { logo: `data:image/png;base64,${pixel}` })];
    expect(with_.length).toBeGreaterThan(plain.length + 100);
    const text = new TextDecoder("latin1").decode(with_);
    if (kind === "html") expect(text).toContain('<img alt="" width="144" height="48"');
    if (kind === "md") expect(text.startsWith("![](data:image/png;base64,")).toBe(true);
    if (kind === "pdf") expect(text).toMatch(/\/Subtype ?\/Image/);
    if (kind === "docx") expect(text).toContain("word/media/");
  });

  test.each(["pdf", "docx", "html"] as const)(
    "a picture that is none is left out, and the handbook is made, in %s",
    async (kind) => {
      for (const broken of ["AAAA", Buffer.from("\x89PNG\r\n\x1a\nbroken").toString("base64"), pixel.slice(0, 40)])
        expect((await made(kind, { logo: `data:image/png;base64,${broken}` })).length).toBeGreaterThan(500);
    },
  );

  test.each(["html", "pdf", "docx"] as const)("its letters, with serifs or without, in %s", async (kind) => {
    const text = (bytes: Uint8Array) =>
      kind === "docx"
        ? new TextDecoder().decode(unzipSync(bytes)["word/styles.xml"])
        : new TextDecoder("latin1").decode(bytes);
    const [plain, serif] = [text(await made(kind, {})), text(await made(kind, { font: "serif" }))];
    expect(plain).toMatch(/Atkinson ?Hyperlegible/);
    expect(plain).not.toMatch(/Source ?Serif/);
    expect(serif).toMatch(/Source ?Serif/);
    // Pictures are set in the plain ones, whatever the text is set in; a page of the web carries both.
    if (kind === "html") expect(serif).toContain('body{font:16px/1.5 "Source Serif 4",Georgia,serif}');
  });

  test("numbers before its parts", async () => {
    const text = new TextDecoder().decode(await made("md", { isNumbered: true }));
    expect(text).toMatch(/^#+ 1 Steps$/m);
    expect(text).toMatch(/^#+ 2 Roles$/m);
    expect(new TextDecoder().decode(await made("md", {}))).not.toMatch(/^#+ 1 Steps$/m);
  });
});
