import { and, asc, eq, isNull } from "drizzle-orm";
import { inVersion } from "@/contract";
import { toStored } from "@/core/model";
import { areas, handoffs, processes, versions } from "@/data/schema";
import { briefSummaryOf } from "../kernel/briefLinks";
import { generationOf } from "../kernel/generation";
import { loadHead } from "../kernel/heads";
import { liveStanding } from "../kernel/liveStanding";
import { rightsWithin } from "../kernel/rights";
import { seenBuilds } from "../kernel/seenBuilds";
import { notFound, query } from "../kernel/useCase";

/** Everything the stages of one version need. */
export const openVersion = query(inVersion.openVersion, async (context, input) => {
  const { db } = context;
  const generation = await generationOf(db);
  const [row] = await db
    .select({
      version: versions,
      processName: processes.name,
      area: processes.area,
      brief: processes.brief,
      deletedAt: processes.deletedAt,
    })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(eq(versions.id, input.version));
  if (!row || row.deletedAt || row.version.deletedAt) throw notFound("This version");
  const head = await loadHead(db, input.version);
  const siblings = await db
    .select({
      id: versions.id,
      name: versions.name,
      kind: versions.kind,
      source: versions.source,
      aim: versions.aim,
      adoptedAt: versions.adoptedAt,
    })
    .from(versions)
    .where(and(eq(versions.process, row.version.process), isNull(versions.deletedAt)))
    .orderBy(asc(versions.createdAt));
  const builds = await seenBuilds(
    db,
    siblings.map(({ id }) => id),
    context.now(),
  );
  const stateOf = (version: string) => builds.get(version)?.state ?? null;
  const areaRows = await db.select().from(areas);
  const trail: string[] = [];
  const around: string[] = [];
  for (let at: string | null = row.area; at !== null; at = areaRows.find((area) => area.id === at)?.parent ?? null) {
    around.push(at);
    trail.unshift(areaRows.find((area) => area.id === at)?.name ?? "");
  }
  const handed = await db.select({ id: handoffs.id }).from(handoffs).where(eq(handoffs.version, input.version));
  return {
    member: context.member.name,
    rights: rightsWithin(context.member, around),
    version: {
      id: row.version.id,
      name: row.version.name,
      kind: row.version.kind,
      source: row.version.source,
      aim: row.version.aim,
      adoptedAt: row.version.adoptedAt,
      builds: stateOf(row.version.id),
    },
    process: { id: row.version.process, name: row.processName },
    trail,
    siblings: siblings.map((sibling) => ({ ...sibling, builds: stateOf(sibling.id) })),
    sequence: head.sequence,
    generation,
    handedOff: handed.length,
    live: (await liveStanding(db, [input.version]))(input.version),
    brief: await briefSummaryOf(context, row.brief),
    model: toStored(head.model),
  };
});
