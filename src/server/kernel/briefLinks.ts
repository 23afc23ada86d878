import { and, asc, eq, inArray, isNull } from "drizzle-orm";
import type { BriefLink } from "@/contract/brief";
import type { BriefSummary } from "@/core/brief";
import { briefs, elements, processes, versions, wordLinks } from "@/data/schema";
import type { Transaction } from "./act";
import type { Context } from "./useCase";
import { workedOut } from "./workedOut";

/** The processes that share a description, each with its first version. */
export async function processesOfBrief(db: Transaction, brief: string) {
  const rows = await db
    .select({ id: processes.id, name: processes.name, version: versions.id })
    .from(processes)
    .innerJoin(versions, eq(versions.process, processes.id))
    .where(and(eq(processes.brief, brief), isNull(processes.deletedAt), isNull(versions.deletedAt)))
    .orderBy(asc(versions.createdAt));
  // The first version of each stands for it; others remember their counterparts.
  return rows.filter((row, at) => rows.findIndex((other) => other.id === row.id) === at);
}

/** Which elements of some versions stand for which marks. */
export async function linksOfVersions(db: Transaction, told: readonly string[]): Promise<BriefLink[]> {
  if (told.length === 0) return [];
  const rows = await db
    .select({ mark: wordLinks.mark, version: wordLinks.version, element: wordLinks.element, name: elements.name })
    .from(wordLinks)
    .leftJoin(elements, and(eq(elements.version, wordLinks.version), eq(elements.element, wordLinks.element)))
    .where(inArray(wordLinks.version, [...told]))
    .orderBy(asc(wordLinks.version), asc(wordLinks.mark), asc(wordLinks.element));
  return rows.map((row) => ({ ...row, name: row.name ?? "" }));
}

/**
 * How much of a description the models account for; null where there is none. As it was last counted, where that still holds; else it
 * is counted.
 */
export async function briefSummaryOf(context: Context, brief: string | null): Promise<BriefSummary | null> {
  const { db } = context;
  const [row] = brief
    ? await db.select({ summary: briefs.summary, holds: briefs.summaryHolds }).from(briefs).where(eq(briefs.id, brief))
    : [];
  if (!brief || !row) return null;
  return row.holds && row.summary ? row.summary : countedBrief(context, brief);
}

/** The same, counted. */
export async function countedBrief(context: Context, brief: string): Promise<BriefSummary | null> {
  const { db } = context;
  const [row] = await db.select().from(briefs).where(eq(briefs.id, brief));
  if (!row) return null;
  const links = await linksOfVersions(
    db,
    (await processesOfBrief(db, row.id)).map((one) => one.version),
  );
  const marks = [...new Set(links.map((link) => link.mark))].sort();
  return workedOut(context, "briefSummary", [row.id, row.revision, row.save], {}, { content: row.content, marks });
}
