import { existsSync, renameSync, rmSync } from "node:fs";
import { join, resolve } from "node:path";
import type { PGlite } from "@electric-sql/pglite";
import { drizzle as drizzleServer } from "drizzle-orm/node-postgres";
import { migrate as migrateServer } from "drizzle-orm/node-postgres/migrator";
import { drizzle as drizzleLocal } from "drizzle-orm/pglite";
import { migrate as migrateLocal } from "drizzle-orm/pglite/migrator";
import pg from "pg";
import { FolderUnusable, needsRoom, prepareFolder, toldOf } from "./folder";
import { LocalDatabase } from "./local/client";
import { lockFolder } from "./lock";
import * as schema from "./schema";
import { ServerPool } from "./serverPool";
import { upkeepOf } from "./upkeep";

/** The one face of both databases; what runs on it is the same SQL. */
export type Database = ReturnType<typeof drizzleLocal<typeof schema>>;

export interface OpenDatabase {
  readonly db: Database;
  readonly close: () => Promise<void>;
  /** Resolves when a database in a folder has ended, also by itself: whoever wants it then opens it anew. */
  readonly ended?: Promise<void>;
  /** To be called after each write. */
  readonly wrote: () => void;
  /** Hears what any process that shares the database says on a channel; nothing to hear where there is one process. */
  readonly listen: (channel: string, heard: (text: string) => void, missed: () => void) => Promise<void>;
}

export const dataFolder = () => resolve(/* turbopackIgnore: true */ process.env.LANE_DATA ?? "data");
const migrationsFolder = () =>
  process.env.LANE_MIGRATIONS ?? join(/* turbopackIgnore: true */ process.cwd(), "src/data/migrations");

/** A thread is started from a file as it stands, wherever the rest was bundled to. */
const threadFile = () => join(migrationsFolder(), "../local/thread.mjs");

/**
 * Opens the workspace's database and brings its tables up to date: files in the data folder, or the PostgreSQL server that
 * DATABASE_URL names.
 */
export async function openDatabase(options: { folder?: string; url?: string } = {}): Promise<OpenDatabase> {
  const url = options.url ?? process.env.DATABASE_URL;
  if (url) {
    const pool = new ServerPool(url);
    const db = drizzleServer(pool, { schema });
    await migrateAlone(pool);
    const ears = earsOf(url);
    return {
      db: db as unknown as Database,
      close: async () => {
        await ears.stop();
        await pool.end();
      },
      wrote: () => {},
      listen: ears.listen,
    };
  }
  const folder = options.folder ?? dataFolder();
  prepareFolder(folder);
  const release = await lockFolder(folder).catch((error) => {
    throw toldOf(folder, error);
  });
  let client: LocalDatabase | undefined;
  try {
    client = await openLocal(folder);
    const opened = client;
    const db = drizzleLocal(client as unknown as PGlite, { schema });
    await migrateLocal(db, { migrationsFolder: migrationsFolder() });
    const upkeep = upkeepOf(opened);
    const ended = opened.ended.then(release);
    return {
      db,
      ended,
      wrote: upkeep.wrote,
      listen: async () => {},
      close: async () => {
        await upkeep.stop();
        await opened.close();
        await ended;
      },
    };
  } catch (error) {
    // Nobody else may open the folder while this one still has it open.
    await client?.close().catch(() => undefined);
    release();
    throw toldOf(folder, error);
  }
}

/**
 * The database in a folder. A new one is made beside its place and put there when it is whole, so that a start which is cut off leaves
 * nothing half made.
 */
async function openLocal(folder: string): Promise<LocalDatabase> {
  const [place, making] = [join(folder, "postgres"), join(folder, "postgres.making")];
  if (!existsSync(place)) {
    rmSync(making, { recursive: true, force: true });
    const made = await LocalDatabase.open(threadFile(), making);
    await made.close();
    renameSync(making, place);
  }
  try {
    return await LocalDatabase.open(threadFile(), place);
  } catch (cause) {
    // A database that cannot go over what was written last, for want of room, is not damaged.
    if (["ENOSPC", "EDQUOT", "EFBIG"].includes((cause as NodeJS.ErrnoException).code ?? "")) throw cause;
    throw new FolderUnusable(
      folder,
      `its database does not open (${(cause as Error).message?.split("\n")[0] ?? "damaged"}). Move ${place} away and restore the last backup: npm run restore -- FILE`,
      { cause },
    );
  }
}

/**
 * A connection of its own that hears what is said on a channel. One that breaks is made again, and whoever listens is told that
 * something may have been missed meanwhile.
 */
function earsOf(url: string) {
  let client: pg.Client | undefined;
  let isStopped = false;
  const listen = async (channel: string, heard: (text: string) => void, missed: () => void): Promise<void> => {
    const own = new pg.Client({ connectionString: url, keepAlive: true });
    client = own;
    let isGone = false;
    const again = () => {
      if (isGone || isStopped) return;
      isGone = true;
      own.end().catch(() => undefined);
      setTimeout(() => {
        if (!isStopped) listen(channel, heard, missed).then(missed, () => undefined);
      }, 1_000).unref();
    };
    own.on("error", again);
    own.on("end", again);
    own.on("notification", ({ payload }) => payload !== undefined && heard(payload));
    try {
      await own.connect();
      await own.query(`listen ${channel}`);
    } catch (error) {
      again();
      throw error;
    }
  };
  return {
    listen,
    stop: async () => {
      isStopped = true;
      await client?.end().catch(() => undefined);
    },
  };
}

/** Brings the tables of a server up to date; of several processes that start at once one does it, and the others wait. */
async function migrateAlone(pool: pg.Pool): Promise<void> {
  const client = await pool.connect();
  const lock = "select pg_advisory_lock(hashtextextended('lucid-lane migrations', 0))";
  try {
    await client.query(lock);
    await migrateServer(drizzleServer(client, { schema }), { migrationsFolder: migrationsFolder() });
    await client.query(lock.replace("lock(", "unlock("));
  } catch (error) {
    // Its lock goes with the connection.
    client.release(true);
    await pool.end();
    throw error;
  }
  client.release();
}

// Routes are bundled apart from each other; what they share stands on the global object.
const shared = globalThis as unknown as { laneDatabase?: Promise<OpenDatabase> };

/** The database of this process, opened at first use. */
export function database(): Promise<OpenDatabase> {
  if (shared.laneDatabase) return shared.laneDatabase;
  const forget = () => {
    if (shared.laneDatabase === opening) shared.laneDatabase = undefined;
  };
  const opening: Promise<OpenDatabase> = openDatabase().catch((error) => {
    forget();
    throw error;
  });
  shared.laneDatabase = opening;
  opening.then(({ ended }) => ended?.then(forget)).catch(() => undefined);
  return opening;
}

/** @throws `ENOSPC` where the folder's disk has no room for a change; of a server's disk nothing is known here */
export function roomToWrite(): void {
  if (!process.env.DATABASE_URL) needsRoom(dataFolder());
}

/** Closes it, so that another process may open the folder, or a restored one takes its place. */
export async function closeDatabase(): Promise<void> {
  const open = shared.laneDatabase;
  shared.laneDatabase = undefined;
  if (open) await (await open).close();
}
