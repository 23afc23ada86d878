/**
 * `npm start`: everything from a bare clone to a running application. Installs and builds only what is missing, starts the
 * server, makes the demo workspace on the first start, and stops cleanly on Ctrl+C.
 */
import { spawn } from "node:child_process";
import { existsSync } from "node:fs";
import { createServer } from "node:net";
import { join } from "node:path";
import "./install.mjs";
import { root } from "./root.mjs";
import "./build.mjs";

const port = Number(process.env.PORT ?? 4310);
if (!Number.isInteger(port) || port < 1 || port > 65535) {
  console.error(`PORT is "${process.env.PORT}", which is no port number. Use one from 1 to 65535.`);
  process.exit(1);
}
const free = await new Promise((resolve) => {
  const probe = createServer();
  probe.once("error", () => resolve(false));
  probe.listen(port, () => probe.close(() => resolve(true)));
});
if (!free) {
  console.error(`Port ${port} is taken by another program. Stop that one, or choose another port: PORT=4311 npm start`);
  process.exit(1);
}

const folder = process.env.LANE_DATA ?? join(root, "data");
const isFirst = !process.env.DATABASE_URL && !existsSync(join(folder, "postgres"));
console.log(isFirst ? "Starting, and making the demo workspace …" : "Starting …");

const server = spawn(process.execPath, [join(root, "node_modules/next/dist/bin/next"), "start", "-p", String(port)], {
  cwd: root,
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", LANE_DATA: folder },
  stdio: ["ignore", "pipe", "pipe"],
});
server.stderr.on("data", (chunk) => process.stderr.write(chunk));
server.stdout.resume();
let stopping = false;
const stop = () => {
  if (stopping) return;
  stopping = true;
  console.log("\nStopping …");
  server.kill("SIGTERM");
  setTimeout(() => server.kill("SIGKILL"), 8000).unref();
};
process.on("SIGINT", stop);
process.on("SIGTERM", stop);
server.on("exit", (code) => process.exit(stopping ? 0 : (code ?? 1)));

const address = `http://localhost:${port}`;
const deadline = Date.now() + 90_000;
for (;;) {
  await new Promise((resolve) => setTimeout(resolve, 150));
  try {
    const answer = await fetch(`${address}/api/do/openHome`, { method: "POST", body: "{}" });
    if (answer.ok) break;
    const { error } = await answer.json();
    console.error(error?.message ?? `The server answered ${answer.status}.`);
    stop();
    break;
  } catch {
    if (Date.now() > deadline) {
      console.error("The server does not answer.");
      stop();
      break;
    }
  }
}
if (!stopping) console.log(`Lucid Lane is ready: ${address}`);
