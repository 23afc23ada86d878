import { accessSync, constants, mkdirSync, statfsSync, statSync } from "node:fs";

/** A data folder that cannot be worked in: what is wrong, where, and what to do. */
export class FolderUnusable extends Error {
  override readonly name = "FolderUnusable";
  constructor(folder: string, what: string, options?: ErrorOptions) {
    super(`The data folder ${folder} cannot be used: ${what}.`, options);
  }
}

/** A workspace begins with some 40 MB; below this there is not even room for the next change. */
const leastFreeBytes = 16 * 1024 * 1024;

const causes: { readonly [code: string]: string } = {
  EACCES:
    "this user may not write there. Give the user that runs Lucid Lane the right to, or set LANE_DATA to another folder",
  EPERM:
    "this user may not write there. Give the user that runs Lucid Lane the right to, or set LANE_DATA to another folder",
  EROFS: "its file system is read-only. Mount it for writing, or set LANE_DATA to another folder",
  ENOSPC: "the disk is full. Make room there, or set LANE_DATA to a folder on another disk",
  EDQUOT: "the quota of this user is used up. Make room there, or set LANE_DATA to a folder on another disk",
  EFBIG: "a limit of the system on the size of files is reached. Raise it for the user that runs Lucid Lane",
  ENOTDIR: "a part of its path is a file, not a folder. Move that file away, or set LANE_DATA to another folder",
  EEXIST: "it is a file, not a folder. Move that file away, or set LANE_DATA to another folder",
  ENAMETOOLONG: "its path is too long. Set LANE_DATA to a shorter one",
};

/** The error of a file operation in words, where there are words for it. */
export function toldOf(folder: string, error: unknown): unknown {
  const { code } = error as NodeJS.ErrnoException;
  const what = code === undefined ? undefined : causes[code];
  return what === undefined ? error : new FolderUnusable(folder, what, { cause: error });
}

/**
 * To be asked before something is written: a database that finds no room in the middle of it ends, one that was not begun on can still
 * be read.
 * @throws `ENOSPC` where the disk of the folder has no room for a change
 */
export function needsRoom(folder: string): void {
  const { bavail, bsize } = statfsSync(folder);
  if (bavail * bsize < leastFreeBytes)
    throw Object.assign(new Error(`no room left on the disk of ${folder}`), { code: "ENOSPC" });
}

/** Makes the folder where it is missing, and sees to it that it can be worked in. */
export function prepareFolder(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true });
    if (!statSync(folder).isDirectory()) throw Object.assign(new Error("a file"), { code: "EEXIST" });
    accessSync(folder, constants.R_OK | constants.W_OK | constants.X_OK);
    needsRoom(folder);
  } catch (error) {
    throw toldOf(folder, error);
  }
}
