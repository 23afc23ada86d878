import { createHash } from "node:crypto";
import { open, readFile, realpath, rename, rm, stat } from "node:fs/promises";
import { basename, dirname, join, resolve, sep } from "node:path";
import { nanoid } from "nanoid";
import { say } from "@/core/messages";
import { UseCaseError } from "../kernel/useCase";
import { mostBytes, moved, type Place, type Sending, type Spot } from "./place";

const markOf = (bytes: Uint8Array | undefined) => (bytes ? createHash("sha256").update(bytes).digest("hex") : "none");

/** A folder below the operator's root. A file is replaced whole, by a rename; a link that leads out of the root is not followed. */
export function folderPlace(root: string): Place {
  const file = async ({ path }: Spot): Promise<string> => {
    const real = await realpath(root).catch(() => {
      throw new UseCaseError("place-gone", say`The folder ${root} is not there.`, 409);
    });
    const at = resolve(real, path);
    const folder = await realpath(dirname(at)).catch(() => {
      throw new UseCaseError("place-gone", say`There is no folder ${dirname(path)} in ${root}.`, 409);
    });
    const target = await realpath(at).catch(() => join(folder, basename(at)));
    if (!`${target}`.startsWith(real + sep))
      throw new UseCaseError("place-not-allowed", say`${path} leads out of ${root}.`, 403);
    return target;
  };
  const read = async (spot: Spot) => {
    const at = await file(spot);
    const known = await stat(at).catch(() => undefined);
    if (!known?.isFile()) return { bytes: undefined, mark: markOf(undefined) };
    if (known.size > mostBytes) throw new UseCaseError("too-large", say`${spot.path} is too large for a model.`, 409);
    const bytes = new Uint8Array(await readFile(at));
    return { bytes, mark: markOf(bytes) };
  };
  return {
    read,
    write: async (spot: Spot, { bytes, mark }: Sending) => {
      const at = await file(spot);
      if ((await read(spot)).mark !== mark) throw moved();
      const beside = join(/* turbopackIgnore: true */ dirname(at), `.${basename(at)}.${nanoid(8)}`);
      try {
        const handle = await open(/* turbopackIgnore: true */ beside, "wx", 0o644);
        try {
          await handle.writeFile(bytes);
          await handle.sync();
        } finally {
          await handle.close();
        }
        await rename(beside, at);
      } catch (error) {
        await rm(beside, { force: true });
        throw new UseCaseError(
          "not-written",
          `${spot.path} could not be written (${(error as NodeJS.ErrnoException).code ?? "unknown"}); it is as it was.`,
          409,
        );
      }
      return markOf(bytes);
    },
  };
}
