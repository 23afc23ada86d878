import { and, count, eq, inArray, isNull } from "drizzle-orm";
import { liveWaits, logs, runs } from "@/data/schema";
import type { Transaction } from "./act";

const nothing = { runs: 0, incidents: 0, logs: 0 };

/** How many runs of some versions go on, how many cases cannot go on in them, and how many logs are kept with them. */
export async function liveStanding(db: Transaction, versions: readonly string[]) {
  if (versions.length === 0) return () => nothing;
  const running = await db
    .select({ version: runs.version, count: count() })
    .from(runs)
    .where(and(inArray(runs.version, [...versions]), isNull(runs.endedAt)))
    .groupBy(runs.version);
  const amiss = await db
    .select({ version: liveWaits.version, count: count() })
    .from(liveWaits)
    .innerJoin(runs, eq(runs.id, liveWaits.run))
    .where(and(inArray(liveWaits.version, [...versions]), eq(liveWaits.kind, "incident"), isNull(runs.endedAt)))
    .groupBy(liveWaits.version);
  const kept = await db
    .select({ version: logs.version, count: count() })
    .from(logs)
    .where(and(inArray(logs.version, [...versions]), isNull(logs.deletedAt)))
    .groupBy(logs.version);
  const of = (rows: readonly { version: string; count: number }[], version: string) =>
    rows.find((row) => row.version === version)?.count ?? 0;
  return (version: string) => ({ runs: of(running, version), incidents: of(amiss, version), logs: of(kept, version) });
}
