import { mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import { build } from "esbuild";
import { openDatabase } from "../src/data/database";
import { aside, clearAside } from "./aside";
import { root } from "./root.mjs";
import { threadBundle } from "./threads.mjs";

/**
 * Before any test, what many of them need is made once: the threads of the server of what the sources are now, other processes of
 * the application as one file each, and an empty database, which takes ten times as long to make as to copy. Beside it stand the
 * workspaces that a worker opens once for all its files.
 */
export default async function setup(): Promise<() => void> {
  // For the next group of tests of the same run it stands already.
  if (process.env.LANE_PREPARED) return () => {};
  clearAside(Date.now());
  process.env.LANE_THREADS = await threadBundle();
  process.env.LANE_PROGRAMS = join(root, ".lane/programs");
  const folder = mkdtempSync(join(aside(), "lane-prepared-"));
  process.env.LANE_PREPARED = folder;
  const database = openDatabase({ folder: join(folder, "empty"), url: "" }).then(({ close }) => close());
  await build({
    entryPoints: ["peer", "editForever", "sendOnce"].map((name) => join(root, `src/server/testing/${name}.ts`)),
    outdir: process.env.LANE_PROGRAMS,
    outExtension: { ".js": ".mjs" },
    bundle: true,
    packages: "external",
    format: "esm",
    platform: "node",
    target: "node20",
    tsconfig: join(root, "tsconfig.json"),
    logLevel: "error",
  });
  await database;
  return () => rmSync(folder, { recursive: true, force: true });
}
