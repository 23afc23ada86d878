import { execFileSync, spawn } from "node:child_process";
import { chownSync, existsSync, mkdtempSync, readdirSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

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
/** Why tests on a PostgreSQL server are left out here; undefined where they run. */
export const postgresMissing =
  bin === undefined
    ? "PostgreSQL is not installed"
    : owner?.uid === -1
      ? "there is no user postgres to run it as"
      : undefined;
if (postgresMissing) console.log(`The tests on a PostgreSQL server are left out: ${postgresMissing}.`);

export interface PostgresServer {
  readonly url: string;
  /** As when its machine loses power. */
  readonly kill: () => Promise<void>;
  readonly stop: () => Promise<void>;
}

let started = 0;

/** A server of its own with an empty database, on a free port of this machine. */
export async function startPostgres(): Promise<PostgresServer> {
  const port = 20_000 + ((process.pid * 7 + started++ * 1009) % 30_000);
  const folder = mkdtempSync(join(tmpdir(), "lane-postgres-"));
  if (owner) chownSync(folder, owner.uid, owner.gid);
  const options = { ...owner, cwd: folder, stdio: "ignore" as const };
  const program = (name: string) => join(bin as string, name);
  execFileSync(program("initdb"), ["-D", join(folder, "db"), "-A", "trust", "-U", "lane", "--no-sync"], options);
  const server = spawn(
    program("postgres"),
    ["-D", join(folder, "db"), "-p", String(port), "-k", folder, "-c", "listen_addresses=127.0.0.1", "-c", "fsync=off"],
    options,
  );
  for (let attempt = 0; ; attempt++) {
    try {
      execFileSync(program("pg_isready"), ["-h", "127.0.0.1", "-p", String(port)], { stdio: "ignore" });
      break;
    } catch (error) {
      if (attempt > 100) throw error;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
  const end = async (signal: "SIGINT" | "SIGQUIT") => {
    if (server.exitCode !== null || server.signalCode !== null) return;
    const gone = new Promise((resolve) => server.once("exit", resolve));
    server.kill(signal);
    await gone;
  };
  return {
    url: `postgres://lane@127.0.0.1:${port}/postgres`,
    kill: () => end("SIGQUIT"),
    stop: () => end("SIGINT"),
  };
}
