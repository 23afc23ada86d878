import { gzipSync } from "node:zlib";
import { eq, inArray } from "drizzle-orm";
import { nanoid } from "nanoid";
import { type EventLog, overviewOf, packedLog } from "@/core/evidence";
import { database } from "@/data/database";
import { heads, members, processes, workspace } from "@/data/schema";
import { buildDemo } from "@/demo/build";
import { saveBrief } from "../brief/briefs";
import { giveReason } from "../compare/reasons";
import { createToBe } from "../compare/toBe";
import { keepDecisionFile, looked } from "../decisions/decisionFiles";
import { createEntry } from "../directory/directory";
import { keepLog, sayStep } from "../evidence/logs";
import { tieBuildCopy } from "../handoff/buildCopies";
import { described, keepDescription } from "../handoff/descriptions";
import { demoRepository } from "../handoff/places";
import { createArea } from "../home/areas";
import { createProcess } from "../home/processes";
import { writing } from "../kernel/act";
import { toldByDatabase } from "../kernel/databaseErrors";
import { DamagedVersion, loadHead, tryHead } from "../kernel/heads";
import { renewIndex } from "../kernel/searchIndex";
import { signsIn } from "../kernel/signInMode";
import { type Act, type Context, localMember, UseCaseError } from "../kernel/useCase";
import { saveLens } from "../lenses/lenses";
import { keepRun } from "../live/runs";
import { runStaff } from "../live/staff";
import { setMember } from "../members/members";
import { applyCommands } from "../version/editing";
import { nameRevision } from "../version/revisions";
import { keepWalkTests } from "../walk/walks";

const shared = globalThis as unknown as { laneReady?: Promise<void> };

/** The workspace as the first request needs it: the member is there, and on the very first start the demo. */
export function workspaceReady(): Promise<void> {
  shared.laneReady ??= prepare().catch((error) => {
    shared.laneReady = undefined;
    const told = toldByDatabase(error);
    throw told ? new UseCaseError(told.code, told.message, told.status, [], { cause: error }) : error;
  });
  return shared.laneReady;
}

/**
 * Makes what is missing, all or nothing: a start that is cut off leaves an empty workspace, and the next one makes it. Of several
 * processes that start at once one makes it, and the others wait.
 */
async function prepare(): Promise<void> {
  const { db } = await database();
  await writing(
    db,
    async (transaction) => {
      const now = () => new Date().toISOString();
      const context: Context = { db: transaction, member: localMember, now, asked: now(), waits: true };
      if (!signsIn())
        await transaction
          .insert(members)
          .values({ id: localMember.id, name: localMember.name, seat: "owner" })
          .onConflictDoNothing();
      const [made] = await transaction.select().from(workspace).where(eq(workspace.key, "created"));
      if (made) return renewSearch(context);
      if (process.env.LANE_DEMO !== "none" && !signsIn()) await makeDemo(context);
      await transaction.insert(workspace).values([
        { key: "created", value: context.now() },
        { key: "search", value: searchForm },
      ]);
    },
    "alone",
  );
}

/** What is kept of elements to find them by; a workspace of an older form is read anew, once. */
const searchForm = "4";

async function renewSearch({ db }: Context): Promise<void> {
  const [form] = await db.select().from(workspace).where(eq(workspace.key, "search"));
  if (form?.value === searchForm) return;
  for (const { version } of await db.select({ version: heads.version }).from(heads)) {
    const head = await tryHead(db, version);
    if (!(head instanceof DamagedVersion)) await renewIndex(db, version, undefined, head.model);
  }
  await db
    .insert(workspace)
    .values({ key: "search", value: searchForm })
    .onConflictDoUpdate({ target: workspace.key, set: { value: searchForm } });
}

/** A log as a window sends it to be kept. */
function packedWithFacts(log: EventLog) {
  const { cases, events, first, last } = overviewOf(log);
  return { facts: { cases, events, first, last }, bytes: new Uint8Array(gzipSync(packedLog(log))) };
}

async function makeDemo(context: Context): Promise<void> {
  const { db } = context;
  const run = <Input, Output>(act: Act<Input, Output>, input: unknown) =>
    act.run(context, act.contract.input.parse(input));
  await buildDemo({
    createArea: (input) => run(createArea, input),
    createEntry: (input) => run(createEntry, input),
    createProcess: (input) => run(createProcess, input),
    openModel: async (version) => (await loadHead(db, version)).model,
    applyCommands: async (version, commands, label) => {
      const { sequence } = await loadHead(db, version);
      return run(applyCommands, { version, batch: nanoid(), base: sequence, commands, label });
    },
    saveBrief: (input) => run(saveBrief, input),
    shareBrief: (shared, brief) =>
      db
        .update(processes)
        .set({ brief })
        .where(inArray(processes.id, [...shared])),
    nameRevision: (input) => run(nameRevision, input),
    createToBe: (input) => run(createToBe, input),
    giveReason: (input) => run(giveReason, input),
    saveLens: (input) => run(saveLens, input),
    setMember: (input) => run(setMember, input),
    startRun: async ({ run: id, ...input }) =>
      keepRun(context, { ...input, id, model: (await loadHead(db, input.version)).model, revision: 0 }),
    runStaff: (input) => run(runStaff, input),
    tieBuildCopy: (input) => run(tieBuildCopy, { ...input, place: `git:${demoRepository()}` }),
    createDecisionFile: async (input) =>
      keepDecisionFile(context, { ...input, ...(await looked(input.content)), name: input.name }),
    keepLog: async ({ version, log, name, content, steps }) => {
      await run(keepLog, { version, log, name, ...packedWithFacts(content) });
      for (const [activity, own] of Object.entries(steps)) await run(sayStep, { version, log, activity, steps: own });
    },
    keepWalkTests: (input) => run(keepWalkTests, input),
    importDescription: async ({ name, text }) => {
      const content = await described(name, text);
      await keepDescription(context, name, content);
      return content;
    },
  });
}
