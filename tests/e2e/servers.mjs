/**
 * The servers of the browser tests: `node servers.mjs PORT COUNT`. Each has a workspace of its own with the demo in it. The demo takes
 * most of the time, and is the same for all, so the first makes it and ends, and the others begin with a copy of its folder.
 */
import { spawn } from "node:child_process";
import { cp, rm } from "node:fs/promises";
import { setTimeout as pause } from "node:timers/promises";

const [firstPort, count] = process.argv.slice(2).map(Number);
const folderOf = (at) => `test-results/data-${at}`;

const demoOf = (at) => `http://localhost:${firstPort + at}/api/export?version=solar-connection-to-be&format=bpmn`;

/** Starts one, and answers with its process once the demo is there. */
async function start(at) {
  const server = spawn(
    process.execPath,
    ["node_modules/next/dist/bin/next", "start", "-p", String(firstPort + at), "--keepAliveTimeout", "65000"],
    {
      stdio: ["ignore", "ignore", "inherit"],
      env: { ...process.env, LANE_DATA: folderOf(at), NEXT_MANUAL_SIG_HANDLE: "true", NEXT_TELEMETRY_DISABLED: "1" },
    },
  );
  server.once("exit", () => {
    if (!server.isDone) process.exit(1);
  });
  while (!(await fetch(demoOf(at)).catch(() => undefined))?.ok) await pause(100);
  return server;
}

async function end(server) {
  server.isDone = true;
  const ended = new Promise((resolve) => server.once("exit", resolve));
  server.kill("SIGTERM");
  await ended;
}

const all = Array.from({ length: count }, (_, at) => at);
// Whoever answers there already would be tested instead.
for (const at of all)
  if (await fetch(demoOf(at)).catch(() => undefined)) {
    console.error(`Port ${firstPort + at} is taken by another program. Stop that one, then test again.`);
    process.exit(1);
  }
await Promise.all(all.map((at) => rm(folderOf(at), { recursive: true, force: true })));
const first = await start(0);
if (count > 1) {
  await end(first);
  await Promise.all(all.slice(1).map((at) => cp(folderOf(0), folderOf(at), { recursive: true })));
  await Promise.all(all.map(start));
}
console.log("The servers are ready.");
