import { asc, eq } from "drizzle-orm";
import { handoff as terms } from "@/contract";
import { descriptions, members } from "@/data/schema";
import { inThread } from "../kernel/threads";
import { longUseCase, query, UseCaseError, useCase } from "../kernel/useCase";

export const listDescriptions = query(terms.listDescriptions, async ({ db }) => {
  const rows = await db
    .select({ name: descriptions.name, description: descriptions.content, member: members.name, at: descriptions.at })
    .from(descriptions)
    .leftJoin(members, eq(members.id, descriptions.member))
    .orderBy(asc(descriptions.name));
  return { descriptions: rows.map((row) => ({ ...row, member: row.member ?? "" })) };
});

/** Reads a description in a thread; what cannot be read changes nothing. */
export const importDescription = longUseCase(terms.importDescription, async (outside, { name, text }) => {
  const content = await inThread("describedServices", {}, { name, text });
  if ("problem" in content) {
    const { line, column, message } = content.problem ?? { message: "It cannot be read." };
    const place = line === undefined ? "" : `Line ${line}, column ${column ?? 1}: `;
    throw new UseCaseError("no-description", `${name}: ${place}${message}`);
  }
  return outside.write(async ({ db, member, now }) => {
    const row = { content, member: member.id, at: now() };
    await db
      .insert(descriptions)
      .values({ name, ...row })
      .onConflictDoUpdate({ target: descriptions.name, set: row });
    const operations = content.interfaces.reduce((sum, service) => sum + service.operations.length, 0);
    return { operations, problems: content.problems.map((problem) => problem.text) };
  });
});

/** What is bound to it keeps what it knows of it. */
export const removeDescription = useCase(terms.removeDescription, async ({ db }, { name }) => {
  await db.delete(descriptions).where(eq(descriptions.name, name));
  return {};
});
