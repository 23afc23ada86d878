import { and, asc, eq, inArray, isNull } from "drizzle-orm";
import { coverageOf, readBrief } from "@/core/brief";
import { briefs, elements, processes, versions, wordLinks } from "@/data/schema";
import type { Transaction } from "./kernel/act";

export interface BriefLink {
  readonly mark: string;
  readonly version: string;
  readonly element: string;
  readonly name: string;
}

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

/** How much of a process's description the models account for; null where there is none. For the stage's sign. */
export async function briefSummary(db: Transaction, brief: string | null) {
  const [row] = brief ? await db.select().from(briefs).where(eq(briefs.id, brief)) : [];
  if (!row) return null;
  const links = await linksOfVersions(
    db,
    (await processesOfBrief(db, row.id)).map((one) => one.version),
  );
  const { sentences, accounted } = coverageOf(readBrief(row.content.document), new Set(links.map((link) => link.mark)));
  return { sentences, accounted };
}
