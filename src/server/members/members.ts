import { and, asc, desc, eq, inArray, isNotNull, isNull, ne } from "drizzle-orm";
import { membership as terms } from "@/contract";
import type { MemberAccount } from "@/contract/members";
import { database } from "@/data/database";
import {
  areas,
  invitations,
  members,
  programKeys,
  signInAccounts,
  signInSessions,
  signInTries,
  signInUsers,
} from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { isAbout } from "../kernel/audit";
import { seated } from "../kernel/rights";
import { signsIn } from "../kernel/signInMode";
import { localMember, type Member, notFound, query, UseCaseError, useCase } from "../kernel/useCase";
import { keyOfAddress, secondsLeft } from "./tries";

const withAccess = isNull(members.removedAt);

export const listMembers = query(terms.listMembers, async ({ db, member }) => {
  const rows = await db
    .select({ id: members.id, name: members.name, roles: members.roles, seat: members.seat, areas: members.areas })
    .from(members)
    .where(withAccess)
    .orderBy(asc(members.name), asc(members.id));
  return { members: rows, me: member.id, rights: member.rights, inAreas: member.inAreas ?? [], signsIn: signsIn() };
});

export const setMember = useCase(terms.setMember, async ({ db }, { id, name, roles, seat, areas: inAreas, email }) => {
  // Two owners who make each other analysts at once would leave none.
  await lock(db, "home");
  const [before] = await db.select().from(members).where(eq(members.id, id));
  if (before?.removedAt) throw notFound("This member");
  if (before?.seat === "owner" && seat !== undefined && seat !== "owner") await needsAnotherOwner(db, id);
  if (inAreas) await needsAreas(db, inAreas);
  const set = { name, roles, ...(seat && { seat }), ...(inAreas && { areas: inAreas }) };
  const seatWords = [seat ?? before?.seat, ...(inAreas ?? []).map((one) => `${one.seat} in an area`)].filter(Boolean);
  isAbout(db, [name, ...seatWords].join(", "));
  await db
    .insert(members)
    .values({ id, ...set })
    .onConflictDoUpdate({ target: members.id, set });
  if (email !== undefined) await setAddress(db, id, name, email);
  return {};
});

async function needsAnotherOwner(db: Transaction, id: string): Promise<void> {
  const others = await db
    .select({ id: members.id })
    .from(members)
    .where(and(withAccess, eq(members.seat, "owner"), ne(members.id, id)));
  if (others.length === 0)
    throw new UseCaseError(
      "last-owner",
      "This is the only owner; without one nobody could give rights any more. Make somebody else an owner first.",
      409,
    );
}

async function needsAreas(db: Transaction, inAreas: readonly { readonly area: string }[]): Promise<void> {
  const ids = [...new Set(inAreas.map(({ area }) => area))];
  if (ids.length < inAreas.length)
    throw new UseCaseError("bad-input", "An area is named twice. Give one seat in each area.", 400);
  if (ids.length === 0) return;
  const known = await db.select({ id: areas.id }).from(areas).where(inArray(areas.id, ids));
  if (known.length < ids.length) throw notFound("One of these areas");
}

/** The address by which a member signs in; without one there is no way in, and what was open ends. */
async function setAddress(db: Transaction, id: string, name: string, email: string | null): Promise<void> {
  const [account] = await db.select().from(signInUsers).where(eq(signInUsers.id, id));
  if (account?.email === email) return;
  if (email === null) return takeAccess(db, id);
  const [other] = await db.select({ id: signInUsers.id }).from(signInUsers).where(eq(signInUsers.email, email));
  if (other && other.id !== id)
    throw new UseCaseError(
      "address-taken",
      "Another member signs in with this address. Each has one of their own.",
      409,
    );
  // Whoever can read the old address must not get in by it, nor by an account elsewhere that went with it.
  if (account) {
    await db
      .delete(signInAccounts)
      .where(and(eq(signInAccounts.userId, id), ne(signInAccounts.providerId, "credential")));
    await db.delete(invitations).where(eq(invitations.member, id));
  }
  await db
    .insert(signInUsers)
    .values({ id, name, email, emailVerified: true })
    .onConflictDoUpdate({ target: signInUsers.id, set: { name, email, updatedAt: new Date() } });
}

