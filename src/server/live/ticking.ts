import { exists, sql } from "drizzle-orm";
import { database } from "@/data/database";
import { reading, type Transaction } from "../kernel/act";
import { feed, listenToFeed } from "../kernel/events";
import { type Context, ownAct } from "../kernel/useCase";
import { dueCases } from "./cases";
import { shownAt } from "./clock";
import { runsDue, runsUnderWay } from "./runs";
import { hearSignal, signalsUnderWay } from "./signals";
import { letStart } from "./starts";
import { letTimePass } from "./stepping";
import { type Broken, brokenIn, keepAlerts } from "./targets";
import { ToLookAt } from "./toLookAt";
import { sendAlerts } from "./webhook";

/** Cases of one run that are looked at in one round, so that no run keeps the others waiting. */
const mostAtOnce = 200;

/**
 * Lets come what has come due in all runs: timers, and the answers of stand-ins. Each case is an act of its own. Several processes that
 * share a database may do this at once: a case is stepped by whoever locks it first, and the other finds nothing due any more.
 */
export async function passTime(): Promise<number> {
  const { db } = await database();
  // Mostly there is nothing: that is one question, however many runs there are.
  if (!(await reading(db, (transaction) => isAnythingDue(transaction, Date.now())))) return 0;
  const acts = new Acts();
  await passSignals(acts);
  for (const run of await reading(db, (transaction) => runsDue(transaction, Date.now()))) {
    const at = { version: run.version, run: run.id };
    if (run.startsAt !== null && run.startsAt <= shownAt(run.clock))
      await acts.do("letStart", run.version, (context) => letStart(context, at));
    const due = await reading(db, (transaction) => dueCases(transaction, run.id, shownAt(run.clock), mostAtOnce));
    for (const one of due) await acts.do("letTimePass", one.version, (context) => letTimePass(context, one));
  }
  return acts.end();
}

async function isAnythingDue(db: Transaction, now: number): Promise<boolean> {
  const { rows } = await db.execute<{ is: boolean }>(
    sql`select ${exists(signalsUnderWay(db, 1))} or ${exists(runsDue(db, now))} as "is"`,
  );
  return rows[0]?.is === true;
}

/** Acts one after the other; one that fails does not keep the others from being done. */
class Acts {
  #done = 0;
  #failed: unknown;

  async do(name: string, version: string, act: (context: Context) => Promise<void>): Promise<void> {
    try {
      await ownAct(name, [{ kind: "version", id: version }], act);
      this.#done++;
    } catch (error) {
      this.#failed ??= error;
    }
  }

  /** How many were done; tells the first failure, once all others are done. */
  end(): number {
    if (this.#failed !== undefined) throw this.#failed;
    return this.#done;
  }
}

/** Lets what was thrown in one case be heard by the others, each in an act of its own. */
async function passSignals(acts: Acts): Promise<void> {
  const { db } = await database();
  for (const signal of await reading(db, (transaction) => signalsUnderWay(transaction, mostAtOnce)))
    await acts.do("hearSignal", signal.version, (context) => hearSignal(context, signal));
}

/** Looks whether targets of runs are still kept, and tells who asked to be told. */
export async function lookAtTargets(toLookAt = new ToLookAt()): Promise<number> {
  const { db } = await database();
  let count = 0;
  for (const { id: run, version } of toLookAt.take(await reading(db, (transaction) => runsUnderWay(transaction)))) {
    const at = { version, run };
    if ((await reading(db, (transaction) => brokenIn(transaction, at))).length === 0) continue;
    const broken: Broken[] = [];
    await ownAct("lookAtTargets", [{ kind: "version", id: version }], async (context) => {
      broken.splice(0, broken.length, ...(await keepAlerts(context, at)));
    });
    count += broken.length;
    await sendAlerts(broken);
  }
  return count;
}

/** Targets are looked at once in so many ticks: what they measure takes longer than that to change. */
const ticksBetweenTargets = 20;

const shared = globalThis as unknown as { laneTicking?: NodeJS.Timeout; laneReady?: Promise<void> };
const milliseconds = 500;

/** From now on time passes in the runs of this server, as soon as its workspace is open. */
export function beginTicking(): void {
  if (shared.laneTicking) return;
  let isBusy = false;
  let told = "";
  let ticks = 0;
  const toLookAt = new ToLookAt();
  feed().listeners.add(toLookAt.hear);
  const tick = async () => {
    // Nobody has asked for the workspace yet: it is not opened for this.
    if (isBusy || !shared.laneReady) return;
    isBusy = true;
    try {
      await shared.laneReady;
      await passTime();
      ticks++;
      if (ticks % ticksBetweenTargets === 0) {
        // Who does not hear of what others do looks at all.
        await listenToFeed().catch(() => toLookAt.again());
        await lookAtTargets(toLookAt);
      }
      told = "";
    } catch (error) {
      toLookAt.again();
      const message = (error as Error).message;
      // Said once, and not twice a second for as long as it lasts.
      if (message !== told) console.error(`Time could not pass in the runs: ${message}`);
      told = message;
    } finally {
      isBusy = false;
    }
  };
  shared.laneTicking = setInterval(() => void tick(), milliseconds);
  shared.laneTicking.unref();
}

/** Time stands from now on: the server is about to end. */
export function endTicking(): void {
  if (shared.laneTicking) clearInterval(shared.laneTicking);
}
