import { and, asc, eq, inArray } from "drizzle-orm";
import { live as terms } from "@/contract";
import { anonymised, type LiveEvent, type LogTrace, logCsv, logXes, traceOf } from "@/core/live";
import { liveEvents, members } from "@/data/schema";
import { query } from "../kernel/useCase";
import { allEditions, runOf } from "./world";

/** The log of a run: a trace for each case, in their order. */
export const downloadLog = query(terms.downloadLog, async ({ db }, { version, run: id, as, isAnonymised }) => {
  const run = await runOf(db, version, id);
  const models = (await allEditions(db, run)).flatMap((opened) => opened.models);
  const rows = await db
    .select({
      number: liveEvents.number,
      kind: liveEvents.kind,
      at: liveEvents.at,
      element: liveEvents.element,
      who: members.name,
    })
    .from(liveEvents)
    .leftJoin(members, eq(members.id, liveEvents.member))
    .where(and(eq(liveEvents.run, id), inArray(liveEvents.kind, ["start", "complete"])))
    .orderBy(asc(liveEvents.number), asc(liveEvents.sequence));
  const cases = new Map<number, (LiveEvent & { readonly who?: string })[]>();
  for (const { number, kind, at, element, who } of rows) {
    const own = cases.get(number) ?? [];
    const said = { ...(element !== null && { element }), ...(who !== null && { who }) };
    own.push({ kind: kind as LiveEvent["kind"], at, ...said });
    cases.set(number, own);
  }
  const traces: LogTrace[] = [...cases].map(([number, events]) => traceOf(String(number), events, models));
  const told = isAnonymised ? anonymised(traces, run.seed) : traces;
  const name = `${run.name.replace(/[^\p{L}\p{N}]+/gu, "-").toLowerCase() || "log"}.${as}`;
  return as === "xes"
    ? { text: logXes(told, isAnonymised ? "log" : run.name), name, type: "application/xml" }
    : { text: `\uFEFF${logCsv(told)}`, name, type: "text/csv" };
});
