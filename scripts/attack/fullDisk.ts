import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, statfsSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startPeer } from "../../src/server/testing/peers";
import type { Tries } from "./tries";

/** A disk that fills up while one edits: the cause is told, what was acknowledged stays, and with room it goes on. */
export async function fullDisk(): Promise<Tries> {
  const what = "a full disk";
  const disk = mkdtempSync(join(tmpdir(), "lane-disk-"));
  try {
    execFileSync("mount", ["-t", "tmpfs", "-o", "size=160m", "none", disk], { stdio: "ignore" });
  } catch {
    return { what, tries: 0, failures: [], leftOut: "a small disk cannot be mounted here" };
  }
  const failures: string[] = [];
  let tries = 0;
  try {
    const peer = startPeer({ LANE_DATA: join(disk, "data") });
    await peer.ready;
    await peer.run("createArea", { id: "area", name: "Area", parent: null });
    const filler = join(disk, "filler");
    const { bavail, bsize } = statfsSync(disk);
    writeFileSync(filler, Buffer.alloc(Math.max(0, bavail * bsize - 256 * 1024)));
    const made: string[] = [];
    let told: { code?: string } | undefined;
    for (; tries < 400 && !told; tries++) {
      const id = `p${tries}`;
      await peer
        .run("createProcess", { name: "x".repeat(200), area: "area", processId: id, versionId: `${id}-v` })
        .then(() => made.push(id))
        .catch((error: { code?: string }) => {
          told = error;
        });
    }
    if (told?.code !== "disk-full") failures.push(`told as ${told?.code ?? "nothing"}`);
    rmSync(filler);
    await peer.kill();
    const next = startPeer({ LANE_DATA: join(disk, "data") });
    await next.ready;
    for (const id of made)
      await next.run("openVersion", { version: `${id}-v` }).catch(() => failures.push(`${id} was lost`));
    await next.run("createProcess", { name: "With room again", area: "area" });
    await next.kill();
  } catch (error) {
    failures.push((error as Error).message);
  } finally {
    execFileSync("umount", ["-l", disk], { stdio: "ignore" });
  }
  return { what, tries, failures };
}
