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
  // Not "npm ci": it refuses a lock that lacks the optional binaries of other platforms, which not every registry mirror carries.
  // With a lock file in place, "install" takes the locked versions, and "--no-save" leaves the lock as it is.
  const { status } = spawnSync("npm", ["install", "--no-save", "--no-audit", "--no-fund", "--loglevel=error"], {
    stdio: "inherit",
  });
  if (status !== 0) {
    console.error("The dependencies could not be installed. See the messages above; then try again.");
    process.exit(1);
  }
}
