/** Builds the application where there is no build or the sources are newer. */
import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { join } from "node:path";
import "./install.mjs";
import { newest, root } from "./root.mjs";
import { threadBundle } from "./threads.mjs";

const stamp = join(root, ".next/BUILD_ID");

const sources = ["src", "package-lock.json", "next.config.ts", "tsconfig.json"].map((name) => join(root, name));
const isFresh = existsSync(stamp) && Math.max(...sources.map(newest)) <= newest(stamp);
if (!isFresh) {
  console.log("Building the application (about half a minute) …");
  const { status, stdout, stderr } = spawnSync("npx", ["next", "build"], {
    encoding: "utf8",
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
  });
  if (status !== 0) {
    console.error(stdout, stderr);
    console.error("The application could not be built. See the messages above.");
    process.exit(1);
  }
}
await threadBundle();
