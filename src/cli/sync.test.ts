import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, test } from "vitest";
import { writeBpmn } from "@/core/bpmn";
import { smallModel } from "@/core/testing/models";

const folder = mkdtempSync(join(tmpdir(), "lane-sync-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const lane = (...args: string[]) => {
  const done = spawnSync(process.execPath, ["scripts/lane.mjs", ...args], {
    encoding: "utf8",
    env: { ...process.env, INIT_CWD: folder },
  });
  return { code: done.status, out: done.stdout, error: done.stderr };
};
const write = (name: string, content: string | Uint8Array) => writeFileSync(join(folder, name), content);
const read = (name: string) => readFileSync(join(folder, name), "utf8");

const last = writeBpmn(smallModel());
const [name] = /name="Check application"/.exec(last) ?? [""];
const copy = last
  .replace("<definitions", '<definitions xmlns:rig="urn:rig:1"')
  .replace(name, `${name} rig:queue="desk"`)
  .replaceAll("\n  ", "\n\t");
write("last.bpmn", last);
write("copy.bpmn", copy);
write("model.bpmn", last.replace(name, 'name="Look at the application"'));
write("other.bpmn", copy.replace(name, 'name="Test application"'));

test("says the state, and writes the build copy's own text with what the model changed", () => {
  const done = lane("sync", "model.bpmn", "copy.bpmn", "--base", "last.bpmn", "out.bpmn", "--json");
  expect(done).toMatchObject({ code: 0, error: "" });
  expect(JSON.parse(done.out)).toMatchObject({ state: "both changed", merged: { ours: 1, theirs: 1 }, conflicts: [] });
  expect(read("out.bpmn")).toBe(copy.replace(name, 'name="Look at the application"'));
  expect(
    JSON.parse(lane("sync", "--base", "last.bpmn", "last.bpmn", "last.bpmn", "same.bpmn", "--json").out).state,
  ).toBe("in step");
  expect(read("same.bpmn")).toBe(last);
  expect(lane("sync", "last.bpmn", "copy.bpmn", "--base", "last.bpmn", "out.bpmn").out).toMatch(
    /^build copy changed: 0 changes of the model, 1 of the build copy/,
  );
});

test("a conflict is told, stays as the model has it, and exits with 1", () => {
  const done = lane("sync", "model.bpmn", "other.bpmn", "--base", "last.bpmn", "out.bpmn", "--json");
  expect(done.code).toBe(1);
  expect(JSON.parse(done.out).conflicts).toEqual([
    { element: "check", field: "name", ours: "Look at the application", theirs: "Test application" },
  ]);
  expect(read("out.bpmn")).toContain('name="Look at the application" rig:queue="desk"');
});

test.each([
  ["UTF-16", (text: string) => new Uint8Array(Buffer.from(`\ufeff${text}`, "utf16le"))],
  ["UTF-8 with a byte-order mark", (text: string) => new Uint8Array(Buffer.from(`\ufeff${text}`, "utf8"))],
  [
    "Latin 1, in which a new name has letters it has not",
    (text: string) => new Uint8Array(Buffer.from(text.replace('"UTF-8"', '"ISO-8859-1"'), "latin1")),
  ],
])("the copy stays in its encoding: %s", (_, encode) => {
  write("model.bpmn", last.replace(name, 'name="Prüfen: Ж"'));
  write("encoded.bpmn", encode(copy));
  expect(lane("sync", "model.bpmn", "encoded.bpmn", "--base", "last.bpmn", "out.bpmn").code).toBe(0);
  const [before, after] = [readFileSync(join(folder, "encoded.bpmn")), readFileSync(join(folder, "out.bpmn"))];
  expect(after.subarray(0, 60)).toEqual(before.subarray(0, 60));
  expect(lane("convert", "out.bpmn", "again.bpmn").code).toBe(0);
  expect(read("again.bpmn")).toContain('name="Prüfen: Ж"');
});

test("what cannot be used: one line, exit code 2, and nothing is written", () => {
  write("broken.bpmn", "<definitions");
  for (const args of [
    ["model.bpmn", "copy.bpmn", "out2.bpmn"],
    ["model.bpmn", "broken.bpmn", "--base", "last.bpmn", "out2.bpmn"],
    ["model.bpmn", "copy.bpmn", "--base"],
  ]) {
    const done = lane("sync", ...args);
    expect([done.code, done.out]).toEqual([2, ""]);
    expect(done.error).toMatch(/^lane: [^\n]+\n$/);
  }
  expect(() => read("out2.bpmn")).toThrow();
});
