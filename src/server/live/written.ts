import { and, desc, eq, inArray, isNotNull, sql } from "drizzle-orm";
import { live as terms } from "@/contract";
import { storesOf } from "@/core/live";
import { type Id, isActivity, nameOf } from "@/core/model";
import { liveEvents } from "@/data/schema";
import { query } from "../kernel/useCase";
import { allEditions, runOf } from "./world";

/** What the steps of a run have written into stores: the tables of the databases that are stood in for. */
export const listWritten = query(
  terms.listWritten,
  async ({ db }, { version, run: id, store: wanted, from, count: most }) => {
    const run = await runOf(db, version, id);
    const models = (await allEditions(db, run)).flatMap((opened) => opened.models);
    const stores = new Map<string, Id[]>();
    const names = new Map<Id, string>();
    for (const model of models)
      for (const { id: step, type } of model.elements) {
        if (!isActivity(type) || names.has(step)) continue;
        for (const store of storesOf(model, step)) stores.set(store, [...(stores.get(store) ?? []), step]);
        names.set(step, nameOf(model, step) || step);
      }
    const listed = [...stores.keys()].sort((a, b) => a.localeCompare(b));
    const store = wanted ?? listed[0];
    const steps = store === undefined ? undefined : stores.get(store);
    if (!steps) return { stores: listed, rows: [], total: 0 };
    const rows = await db
      .select({
        number: liveEvents.number,
        at: liveEvents.at,
        element: liveEvents.element,
        data: liveEvents.data,
        total: sql<number>`count(*) over ()::int`,
      })
      .from(liveEvents)
      .where(
        and(
          eq(liveEvents.run, id),
          eq(liveEvents.kind, "complete"),
          inArray(liveEvents.element, steps),
          isNotNull(liveEvents.data),
        ),
      )
      .orderBy(desc(liveEvents.at), desc(liveEvents.number), desc(liveEvents.sequence))
      .limit(most)
      .offset(from);
    return {
      stores: listed,
      total: rows[0]?.total ?? 0,
      rows: rows.map(({ number, at, element, data }) => ({
        number,
        at,
        step: names.get(element ?? "") ?? "",
        data: data ?? {},
      })),
    };
  },
);
