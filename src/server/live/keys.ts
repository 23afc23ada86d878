import { randomBytes, timingSafeEqual } from "node:crypto";
import { asc, eq } from "drizzle-orm";
import { live as terms } from "@/contract";
import { database } from "@/data/database";
import { members, programKeys } from "@/data/schema";
import { signsIn } from "../kernel/signInMode";
import { hashOfToken } from "../kernel/tokens";
import { type Member, notFound, query, UseCaseError, useCase } from "../kernel/useCase";
import { memberById, memberSaid } from "../members/members";

export const listKeys = query(terms.listKeys, async ({ db }) => {
  const rows = await db
    .select({
      id: programKeys.id,
      name: programKeys.name,
      memberName: members.name,
      at: programKeys.at,
      withdrawnAt: programKeys.withdrawnAt,
    })
    .from(programKeys)
    .leftJoin(members, eq(members.id, programKeys.member))
    .orderBy(asc(programKeys.at));
  return {
    keys: rows.map(({ withdrawnAt, memberName, ...row }) => ({
      ...row,
      memberName: memberName ?? "",
      isWithdrawn: withdrawnAt !== null,
    })),
  };
});

export const makeKey = useCase(terms.makeKey, async ({ db, member, now }, { id, name }) => {
  const [known] = await db.select({ id: programKeys.id }).from(programKeys).where(eq(programKeys.id, id));
  if (known)
    throw new UseCaseError("id-taken", "This key was made already; it is shown only once. Make another one.", 409);
  const key = `lane_${id}_${randomBytes(24).toString("base64url")}`;
  await db.insert(programKeys).values({ id, name, hash: hashOfToken(key), member: member.id, at: now() });
  return { key };
});

export const withdrawKey = useCase(terms.withdrawKey, async ({ db, now }, { id }) => {
  const changed = await db
    .update(programKeys)
    .set({ withdrawnAt: now() })
    .where(eq(programKeys.id, id))
    .returning({ id: programKeys.id });
  if (changed.length === 0) throw notFound("This key");
  return {};
});

/** The member in whose name a key works; undefined for one that is none, or was withdrawn. */
export async function memberOfKey(key: string): Promise<Member | undefined> {
  const id = /^lane_(.+)_[\w-]{32}$/.exec(key)?.[1];
  if (id === undefined) return undefined;
  const { db } = await database();
  const [row] = await db.select().from(programKeys).where(eq(programKeys.id, id));
  if (!row || row.withdrawnAt !== null) return undefined;
  const isSame = timingSafeEqual(Buffer.from(row.hash), Buffer.from(hashOfToken(key)));
  return isSame ? (signsIn() ? memberById(row.member) : memberSaid(row.member)) : undefined;
}
