/** `npm run bench`: bundled as the application is, since what runs sources directly slows small functions down. */
import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { build } from "esbuild";
import { root } from "./root.mjs";
import { threadBundle } from "./threads.mjs";

process.chdir(root);
process.env.LANE_THREADS = await threadBundle();
const bundle = join(root, ".lane/bench.mjs");
await build({
  entryPoints: ["scripts/bench/run.ts"],
  outfile: bundle,
  bundle: true,
  packages: "external",
  format: "esm",
  platform: "node",
  target: "node20",
  tsconfig: "tsconfig.json",
  logLevel: "error",
});
process.exitCode = spawnSync(process.execPath, [bundle, ...process.argv.slice(2)], { stdio: "inherit" }).status ?? 1;
