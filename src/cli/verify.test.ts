import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strToU8, unzipSync, zipSync } from "fflate";
import { afterAll, expect, test } from "vitest";
import { makePackage } from "@/core/handoff";
import { smallModel } from "@/core/testing/models";

const folder = mkdtempSync(join(tmpdir(), "lane-verify-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const lane = (...args: string[]) => {
  const done = spawnSync(process.execPath, ["scripts/lane.mjs", "verify", ...args], {
    encoding: "utf8",
    env: { ...process.env, INIT_CWD: folder },
  });
  return { code: done.status, out: done.stdout, error: done.stderr };
};
const { bytes } = makePackage({
  model: smallModel(),
  process: "Connect a plant",
  version: "As-is",
  revision: 3,
  date: "2026-11-27T09:00:00.000Z",
  member: "Analyst",
  waivers: [],
  sha256: (part) => createHash("sha256").update(part).digest("hex"),
});

test("a copy of a package: every part with its state, exit code 0 only where all are the same", () => {
  writeFileSync(join(folder, "whole.zip"), bytes);
  const whole = lane("whole.zip", "--json");
  expect(whole).toMatchObject({ code: 0, error: "" });
  const names = ["model.bpmn", "report.json", "report.html", "checklist.md", "checklist.csv", "diagram.svg"];
  expect(JSON.parse(whole.out)).toEqual({ ok: true, parts: names.map((name) => ({ name, state: "same" })) });
  expect(lane("whole.zip").out).toMatch(/revision 3, handed off by Analyst on 2026-11-27: whole, 6 parts/);

  const { "diagram.svg": _, ...rest } = unzipSync(bytes);
  const other = { ...rest, "model.bpmn": strToU8("<other/>"), "more.txt": strToU8("x") };
  writeFileSync(join(folder, "other.zip"), zipSync(other));
  const told = lane("other.zip", "--json");
  expect(told.code).toBe(1);
  const states = ["changed", "same", "same", "same", "same", "missing", "added"];
  expect(JSON.parse(told.out)).toEqual({
    ok: false,
    parts: [...names, "more.txt"].map((name, at) => ({ name, state: states[at] })),
  });
  expect(lane("other.zip").out).toMatch(/not whole, 3 parts of 7 not as handed off/);
});

test("what is no package: one line, exit code 2, nothing on standard output", () => {
  writeFileSync(join(folder, "words.zip"), "hello");
  writeFileSync(join(folder, "bare.zip"), zipSync({ "model.bpmn": strToU8("x") }));
  for (const [args, reason] of [
    [["words.zip"], /^lane: words\.zip: This is not a zip archive\.\n$/],
    [["bare.zip"], /^lane: bare\.zip: There is no manifest\.json in it/],
    [["gone.zip"], /^lane: gone\.zip: there is no such file\n$/],
    [[], /^lane: verify needs one package\n$/],
  ] as const) {
    const done = lane(...args, "--json");
    expect(done).toMatchObject({ code: 2, out: "" });
    expect(done.error).toMatch(reason);
  }
});
