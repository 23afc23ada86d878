import { and, asc, count, eq, inArray, isNull, sql } from "drizzle-orm";
import { type AnswerOf, home } from "@/contract";
import { type MapEnd, type MapLink, mapShare } from "@/contract/home";
import { type LandscapeLink, type LandscapeProcess, landscapeLinks, outwardFactsOf } from "@/core/landscape";
import { areas, heads, processes, versions } from "@/data/schema";
import { DamagedVersion, tryHead } from "../kernel/heads";
import { type Context, longUseCase } from "../kernel/useCase";
import { areaRowsOf, counted, processColumns, withVersions } from "./openHome";
import type { Counted } from "./summaries";

type Answer = AnswerOf<typeof home.openMap>;

/** So many processes are one look; of more, areas are folded until somebody opens them. */
const mostAtOnce = 60;
/** So many models are read here and now, where what they say of others was not counted yet. */
const mostRead = 20;

/** So many are counted behind one look; whoever looks again has the next ones counted. */
const mostCounted = 100;

export const openMap = longUseCase(home.openMap, (outside, { unfolded }) =>
  counted(() => outside.read((context) => readMap(context, unfolded))),
);

async function readMap({ db }: Context, wanted: readonly string[] | null) {
  const areaRows = await areaRowsOf(db);
  const perArea = await db
    .select({
      area: processes.area,
      processes: count(),
      attention: sql<number>`(count(*) filter (where ${processColumns.need} > 0))::int`,
    })
    .from(processes)
    .where(isNull(processes.deletedAt))
    .groupBy(processes.area);
  const counts = new Map(perArea.map((row) => [row.area, row]));
  const all = areaRows.map((row) => {
    const { processes = 0, attention = 0 } = counts.get(row.id) ?? {};
    return { ...row, processes, attention };
  });
  const sum = (of: "processes" | "attention") => all.reduce((total, area) => total + area[of], 0);
  const unfolded = all
    .filter(({ id }) => (wanted === null ? sum("processes") <= mostAtOnce : wanted.includes(id)))
    .map(({ id }) => id);
  const page = await db
    .select(processColumns)
    .from(processes)
    .where(and(isNull(processes.deletedAt), inArray(processes.area, unfolded)))
    .orderBy(asc(processes.rank), asc(processes.name), asc(processes.id));
  const taken = new Map<string, number>();
  const drawn = page.filter(({ area }) => {
    const already = taken.get(area) ?? 0;
    taken.set(area, already + 1);
    return already < mapShare;
  });
  const { lapsed, unseen, ...shown } = await withVersions(db, drawn);
  const { facts, areaOf, uncounted } = await factsOf(db);
  const isDrawn = new Set(drawn.map(({ id }) => id));
  const endOf = (process: string): MapEnd =>
    isDrawn.has(process) ? { of: "process", id: process } : { of: "area", id: areaOf.get(process) ?? "" };
  const answer: Answer = {
    ...shown,
    areas: all,
    unfolded,
    links: gathered(landscapeLinks(facts), endOf),
    total: sum("processes"),
    attention: sum("attention"),
  };
  const known = new Set(lapsed.map(({ id }) => id));
  const more = uncounted.filter(({ id }) => !known.has(id));
  return {
    answer: { ...answer, counting: shown.counting + more.length },
    lapsed: [...lapsed, ...more],
    unseen,
  };
}

/** What each process says of others, as its as-is does: as it was counted, or from the model where few are not. */
async function factsOf(db: Context["db"]) {
  const rows = await db
    .select({
      version: versions.id,
      process: processes.id,
      name: processes.name,
      area: processes.area,
      outward: sql<LandscapeProcess | null>`${heads.summary} -> 'outward'`,
      holds: heads.summaryHolds,
    })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .innerJoin(areas, eq(areas.id, processes.area))
    .innerJoin(heads, eq(heads.version, versions.id))
    .where(and(eq(versions.kind, "as-is"), isNull(versions.deletedAt), isNull(processes.deletedAt)))
    .orderBy(asc(processes.createdAt), asc(processes.id));
  const stale = rows.filter(({ holds, outward }) => !holds || !outward);
  const readNow = new Set(stale.length <= mostRead ? stale.map(({ version }) => version) : []);
  const facts: LandscapeProcess[] = [];
  for (const { version, process: id, name, outward } of rows) {
    if (readNow.has(version)) {
      const head = await tryHead(db, version);
      if (!(head instanceof DamagedVersion)) facts.push({ id, name, ...outwardFactsOf(head.model) });
    } else if (outward) facts.push({ ...outward, id, name });
  }
  // Of a version that holds and says nothing of others, it was never asked.
  const uncounted = stale.slice(0, mostCounted).map(({ version }): Counted => ({ of: "version", id: version }));
  return { facts, areaOf: new Map(rows.map((row) => [row.process, row.area])), uncounted };
}

/** Links of single processes as they are drawn: those with the same two ends are one. */
function gathered(links: readonly LandscapeLink[], endOf: (process: string) => MapEnd): MapLink[] {
  const found = new Map<string, MapLink>();
  for (const { from, to, kind, names } of links) {
    const [first, second] = [endOf(from), endOf(to)];
    // Within one folded area there is nothing to draw.
    if (first.of === second.of && first.id === second.id) continue;
    const key = JSON.stringify([first, second, kind]);
    const known = found.get(key) ?? { from: first, to: second, kind, names: [], count: 0 };
    const all = [...new Set([...known.names, ...names])];
    found.set(key, { ...known, names: all, count: known.count + 1 });
  }
  return [...found.values()];
}
