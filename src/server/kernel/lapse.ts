import { eq, sql } from "drizzle-orm";
import { wordFor } from "@/core/model";
import { briefs, heads, processes, versions } from "@/data/schema";
import type { Transaction } from "./act";

/**
 * What Home shows of a version is counted apart (home/summaries) and stored with its head. Whatever it was counted from and is changed
 * says so here, in the same act: the version's content, what was accepted, its purpose, its walks.
 */
export async function summaryLapses(db: Transaction, version: string): Promise<void> {
  await db.update(heads).set({ summaryHolds: false }).where(eq(heads.version, version));
}

/** The same where the content changed: walks of versions that call it, however far up, may go otherwise now. */
export async function contentLapses(db: Transaction, version: string): Promise<void> {
  await db.execute(sql`
    with recursive callers(version) as (
      select ${version}::text
      union
      select calling.version
      from callers
      join elements process on process.version = callers.version and process.type = ${wordFor("process")}
      join elements calling on calling.called = process.element
    )
    update heads set summary_holds = false
    where summary_holds and (version = ${version} or version in (
      select callers.version from callers join walk_tests on walk_tests.version = callers.version
    ))`);
}

/** The same for all versions: what is looked for has changed for the whole workspace. */
export async function everySummaryLapses(db: Transaction): Promise<void> {
  await db.update(heads).set({ summaryHolds: false });
}

/** How much of a description is accounted for changes with its text and with what stands for its words. */
export async function briefSummaryLapses(db: Transaction, version: string): Promise<void> {
  const brief = db
    .select({ brief: processes.brief })
    .from(processes)
    .innerJoin(versions, eq(versions.process, processes.id))
    .where(eq(versions.id, version));
  await db.update(briefs).set({ summaryHolds: false }).where(eq(briefs.id, brief));
}
