import { and, asc, eq, inArray, isNull, sql } from "drizzle-orm";
import type { UseRow } from "@/contract/directory";
import { say, term } from "@/core/messages";
import { elements, processes, uses, versions } from "@/data/schema";
import type { Transaction } from "./act";
import { UseCaseError } from "./useCaseError";

/** What an element that uses an entry is called, or what it is. */
const usedBy = sql<string>`coalesce(nullif(${elements.name}, ''), ${elements.type}, '')`;
export const stepName = sql<string>`coalesce(nullif(${elements.name}, ''), ${elements.type})`;
const elementOfUse = and(eq(elements.version, uses.version), eq(elements.element, uses.element));

/** Refuses where a version that is there uses one of some entries, and says where. */
export async function needsUnused(db: Transaction, entries: readonly string[]): Promise<void> {
  const used = await db
    .select({ element: usedBy, process: processes.name })
    .from(uses)
    .leftJoin(elements, elementOfUse)
    .innerJoin(versions, eq(versions.id, uses.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(inArray(uses.entry, [...entries]), isNull(versions.deletedAt), isNull(processes.deletedAt)));
  if (used.length > 0) {
    const some = used
      .slice(0, 3)
      .map((use) => `${use.element} (${use.process})`)
      .join(", ");
    throw new UseCaseError(
      "in-use",
      say`${term(entries.length === 1 ? "This entry" : "One of these entries")} is used in ${used.length === 1 ? say`1 place` : say`${used.length} places`}: ${used.length > 3 ? say`${some} and others` : some}. Take it off there first, or make it the same as another.`,
      409,
    );
  }
}

/** Where what is named once is used, in versions that are there. */
export const usesOf = (db: Transaction, entryId: string): Promise<UseRow[]> =>
  db
    .select({
      version: uses.version,
      versionName: versions.name,
      process: processes.name,
      element: uses.element,
      elementName: usedBy,
      how: uses.how,
    })
    .from(uses)
    .leftJoin(elements, elementOfUse)
    .innerJoin(versions, eq(versions.id, uses.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(eq(uses.entry, entryId), isNull(versions.deletedAt), isNull(processes.deletedAt)))
    .orderBy(asc(processes.name), asc(versions.createdAt), asc(usedBy));
