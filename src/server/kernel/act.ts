import { sql } from "drizzle-orm";
import { type Database, roomToWrite } from "@/data/database";
import { isWorthRetrying } from "./databaseErrors";

export type Transaction = Parameters<Parameters<Database["transaction"]>[0]>[0];

/**
 * What is locked, in the one order in which it is locked; acts that take several take them in this order and, of one kind, by name,
 * so that two acts never wait for each other. Every act that writes holds the workspace in common with others; a restore, and making
 * the workspace, hold it alone.
 */
const lockOrder = ["workspace", "home", "directory", "brief", "version", "run"] as const;
type Lockable = (typeof lockOrder)[number];

interface Held {
  readonly afterCommit: (() => void)[];
  readonly locks: Set<string>;
  /** The place in the order of the last kind that was locked. */
  reached: number;
  /** Whether nobody else writes anything meanwhile. */
  isAlone: boolean;
}

// By the transaction itself, so that whatever is handed the transaction can ask.
const acts = new WeakMap<Transaction, Held>();

/** Locks a thing until the act ends: alone, or in common with others who only need it to stay as it is. */
export async function lock(
  transaction: Transaction,
  kind: Lockable,
  names: readonly string[] = [""],
  mode: "alone" | "in common" = "alone",
): Promise<void> {
  const held = acts.get(transaction);
  if (!held) throw new Error(`Only an act that writes can lock the ${kind} ${names.join(", ")}.`);
  // Who has the workspace alone needs no more.
  if (held.isAlone) return;
  for (const name of [...new Set(names)].sort()) {
    const key = `${lockOrder.indexOf(kind)} ${kind} ${name}`;
    if (held.locks.has(`${key} alone`) || held.locks.has(`${key} ${mode}`)) continue;
    if (lockOrder.indexOf(kind) < held.reached)
      throw new Error(
        `The ${kind} ${name} is locked after a ${lockOrder[held.reached]}; two acts could wait for each other.`,
      );
    held.reached = lockOrder.indexOf(kind);
    held.locks.add(`${key} ${mode}`);
    // In a folder one act is done after the other anyway: nobody else has the database open.
    if (!process.env.DATABASE_URL) continue;
    await transaction.execute(
      mode === "alone"
        ? sql`select pg_advisory_xact_lock(hashtextextended(${key}, 0))`
        : sql`select pg_advisory_xact_lock_shared(hashtextextended(${key}, 0))`,
    );
  }
}

/** Does something once what the act wrote is there for everybody; at once where nothing is being written. */
export function afterCommit(transaction: Transaction | Database, what: () => void): void {
  const held = acts.get(transaction as Transaction);
  if (held) held.afterCommit.push(what);
  else what();
}

const mostAttempts = 8;
const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/**
 * One act: everything it reads and writes is one transaction, all or none. Where the database cannot put two acts one after the
 * other (a deadlock, a serialisation failure), it is done again from the start.
 */
export async function writing<Output>(
  db: Database,
  run: (transaction: Transaction) => Promise<Output>,
  workspace: "alone" | "in common" = "in common",
): Promise<Output> {
  roomToWrite();
  for (let attempt = 1; ; attempt++) {
    const held: Held = { afterCommit: [], locks: new Set(), reached: 0, isAlone: false };
    try {
      const output = await db.transaction(async (transaction) => {
        acts.set(transaction, held);
        await lock(transaction, "workspace", [""], workspace);
        held.isAlone = workspace === "alone";
        return run(transaction);
      });
      for (const what of held.afterCommit) what();
      return output;
    } catch (error) {
      if (attempt === mostAttempts || !isWorthRetrying(error)) throw error;
      await pause(10 * 2 ** attempt * (0.5 + Math.random()));
    }
  }
}

/** A part of an act that may fail without the act failing. */
export const savepoint = <Output>(
  transaction: Transaction,
  run: (part: Transaction) => Promise<Output>,
): Promise<Output> =>
  transaction.transaction((part) => {
    const held = acts.get(transaction);
    if (held) acts.set(part, held);
    return run(part);
  });

/** Reads of one state: whatever others write meanwhile is not seen. */
export function reading<Output>(db: Database, run: (transaction: Transaction) => Promise<Output>): Promise<Output> {
  return db.transaction(run, { isolationLevel: "repeatable read", accessMode: "read only" });
}
