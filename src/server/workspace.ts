import { eq, inArray } from "drizzle-orm";
import { nanoid } from "nanoid";
import { type Database, database } from "@/data/database";
import { heads, members, processes, workspace } from "@/data/schema";
import { buildDemo } from "@/demo/build";
import { saveBrief } from "./briefs";
import { createEntry } from "./directory";
import { applyCommands } from "./editing";
import { loadHead, renewIndex } from "./heads";
import { createArea, createProcess } from "./home";
import { giveReason } from "./reasons";
import { nameRevision } from "./revisions";
import { createToBe } from "./toBe";
import { localMember, runUseCase } from "./useCase";
import { keepWalkTests } from "./walks";

const shared = globalThis as unknown as { laneReady?: Promise<void> };

/** The workspace as the first request needs it: the member is there, and on the very first start the demo. */
export function workspaceReady(): Promise<void> {
  shared.laneReady ??= prepare().catch((error) => {
    shared.laneReady = undefined;
    throw error;
  });
  return shared.laneReady;
}

async function prepare(): Promise<void> {
  const { db } = await database();
  await db.insert(members).values(localMember).onConflictDoNothing();
  const [made] = await db.select().from(workspace).where(eq(workspace.key, "created"));
  if (made) return renewSearch(db);
  if (process.env.LANE_DEMO !== "none") await makeDemo(db);
  await db.insert(workspace).values([
    { key: "created", value: new Date().toISOString() },
    { key: "search", value: searchForm },
  ]);
}

/** What is kept of elements to find them by; a workspace of an older form is read anew, once. */
const searchForm = "2";

async function renewSearch(db: Database): Promise<void> {
  const [form] = await db.select().from(workspace).where(eq(workspace.key, "search"));
  if (form?.value === searchForm) return;
  for (const { version } of await db.select({ version: heads.version }).from(heads))
    await renewIndex(db, version, (await loadHead(db, version)).model);
  await db
    .insert(workspace)
    .values({ key: "search", value: searchForm })
    .onConflictDoUpdate({ target: workspace.key, set: { value: searchForm } });
}

async function makeDemo(db: Database): Promise<void> {
  const run = <Output>(useCase: Parameters<typeof runUseCase<Output>>[1], input: unknown) =>
    runUseCase(localMember, useCase, input);
  await buildDemo({
    createArea: (input) => run(createArea as never, input),
    createEntry: (input) => run(createEntry as never, input),
    createProcess: (input) => run(createProcess as never, input),
    openModel: async (version) => (await loadHead(db, version)).model,
    applyCommands: async (version, commands, label) => {
      const { sequence } = await loadHead(db, version);
      return run(applyCommands as never, { version, batch: nanoid(), base: sequence, commands, label });
    },
    saveBrief: (input) => run(saveBrief as never, input),
    shareBrief: (shared, brief) =>
      db
        .update(processes)
        .set({ brief })
        .where(inArray(processes.id, [...shared])),
    nameRevision: (input) => run(nameRevision as never, input),
    createToBe: (input) => run(createToBe as never, input),
    giveReason: (input) => run(giveReason as never, input),
    keepWalkTests: (input) => run(keepWalkTests as never, input),
  });
}
