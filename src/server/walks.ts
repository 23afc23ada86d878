import { and, asc, eq, inArray, isNull, max } from "drizzle-orm";
import { nanoid } from "nanoid";
import { z } from "zod";
import {
  calledProcessOf,
  calledVersionOf,
  callKeyOf,
  type Id,
  type Model,
  processesOf,
  type StoredModel,
  toStored,
} from "@/core/model";
import { runWalkTest, type WalkTest, walkTestSchema, worldWith } from "@/core/tokens";
import { members, processes, versions, walkTests } from "@/data/schema";
import { DamagedVersion, loadHead, tryHead } from "./heads";
import { lock, type Transaction } from "./kernel/act";
import { notFound, query, useCase } from "./useCase";

const id = z.string().min(1).max(200);
const name = z.string().trim().min(1, "Give the walk a name.").max(200);

export interface WalkTestRow {
  readonly id: string;
  readonly name: string;
  readonly content: WalkTest;
  readonly member: string;
  readonly at: string;
}

export async function walkTestsOf(db: Transaction, version: string): Promise<WalkTestRow[]> {
  const rows = await db
    .select({
      id: walkTests.id,
      name: walkTests.name,
      content: walkTests.content,
      member: members.name,
      at: walkTests.at,
    })
    .from(walkTests)
    .leftJoin(members, eq(members.id, walkTests.member))
    .where(eq(walkTests.version, version))
    .orderBy(asc(walkTests.rank), asc(walkTests.id));
  // One that cannot be read is left out; it stops none of the others.
  return rows.flatMap((row) => {
    const content = walkTestSchema.safeParse(row.content);
    return content.success ? [{ ...row, content: content.data, member: row.member ?? "" }] : [];
  });
}

export const listWalkTests = query(z.object({ version: id }), async ({ db }, { version }) => ({
  tests: await walkTestsOf(db, version),
}));

/** Keeps walks as tests, behind those there are. */
export const keepWalkTests = useCase(
  z.object({
    version: id,
    tests: z
      .array(z.object({ name, content: walkTestSchema }))
      .min(1)
      .max(200),
  }),
  async (context, { version, tests }) => {
    const { db } = context;
    await lock(db, "version", [version]);
    await loadHead(db, version);
    const [last] = await db
      .select({ rank: max(walkTests.rank) })
      .from(walkTests)
      .where(eq(walkTests.version, version));
    const rows = tests.map((test, at) => ({
      id: nanoid(12),
      version,
      name: test.name,
      rank: (last?.rank ?? 0) + at + 1,
      content: test.content,
      member: context.member.id,
      at: context.now(),
    }));
    await db.insert(walkTests).values(rows);
    return { ids: rows.map((row) => row.id) };
  },
);

/** Another name for a kept walk, or what it is to expect from now on. */
export const changeWalkTest = useCase(
  z
    .object({ test: id, name: name.optional(), content: walkTestSchema.optional() })
    .refine((change) => change.name !== undefined || change.content !== undefined, "Say what is to change."),
  async (context, { test, name: newName, content }) => {
    const change = {
      ...(newName !== undefined && { name: newName }),
      ...(content !== undefined && { content, member: context.member.id, at: context.now() }),
    };
    const rows = await context.db.update(walkTests).set(change).where(eq(walkTests.id, test)).returning();
    if (rows.length === 0) throw notFound("This walk");
    return {};
  },
);

export const deleteWalkTest = useCase(z.object({ test: id }), async ({ db }, { test }) => {
  await db.delete(walkTests).where(eq(walkTests.id, test));
  return {};
});

/** The kept walks of a version that is copied go along. */
export async function copyWalkTests(db: Transaction, from: string, to: string): Promise<void> {
  const rows = await db.select().from(walkTests).where(eq(walkTests.version, from));
  if (rows.length > 0) await db.insert(walkTests).values(rows.map((row) => ({ ...row, id: nanoid(12), version: to })));
}

interface CalledModel {
  readonly calls: Id;
  readonly model: Model;
}

/** The models that call activities of a model lead to, and those that these call, by the process each call names. */
async function modelsCalled(db: Transaction, model: Model): Promise<CalledModel[]> {
  const rows = await db
    .select({ version: versions.id, kind: versions.kind, process: versions.process })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(isNull(versions.deletedAt), isNull(processes.deletedAt), inArray(versions.kind, ["as-is", "to-be"])))
    .orderBy(asc(processes.createdAt), asc(processes.id));
  const found = new Map<Id, Model>();
  const queue: Model[] = [model];
  for (const here of queue)
    for (const element of here.elements) {
      const calls = element.type === "callActivity" ? element.calledElement : undefined;
      const key = callKeyOf(element);
      if (typeof calls !== "string" || found.has(key)) continue;
      const named = calledVersionOf(element)?.version;
      const record = calledProcessOf(element)?.process;
      const fitting = rows.filter((row) => (named === undefined ? row.kind === "as-is" : row.version === named));
      // The process that is named comes before others that have the same id in their files.
      const candidates = [
        ...fitting.filter((row) => row.process === record),
        ...fitting.filter((row) => row.process !== record),
      ];
      for (const { version } of candidates) {
        const head = await tryHead(db, version);
        if (head instanceof DamagedVersion) continue;
        const { model: other } = head;
        if (!processesOf(other).some((process) => process.id === calls)) continue;
        found.set(key, other);
        queue.push(other);
        break;
      }
    }
  return [...found].map(([calls, other]) => ({ calls, model: other }));
}

/** What a version calls, directly and further down, so that a case can be played into it. */
export const openCalled = query(
  z.object({ version: id }),
  async ({ db }, { version }): Promise<{ called: { calls: Id; model: StoredModel }[] }> => {
    const { model } = await loadHead(db, version);
    const called = await modelsCalled(db, model);
    return { called: called.map((one) => ({ calls: one.calls, model: toStored(one.model) })) };
  },
);

/** How kept walks go on a model. */
export async function walkResults(db: Transaction, model: Model, tests: readonly WalkTestRow[]) {
  if (tests.length === 0) return [];
  const called = new Map((await modelsCalled(db, model)).map((one) => [one.calls, one.model]));
  const world = worldWith(model, called);
  return tests.map(({ id: test, name: title, content }) => ({
    id: test,
    name: title,
    result: runWalkTest(world, content),
  }));
}
