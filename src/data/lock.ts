import {
  closeSync,
  mkdirSync,
  openSync,
  readFileSync,
  readlinkSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from "node:fs";
import { hostname } from "node:os";
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import { FolderUnusable } from "./folder";

/**
 * A data folder belongs to one process at a time, also when several machines, containers or users share its volume: the holder renews
 * its lease while it lives, from a thread of its own, so that a long computation does not end it. A process number says nothing on
 * another machine, or to a container that numbers its own; it only spares the wait where both are told to be the same.
 */
interface Lease {
  /** Made anew each time a lease is taken. */
  readonly token: string;
  readonly pid: number;
  readonly host: string;
  /** Where process numbers mean the same: this start of this machine, and this container. */
  readonly numbering: string;
  /** When the process began, as the machine counts it: another process of the same number is not taken for it. */
  readonly began: string;
  readonly since: string;
}

export class FolderInUse extends Error {
  override readonly name = "FolderInUse";
  constructor(folder: string, { pid, host, since }: Lease) {
    super(
      `The data folder ${folder} is in use by another Lucid Lane (process ${pid} on ${host}, since ${since}). Stop that one first, or set LANE_DATA to another folder.`,
    );
  }
}

const renewEvery = 1_000;
/** A lease that was not renewed for so long is over. Looked at by whoever waits, with its own clock. */
const overAfter = 5_000;

const quiet = (read: () => string): string => {
  try {
    return read();
  } catch {
    return "";
  }
};
const beganOf = (pid: number | "self") =>
  // The 22nd field; the second may hold blanks and brackets.
  quiet(
    () =>
      readFileSync(`/proc/${pid}/stat`, "utf8")
        .replace(/^.*\) /s, "")
        .split(" ")[19] ?? "",
  );
const numberingHere = () =>
  [
    quiet(() => readFileSync("/proc/sys/kernel/random/boot_id", "utf8").trim()),
    quiet(() => readlinkSync("/proc/self/ns/pid")),
  ].join(" ");

/**
 * Takes a data folder for this process. One whose holder is gone is taken over: at once where that can be known, else when its lease
 * was not renewed for some seconds.
 * @param onLost called when another process has taken the folder, as after this one was held up for long: it must not go on
 */
export async function lockFolder(folder: string, onLost: () => void = endProcess): Promise<() => void> {
  const file = join(folder, "lane.lock");
  mkdirSync(folder, { recursive: true });
  for (let attempt = 0; attempt < 5; attempt++) {
    const lease: Lease = {
      token: crypto.randomUUID(),
      pid: process.pid,
      host: hostname(),
      numbering: numberingHere(),
      began: beganOf("self"),
      since: new Date().toISOString(),
    };
    if (tryToTake(file, lease)) return holding(file, lease, onLost);
    const holder = leaseIn(file);
    if (!holder) {
      // Just being written, or cut off while it was; and gone, or old, when looked at again.
      await pause(200);
      if (!leaseIn(file) && ageOf(file) > overAfter) rmSync(file, { force: true });
      continue;
    }
    if (isThisProcess(holder) || isKnownGone(holder) || (await isOver(file, holder, folder))) takeAway(file, holder);
    else throw new FolderInUse(folder, holder);
  }
  throw new FolderUnusable(
    folder,
    "its lock file could not be taken; another Lucid Lane is starting there at the same time",
  );
}

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

function tryToTake(file: string, lease: Lease): boolean {
  try {
    const handle = openSync(file, "wx", 0o666);
    writeSync(handle, JSON.stringify(lease));
    closeSync(handle);
    return true;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "EEXIST") return false;
    throw error;
  }
}

function leaseIn(file: string): Lease | undefined {
  try {
    const text = readFileSync(file, "utf8");
    // What earlier releases wrote: the number of their process, which is not known to be of this machine.
    if (/^\d+$/.test(text))
      return {
        token: text,
        pid: Number(text),
        host: "an unknown machine",
        numbering: "",
        began: "",
        since: "an earlier release",
      };
    const lease = JSON.parse(text) as Lease;
    return typeof lease.token === "string" ? lease : undefined;
  } catch {
    return undefined;
  }
}

const ageOf = (file: string): number => {
  try {
    return Date.now() - statSync(file).mtimeMs;
  } catch {
    return 0;
  }
};

const isSameNumbering = ({ numbering }: Lease) => numbering.trim() !== "" && numbering === numberingHere();
const isThisProcess = (lease: Lease) =>
  isSameNumbering(lease) && lease.pid === process.pid && lease.began === beganOf("self");

/** Whether the holder is known to be gone: its number is of the same numbering as ours, and nobody has it, or somebody else. */
function isKnownGone(lease: Lease): boolean {
  if (!isSameNumbering(lease)) return false;
  const began = beganOf(lease.pid);
  return began !== lease.began;
}

/** Waits whether the holder renews its lease. */
async function isOver(file: string, { token }: Lease, folder: string): Promise<boolean> {
  const stamp = () => {
    try {
      return `${leaseIn(file)?.token} ${statSync(file).mtimeMs}`;
    } catch {
      return "gone";
    }
  };
  const first = stamp();
  if (!first.startsWith(token)) return false;
  console.log(`The data folder ${folder} has a lock that may be left over; looking whether its holder is alive …`);
  for (let waited = 0; waited < overAfter; waited += 250) {
    await pause(250);
    if (stamp() !== first) return false;
  }
  return true;
}

/** Takes a lock file out of the way; of several who do, one finds it there. */
function takeAway(file: string, holder: Lease): void {
  const aside = `${file}.${crypto.randomUUID()}`;
  try {
    renameSync(file, aside);
  } catch {
    return;
  }
  const taken = leaseIn(aside);
  // Somebody else was faster and has a lease of its own here already: it gets it back.
  if (taken && taken.token !== holder.token) {
    try {
      renameSync(aside, file);
      return;
    } catch {
      // Gone as well.
    }
  }
  rmSync(aside, { force: true });
}

/** Renews a lease from a thread of its own, and says when another holder stands in the file. */
function holding(file: string, lease: Lease, onLost: () => void): () => void {
  const renewing = new Worker(
    `const { readFileSync, utimesSync } = require("node:fs");
     const { parentPort, workerData } = require("node:worker_threads");
     setInterval(() => {
       try {
         if (JSON.parse(readFileSync(workerData.file, "utf8")).token !== workerData.token) parentPort.postMessage("lost");
         else { const now = new Date(); utimesSync(workerData.file, now, now); }
       } catch (error) { if (error.code === "ENOENT") parentPort.postMessage("lost"); }
     }, workerData.every);`,
    { eval: true, workerData: { file, token: lease.token, every: renewEvery } },
  );
  let isReleased = false;
  renewing.on("message", () => {
    if (!isReleased) onLost();
  });
  renewing.unref();
  const remove = () => {
    if (leaseIn(file)?.token === lease.token) rmSync(file, { force: true });
  };
  const release = () => {
    isReleased = true;
    void renewing.terminate();
    process.removeListener("exit", remove);
    remove();
  };
  process.once("exit", remove);
  return release;
}

function endProcess(): void {
  console.error(
    "Another Lucid Lane has taken the data folder while this one was held up; this one stops, so that both do not write.",
  );
  process.exit(1);
}
