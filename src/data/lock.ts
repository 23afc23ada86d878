import { closeSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from "node:fs";
import { join } from "node:path";

export class FolderInUse extends Error {
  override readonly name = "FolderInUse";
  constructor(folder: string, pid: number) {
    super(
      `The data folder ${folder} is in use by another Lucid Lane (process ${pid}). Stop that one first, or set LANE_DATA to another folder.`,
    );
  }
}

/** Takes a data folder for this process. A lock left behind by a process that is gone is taken over. */
export function lockFolder(folder: string): () => void {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, "lane.lock");
  for (let attempt = 0; attempt < 3; attempt++) {
    try {
      const handle = openSync(file, "wx");
      writeSync(handle, String(process.pid));
      closeSync(handle);
      const release = () => rmSync(file, { force: true });
      process.once("exit", release);
      return release;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
      const holder = Number(readFileSync(file, "utf8"));
      if (holder === process.pid) return () => rmSync(file, { force: true });
      if (isRunning(holder)) throw new FolderInUse(folder, holder);
      rmSync(file, { force: true });
    }
  }
  throw new Error(`The lock file ${file} could not be taken.`);
}

function isRunning(pid: number): boolean {
  if (!Number.isInteger(pid) || pid <= 0) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "EPERM";
  }
}
