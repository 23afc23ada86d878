/** Builds the application where there is no build or the sources are newer. */
import { spawnSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import "./install.mjs";
import { newest, root } from "./root.mjs";
import { threadBundle } from "./threads.mjs";

const stamp = join(root, ".next/BUILD_ID");

const sources = ["src", "package-lock.json", "next.config.ts", "tsconfig.json"].map((name) => join(root, name));
/**
 * Tells browsers that what is in a script will be called: they compile it beside the page while it comes, and keep what they compiled
 * with it. Otherwise they keep next to nothing of scripts made of parts that wait for each other, and compile each part anew, in the
 * page's way, every time a page opens. Others take it for a comment. (Explicit compile hints of V8.)
 */
function compiledAhead() {
  const scripts = join(root, ".next/static/chunks");
  for (const name of readdirSync(scripts, { recursive: true })) {
    const path = join(scripts, name);
    if (name.endsWith(".js")) writeFileSync(path, `//# allFunctionsCalledOnLoad\n${readFileSync(path, "utf8")}`);
  }
}

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
  compiledAhead();
}
await threadBundle();
