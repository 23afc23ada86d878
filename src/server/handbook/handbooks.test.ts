import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "@/core/bpmn";
import { handbookParts } from "@/core/handbook";
import { emptyModel } from "@/core/model";
import { expectOk, smallModel } from "@/core/testing/models";
import { fileUseCases, localMember, runUseCase } from "@/server";
import { importModel, leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);
beforeEach(() => openWorkspace());

const asked = { kind: "md", parts: handbookParts, language: null, title: "" } as const;
const given = async (about: object, more: object = {}) => {
  const { name, bytes } = await runUseCase(localMember, fileUseCases.handbookFile, { ...asked, about, ...more });
  return { name, words: new TextDecoder().decode(bytes) };
};
const process = (id: string, name: string, inside = `<task id="t-${id}" name="Do ${name}"/>`) =>
  expectOk(
    readBpmn(
      new TextEncoder().encode(
        `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="t"><process id="${id}" name="${name}">${inside}</process></definitions>`,
      ),
    ),
  );

describe("the handbook", () => {
  test("of a version holds what it is now, called as in the workspace", async () => {
    const version = await importModel("Applications", smallModel());
    await send(version, { type: "rename", id: "check", name: "Look at the application" });
    const { name, words } = await given({ kind: "version", version });
    expect(name).toBe("Applications");
    expect(words).toContain("Look at the application");
    expect(words).toMatch(/\*\*Version:\*\* As-is/);
    expect(words).not.toMatch(/\*\*Checked:/);
  });

  test("says who checked it as long as that holds", async () => {
    const version = await importModel(
      "Sound",
      process(
        "p",
        "Sound",
        `<startEvent id="s" name="Begun"/><task id="t" name="Do it"/><endEvent id="e" name="Done"/><sequenceFlow id="f" sourceRef="s" targetRef="t"/><sequenceFlow id="g" sourceRef="t" targetRef="e"/>`,
      ),
    );
    await run("chooseProfile", { version, profile: "draft" });
    await run("signVerdict", { version });
    expect((await given({ kind: "version", version })).words).toContain(`**Checked:** ${localMember.name}`);
    await send(version, { type: "rename", id: "t", name: "Do it well" });
    expect((await given({ kind: "version", version })).words).not.toContain("**Checked:**");
  });

  test("roles and systems are described by the directory", async () => {
    const version = await importModel("Applications", smallModel());
    const { id } = await run<{ id: string }>("createEntry", { kind: "role", name: "Customer desk" });
    await run("changeEntry", { id, description: "Open from 8 to 17." });
    await send(version, { type: "tieLane", lane: "desk", role: { entry: id, name: "Customer desk" } });
    const { words } = await given({ kind: "version", version });
    expect(words).toContain("Open from 8 to 17.");
    expect(words).toContain("**Who:** Customer desk");
  });

  test("of an area holds the as-is of each process in it and in the areas inside; of all, of all", async () => {
    await run("createArea", { id: "area", name: "Connections", parent: null });
    await run("createArea", { id: "inner", name: "On site", parent: "area" });
    await run("createArea", { id: "other", name: "Accounts", parent: null });
    const put = async (area: string, name: string) => {
      const bytes = new TextEncoder().encode(writeBpmn(process(name.toLowerCase(), name)));
      return runUseCase(localMember, fileUseCases.importFile, { name: `${name}.bpmn`, area, bytes });
    };
    await put("area", "One");
    const { version } = await put("inner", "Two");
    await put("other", "Three");
    await run("createToBe", { source: version, name: "Better" });
    const area = await given({ kind: "area", area: "area" });
    expect(area.name).toBe("Connections");
    for (const name of ["Do One", "Do Two"]) expect(area.words).toContain(name);
    expect(area.words).not.toContain("Do Three");
    // Improvements that are only planned are no documentation.
    expect(area.words.match(/Do Two/g)?.length).toBe(
      (await given({ kind: "version", version })).words.match(/Do Two/g)?.length,
    );
    expect((await given({ kind: "all" }, { title: "All we do" })).words).toMatch(/^# All we do[\s\S]*Do Three/);
  });

  test("tells what is still talked about, and nothing that was settled", async () => {
    const version = await importModel("Applications", smallModel());
    const about = { kind: "element", key: "check", words: "Check application" };
    for (const [thread, text] of [
      ["t", "Why twice?"],
      ["u", "Settled long ago"],
    ])
      await run("startThread", { version, thread, said: `${thread}1`, about, text, mentions: [], assigned: null });
    await run("settleThread", { version, thread: "u", isResolved: true });
    const { words } = await given({ kind: "version", version });
    expect(words).toContain("### Open comments");
    expect(words).toMatch(/\| Check application \| Mara Aldous, \d{4}-\d\d-\d\d \| Why twice\? \|/);
    expect(words).not.toContain("Settled long ago");
  });

  test("has only the parts that are asked for", async () => {
    const version = await importModel("Applications", smallModel());
    const { words } = await given({ kind: "version", version }, { parts: ["roles"] });
    expect(words).toContain("### Roles");
    expect(words).not.toContain("### Steps");
  });

  test("in a language: what is kept in it, and what is missing", async () => {
    const version = await importModel("Applications", smallModel());
    const { words } = await given({ kind: "version", version }, { language: "de" });
    expect(words).toContain("### Schritte");
    expect(words).toContain("In dieser Sprache nicht vorhanden");
  });

  test.each(["pdf", "docx", "html"])("as %s", async (kind) => {
    const version = await importModel("Applications", smallModel());
    const { words } = await given({ kind: "version", version }, { kind });
    expect(words.slice(0, 15)).toMatch(/^(%PDF|PK|<!doctype html>)/);
  });

  test("is refused in words where there is nothing to tell", async () => {
    await run("createArea", { id: "area", name: "Empty", parent: null });
    await expect(given({ kind: "area", area: "area" })).rejects.toMatchObject({ code: "nothing-to-tell" });
    await expect(given({ kind: "area", area: "none" })).rejects.toMatchObject({ code: "not-found" });
    await expect(given({ kind: "version", version: "none" })).rejects.toMatchObject({ code: "not-found" });
    const version = await importModel("E", emptyModel({ definitions: "d", process: "p", diagram: "g" }, "E"));
    for (const more of [{ parts: [] }, { parts: ["all"] }, { kind: "exe" }, { language: "../x" }])
      await expect(given({ kind: "version", version }, more)).rejects.toMatchObject({ status: 400 });
    // A process without a step is told as what it is.
    expect((await given({ kind: "version", version })).words).toContain("## E");
  });
});
