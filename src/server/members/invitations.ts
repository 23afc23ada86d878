import { randomBytes } from "node:crypto";
import { and, eq, isNull } from "drizzle-orm";
import { membership as terms } from "@/contract";
import { invitations, members, signInUsers } from "@/data/schema";
import { isAbout } from "../kernel/audit";
import { hashOfToken } from "../kernel/tokens";
import { notFound, UseCaseError, useCase } from "../kernel/useCase";

/** Milliseconds that an invitation can be taken up. */
const opensFor = 3 * 24 * 3_600_000;

export const inviteMember = useCase(terms.inviteMember, async ({ db, now }, { id }) => {
  const [row] = await db
    .select({ email: signInUsers.email, name: members.name })
    .from(members)
    .leftJoin(signInUsers, eq(signInUsers.id, members.id))
    .where(and(eq(members.id, id), isNull(members.removedAt)));
  if (!row) throw notFound("This member");
  if (row.email === null)
    throw new UseCaseError("no-address", "This member has no e-mail address to sign in with. Give one first.", 409);
  isAbout(db, row.name);
  const token = randomBytes(32).toString("base64url");
  const until = new Date(Date.parse(now()) + opensFor).toISOString();
  const set = { token: hashOfToken(token), expiresAt: until };
  await db
    .insert(invitations)
    .values({ member: id, ...set })
    .onConflictDoUpdate({ target: invitations.member, set });
  return { token, until };
});
