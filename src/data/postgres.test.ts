import { execFileSync, spawn } from "node:child_process";
import { chownSync, existsSync, mkdtempSync, readdirSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { closeWorkspace, makeProcess, nameOfElement, openWorkspace, run, send } from "@/server/testing/workspace";

/** Debian's PostgreSQL, where it is installed. */
function binaries(): string | undefined {
  const base = "/usr/lib/postgresql";
  const version = existsSync(base) ? readdirSync(base).sort().at(-1) : undefined;
  const folder = version && join(base, version, "bin");
  return folder && existsSync(join(folder, "initdb")) ? folder : undefined;
}

/** PostgreSQL does not run as root; Debian's package brings a user for it. */
function user(): { uid: number; gid: number } | undefined {
  if (process.getuid?.() !== 0) return undefined;
  try {
    const id = (flag: string) =>
      Number(execFileSync("id", [flag, "postgres"], { stdio: ["ignore", "pipe", "ignore"] }).toString());
    return { uid: id("-u"), gid: id("-g") };
  } catch {
    return { uid: -1, gid: -1 };
  }
}

const bin = binaries();
const owner = user();
const missing =
  bin === undefined
    ? "PostgreSQL is not installed"
    : owner?.uid === -1
      ? "there is no user postgres to run it as"
      : undefined;
if (missing) console.log(`The tests on a PostgreSQL server are left out: ${missing}.`);

describe.skipIf(missing !== undefined)("a PostgreSQL server", () => {
  const port = 54_000 + (process.pid % 1000);
  let server: ReturnType<typeof spawn> | undefined;
  beforeAll(async () => {
    const folder = mkdtempSync(join(tmpdir(), "lane-postgres-"));
    if (owner) chownSync(folder, owner.uid, owner.gid);
    const options = { ...owner, cwd: folder, stdio: "ignore" as const };
    execFileSync(
      join(bin as string, "initdb"),
      ["-D", join(folder, "db"), "-A", "trust", "-U", "lane", "--no-sync"],
      options,
    );
    server = spawn(
      join(bin as string, "postgres"),
      ["-D", join(folder, "db"), "-p", String(port), "-k", folder, "-c", "listen_addresses=127.0.0.1"],
      options,
    );
    for (let attempt = 0; ; attempt++) {
      try {
        execFileSync(join(bin as string, "pg_isready"), ["-h", "127.0.0.1", "-p", String(port)], { stdio: "ignore" });
        break;
      } catch (error) {
        if (attempt > 100) throw error;
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
    }
    process.env.DATABASE_URL = `postgres://lane@127.0.0.1:${port}/postgres`;
    await openWorkspace();
  }, 60_000);
  afterAll(async () => {
    await closeWorkspace();
    delete process.env.DATABASE_URL;
    const gone = new Promise((resolve) => server?.once("exit", resolve));
    server?.kill("SIGINT");
    await gone;
  });

  test("the same schema and use cases serve it: edit, keep, restore, rename, hand off", async () => {
    const { version } = await makeProcess();
    await run("createEntry", { id: "map", kind: "system", name: "Network map" });
    await send(version, {
      type: "useSystem",
      step: "check",
      system: { entry: "map", name: "Network map" },
      use: "reads",
    });
    await run("nameRevision", { version, reason: "first" });
    await send(version, { type: "rename", id: "check", name: "Changed" });
    expect(await run("changeEntry", { id: "map", name: "Grid map" })).toEqual({ versions: [version] });
    await run("restoreRevision", { version, number: 1 });
    expect(await nameOfElement(version, "check")).toBe("Check application");
    expect(await run("handOff", { version })).toMatchObject({ revision: expect.any(Number) });
  });
});
