import { eq, inArray } from "drizzle-orm";
import { nanoid } from "nanoid";
import { type Database, database } from "@/data/database";
import { members, processes, workspace } from "@/data/schema";
import { buildDemo } from "@/demo/build";
import { saveBrief } from "./briefs";
import { createEntry } from "./directory";
import { applyCommands } from "./editing";
import { loadHead } from "./heads";
import { createArea, createProcess, createToBe } from "./home";
import { nameRevision } from "./revisions";
import { localMember, runUseCase } from "./useCase";

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
  if (made) return;
  if (process.env.LANE_DEMO !== "none") await makeDemo(db);
  await db.insert(workspace).values({ key: "created", value: new Date().toISOString() });
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
  });
}
