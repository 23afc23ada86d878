import { and, asc, eq } from "drizzle-orm";
import { liveSignals } from "@/data/schema";
import type { Transaction } from "../kernel/act";
import type { Context } from "../kernel/useCase";
import { stepCase } from "./stepping";
import { runOf } from "./world";

type Signal = typeof liveSignals.$inferSelect;

/** Signals that were thrown, with the cases that have still to hear them; the first thrown first. */
export const signalsUnderWay = (db: Transaction, most: number) =>
  db.select().from(liveSignals).orderBy(asc(liveSignals.at), asc(liveSignals.id), asc(liveSignals.number)).limit(most);

/** A case hears a signal, once however often it is told; also one that is suspended, since a signal does not come again. */
export async function hearSignal(context: Context, signal: Signal): Promise<void> {
  const { db } = context;
  const at = { version: signal.version, run: signal.run, number: signal.number };
  if (!(await runOf(db, at.version, at.run)).endedAt)
    await stepCase(context, at, { kind: "signal heard", act: `signal ${signal.id}` }, ({ engine }) => {
      const heard = [...engine.waits].filter(({ kind, name }) => kind === "signal" && name === signal.name);
      // One of them may end what another waits in.
      for (const { id } of heard) if (engine.wait(id)) engine.happen(id);
    });
  await db.delete(liveSignals).where(and(eq(liveSignals.id, signal.id), eq(liveSignals.number, signal.number)));
}
