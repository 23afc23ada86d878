import { and, asc, count, desc, eq, ilike, inArray, isNull, max, type SQL, sql } from "drizzle-orm";
import { type AnswerOf, home } from "@/contract";
import { type HomeGroup, type HomeOrder, type Need, needs } from "@/contract/home";
import type { Summary } from "@/core/check";
import { areas, briefs, handoffs, heads, processes, revisions, versions } from "@/data/schema";
import { openThreadCounts } from "../comments/threads";
import { lookInBackground } from "../handoff/buildCopies";
import { liveStanding } from "../kernel/liveStanding";
import { seenBuilds } from "../kernel/seenBuilds";
import { type Context, longUseCase } from "../kernel/useCase";
import { lastReviews } from "../review/reviews";
import { type Counted, countAnew, wasLookedAt } from "./summaries";

type Answer = AnswerOf<typeof home.openHome>;
interface Wanted {
  readonly area: string | null;
  readonly text: string;
  readonly order: HomeOrder;
  readonly group: HomeGroup;
  readonly needing: boolean;
  readonly from: number;
  readonly count: number;
}

/** What is counted anew while one looks is worth this many milliseconds of waiting; the rest is there when one asks again. */
const worthWaiting = 250;

export const openHome = longUseCase(home.openHome, (outside, wanted) =>
  counted(() => outside.read((context) => readHome(context, wanted))),
);

/** Reads; what has lapsed is counted anew behind it, and read once more if that is soon done. */
export async function counted<Given>(
  read: () => Promise<{
    readonly answer: Given;
    readonly lapsed: readonly Counted[];
    readonly unseen: readonly Counted[];
  }>,
): Promise<Given> {
  const first = await read();
  const toCount = [...first.lapsed, ...first.unseen];
  if (toCount.length === 0) return first.answer;
  const counting = countAnew(toCount);
  if (first.lapsed.length === 0) return first.answer;
  let timer: NodeJS.Timeout | undefined;
  await Promise.race([
    counting,
    new Promise<void>((resolve) => {
      timer = setTimeout(resolve, worthWaiting);
    }),
  ]);
  clearTimeout(timer);
  return (await read()).answer;
}

/** A part of a name, as it stands. */
const anywhere = (typed: string) => `%${typed.replace(/[\\%_]/g, (letter) => `\\${letter}`)}%`;

async function readHome({ db }: Context, wanted: Wanted) {
  const areaRows = await areaRowsOf(db);
  const perArea = new Map(
    (
      await db
        .select({ area: processes.area, processes: count() })
        .from(processes)
        .where(isNull(processes.deletedAt))
        .groupBy(processes.area)
    ).map((row) => [row.area, row.processes]),
  );
  const within = withinEach(areaRows);
  const all = areaRows.map((row) => ({
    ...row,
    processes: (within.get(row.id) ?? []).reduce((sum, id) => sum + (perArea.get(id) ?? 0), 0),
  }));
  const fitting = and(
    isNull(processes.deletedAt),
    wanted.area === null ? undefined : inArray(processes.area, within.get(wanted.area) ?? [wanted.area]),
    wanted.text === "" ? undefined : ilike(processes.name, anywhere(wanted.text)),
    wanted.needing ? sql`${need} > 0` : undefined,
  );
  const [{ total } = { total: 0 }] = await db.select({ total: count() }).from(processes).where(fitting);
  const page = await db
    .select(processColumns)
    .from(processes)
    .innerJoin(areas, eq(areas.id, processes.area))
    .where(fitting)
    .orderBy(...groups[wanted.group], ...orders[wanted.order], asc(processes.name), asc(processes.id))
    .offset(wanted.from)
    .limit(wanted.count);
  const shown = await withVersions(db, page);
  const { processes: listed, versions: ofThem, counting } = shown;
  return {
    answer: { areas: all, total, processes: listed, versions: ofThem, counting } satisfies Answer,
    lapsed: shown.lapsed,
    unseen: shown.unseen,
  };
}

/** The areas that are there, in their own order. */
export const areaRowsOf = (db: Context["db"]) =>
  db
    .select({ id: areas.id, name: areas.name, parent: areas.parent })
    .from(areas)
    .where(isNull(areas.deletedAt))
    .orderBy(asc(areas.rank), asc(areas.name));

/** What a process needs, as a number: the larger the sooner. */
const live = sql`${versions.process} = ${processes.id} and ${versions.deletedAt} is null`;
const need = sql<number>`(select coalesce(max(case
    when ${heads.damaged} is not null then 3
    when (${heads.summary} ->> 'errors')::int > 0 then 2
    when (${heads.summary} ->> 'warnings')::int + (${heads.summary} ->> 'failingWalks')::int > 0 then 1
    else 0 end), 0)::int
  from ${versions} join ${heads} on ${heads.version} = ${versions.id} where ${live})`;
const needOf = (number: number): Need => needs[3 - number] ?? "nothing";

