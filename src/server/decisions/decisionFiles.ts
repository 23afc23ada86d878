import { and, asc, count, eq, inArray, isNull, or, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import { decisions as terms } from "@/contract";
import { emptyDocumentText } from "@/core/decisions";
import { say } from "@/core/messages";
import { decisionFiles, members, processes, uses, versions } from "@/data/schema";
import { lock } from "../kernel/act";
import { inEveryHeadWith } from "../kernel/everyHead";
import { contentLapses } from "../kernel/lapse";
import { needsFreeId } from "../kernel/takenIds";
import { inThread } from "../kernel/threads";
import { type Context, longUseCase, notFound, query, UseCaseError, useCase } from "../kernel/useCase";
import { needsUnused, usesOf } from "../kernel/usesOf";

export const listDecisionFiles = query(terms.listDecisionFiles, async ({ db }) => {
  const rows = await db
    .select({
      id: decisionFiles.id,
      name: decisionFiles.name,
      decisions: decisionFiles.decisions,
      member: members.name,
      changedAt: decisionFiles.changedAt,
    })
    .from(decisionFiles)
    .leftJoin(members, eq(members.id, decisionFiles.member))
    .where(isNull(decisionFiles.deletedAt))
    .orderBy(asc(decisionFiles.name), asc(decisionFiles.id));
  const used = await db
    .select({ entry: uses.entry, times: count() })
    .from(uses)
    .innerJoin(versions, eq(versions.id, uses.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(isNull(versions.deletedAt), isNull(processes.deletedAt)))
    .groupBy(uses.entry);
  const times = new Map(used.map((row) => [row.entry, row.times]));
  return { files: rows.map((row) => ({ ...row, member: row.member ?? "", uses: times.get(row.id) ?? 0 })) };
});

export const openDecisionFile = query(terms.openDecisionFile, async ({ db }, { id }) => {
  const [row] = await db
    .select({
      id: decisionFiles.id,
      name: decisionFiles.name,
      content: decisionFiles.content,
      revision: decisionFiles.revision,
    })
    .from(decisionFiles)
    .where(there(id));
  if (!row) throw notFound("This file of decisions");
  return { ...row, uses: await usesOf(db, id) };
});

export const decisionTexts = query(terms.decisionTexts, async ({ db }, { ids }) => {
  if (ids.length === 0) return { files: [] };
  const files = await db
    .select({ id: decisionFiles.id, content: decisionFiles.content })
    .from(decisionFiles)
    .where(and(inArray(decisionFiles.id, [...ids]), isNull(decisionFiles.deletedAt)));
  return { files };
});

/** A text as it was read, in a thread; a refusal where it is no file of decisions. */
export async function looked(content: string) {
  const found = await inThread("readDecisionFile", {}, { content });
  if (!("problem" in found)) return found;
  const { line, column, said } = found.problem ?? { said: say`It cannot be read.` };
  const place = line === undefined ? "" : say`Line ${line}, column ${column ?? 1}: `;
  throw new UseCaseError("no-decisions", say`${place}${said} Nothing was kept.`, 422);
}

export const createDecisionFile = longUseCase(terms.createDecisionFile, async (outside, input) => {
  const id = input.id ?? `decisions-${nanoid(8)}`;
  const content = input.content ?? emptyDocumentText(id, input.name);
  const { decisions } = await looked(content);
  return outside.write((context) => keepDecisionFile(context, { id, name: input.name, content, decisions }));
});

/** Keeps a file of decisions that was read before. */
export async function keepDecisionFile(
  { db, member, now }: Context,
  file: Pick<typeof decisionFiles.$inferInsert, "id" | "name" | "content" | "decisions">,
) {
  await lock(db, "directory");
  await needsFreeId(db, decisionFiles, file.id);
  await db.insert(decisionFiles).values({ ...file, revision: 1, member: member.id, changedAt: now() });
  return { id: file.id, revision: 1 };
}

export const saveDecisionFile = longUseCase(terms.saveDecisionFile, async (outside, input) => {
  const { name, decisions } = await looked(input.content);
  return outside.write(async (context) => {
    const { db, member, now } = context;
    await lock(db, "directory");
    const [before] = await db.select({ decisions: decisionFiles.decisions }).from(decisionFiles).where(there(input.id));
    const row = { content: input.content, decisions, member: member.id, changedAt: now(), save: input.save };
    const [changed] = await db
      .update(decisionFiles)
      .set({ ...row, ...(name !== "" && { name }), revision: sql`${decisionFiles.revision} + 1` })
      .where(
        and(
          there(input.id),
          or(eq(decisionFiles.revision, input.base), inArray(decisionFiles.save, [input.save, ...input.unanswered])),
        ),
      )
      .returning({ revision: decisionFiles.revision });
    if (changed) {
      // Walks of what decides by it may go otherwise now.
      const using = await db.selectDistinct({ version: uses.version }).from(uses).where(eq(uses.entry, input.id));
      for (const { version } of using) await contentLapses(db, version);
      // What steps that decide by it know of it is written anew where it is otherwise now.
      if (JSON.stringify(before?.decisions) !== JSON.stringify(decisions))
        await inEveryHeadWith(context, input.id, {
          type: "renewDecisions",
          file: input.id,
          decisions: decisions
            .filter(({ id, name: called }) => id !== "" && called.trim() !== "")
            .map(({ id, name: called, answers, needs }) => ({
              decision: id,
              name: called,
              answers: answers && [...answers],
              needs: [...needs],
            })),
        });
      return changed;
    }
    if (!before) throw notFound("This file of decisions");
    throw new UseCaseError(
      "changed-elsewhere",
      "These decisions were changed elsewhere since you opened them. Take what was written there, or keep yours.",
      409,
    );
  });
});

/** One that a step decides by stays. */
export const deleteDecisionFile = useCase(terms.deleteDecisionFile, async ({ db, now }, { id }) => {
  await lock(db, "directory");
  await needsUnused(db, [id]);
  const gone = await db
    .update(decisionFiles)
    .set({ deletedAt: now() })
    .where(there(id))
    .returning({ id: decisionFiles.id });
  if (gone.length === 0) throw notFound("This file of decisions");
  return {};
});

export const restoreDecisionFile = useCase(terms.restoreDecisionFile, async ({ db }, { id }) => {
  await db.update(decisionFiles).set({ deletedAt: null }).where(eq(decisionFiles.id, id));
  return {};
});

const there = (id: string) => and(eq(decisionFiles.id, id), isNull(decisionFiles.deletedAt));
