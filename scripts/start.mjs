/**
 * `npm start`: everything from a bare clone to a running application. Installs and builds only what is missing, starts the
 * server, makes the demo workspace on the first start, and stops cleanly on Ctrl+C, or when its terminal is closed.
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
const host = process.env.HOST || "127.0.0.1";
const isLocal = ["127.0.0.1", "localhost", "::1"].includes(host);
const probed = await new Promise((resolve) => {
  const probe = createServer();
  probe.once("error", (error) => resolve(error.code));
  probe.listen(port, host, () => probe.close(() => resolve("free")));
});
if (probed !== "free") {
  console.error(
    probed === "EADDRINUSE"
      ? `Port ${port} is taken by another program. Stop that one, or choose another port: PORT=4311 npm start`
      : `The server cannot listen on ${host}:${port} (${probed}). HOST must be an address of this machine.`,
  );
  process.exit(1);
}
const signsIn = process.env.LANE_SIGN_IN === "on";
if (!isLocal && !signsIn)
  console.warn(
    `The server listens on ${host}: whoever reaches that address can read and change everything, since nobody signs in. Set LANE_SIGN_IN=on to have members sign in, or leave HOST out to keep it to this machine. Names it is asked by are listed in LANE_HOSTS.`,
  );

const folder = process.env.LANE_DATA ?? join(root, "data");
const isFirst = !process.env.DATABASE_URL && !existsSync(join(folder, "postgres"));
console.log(isFirst && !signsIn ? "Starting, and making the demo workspace …" : "Starting …");

const next = join(root, "node_modules/next/dist/bin/next");
// A connection that rests is kept longer than whoever stands before this keeps it: closed just when it is used, it costs an answer.
const server = spawn(process.execPath, [next, "start", "-p", String(port), "-H", host, "--keepAliveTimeout", "65000"], {
  cwd: root,
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", NEXT_MANUAL_SIG_HANDLE: "true", LANE_DATA: folder, HOST: host },
  stdio: ["ignore", "pipe", "pipe"],
  // In a group of its own: a signal of the terminal reaches it through us, once, and we wait for its end.
  detached: true,
});
server.stderr.on("data", (chunk) => process.stderr.write(chunk));
server.stdout.resume();

let outcome;
/** Passes the end on, and waits for it; a server that does not end is ended. */
const stop = (code) => {
  if (outcome !== undefined) return;
  outcome = code;
  server.kill("SIGTERM");
  setTimeout(() => server.kill("SIGKILL"), 15_000).unref();
};
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"])
  process.on(signal, () => {
    console.log("\nStopping …");
    stop(0);
  });
// A closed terminal takes nobody's words any more.
process.stdout.on("error", () => {});
process.stderr.on("error", () => {});
server.on("exit", (code, signal) => {
  if (outcome === undefined) console.error(`The server has ended (${signal ?? `code ${code}`}).`);
  process.exit(outcome ?? (code || 1));
});

const address = `http://${host.includes(":") ? `[${host}]` : isLocal ? "localhost" : host === "0.0.0.0" ? "localhost" : host}:${port}`;
const deadline = Date.now() + 120_000;
while (outcome === undefined) {
  await new Promise((resolve) => setTimeout(resolve, 150));
  try {
    const answer = await fetch(`${address}/api/do/openHome`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: "{}",
    });
    // Where members sign in, that is the answer of a server that is ready.
    if (answer.ok || answer.status === 401) break;
    const { error } = await answer.json();
    console.error(error?.message ?? `The server answered ${answer.status}.`);
    stop(1);
  } catch {
    if (Date.now() > deadline) {
      console.error("The server does not answer.");
      stop(1);
    }
  }
}
if (outcome === undefined) console.log(`Lucid Lane is ready: ${address}`);
