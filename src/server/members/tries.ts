import { createHash } from "node:crypto";
import { eq, lt } from "drizzle-orm";
import { signInTries } from "@/data/schema";
import { lock } from "../kernel/act";
import { ownAct } from "../kernel/useCase";
import { secondsLeft, waitAfter } from "../kernel/wrongPasswords";

export { secondsLeft };

/** What an address is counted by: one that nobody has is counted like any other, so that the counting tells nothing. */
export const keyOfAddress = (email: string): string =>
  createHash("sha256").update(email.trim().toLowerCase()).digest("hex");

/** Milliseconds after the last try after which the count begins anew: longer than anybody waits. */
const forgottenAfter = 3_600_000;
/** No account waits longer, so that nobody can be kept out for long by others who try. */
const longestWait = 900;

/**
 * Counts a try to sign in before it is looked at, in an act of its own, so that many at once are no more than one after the other.
 * @returns seconds to wait, in which none is looked at; and what a wrong one will have to wait
 */
export async function countTry(email: string): Promise<{ readonly locked: number; readonly waits: number }> {
  const key = keyOfAddress(email);
  const outcome = { locked: 0, waits: 0 };
  await ownAct("signIn", [], async ({ db, now }) => {
    await lock(db, "home");
    await db.delete(signInTries).where(lt(signInTries.at, new Date(Date.now() - forgottenAfter).toISOString()));
    const [row] = await db.select().from(signInTries).where(eq(signInTries.key, key));
    outcome.locked = secondsLeft(row?.lockedUntil ?? null);
    if (outcome.locked > 0) return;
    const failures = (row?.failures ?? 0) + 1;
    outcome.waits = waitAfter(failures, longestWait);
    const lockedUntil = outcome.waits === 0 ? null : new Date(Date.now() + outcome.waits * 1_000).toISOString();
    const set = { failures, lockedUntil, at: now() };
    await db
      .insert(signInTries)
      .values({ key, ...set })
      .onConflictDoUpdate({ target: signInTries.key, set });
  });
  return outcome;
}

/** The right one begins the count anew. */
export const forgetTries = (email: string): Promise<void> =>
  ownAct("signIn", [], async ({ db }) => {
    await db.delete(signInTries).where(eq(signInTries.key, keyOfAddress(email)));
  });
