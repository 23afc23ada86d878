import { asc, eq } from "drizzle-orm";
import { handoff as terms } from "@/contract";
import type { Description } from "@/core/descriptions";
import { say } from "@/core/messages";
import { descriptions, members } from "@/data/schema";
import { inThread } from "../kernel/threads";
import { type Context, longUseCase, query, UseCaseError, useCase } from "../kernel/useCase";

export const listDescriptions = query(terms.listDescriptions, async ({ db }) => {
  const rows = await db
    .select({ name: descriptions.name, description: descriptions.content, member: members.name, at: descriptions.at })
    .from(descriptions)
    .leftJoin(members, eq(members.id, descriptions.member))
    .orderBy(asc(descriptions.name));
  return { descriptions: rows.map((row) => ({ ...row, member: row.member ?? "" })) };
});

/** A description as it was read, in a thread. */
export async function described(
  name: string,
  text: string,
  beside: readonly { readonly name: string; readonly text: string }[] = [],
): Promise<Description> {
  const content = await inThread("describedServices", {}, { name, text, beside });
  if (!("problem" in content)) return content;
  const { line, column, said } = content.problem ?? { said: say`It cannot be read.` };
  const place = line === undefined ? "" : say`Line ${line}, column ${column ?? 1}: `;
  throw new UseCaseError("no-description", say`${name}: ${place}${said}`);
}

/** Keeps a description under the name of its file, in the place of the one that had it. */
export async function keepDescription({ db, member, now }: Context, name: string, content: Description) {
  const row = { content, member: member.id, at: now() };
  await db
    .insert(descriptions)
    .values({ name, ...row })
    .onConflictDoUpdate({ target: descriptions.name, set: row });
}

/** Reads a description in a thread; what cannot be read changes nothing. */
export const importDescription = longUseCase(terms.importDescription, async (outside, { name, text, beside }) => {
  const content = await described(name, text, beside);
  return outside.write(async (context) => {
    await keepDescription(context, name, content);
    const operations = content.interfaces.reduce((sum, service) => sum + service.operations.length, 0);
    return { operations, problems: content.problems.map((problem) => problem.text) };
  });
});

/** What is bound to it keeps what it knows of it. */
export const removeDescription = useCase(terms.removeDescription, async ({ db }, { name }) => {
  await db.delete(descriptions).where(eq(descriptions.name, name));
  return {};
});
