import { eq } from "drizzle-orm";
import { check } from "@/contract";
import { type Adaption, adaptionSchema, type ProfileName, rules } from "@/core/check";
import { say } from "@/core/messages";
import { versions, workspace } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { everySummaryLapses, summaryLapses } from "../kernel/lapse";
import { notFound, useCase } from "../kernel/useCase";

const adaptionKey = "profiles";

/** How this workspace departs from the profiles as they are shipped. */
export async function adaptionOf(db: Transaction): Promise<Adaption> {
  const [row] = await db.select().from(workspace).where(eq(workspace.key, adaptionKey));
  const adaption = adaptionSchema.safeParse(row ? parsed(row.value) : {});
  // What cannot be read is as if it had not been said: the profiles as they are shipped.
  return adaption.success ? adaption.data : {};
}

const parsed = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
};

export async function profileOf(db: Transaction, version: string): Promise<ProfileName> {
  const [row] = await db.select({ profile: versions.profile }).from(versions).where(eq(versions.id, version));
  if (!row) throw notFound("This version");
  return row.profile;
}

export const chooseProfile = useCase(check.chooseProfile, async ({ db }, { version, profile }) => {
  await lock(db, "version", [version]);
  const rows = await db.update(versions).set({ profile }).where(eq(versions.id, version)).returning();
  if (rows.length === 0) throw notFound("This version");
  await summaryLapses(db, version);
  return {};
});

/** A rule's level in a profile, for the whole workspace; null for what it is by itself. */
export const adaptRule = useCase(check.adaptRule, async ({ db }, { profile, rule, level }) => {
  if (!rules.some((one) => one.id === rule)) throw notFound(say`The rule “${rule}”`);
  await lock(db, "home");
  const adaption = await adaptionOf(db);
  const { [rule]: _, ...others } = adaption[profile] ?? {};
  const changed = { ...adaption, [profile]: level === null ? others : { ...others, [rule]: level } };
  const value = JSON.stringify(changed);
  await db
    .insert(workspace)
    .values({ key: adaptionKey, value })
    .onConflictDoUpdate({ target: workspace.key, set: { value } });
  await everySummaryLapses(db);
  return {};
});
