import { and, asc, eq, inArray, isNull } from "drizzle-orm";
import { type Id, wordFor } from "@/core/model";
import { elements, processes, versions } from "@/data/schema";
import type { Transaction } from "./act";

/** Processes whose as-is holds a process of one of these ids, as files name them: those that were made first come first. */
export const processesWithIds = (db: Transaction, ids: readonly Id[]) =>
  db
    .select({ version: versions.id, process: processes.id, name: processes.name, id: elements.element })
    .from(elements)
    .innerJoin(versions, eq(versions.id, elements.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(
      and(
        eq(elements.type, wordFor("process")),
        inArray(elements.element, [...ids]),
        eq(versions.kind, "as-is"),
        isNull(versions.deletedAt),
        isNull(processes.deletedAt),
      ),
    )
    .orderBy(asc(processes.createdAt), asc(processes.id));
