/**
 * The database in a folder, in a thread of its own: a statement that takes long, or a large row, keeps nobody waiting on the server's
 * event loop. Plain script, since a thread is started from a file as it stands (client.ts is the other end).
 */
import fs from "node:fs";
import { syncBuiltinESMExports } from "node:module";
import { setFlagsFromString } from "node:v8";
import { parentPort, workerData } from "node:worker_threads";
import { PGlite, types } from "@electric-sql/pglite";
import { Statements } from "./statements.mjs";

/** Of an error what a message between threads would drop: the database's own code, and where it says the fault is. */
const told = (error) => {
  const { name, message, code, detail, hint, table, column, constraint, severity, errno, syscall } = error;
  return { name, message, code, detail, hint, table, column, constraint, severity, errno, syscall };
};

/**
 * A database that cannot write to its log panics, and one in a thread would then never answer again: the thread ends instead, saying
 * why. What it acknowledged stands in its folder; whoever asks next opens it anew.
 */
const logFiles = new Set();
/** Why a file could not be written to: of one that it needs to open, the database says only that it aborted. */
let refused;
const { openSync, closeSync, writeSync } = fs;
fs.openSync = (path, ...more) => {
  const file = openSync(path, ...more);
  if (String(path).includes("/pg_wal/")) logFiles.add(file);
  return file;
};
fs.closeSync = (file) => {
  logFiles.delete(file);
  closeSync(file);
};
fs.writeSync = (file, bytes, from, count, at) => {
  try {
    const written = writeSync(file, bytes, from, count, at);
    if (written < (count ?? bytes.byteLength))
      refused = Object.assign(new Error("A part was written."), { code: "ENOSPC" });
    return written;
  } catch (error) {
    refused = error;
    if (!logFiles.has(file)) throw error;
    parentPort.postMessage({ ended: told(error) });
    process.exit();
  }
};
syncBuiltinESMExports();

/**
 * Made quicker is what is run very often: by default that is nearly all that opening a database runs once, which takes a second of a
 * processor for what a short process never sees again, and with a tenth of this much, as long again for its first thousand statements,
 * which come out no quicker for it.
 */
setFlagsFromString("--wasm-tiering-budget=1000000000");

const asText = (value) => value;
/** Left as the text they come in: dates for Drizzle, and JSON because a text is handed over faster than what it says. */
const parsers = Object.fromEntries(
  // The last five: arrays of numerics, timestamps, timestamps with time zone, intervals and dates.
  [
    types.TIMESTAMP,
    types.TIMESTAMPTZ,
    types.INTERVAL,
    types.DATE,
    types.JSON,
    types.JSONB,
    1231,
    1115,
    1185,
    1187,
    1182,
  ].map((type) => [type, asText]),
);

/**
 * Room for pages that are read often. It is taken, and written over, whenever a database opens: the usual 128 MB made a third of what
 * that takes, and half of a process's memory, and nothing was found to be slower with less but to change thousands of rows at once.
 * One alone is ever connected.
 */
const room = ["-c", "shared_buffers=32MB", "-c", "max_connections=5"];
const database = new PGlite(workerData.folder, { startParams: [...PGlite.defaultStartParams, ...room] });
const statements = new Statements(database, parsers);

const does = {
  ready: () =>
    database.waitReady.catch((error) => {
      throw refused ?? error;
    }),
  query: ({ text, params, rowMode, begins }) => statements.query(text, params, rowMode, begins),
  exec: ({ text }) => statements.exec(text),
  commit: async () => {
    const { command } = await statements.query("commit");
    // Where a part failed all of it is taken back, which is no error of its own.
    if (command !== "COMMIT")
      throw Object.assign(new Error("A part of it failed, so all of it was taken back."), { code: "25P02" });
  },
  close: () => database.close(),
};

// One thing at a time, in the order it was asked for.
let before = Promise.resolve();
parentPort.on("message", ({ id, what, ...input }) => {
  before = before.then(async () => {
    try {
      const answer = await does[what](input);
      // What nobody waits for has no number.
      if (id !== undefined) parentPort.postMessage({ id, answer });
    } catch (error) {
      if (id !== undefined) parentPort.postMessage({ id, error: told(error) });
    }
  });
});
