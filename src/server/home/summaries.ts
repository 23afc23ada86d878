import { eq } from "drizzle-orm";
import { briefs, heads } from "@/data/schema";
import { calledName } from "@/jobs";
import { adaptionOf, profileOf } from "../check/checkProfiles";
import { waiversOf } from "../check/waivers";
import { lock } from "../kernel/act";
import { countedBrief } from "../kernel/briefLinks";
import { DamagedVersion, stateOf, tryHead } from "../kernel/heads";
import { type Context, ownAct, UseCaseError } from "../kernel/useCase";
import { workedOut } from "../kernel/workedOut";
import { modelsCalled, walkTestsOf } from "../walk/walks";

/** Something whose numbers are counted anew. */
export interface Counted {
  readonly of: "version" | "brief";
  readonly id: string;
}

interface Counting {
  /** What is being counted or waits for it, by what it is. */
  readonly underWay: Map<string, Promise<void>>;
  readonly waiting: (() => void)[];
  running: number;
  /** Versions whose content was looked at since this process started. */
  readonly lookedAt: Set<string>;
}
const shared = globalThis as unknown as { laneCounting?: Counting };
const counting = (): Counting => {
  shared.laneCounting ??= { underWay: new Map(), waiting: [], running: 0, lookedAt: new Set() };
  return shared.laneCounting;
};

/** Whether a version's content was looked at since this process started: a fault of the disk shows on Home, not only when it is opened. */
export const wasLookedAt = (version: string): boolean => counting().lookedAt.has(version);

/** Leaves room for people: what they wait for goes before. */
const mostAtOnce = 1;

/**
 * Counts anew what Home shows, one after the other, behind what people do. Resolves when all of it is counted; each is counted once
 * however many ask for it.
 */
export async function countAnew(wanted: readonly Counted[]): Promise<void> {
  await Promise.all(wanted.map(countOne));
}

function countOne(wanted: Counted): Promise<void> {
  const { underWay } = counting();
  const key = `${wanted.of} ${wanted.id}`;
  const begun = underWay.get(key);
  if (begun) return begun;
  const work = turn()
    .then(() =>
      ownAct("counted", [], (context) => (wanted.of === "version" ? countVersion : countBrief)(context, wanted.id)),
    )
    // Where it cannot be had now it is asked for again; who reads Home sees what was counted last.
    .catch(() => undefined)
    .finally(() => {
      underWay.delete(key);
      const { waiting } = counting();
      counting().running--;
      waiting.shift()?.();
    });
  underWay.set(key, work);
  return work;
}

/** Waits for one's turn. */
async function turn(): Promise<void> {
  const { waiting } = counting();
  if (counting().running >= mostAtOnce) await new Promise<void>((resolve) => waiting.push(resolve));
  counting().running++;
}

/** Ends when nothing is being counted: before a database is closed. */
export async function countingDone(): Promise<void> {
  const { underWay, waiting } = counting();
  for (const go of waiting.splice(0)) go();
  await Promise.all(underWay.values());
}

async function countVersion(context: Context, version: string): Promise<void> {
  const { db } = context;
  await lock(db, "version", [version]);
  const keep = (summary: Partial<typeof heads.$inferInsert>) =>
    db
      .update(heads)
      .set({ summary: null, damaged: null, ...summary, summaryHolds: true })
      .where(eq(heads.version, version));
  const head = await tryHead(db, version);
  counting().lookedAt.add(version);
  if (head instanceof DamagedVersion) {
    await keep({ damaged: head.message });
    return;
  }
  const tests = await walkTestsOf(db, version);
  const called = tests.length > 0 ? await modelsCalled(db, head.model) : [];
  const input = {
    profile: await profileOf(db, version),
    adaption: await adaptionOf(db),
    waivers: await waiversOf(db, version),
    tests: tests.map((test) => test.content),
  };
  const models = {
    model: head.model,
    ...Object.fromEntries(called.map((one) => [calledName(one.calls), one.head.model])),
  };
  const state = [stateOf(head), ...called.map((one) => [one.calls, ...stateOf(one.head)])];
  try {
    await keep({ summary: await workedOut(context, "summary", state, models, input) });
  } catch (error) {
    // What takes too long, or too much, is not tried again before something changes.
    if (!(error instanceof UseCaseError && error.status === 422)) throw error;
    await keep({});
  }
}

async function countBrief(context: Context, brief: string): Promise<void> {
  await lock(context.db, "brief", [brief]);
  const summary = await countedBrief(context, brief);
  await context.db.update(briefs).set({ summary, summaryHolds: true }).where(eq(briefs.id, brief));
}
