/**
 * `npm run attack`: the application tried hard from outside (kills, races, hostile files and requests, a full disk), on loopback and in
 * folders of its own. Prints a table of tries and failures; `--only NAME` runs one part. What takes seconds of it runs in `npm test`.
 */
import { spawnSync } from "node:child_process";
import "./install.mjs";
import { root } from "./root.mjs";
import "./build.mjs";

const { status } = spawnSync(process.execPath, ["--import", "tsx", "scripts/attack/run.ts", ...process.argv.slice(2)], {
  cwd: root,
  stdio: "inherit",
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
});
process.exit(status ?? 1);
