import { eq } from "drizzle-orm";
import { live as terms } from "@/contract";
import { staffedCases } from "@/core/live";
import { scenariosOf } from "@/core/scenario";
import { liveCases, liveEvents, liveWaits, runs } from "@/data/schema";
import { lock } from "../kernel/act";
import { insertRows } from "../kernel/manyRows";
import { UseCaseError, useCase } from "../kernel/useCase";
import { shownAt } from "./clock";
import { eventRows, waitRows } from "./stepping";
import { openedRun, runOf } from "./world";

const millisecondsADay = 86_400_000;

/** Simulated members work some days up to now: what they finish is finished, what they have begun is open. */
export const runStaff = useCase(terms.runStaff, async ({ db }, { version, run: id, days, most }) => {
  await runOf(db, version, id);
  await lock(db, "run", [id]);
  const run = await runOf(db, version, id);
  if (run.endedAt) throw new UseCaseError("run-ended", "This run has ended. Nobody works in it any more.", 409);
  const opened = await openedRun(db, run);
  const until = shownAt(run.clock);
  const [scenario] = scenariosOf(opened.model);
  const cases: (typeof liveCases.$inferInsert)[] = [];
  const waits: (typeof liveWaits.$inferInsert)[] = [];
  const events: (typeof liveEvents.$inferInsert)[] = [];
  const seed = run.seed + run.cases;
  const request = { scenario, seed, from: until - days * millisecondsADay, until, most };
  for (const { began, engine } of staffedCases(opened.world, opened.process, request)) {
    const number = run.cases + cases.length + 1;
    const own = eventRows({ run: id, number, version }, engine.events, 0, null, undefined, until);
    engine.now = until;
    const content = engine.saved();
    const open = waitRows(run, opened, number, content, engine, new Map());
    const dues = open.flatMap(({ due }) => due ?? []);
    const ended = engine.events.at(-1)?.at;
    cases.push({
      run: id,
      number,
      version,
      edition: opened.edition,
      state: content.state,
      content,
      began,
      ended: content.state === "open" ? null : (ended ?? until),
      dueAt: dues.length > 0 ? Math.min(...dues) : null,
      events: own.length,
    });
    waits.push(...open);
    events.push(...own);
  }
  await insertRows(db, liveCases, cases);
  await insertRows(db, liveWaits, waits);
  await insertRows(db, liveEvents, events);
  await db
    .update(runs)
    .set({ cases: run.cases + cases.length })
    .where(eq(runs.id, id));
  return { cases: cases.length };
});
