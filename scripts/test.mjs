/** `npm test`: everything that must hold, from a bare clone: lint, types, unit tests, build, browser tests. */
import { spawn, spawnSync } from "node:child_process";
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

/** Several at once; what each says is shown when it has ended, one after the other. */
const together = (...parts) =>
  Promise.all(
    parts.map(
      ([title, command, args]) =>
        new Promise((resolve) => {
          const said = [];
          const child = spawn(command, args, { env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" } });
          for (const stream of [child.stdout, child.stderr]) stream.on("data", (piece) => said.push(piece));
          child.on("close", (status) => {
            console.log(`\n— ${title}`);
            process.stdout.write(Buffer.concat(said));
            if (status !== 0) {
              console.error(`\n${title}: failed.`);
              process.exit(1);
            }
            resolve();
          });
        }),
    ),
  );

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
if (!existsSync("/usr/bin/git") && existsSync("/usr/bin/apt-get")) install("git from Debian's packages", "git");
await together(
  ["Lint", "npx", ["biome", "check", "."]],
  ["Import directions", process.execPath, ["scripts/floors.mjs"]],
  ["Types of core, without browser or Node", "npx", ["tsc", "-p", "src/core"]],
);
await together(["Types", "npx", ["tsc", "-p", "."]], ["Production build", process.execPath, ["scripts/build.mjs"]]);
run("Unit tests", "npx", ["vitest", "run"]);
run("Browser tests", "npx", ["playwright", "test"]);
