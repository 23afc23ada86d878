import { and, eq, isNull } from "drizzle-orm";
import { database } from "@/data/database";
import { links, processes, versions } from "@/data/schema";
import { withCommentLinks } from "@/jobs/booklets/commentLinks";
import { exportPicture } from "../files/exports";
import { handbookFile } from "../handbook/handbooks";
import { lock } from "../kernel/act";
import { hashOfToken } from "../kernel/tokens";
import { type Member, ownAct, runUseCase } from "../kernel/useCase";
import { secondsLeft, waitAfter } from "../kernel/wrongPasswords";
import { stateOfLink } from "./links";
import { isPassword } from "./passwords";

/** Whoever comes by a link: reads, and nothing else. */
const reader: Member = { id: "link", name: "A reader by a link", rights: ["read"] };

/** What a link leads to. Of one that is unknown, expired or withdrawn, or whose version is gone, the same is said. */
export type OpenedLink =
  | { readonly kind: "page"; readonly html: Uint8Array }
  | { readonly kind: "picture"; readonly svg: Uint8Array }
  | { readonly kind: "password"; readonly isWrong: boolean; readonly waits: number }
  | { readonly kind: "gone" };

/** What somebody without an account is told of a version: how it goes on, and who does it with what. */
const parts = ["process", "diagram", "steps", "roles", "systems", "documents"] as const;

export type LinkHead = typeof links.$inferSelect;

export async function thatOpens(token: string): Promise<LinkHead | undefined> {
  const { db } = await database();
  const [found] = await db
    .select({ link: links })
    .from(links)
    .innerJoin(versions, eq(versions.id, links.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(eq(links.token, hashOfToken(token)), isNull(versions.deletedAt), isNull(processes.deletedAt)));
  return found && stateOfLink(found.link, new Date().toISOString()) === "open" ? found.link : undefined;
}

const longestWait = 3_600;

/**
 * Whether the password opens a link. A try is counted before it is looked at, in an act of its own, so that many at once are no more than
 * one after the other; while one has to wait none is looked at. The right one begins the count anew.
 */
export async function passes(
  link: LinkHead,
  password: string | undefined,
): Promise<true | (OpenedLink & { kind: "password" })> {
  if (link.password === null) return true;
  if (password === undefined) return { kind: "password", isWrong: false, waits: 0 };
  const own = eq(links.id, link.id);
  const things = [{ kind: "version", id: link.version }] as const;
  let [locked, waits] = [0, 0];
  await ownAct("openLink", things, async ({ db }) => {
    await lock(db, "version", [link.version]);
    const [row] = await db.select({ failures: links.failures, until: links.lockedUntil }).from(links).where(own);
    locked = secondsLeft(row?.until ?? null);
    if (!row || locked > 0) return;
    waits = waitAfter(row.failures + 1, longestWait);
    const lockedUntil = waits === 0 ? null : new Date(Date.now() + waits * 1_000).toISOString();
    await db
      .update(links)
      .set({ failures: row.failures + 1, lockedUntil })
      .where(own);
  });
  if (locked > 0) return { kind: "password", isWrong: true, waits: locked };
  if (!(await isPassword(password, link.password))) return { kind: "password", isWrong: true, waits };
  await ownAct("openLink", things, async ({ db }) => {
    await db.update(links).set({ failures: 0, lockedUntil: null }).where(own);
  });
  return true;
}

/** The light page of a link. */
export async function openLink(token: string, password?: string): Promise<OpenedLink> {
  const link = await thatOpens(token);
  if (!link) return { kind: "gone" };
  const passed = await passes(link, password);
  if (passed !== true) return passed;
  const about = { kind: "version", version: link.version, ...(link.revision !== null && { revision: link.revision }) };
  const asked = { about, kind: "html", parts, language: null, title: "", lenses: link.lenses };
  const { bytes } = await runUseCase(reader, handbookFile, asked);
  if (link.allows === "read") return { kind: "page", html: bytes };
  const page = withCommentLinks(new TextDecoder().decode(bytes), `/l/${token}/comment`);
  return { kind: "page", html: new TextEncoder().encode(page) };
}

/** The first page of what a link shows, as a picture that stays as current as the link; not behind a password. */
export async function openLinkPicture(token: string): Promise<OpenedLink> {
  const link = await thatOpens(token);
  if (!link || link.password !== null) return { kind: "gone" };
  const of = { version: link.version, ...(link.revision !== null && { revision: link.revision }) };
  const made = await runUseCase(reader, exportPicture, { ...of, format: "svg", lensIds: link.lenses });
  return { kind: "picture", svg: made.bytes };
}
