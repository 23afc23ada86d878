import { spawn } from "node:child_process";
import { chmodSync, existsSync, mkdirSync, readFileSync, utimesSync, writeFileSync } from "node:fs";
import { hostname } from "node:os";
import { join } from "node:path";
import { describe, expect, test } from "vitest";
import { startPeer } from "@/server/testing/peers";
import { preparedFolder, temporaryFolder } from "@/server/testing/workspace";
import { openDatabase } from "./database";
import { FolderInUse, lockFolder } from "./lock";

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));
const lockOf = (folder: string) => join(folder, "lane.lock");
const lease = (more: object = {}) => ({
  token: "other",
  pid: 1,
  host: "another-machine",
  numbering: "another boot pid:[1]",
  began: "1",
  since: "2026-11-27T09:00:00.000Z",
  ...more,
});

describe("the lock of a data folder", () => {
  test("a holder that renews its lease is named, wherever it runs and whatever its number", async () => {
    const folder = temporaryFolder();
    writeFileSync(lockOf(folder), JSON.stringify(lease({ pid: process.pid })));
    const renewing = setInterval(() => utimesSync(lockOf(folder), new Date(), new Date()), 500);
    await expect(lockFolder(folder)).rejects.toThrow(
      new RegExp(`${folder} is in use by another Lucid Lane \\(process ${process.pid} on another-machine`),
    );
    await expect(lockFolder(folder)).rejects.toBeInstanceOf(FolderInUse);
    clearInterval(renewing);
  }, 30_000);

  test("a lease that nobody renews is over, though its process number is in use here", async () => {
    const folder = temporaryFolder();
    writeFileSync(lockOf(folder), JSON.stringify(lease({ pid: process.ppid })));
    const release = await lockFolder(folder);
    expect(JSON.parse(readFileSync(lockOf(folder), "utf8"))).toMatchObject({ pid: process.pid, host: hostname() });
    release();
    expect(existsSync(lockOf(folder))).toBe(false);
  }, 30_000);

  test.each(["", "{", "17", "null"])(
    "a lock file with %j in it does not lock for ever",
    async (text) => {
      const folder = temporaryFolder();
      writeFileSync(lockOf(folder), text);
      const old = new Date(Date.now() - 60_000);
      utimesSync(lockOf(folder), old, old);
      (await lockFolder(folder))();
    },
    30_000,
  );

  test("a killed process of this machine frees it at once", async () => {
    const folder = preparedFolder();
    const peer = startPeer({ LANE_DATA: folder });
    await peer.ready;
    await expect(lockFolder(folder)).rejects.toBeInstanceOf(FolderInUse);
    await peer.kill();
    const start = performance.now();
    (await lockFolder(folder))();
    expect(performance.now() - start).toBeLessThan(2_000);
  }, 60_000);

  test("of several that find a lease that is over, one takes the folder", async () => {
    const folder = temporaryFolder();
    writeFileSync(lockOf(folder), JSON.stringify(lease()));
    const script = `import { lockFolder } from "./src/data/lock.ts";
      lockFolder(${JSON.stringify(folder)}).then(() => { console.log("taken"); setTimeout(() => process.exit(0), 9000); }, (error) => console.log(error.name));`;
    const tries = await Promise.all(
      [0, 1, 2].map(
        () =>
          new Promise<string>((resolve) => {
            const child = spawn(process.execPath, ["--import", "tsx", "--input-type=module", "-e", script]);
            let text = "";
            child.stdout.on("data", (chunk) => {
              text += chunk;
            });
            child.on("exit", () => resolve(text.trim().split("\n").at(-1) ?? ""));
          }),
      ),
    );
    expect(tries.filter((one) => one === "taken")).toHaveLength(1);
    expect(tries.filter((one) => one !== "taken")).toEqual(["FolderInUse", "FolderInUse"]);
  }, 60_000);

  test("a holder whose lease was taken while it was held up hears of it", async () => {
    const folder = temporaryFolder();
    let isLost = false;
    const release = await lockFolder(folder, () => {
      isLost = true;
    });
    writeFileSync(lockOf(folder), JSON.stringify(lease()));
    for (let waited = 0; !isLost && waited < 50; waited++) await pause(100);
    expect(isLost).toBe(true);
    release();
    expect(JSON.parse(readFileSync(lockOf(folder), "utf8")).token).toBe("other");
  }, 30_000);
});

describe("a folder that cannot be used is told with its cause", () => {
  test("a file in its place", async () => {
    const file = join(temporaryFolder(), "data");
    writeFileSync(file, "");
    await expect(openDatabase({ folder: file })).rejects.toThrow(
      /^The data folder .*data cannot be used: it is a file/,
    );
    await expect(openDatabase({ folder: join(file, "deeper") })).rejects.toThrow(/a part of its path is a file/);
  });

  test.skipIf(process.getuid?.() === 0)("no right to write", async () => {
    const folder = temporaryFolder();
    chmodSync(folder, 0o500);
    await expect(openDatabase({ folder })).rejects.toThrow(/may not write there/);
  });

  test("a damaged database", async () => {
    const folder = temporaryFolder();
    mkdirSync(join(folder, "postgres"));
    writeFileSync(join(folder, "postgres", "PG_VERSION"), "17\n");
    await expect(openDatabase({ folder })).rejects.toThrow(/its database does not open .* restore the last backup/s);
    expect(existsSync(lockOf(folder))).toBe(false);
  }, 60_000);
});

describe("a first start that is cut off", () => {
  test.each([1_500])(
    "after %d ms of making the demo: the next one makes it",
    async (milliseconds) => {
      const folder = temporaryFolder();
      const peer = startPeer({ LANE_DATA: folder, LANE_DEMO: "yes" });
      peer.ready.catch(() => {});
      // Starting the program takes its time; the database comes after it.
      for (let waited = 0; !existsSync(lockOf(folder)) && waited < 200; waited++) await pause(50);
      await pause(milliseconds);
      await peer.kill();
      const next = startPeer({ LANE_DATA: folder, LANE_DEMO: "yes" });
      await next.ready;
      const { processes } = await next.run<{ processes: unknown[] }>("openHome", {});
      expect(processes).toHaveLength(6);
      await next.kill();
    },
    120_000,
  );
});
