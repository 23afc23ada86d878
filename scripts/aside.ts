import { existsSync, readdirSync, rmSync, statfsSync, statSync } from "node:fs";
import { freemem, tmpdir } from "node:os";
import { join } from "node:path";

/** Memory that is a disk, where a system has it: to copy a database there takes a sixth of the time. */
const inMemory = "/dev/shm";
/** What tests put aside at one time is a quarter of it. */
const mostBytes = 4 * 2 ** 30;
/** No run takes as long. */
const longMilliseconds = 6 * 60 * 60 * 1000;

/** Where tests put their folders: in memory, where there is room for all of them and as much is left for what runs. */
export function aside(): string {
  if (!existsSync(inMemory) || freemem() < 2 * mostBytes) return tmpdir();
  const { bavail, bsize } = statfsSync(inMemory);
  return bavail * bsize >= mostBytes ? inMemory : tmpdir();
}

/** Takes away what runs have left in memory that were ended in their middle: nobody else does before the machine begins anew. */
export function clearAside(now: number, folder = inMemory): void {
  if (!existsSync(folder)) return;
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (!/^lane-(prepared|tests|browser)-/.test(name)) continue;
    if (now - (statSync(path, { throwIfNoEntry: false })?.mtimeMs ?? now) > longMilliseconds)
      rmSync(path, { recursive: true, force: true });
  }
}
