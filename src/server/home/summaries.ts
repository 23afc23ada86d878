import { eq } from "drizzle-orm";
import { briefs, heads } from "@/data/schema";
import { adaptionOf, profileOf } from "../check/checkProfiles";
import { waiversOf } from "../check/waivers";
import { lock } from "../kernel/act";
import { inBackground } from "../kernel/background";
import { countedBrief } from "../kernel/briefLinks";
import { DamagedVersion, stateOf, tryHead } from "../kernel/heads";
import { type Context, ownAct, UseCaseError } from "../kernel/useCase";
import { workedOut } from "../kernel/workedOut";
import { walkTestsOf, withCalled } from "../walk/walks";

/** Something whose numbers are counted anew. */
export interface Counted {
  readonly of: "version" | "brief";
  readonly id: string;
}

// Versions whose content was looked at since this process started.
const shared = globalThis as unknown as { laneLookedAt?: Set<string> };
const lookedAt = (): Set<string> => {
  shared.laneLookedAt ??= new Set();
  return shared.laneLookedAt;
};

/** Whether a version's content was looked at since this process started: a fault of the disk shows on Home, not only when it is opened. */
export const wasLookedAt = (version: string): boolean => lookedAt().has(version);

/**
 * Counts anew what Home shows, behind what people do. Resolves when all of it is counted. What cannot be had now is asked for again by
 * who reads Home, and sees what was counted last.
 */
export async function countAnew(wanted: readonly Counted[]): Promise<void> {
  await Promise.all(
    wanted.map(({ of, id }) =>
      inBackground(`count ${of} ${id}`, () =>
        ownAct("counted", [], (context) => (of === "version" ? countVersion : countBrief)(context, id)),
      ),
    ),
  );
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
  lookedAt().add(version);
  if (head instanceof DamagedVersion) {
    await keep({ damaged: head.message });
    return;
  }
  const tests = await walkTestsOf(db, version);
  const { models, state, decisions } =
    tests.length > 0
      ? await withCalled(db, head)
      : { models: { model: head.model }, state: [stateOf(head)], decisions: [] };
  const input = {
    profile: await profileOf(db, version),
    adaption: await adaptionOf(db),
    waivers: await waiversOf(db, version),
    tests: tests.map((test) => test.content),
    decisions,
  };
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
