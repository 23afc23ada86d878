import { and, asc, eq, exists, ilike, inArray, isNull, or, sql } from "drizzle-orm";
import { finding } from "@/contract";
import { elements, processes, uses, versions } from "@/data/schema";
import { stepsOfRole } from "../kernel/stepsOfRole";
import { query } from "../kernel/useCase";

const mostRows = 200;

/** A pattern that finds the typed letters as they are, wherever they stand. */
const anywhere = (typed: string) => `%${typed.replace(/[\\%_]/g, (letter) => `\\${letter}`)}%`;

/**
 * Elements of all processes by what they are called, what else is written about them, their type, the role that has a part in
 * them, the system they use; each condition that is given must hold.
 */
export const searchElements = query(finding.searchElements, async ({ db }, input) => {
  const pattern = anywhere(input.text);
  const usedBy = (entry: string) =>
    exists(
      db
        .select({ one: sql`1` })
        .from(uses)
        .where(and(eq(uses.version, elements.version), eq(uses.element, elements.element), eq(uses.entry, entry))),
    );
  const byRole = input.role ? await stepsOfRole(db, input.role) : undefined;
  const wanted = and(
    isNull(versions.deletedAt),
    isNull(processes.deletedAt),
    input.text ? or(ilike(elements.name, pattern), ilike(elements.words, pattern)) : undefined,
    input.type ? eq(elements.type, input.type) : undefined,
    byRole &&
      or(
        sql`false`,
        ...byRole.map(([version, ids]) => and(eq(elements.version, version), inArray(elements.element, ids))),
      ),
    input.system ? usedBy(input.system) : undefined,
  );
  const rows = await db
    .select({
      version: versions.id,
      versionName: versions.name,
      process: processes.name,
      element: elements.element,
      name: elements.name,
      type: elements.type,
      words: elements.words,
      total: sql<number>`count(*) over ()`.mapWith(Number),
    })
    .from(elements)
    .innerJoin(versions, eq(versions.id, elements.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(wanted)
    .orderBy(asc(processes.name), asc(versions.createdAt), asc(elements.name), asc(elements.element))
    .limit(mostRows);
  return {
    total: rows[0]?.total ?? 0,
    rows: rows.map(({ total: _, words, ...row }) => ({ ...row, excerpt: excerptOf(words, input.text) })),
  };
});

/** Types that elements of the workspace have, with how many of each. */
export const listTypes = query(finding.listTypes, async ({ db }) => ({
  types: await db
    .select({ type: elements.type, count: sql<number>`count(*)`.mapWith(Number) })
    .from(elements)
    .innerJoin(versions, eq(versions.id, elements.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(isNull(versions.deletedAt), isNull(processes.deletedAt)))
    .groupBy(elements.type)
    .orderBy(asc(elements.type)),
}));

/** The words around what was typed; nothing where it stands in the name only. */
function excerptOf(words: string, typed: string): string {
  const at = typed === "" ? -1 : words.toLowerCase().indexOf(typed.toLowerCase());
  if (at < 0) return "";
  const [from, to] = [Math.max(0, at - 40), Math.min(words.length, at + typed.length + 60)];
  return `${from > 0 ? "… " : ""}${words.slice(from, to).replace(/\s+/g, " ")}${to < words.length ? " …" : ""}`;
}
