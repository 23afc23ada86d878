import { and, asc, eq, inArray, isNull, max } from "drizzle-orm";
import { nanoid } from "nanoid";
import { inVersion, walk } from "@/contract";
import type { WalkTestRow } from "@/contract/walk";
import {
  calledProcessOf,
  calledVersionOf,
  callKeyOf,
  decidingFiles,
  type Id,
  type Model,
  processesOf,
  type StoredModel,
  toStored,
} from "@/core/model";
import { walkTestSchema } from "@/core/tokens";
import { decisionFiles, members, processes, versions, walkTests } from "@/data/schema";
import { calledName } from "@/jobs/called";
import { lock, type Transaction } from "../kernel/act";
import { DamagedVersion, type Head, loadHead, stateOf, tryHead } from "../kernel/heads";
import { summaryLapses } from "../kernel/lapse";
import { type Context, notFound, query, useCase } from "../kernel/useCase";
import { workedOut } from "../kernel/workedOut";

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

export const listWalkTests = query(walk.listWalkTests, async ({ db }, { version }) => ({
  tests: await walkTestsOf(db, version),
}));

/** Keeps walks as tests, behind those there are. */
export const keepWalkTests = useCase(walk.keepWalkTests, async (context, { version, tests }) => {
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
  await summaryLapses(db, version);
  return { ids: rows.map((row) => row.id) };
});

/** Another name for a kept walk, or what it is to expect from now on. */
export const changeWalkTest = useCase(walk.changeWalkTest, async (context, input) => {
  const { db } = context;
  const { version, test, name, content } = input;
  await lock(db, "version", [version]);
  const change = {
    ...(name !== undefined && { name }),
    ...(content !== undefined && { content, member: context.member.id, at: context.now() }),
  };
  const rows = await db.update(walkTests).set(change).where(keptWalk(version, test)).returning();
  if (rows.length === 0) throw notFound("This walk");
  await summaryLapses(db, version);
  return {};
});

export const deleteWalkTest = useCase(walk.deleteWalkTest, async ({ db }, { version, test }) => {
  await lock(db, "version", [version]);
  await db.delete(walkTests).where(keptWalk(version, test));
  await summaryLapses(db, version);
  return {};
});

const keptWalk = (version: string, test: string) => and(eq(walkTests.version, version), eq(walkTests.id, test));

interface CalledModel {
  readonly calls: Id;
  readonly head: Head;
}

/** The models that call activities of a model lead to, and those that these call, by the process each call names. */
export async function modelsCalled(db: Transaction, model: Model): Promise<CalledModel[]> {
  if (![...model.elements].some((element) => element.type === "callActivity")) return [];
  const rows = await db
    .select({ version: versions.id, kind: versions.kind, process: versions.process })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(isNull(versions.deletedAt), isNull(processes.deletedAt), inArray(versions.kind, ["as-is", "to-be"])))
    .orderBy(asc(processes.createdAt), asc(processes.id));
  const found = new Map<Id, Head>();
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
        found.set(key, head);
        queue.push(other);
        break;
      }
    }
  return [...found].map(([calls, head]) => ({ calls, head }));
}

/** What a version calls, directly and further down, so that a case can be played into it. */
export const openCalled = query(
  inVersion.openCalled,
  async ({ db }, { version }): Promise<{ called: { calls: Id; model: StoredModel }[] }> => {
    const { model } = await loadHead(db, version);
    const called = await modelsCalled(db, model);
    return { called: called.map(({ calls, head }) => ({ calls, model: toStored(head.model) })) };
  },
);

/** A model with what it calls and decides by, for a job, and the name of the state they are all in. */
export async function withCalled(db: Transaction, head: Head) {
  const called = await modelsCalled(db, head.model);
  const decisions = await decisionsOf(db, [head.model, ...called.map((one) => one.head.model)]);
  return {
    models: {
      model: head.model,
      ...Object.fromEntries(called.map((one) => [calledName(one.calls), one.head.model])),
    },
    state: [
      stateOf(head),
      ...called.map((one) => [one.calls, ...stateOf(one.head)]),
      ...decisions.map(({ id, revision }) => [id, revision]),
    ],
    decisions: decisions.map(({ id, content }) => ({ id, content })),
  };
}

/** The files of decisions that some models decide by, as they are now. */
export async function decisionsOf(db: Transaction, models: readonly Model[]) {
  const ids = decidingFiles(models);
  if (ids.length === 0) return [];
  return db
    .select({ id: decisionFiles.id, content: decisionFiles.content, revision: decisionFiles.revision })
    .from(decisionFiles)
    .where(and(inArray(decisionFiles.id, ids), isNull(decisionFiles.deletedAt)))
    .orderBy(asc(decisionFiles.id));
}

/** How kept walks go on what a version holds, and what that calls. */
export async function walkResults(context: Context, head: Head, tests: readonly WalkTestRow[]) {
  if (tests.length === 0) return [];
  const { models, state, decisions } = await withCalled(context.db, head);
  const input = { tests: tests.map((test) => test.content), decisions };
  const results = await workedOut(context, "walks", state, models, input);
  return tests.map(({ id: test, name: title }, at) => ({
    id: test,
    name: title,
    result: results[at] as (typeof results)[number],
  }));
}
