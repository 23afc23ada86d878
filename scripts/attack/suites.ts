import { spawnSync } from "node:child_process";
import type { Tries } from "./tries";

/** Tests that are attacks by themselves, with other seeds than those of the suite. */
export function suites(what: string, files: readonly string[], seeds: readonly number[]): Tries {
  const failures: string[] = [];
  for (const seed of seeds) {
    const { status, stdout } = spawnSync("npx", ["vitest", "run", ...files], {
      encoding: "utf8",
      env: { ...process.env, LANE_TEST_SEED: String(seed) },
    });
    if (status !== 0) failures.push(`seed ${seed}: ${(stdout.match(/×.*$/m)?.[0] ?? "failed").slice(0, 200)}`);
  }
  return { what, tries: seeds.length, failures };
}
