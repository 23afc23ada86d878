import { and, eq, ilike, isNull, ne, or, sql } from "drizzle-orm";
import { finding } from "@/contract";
import type { Found } from "@/contract/find";
import { processesOf, wordFor } from "@/core/model";
import { decisionFiles, directory, elements, processes, versions } from "@/data/schema";
import { DamagedVersion, tryHead } from "../kernel/heads";
import { query } from "../kernel/useCase";

/** Finds processes, elements of any head, directory entries and decisions by a part of their name. */
export const find = query(finding.find, async ({ db }, { text }): Promise<{ found: Found[] }> => {
  const pattern = `%${text.replace(/[\\%_]/g, (letter) => `\\${letter}`)}%`;
  const live = and(isNull(versions.deletedAt), isNull(processes.deletedAt));
  const processRows = await db
    .select({ name: processes.name, version: versions.id, versionName: versions.name })
    .from(processes)
    .innerJoin(versions, eq(versions.process, processes.id))
    .where(and(ilike(processes.name, pattern), live))
    .limit(8);
  const elementRows = await db
    .select({
      name: elements.name,
      type: elements.type,
      version: elements.version,
      element: elements.element,
      process: processes.name,
      versionName: versions.name,
    })
    .from(elements)
    .innerJoin(versions, eq(versions.id, elements.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    // A process is found by its own name, not once more by what its file calls it.
    .where(and(ilike(elements.name, pattern), ne(elements.type, wordFor("process")), live))
    .limit(20);
  const entryRows = await db
    .select()
    .from(directory)
    .where(and(ilike(directory.name, pattern), isNull(directory.deletedAt)))
    .limit(8);
  const fileRows = await db
    .select({ id: decisionFiles.id, name: decisionFiles.name, decisions: decisionFiles.decisions })
    .from(decisionFiles)
    .where(
      and(
        isNull(decisionFiles.deletedAt),
        or(ilike(decisionFiles.name, pattern), sql`${decisionFiles.decisions}::text ilike ${pattern}`),
      ),
    )
    .limit(8);
  const folded = text.toLowerCase();
  const decided = fileRows.flatMap(({ id, name, decisions }) => {
    const named = decisions.filter((one) => one.name.toLowerCase().includes(folded));
    const own = { kind: "decision" as const, title: name, detail: "decisions", file: id };
    return [
      ...(name.toLowerCase().includes(folded) ? [own] : []),
      ...named.map((one): Found => ({ ...own, title: one.name, detail: `decision, ${name}`, decision: one.id })),
    ];
  });
  return {
    found: [
      ...processRows.map(
        (row): Found => ({ kind: "process", title: row.name, detail: row.versionName, version: row.version }),
      ),
      ...entryRows.map((row): Found => ({ kind: "entry", title: row.name, detail: row.kind, entry: row.id })),
      ...decided.slice(0, 8),
      ...elementRows.map(
        (row): Found => ({
          kind: "element",
          title: row.name,
          detail: `${row.type}, ${row.process}, ${row.versionName}`,
          version: row.version,
          element: row.element,
        }),
      ),
    ],
  };
});

/** Processes a call activity can name, by the id they have in files. The as-is of each stands for it. */
export const listCallable = query(finding.listCallable, async ({ db }) => {
  const rows = await db
    .select({
      version: versions.id,
      versionName: versions.name,
      kind: versions.kind,
      process: processes.id,
      name: processes.name,
    })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(isNull(versions.deletedAt), isNull(processes.deletedAt)));
  const callable = [];
  for (const row of rows.filter((candidate) => candidate.kind === "as-is")) {
    const head = await tryHead(db, row.version);
    if (head instanceof DamagedVersion) continue;
    const versionsOf = rows
      .filter((other) => other.process === row.process)
      .map(({ version, versionName }) => ({ id: version, name: versionName }));
    for (const process of processesOf(head.model))
      callable.push({
        process: row.process,
        bpmnId: process.id,
        name: row.name,
        version: row.version,
        versions: versionsOf,
      });
  }
  return { callable: callable.sort((a, b) => a.name.localeCompare(b.name)) };
});