export const processColumns = {
  id: processes.id,
  name: processes.name,
  area: processes.area,
  brief: processes.brief,
  need,
};
interface ProcessRow {
  readonly id: string;
  readonly name: string;
  readonly area: string;
  readonly brief: string | null;
  readonly need: number;
}

/** Processes as Home shows them, with their versions, and what of them is to be counted anew. */
export async function withVersions(db: Context["db"], page: readonly ProcessRow[]) {
  const listed = await versionsOf(
    db,
    page.map((row) => row.id),
  );
  const briefRows = await db
    .select({ id: briefs.id, summary: briefs.summary, holds: briefs.summaryHolds })
    .from(briefs)
    .where(
      inArray(
        briefs.id,
        page.flatMap((row) => row.brief ?? []),
      ),
    );
  const summaries = new Map(briefRows.map((row) => [row.id, row.summary]));
  const lapsed: Counted[] = [
    ...listed.filter((row) => !row.holds).map((row) => ({ of: "version" as const, id: row.id })),
    ...briefRows.filter((row) => !row.holds).map((row) => ({ of: "brief" as const, id: row.id })),
  ];
  const unseen: Counted[] = listed
    .filter((row) => row.holds && !wasLookedAt(row.id))
    .map((row) => ({ of: "version" as const, id: row.id }));
  return {
    processes: page.map(({ id, name, area, ...row }) => ({
      id,
      name,
      area,
      need: needOf(row.need),
      brief: row.brief === null ? null : (summaries.get(row.brief) ?? null),
    })),
    versions: listed.map(({ holds: _, ...row }) => row),
    counting: lapsed.length,
    lapsed,
    unseen,
  };
}

const orders: { readonly [order in Wanted["order"]]: SQL[] } = {
  own: [asc(processes.rank)],
  name: [],
  changed: [
    desc(
      sql`(select max(${heads.changedAt}) from ${versions} join ${heads} on ${heads.version} = ${versions.id} where ${live})`,
    ),
  ],
  findings: [
    desc(sql`(select coalesce(sum((${heads.summary} ->> 'errors')::int * 1000 + (${heads.summary} ->> 'warnings')::int), 0)
      from ${versions} join ${heads} on ${heads.version} = ${versions.id} where ${live})`),
  ],
};

const groups: { readonly [group in HomeGroup]: SQL[] } = {
  none: [],
  area: [asc(areas.rank), asc(areas.name), asc(areas.id)],
  need: [desc(need)],
};

/** The versions of some processes, in the order they were made. */
async function versionsOf(db: Context["db"], of: readonly string[]) {
  const rows = await db
    .select({
      id: versions.id,
      process: versions.process,
      kind: versions.kind,
      name: versions.name,
      source: versions.source,
      changedAt: heads.changedAt,
      sequence: heads.sequence,
      summary: heads.summary,
      damaged: heads.damaged,
      holds: heads.summaryHolds,
    })
    .from(versions)
    .innerJoin(heads, eq(heads.version, versions.id))
    .where(and(inArray(versions.process, [...of]), isNull(versions.deletedAt)))
    .orderBy(asc(versions.createdAt), asc(versions.id));
  const ids = rows.map((row) => row.id);
  const kept = await db
    .select({ version: revisions.version, number: max(revisions.number) })
    .from(revisions)
    .where(inArray(revisions.version, ids))
    .groupBy(revisions.version);
  const handed = await db
    .select({ version: handoffs.version, number: count() })
    .from(handoffs)
    .where(inArray(handoffs.version, ids))
    .groupBy(handoffs.version);
  const builds = await seenBuilds(db, ids, new Date().toISOString());
  // Files of developers change without telling: looked at anew behind who looks at Home.
  for (const [version, { isOld }] of builds) if (isOld) void lookInBackground(version);
  const live = await liveStanding(db, ids);
  const reviewed = await lastReviews(db, ids);
  const talkedAbout = await openThreadCounts(db, ids);
  const numbers = new Map(kept.map((row) => [row.version, row.number ?? 0]));
  const packages = new Map(handed.map((row) => [row.version, row.number]));
  return rows.map(({ summary, ...row }) => {
    // What it says of other processes is for the map alone.
    const { outward: _, ...counted } = summary ?? {};
    return {
      ...row,
      builds: builds.get(row.id)?.state ?? null,
      summary: summary === null ? null : (counted as Summary),
      revision: numbers.get(row.id) ?? 0,
      handedOff: packages.get(row.id) ?? 0,
      live: live(row.id),
      comments: talkedAbout.get(row.id) ?? 0,
      review: reviewed.get(row.id) ?? null,
    };
  });
}

/** Each area with all it holds, itself first, however deep. */
function withinEach(rows: readonly { readonly id: string; readonly parent: string | null }[]): Map<string, string[]> {
  const children = new Map<string, string[]>();
  for (const { id, parent } of rows) if (parent !== null) children.set(parent, [...(children.get(parent) ?? []), id]);
  return new Map(
    rows.map(({ id }) => {
      const found = new Set([id]);
      for (const one of found) for (const child of children.get(one) ?? []) found.add(child);
      return [id, [...found]];
    }),
  );
}
