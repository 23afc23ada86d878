import { mkdirSync, mkdtempSync, readdirSync, utimesSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "vitest";
import { aside, clearAside } from "./aside";

test("what an ended run has left is taken away; what runs, and what is somebody else's, stays", () => {
  const folder = mkdtempSync(join(tmpdir(), "lane-"));
  const now = Date.now();
  const made = (name: string, hours: number) => {
    mkdirSync(join(folder, name));
    utimesSync(join(folder, name), new Date(now), new Date(now - hours * 3_600_000));
  };
  for (const kind of ["prepared", "tests", "browser"]) {
    made(`lane-${kind}-old`, 7);
    made(`lane-${kind}-new`, 1);
  }
  made("another-tests-old", 900);
  clearAside(now, folder);
  expect(readdirSync(folder).sort()).toEqual([
    "another-tests-old",
    "lane-browser-new",
    "lane-prepared-new",
    "lane-tests-new",
  ]);
  clearAside(now, join(folder, "that-is-not-there"));
});

test("tests put their folders in memory where there is room for them and for what runs, else where the system says", () => {
  const folder = mkdtempSync(join(tmpdir(), "lane-"));
  expect(aside(folder, 1000, 2000)).toBe(folder);
  expect(aside(folder, 1000, 1999)).toBe(tmpdir());
  expect(aside(folder, 2 ** 60, 2 ** 61)).toBe(tmpdir());
  expect(aside(join(folder, "that-is-not-there"), 1000, 2000)).toBe(tmpdir());
});
