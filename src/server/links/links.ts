import { randomBytes } from "node:crypto";
import { and, desc, eq } from "drizzle-orm";
import { links as terms } from "@/contract";
import type { LinkRow } from "@/contract/links";
import { links, members, revisions } from "@/data/schema";
import { lock } from "../kernel/act";
import { needsFreeId } from "../kernel/takenIds";
import { hashOfToken } from "../kernel/tokens";
import { longUseCase, notFound, query, useCase } from "../kernel/useCase";
import { hashOfPassword } from "./passwords";

type Row = typeof links.$inferSelect;

/** Whether a link opens at a moment. */
export const stateOfLink = ({ withdrawnAt, expiresAt }: Row, now: string): LinkRow["state"] =>
  withdrawnAt !== null
    ? "withdrawn"
    : expiresAt !== null && Date.parse(expiresAt) <= Date.parse(now)
      ? "expired"
      : "open";

export const listLinks = query(terms.listLinks, async ({ db, asked }, { version }): Promise<{ links: LinkRow[] }> => {
  const rows = await db
    .select({ link: links, member: members.name })
    .from(links)
    .leftJoin(members, eq(members.id, links.member))
    .where(eq(links.version, version))
    .orderBy(desc(links.at), desc(links.id));
  return {
    links: rows.map(({ link, member }) => ({
      ...{ id: link.id, name: link.name, revision: link.revision, expiresAt: link.expiresAt, at: link.at },
      hasPassword: link.password !== null,
      allows: link.allows,
      member: member ?? "",
      state: stateOfLink(link, asked),
    })),
  };
});

/** The first moment of the day after: on its last day a link still opens, wherever that day ends last (UTC−12). */
const endOf = (day: string) => new Date(Date.parse(`${day}T00:00:00Z`) + 36 * 3_600_000).toISOString();

export const makeLink = longUseCase(terms.makeLink, async (outside, asked) => {
  const { version, link, name, revision, until, password, lenses, allows } = asked;
  const kept = password === null ? null : await hashOfPassword(password);
  const token = randomBytes(32).toString("base64url");
  return outside.write(async ({ db, member, now }) => {
    await lock(db, "version", [version]);
    await needsFreeId(db, links, link);
    if (revision !== null) {
      const [known] = await db
        .select({ number: revisions.number })
        .from(revisions)
        .where(and(eq(revisions.version, version), eq(revisions.number, revision)));
      if (!known) throw notFound("This revision");
    }
    await db.insert(links).values({
      ...{ id: link, version, revision, name, token: hashOfToken(token), password: kept, lenses, allows },
      ...{ expiresAt: until === null ? null : endOf(until), member: member.id, at: now() },
    });
    return { token };
  });
});

export const withdrawLink = useCase(terms.withdrawLink, async ({ db, now }, { version, link }) => {
  const gone = await db
    .update(links)
    .set({ withdrawnAt: now() })
    .where(and(eq(links.id, link), eq(links.version, version)))
    .returning({ id: links.id });
  if (gone.length === 0) throw notFound("This link");
  return {};
});
