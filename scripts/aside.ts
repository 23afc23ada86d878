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
export function aside(folder = inMemory, needed = mostBytes, free = freemem()): string {
  if (!existsSync(folder) || free < 2 * needed) return tmpdir();
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize >= needed ? folder : tmpdir();
}

/**
 * Takes away what runs of the same user have left in memory that were ended in their middle: nobody else does before the machine begins
 * anew.
 */
export function clearAside(now: number, folder = inMemory): void {
  if (!existsSync(folder)) return;
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (!/^lane-(prepared|tests|browser)-/.test(name)) continue;
    const left = statSync(path, { throwIfNoEntry: false });
    if (left && left.uid === process.getuid?.() && now - left.mtimeMs > longMilliseconds)
      rmSync(path, { recursive: true, force: true });
  }
}
