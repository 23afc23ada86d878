/** Installs the locked dependencies where they are missing or older than the lock file. */
import { spawnSync } from "node:child_process";
import { existsSync, statSync } from "node:fs";
import { join } from "node:path";
import { root } from "./root.mjs";

process.chdir(root);

const installed = join(root, "node_modules/.package-lock.json");
const lock = join(root, "package-lock.json");
const upToDate = existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs - 1000;
if (!upToDate) {
  console.log("Installing dependencies (once, about a minute) …");
  const { status } = spawnSync("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"], { stdio: "inherit" });
  if (status !== 0) {
    console.error("The dependencies could not be installed. See the messages above; then try again.");
    process.exit(1);
  }
}
