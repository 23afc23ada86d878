import { spawn } from "node:child_process";
import { readdirSync, rmSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { afterAll, expect, test } from "vitest";
import { writeBpmn } from "@/core/bpmn";
import { smallModel } from "@/core/testing/models";
import { temporaryFolder } from "@/server/testing/workspace";

// Within the project, since what is not bundled is found from there.
const bundles = resolve(`.lane/at-once-${process.pid}`);
afterAll(() => rmSync(bundles, { recursive: true, force: true }));

const lane = (...args: string[]) =>
  new Promise<{ code: number | null; said: string }>((done) => {
    const child = spawn(process.execPath, ["scripts/lane.mjs", ...args], {
      env: { ...process.env, LANE_BUNDLES: bundles },
    });
    let said = "";
    for (const stream of [child.stdout, child.stderr])
      stream.on("data", (text) => {
        said += text;
      });
    child.on("close", (code) => done({ code, said }));
  });

test("several commands at once, before the first was ever run, all do what they are asked", async () => {
  const file = join(temporaryFolder(), "small.bpmn");
  writeFileSync(file, writeBpmn(smallModel()));
  const all = await Promise.all(Array.from({ length: 4 }, () => lane("check", file)));
  for (const { code, said } of all) expect([code, said]).toEqual([0, expect.stringContaining("0 errors")]);
  // Nothing half made is left beside what was made.
  expect(readdirSync(bundles).filter((name) => !name.endsWith(".mjs"))).toEqual([]);
});
