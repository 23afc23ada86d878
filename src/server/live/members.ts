import { asc, eq } from "drizzle-orm";
import { live as terms } from "@/contract";
import { database } from "@/data/database";
import { members } from "@/data/schema";
import { localMember, type Member, query, useCase } from "../kernel/useCase";

export const listMembers = query(terms.listMembers, async ({ db, member }) => ({
  members: await db.select().from(members).orderBy(asc(members.name), asc(members.id)),
  me: member.id,
}));

export const setMember = useCase(terms.setMember, async ({ db }, { id, name, roles }) => {
  await db.insert(members).values({ id, name, roles }).onConflictDoUpdate({ target: members.id, set: { name, roles } });
  return {};
});

/** The member a window says it is; the local one where it says none, or one that is not there. Signing in takes this over. */
export async function memberNamed(id: string | undefined): Promise<Member> {
  if (id === undefined || id === localMember.id) return localMember;
  const { db } = await database();
  const [row] = await db.select({ id: members.id, name: members.name }).from(members).where(eq(members.id, id));
  return row ? { ...localMember, ...row } : localMember;
}
