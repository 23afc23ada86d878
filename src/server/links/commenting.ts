import { and, asc, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import type { About } from "@/contract/comments";
import { nameOf } from "@/core/model";
import { database } from "@/data/database";
import { members, processes, threads, versions } from "@/data/schema";
import { startThread } from "../comments/threads";
import { loadHead } from "../kernel/heads";
import { type Member, runUseCase } from "../kernel/useCase";
import { type LinkHead, passes, thatOpens } from "./opened";

/** What somebody who came by a link sees who wants to say something: of what, and what was said of it by this link so far. */
export type CommentPage =
  | {
      readonly kind: "talk";
      readonly about: string;
      readonly said: readonly { readonly name: string; readonly text: string }[];
      readonly hasPassword: boolean;
      /** Why what was sent was not taken. */
      readonly refusal?: "empty" | "enough";
    }
  | { readonly kind: "said" }
  | { readonly kind: "password"; readonly isWrong: boolean; readonly waits: number }
  | { readonly kind: "gone" };

/** So many threads are begun by one link; more would be no conversation. */
const mostByLink = 100;

/** Who says something by a link; what they call themselves is theirs to say, so the link stands beside it. */
const guestOf = (link: LinkHead, name: string): Member => ({
  ...{ id: `link ${link.id}`, name: `${name} (${link.name})`, isGuest: true },
  rights: ["read", "comment"],
});

/** What the comment is about: an element of the version, or the whole of it. */
async function aboutOf(link: LinkHead, of: string): Promise<About | undefined> {
  const { db } = await database();
  if (of === "") {
    const [row] = await db
      .select({ name: processes.name })
      .from(versions)
      .innerJoin(processes, eq(processes.id, versions.process))
      .where(eq(versions.id, link.version));
    return row && { kind: "version", key: "", words: row.name };
  }
  const { model } = await db.transaction((own) => loadHead(own, link.version));
  const element = model.elements.get(of);
  return element && { kind: "element", key: of, words: (nameOf(model, of) || of).slice(0, 500) };
}

/** Threads that were begun by a link, in their order. */
async function begunBy(link: LinkHead) {
  const { db } = await database();
  return db
    .select({ about: threads.about, said: threads.said })
    .from(threads)
    .where(and(eq(threads.version, link.version), eq(threads.member, `link ${link.id}`), isNull(threads.deletedAt)))
    .orderBy(asc(threads.at), asc(threads.id));
}

async function talkOf(link: LinkHead, about: About): Promise<CommentPage & { kind: "talk" }> {
  const { db } = await database();
  const names = new Map(
    (await db.select({ id: members.id, name: members.name }).from(members)).map((one) => [one.id, one.name]),
  );
  // What members say among themselves is not told to whoever has a link.
  const own = (await begunBy(link)).filter(({ about: other }) => other.kind === about.kind && other.key === about.key);
  return {
    kind: "talk",
    about: about.words,
    hasPassword: link.password !== null,
    said:
      link.password === null
        ? own.flatMap(({ said }) =>
            said.map(({ guest, member, text }) => ({ name: guest ?? names.get(member) ?? "", text })),
          )
        : [],
  };
}

const mayComment = async (token: string): Promise<LinkHead | undefined> => {
  const link = await thatOpens(token);
  return link?.allows === "comment" ? link : undefined;
};

/** The page on which somebody says something of a thing that a link shows. */
export async function openCommentPage(token: string, of: string): Promise<CommentPage> {
  const link = await mayComment(token);
  const about = link && (await aboutOf(link, of));
  return link && about ? talkOf(link, about) : { kind: "gone" };
}

const sentSchema = z.object({
  id: z.string().regex(/^[\w-]{8,40}$/),
  name: z.string().trim().min(1).max(80),
  text: z.string().trim().min(1).max(10_000),
});

/** Keeps what somebody says by a link as a thread of its own, under the name they give; the same sent again is there already. */
export async function commentByLink(
  token: string,
  of: string,
  sent: { readonly id: string; readonly name: string; readonly text: string; readonly password?: string },
): Promise<CommentPage> {
  const link = await mayComment(token);
  const about = link && (await aboutOf(link, of));
  if (!link || !about) return { kind: "gone" };
  const passed = await passes(link, sent.password ?? "");
  if (passed !== true) return passed;
  const read = sentSchema.safeParse(sent);
  if (!read.success) return { ...(await talkOf(link, about)), refusal: "empty" };
  if ((await begunBy(link)).length >= mostByLink) return { ...(await talkOf(link, about)), refusal: "enough" };
  const { id, name, text } = read.data;
  await runUseCase(guestOf(link, name), startThread, {
    ...{ version: link.version, thread: `l${id}`, said: `l${id}`, about, text, mentions: [], assigned: null },
  });
  return { kind: "said" };
}
