/** `npm test`: everything that must hold, from a bare clone: lint, types, unit tests, build, browser tests. */
import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import "./install.mjs";

const run = (title, command, args, env = {}) => {
  console.log(`\n— ${title}`);
  const { status } = spawnSync(command, args, {
    stdio: "inherit",
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", ...env },
  });
  if (status !== 0) {
    console.error(`\n${title}: failed.`);
    process.exit(1);
  }
};

/** Installs programs of Debian's own packages, where they are missing. */
const install = (title, ...packages) => {
  const sudo = process.getuid?.() === 0 ? [] : ["sudo"];
  const apt = [...sudo, "apt-get"];
  run("Package lists", apt[0], [...apt.slice(1), "update", "-qq"]);
  run(title, apt[0], [...apt.slice(1), "install", "-y", "-qq", "--no-install-recommends", ...packages], {
    DEBIAN_FRONTEND: "noninteractive",
  });
};

const browser = process.env.CHROMIUM ?? "/usr/bin/chromium";
// The browsers that test tools download themselves are not used.
if (!existsSync(browser)) install("Chromium from Debian's packages", "chromium");
// Where it cannot be had (another system), the tests on a server are left out, and say so.
if (!existsSync("/usr/lib/postgresql") && existsSync("/usr/bin/apt-get"))
  install("PostgreSQL from Debian's packages", "postgresql");
run("Lint", "npx", ["biome", "check", "."]);
run("Import directions", process.execPath, ["scripts/floors.mjs"]);
run("Types of core, without browser or Node", "npx", ["tsc", "-p", "src/core"]);
run("Types", "npx", ["tsc", "-p", "."]);
run("Unit tests", "npx", ["vitest", "run"]);
run("Production build", process.execPath, ["scripts/build.mjs"]);
run("Browser tests", "npx", ["playwright", "test"]);
