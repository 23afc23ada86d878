/** `npm test`: everything that must hold, from a bare clone: lint, types, unit tests, build, browser tests. */
import { spawn, spawnSync } from "node:child_process";
import { existsSync } from "node:fs";

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

/** Programs of Debian's own packages that are missing, each with its package; browsers that test tools download themselves are not used. */
const missing = Object.entries({
  chromium: process.env.CHROMIUM ?? "/usr/bin/chromium",
  // Where it cannot be had (another system), the tests on a server are left out, and say so.
  postgresql: "/usr/lib/postgresql",
  git: "/usr/bin/git",
}).flatMap(([name, path]) => (existsSync(path) ? [] : [name]));
const apt = `${process.getuid?.() === 0 ? "" : "sudo "}env DEBIAN_FRONTEND=noninteractive apt-get`;
const installing = [
  `Debian's packages: ${missing.join(", ")}`,
  "sh",
  ["-c", `${apt} update -qq && ${apt} install -y -qq --no-install-recommends ${missing.join(" ")}`],
];
const canInstall = missing.length > 0 && existsSync("/usr/bin/apt-get");
if (missing.includes("chromium") && !canInstall) {
  console.error("Chromium is missing. Install it, or say where it is: CHROMIUM=/path/to/chromium npm test");
  process.exit(1);
}

// Both mostly wait: for what comes over the network, and for the disk.
const packages = canInstall ? together(installing) : undefined;
await import("./install.mjs");
await together(
  ["Lint", "npx", ["biome", "check", "."]],
  ["Import directions", process.execPath, ["scripts/floors.mjs"]],
  ["Types: of core without browser or Node, and of everything", "npm", ["run", "-s", "types"]],
  ["Production build", process.execPath, ["scripts/build.mjs"]],
);
await packages;
run("Unit tests", "npx", ["vitest", "run"]);
run("Browser tests", "npx", ["playwright", "test"]);
