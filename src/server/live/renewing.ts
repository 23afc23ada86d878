import { isDeepStrictEqual } from "node:util";
import { and, asc, eq, inArray, ne } from "drizzle-orm";
import { live as terms } from "@/contract";
import type { MoveRow } from "@/contract/live";
import { byData, Engine, type Moved, movedCase } from "@/core/live";
import { liveCases, liveWaits, renewals, runs } from "@/data/schema";
import { lock } from "../kernel/act";
import { type Context, query, UseCaseError, useCase } from "../kernel/useCase";
import { shownAt } from "./clock";
import { type Packed, packedFor, toRun } from "./runs";
import { startsFrom } from "./starts";
import { type CaseRecord, type Deed, keepCase } from "./stepping";
import { openedRun, packedOf, type RunHead, runOf } from "./world";

/** A run takes what was handed off last: cases that begin from now on run by it, those under way by theirs. */
export const renewRun = useCase(terms.renewRun, async (context, { version, run: id, edition }) => {
  const { db, member, asked } = context;
  await runOf(db, version, id);
  await lock(db, "run", [id]);
  const run = await runOf(db, version, id);
  // Asked once more after the answer was lost.
  if (run.edition === edition) return { edition };
  if (run.edition !== edition - 1)
    throw new UseCaseError("renewed-already", "This run has taken a newer package meanwhile. Look at it again.", 409);
  if (run.endedAt) throw new UseCaseError("run-ended", "This run has ended. Start up another one.", 409);
  const { model, revision } = await toRun(context, version);
  const before = await openedRun(db, run);
  const packed = await packedFor(db, model);
  if (before.revision === revision && (await isWhatRuns(db, run, packed)))
    throw new UseCaseError("nothing-newer", "Nothing newer was handed off. Hand the version off first.", 409);
  await db.insert(renewals).values({ run: id, edition, version, revision, ...packed, member: member.id, at: asked });
  await db
    .update(runs)
    .set({ edition, ...startsFrom(model, packed.process, shownAt(run.clock)) })
    .where(eq(runs.id, id));
  return { edition };
});

/** Whether a run runs this already, with all that is called and decided by. */
async function isWhatRuns(db: Context["db"], run: RunHead, packed: Packed): Promise<boolean> {
  const running = await packedOf(db, run);
  return isDeepStrictEqual(JSON.parse(JSON.stringify(packed)), {
    process: running.process,
    model: running.model,
    called: running.called,
    decisions: running.decisions,
  });
}

/** A case as it would stand in the newest edition. */
async function movedTo(
  db: Context["db"],
  run: RunHead,
  row: CaseRecord,
): Promise<Moved & { readonly engine?: Engine }> {
  const from = await openedRun(db, run, row.edition);
  const to = await openedRun(db, run);
  const moved = movedCase(row.content, from.world, to.world);
  if (!moved.isPossible) return moved;
  const running = { world: to.world, choosing: byData, zone: "UTC", now: shownAt(run.clock) };
  const engine = Engine.load(running, moved.moved);
  // What hangs at an edge there and did not here is waited for from now on.
  engine.settle();
  return { ...moved, engine };
}

const mostMoved = 200;

export const listMoves = query(terms.listMoves, async ({ db }, { version, run: id }) => {
  const run = await runOf(db, version, id);
  const where = and(eq(liveCases.run, id), eq(liveCases.state, "open"), ne(liveCases.edition, run.edition));
  const rows = await db.select().from(liveCases).where(where).orderBy(asc(liveCases.number)).limit(mostMoved);
  const moves: MoveRow[] = [];
  for (const row of rows) {
    const moved = await movedTo(db, run, row);
    moves.push({
      number: row.number,
      edition: row.edition,
      why: moved.isPossible ? [] : moved.why.map(({ text }) => text),
    });
  }
  return { moves, isMore: rows.length === mostMoved };
});

/** Moves cases under way to the newest edition; those that cannot be stay where they are, and why is told. */
export const moveCases = useCase(terms.moveCases, async (context, { version, run: id, numbers, act, reason }) => {
  const { db } = context;
  const run = await runOf(db, version, id);
  if (run.endedAt) throw new UseCaseError("run-ended", "This run has ended. Nothing more is done in it.", 409);
  await lock(db, "run", [id]);
  const rows = await db
    .select()
    .from(liveCases)
    .where(and(eq(liveCases.run, id), inArray(liveCases.number, [...numbers]), eq(liveCases.state, "open")))
    .orderBy(asc(liveCases.number))
    .for("update");
  const opened = await openedRun(db, run);
  const refused: MoveRow[] = [];
  let moved = 0;
  for (const row of rows) {
    // Asked once more, or by somebody else meanwhile.
    if (row.edition === run.edition) continue;
    const next = await movedTo(db, run, row);
    if (!next.isPossible || !next.engine) {
      refused.push({
        number: row.number,
        edition: row.edition,
        why: next.isPossible ? [] : next.why.map(({ text }) => text),
      });
      continue;
    }
    const waits = await db
      .select()
      .from(liveWaits)
      .where(and(eq(liveWaits.run, id), eq(liveWaits.number, row.number)));
    const known = new Map(waits.map((one) => [one.wait, one]));
    const data = { from: row.edition, to: run.edition };
    const deed: Deed = { kind: "moved to a newer package", act: `${act} ${row.number}`, reason, data };
    await db
      .update(liveCases)
      .set({ edition: run.edition })
      .where(and(eq(liveCases.run, id), eq(liveCases.number, row.number)));
    await keepCase(context, run, opened, row, known, next.engine, deed);
    moved++;
  }
  return { moved, refused };
});