/** Takes every way in away: sessions, passwords, accounts elsewhere, invitations. */
async function takeAccess(db: Transaction, id: string): Promise<void> {
  await db.delete(signInSessions).where(eq(signInSessions.userId, id));
  await db.delete(signInAccounts).where(eq(signInAccounts.userId, id));
  await db.delete(invitations).where(eq(invitations.member, id));
  await db.delete(signInUsers).where(eq(signInUsers.id, id));
}

export const removeMember = useCase(terms.removeMember, async ({ db, member, now }, { id }) => {
  await lock(db, "home");
  const [row] = await db
    .select()
    .from(members)
    .where(and(eq(members.id, id), withAccess));
  if (!row) throw notFound("This member");
  if (id === member.id)
    throw new UseCaseError("own-access", "Nobody takes their own access away. Ask another owner.", 409);
  if (row.seat === "owner") await needsAnotherOwner(db, id);
  isAbout(db, row.name);
  await takeAccess(db, id);
  await db
    .update(programKeys)
    .set({ withdrawnAt: now() })
    .where(and(eq(programKeys.member, id), isNull(programKeys.withdrawnAt)));
  await db.update(members).set({ removedAt: now(), areas: [] }).where(eq(members.id, id));
  return {};
});

export const listAccounts = query(terms.listAccounts, async ({ db, asked }) => {
  const rows = await db
    .select({ id: members.id, email: signInUsers.email })
    .from(members)
    .leftJoin(signInUsers, eq(signInUsers.id, members.id))
    .where(withAccess);
  const sessions = await db
    .select({ id: signInSessions.userId, at: signInSessions.createdAt })
    .from(signInSessions)
    .orderBy(desc(signInSessions.createdAt));
  const ways = new Set(
    (await db.select({ id: signInAccounts.userId }).from(signInAccounts).where(isNotNull(signInAccounts.userId))).map(
      ({ id }) => id,
    ),
  );
  const invited = new Map((await db.select().from(invitations)).map((one) => [one.member, one.expiresAt]));
  const tries = new Map((await db.select().from(signInTries)).map((one) => [one.key, one.lockedUntil]));
  const accounts: MemberAccount[] = rows.map(({ id, email }) => {
    const until = invited.get(id);
    return {
      ...{ id, email, canSignIn: ways.has(id) },
      signedInAt: sessions.find((one) => one.id === id)?.at.toISOString() ?? null,
      invitedUntil: until && Date.parse(until) > Date.parse(asked) ? until : null,
      waits: email === null ? 0 : secondsLeft(tries.get(keyOfAddress(email)) ?? null),
    };
  });
  return { accounts };
});

export const signOutMember = useCase(terms.signOutMember, async ({ db }, { id }) => {
  const [row] = await db.select({ name: members.name }).from(members).where(eq(members.id, id));
  if (!row) throw notFound("This member");
  isAbout(db, row.name);
  await db.delete(signInSessions).where(eq(signInSessions.userId, id));
  return {};
});

/** A member with access, by its id; with the rights it has now. */
export async function memberById(id: string): Promise<Member | undefined> {
  const { db } = await database();
  const [row] = await db
    .select()
    .from(members)
    .where(and(eq(members.id, id), withAccess));
  return row && seated(row);
}

/** The member that a window says it is, where nobody signs in; the local one where it says none, or one that is not there. */
export const memberSaid = async (id: string | undefined): Promise<Member> =>
  id === undefined || id === localMember.id ? localMember : ((await memberById(id)) ?? localMember);
