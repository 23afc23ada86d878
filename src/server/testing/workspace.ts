import { execFileSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { getTableName, sql } from "drizzle-orm";
import { writeBpmn } from "@/core/bpmn";
import { type Model, type StoredModel, trustStored } from "@/core/model";
import { smallModel } from "@/core/testing/models";
import { closeDatabase, database } from "@/data/database";
import { registered } from "@/data/register";
import { fileUseCases, localMember, runUseCase, useCases, workspaceReady } from "@/server";
import { backgroundDone } from "../kernel/background";
import { generationOf, setGeneration } from "../kernel/generation";
import { forgetHeads } from "../kernel/heads";

export const temporaryFolder = () => mkdtempSync(join(tmpdir(), "lane-"));

/**
 * A folder with an empty database that was made before: copying one takes a tenth of the time, by a program that is made for it (the
 * platform's own takes as long over its thousand files as the database takes to open).
 */
export const preparedFolder = () => prepared(temporaryFolder());

function prepared(folder: string): string {
  if (process.env.LANE_PREPARED) execFileSync("cp", ["-R", `${process.env.LANE_PREPARED}/empty/.`, folder]);
  return folder;
}

/** Where a workspace stands that outlives the file of tests it was opened in. */
const sharedFolder = () =>
  process.env.LANE_PREPARED ? prepared(mkdtempSync(join(process.env.LANE_PREPARED, "used-"))) : temporaryFolder();

const deletions = registered
  .filter(([, { backup }]) => backup !== "of the installation")
  .map(([, { table }]) => `delete from "${getTableName(table)}";`)
  .join(" ");

/** Takes everything out as a restore of an empty backup would, in one statement and without keeping what it replaces: a tenth of the time. */
async function empty(): Promise<void> {
  const { db } = await database();
  await db.transaction(async (transaction) => {
    const generation = await generationOf(transaction);
    await transaction.execute(sql.raw(`do $$ begin ${deletions} end $$`));
    await setGeneration(transaction, generation + 1);
  });
  forgetHeads();
}

let emptied: string | undefined;

/**
 * Opens an empty workspace for a test. One is used again, emptied, by all files of a worker, unless a folder is given, or a new one is
 * wanted: who may sign in stays when one is emptied.
 */
export async function openWorkspace(folder?: string, which: "new" | "any" = "any"): Promise<void> {
  process.env.LANE_DEMO = "none";
  // One on a server is not the one in a folder that is used again.
  const isShared = folder === undefined && which === "any" && !process.env.DATABASE_URL;
  if (isShared && emptied !== undefined) {
    process.env.LANE_DATA = emptied;
    await backgroundDone();
    await empty();
    (globalThis as { laneReady?: unknown }).laneReady = undefined;
  } else {
    await closeWorkspace();
    if (isShared) emptied = sharedFolder();
    process.env.LANE_DATA = folder ?? emptied ?? preparedFolder();
  }
  await workspaceReady();
}

export async function closeWorkspace(): Promise<void> {
  emptied = undefined;
  await backgroundDone();
  await closeDatabase();
  forgetHeads();
  (globalThis as { laneReady?: unknown }).laneReady = undefined;
}

/** For the end of a file of tests. Opening a database takes seconds, so one that the next file can use stays open. */
export async function leaveWorkspace(): Promise<void> {
  if (emptied === undefined) await closeWorkspace();
  else await backgroundDone();
}

export const run = <Output = unknown>(name: keyof typeof useCases, input: unknown) =>
  runUseCase(localMember, useCases[name] as never, input) as Promise<Output>;

/** A process with one step, ready to be edited. */
export async function makeProcess(): Promise<{ version: string; diagram: string }> {
  await run("createArea", { id: "area", name: "Connections", parent: null });
  await run("createProcess", { name: "Connect a plant", area: "area", processId: "connect", versionId: "v" });
  const { model } = await run<{ model: { diagrams: { id: string }[] } }>("openVersion", { version: "v" });
  const diagram = model.diagrams[0]?.id ?? "";
  await send("v", {
    type: "place",
    diagram,
    id: "check",
    kind: { type: "userTask" },
    at: { x: 200, y: 100 },
    name: "Check application",
  });
  return { version: "v", diagram };
}

/** A process that holds a model, as it comes from a file. */
export async function importModel(name: string, model: Model = smallModel()): Promise<string> {
  await run("createArea", { id: "area", name: "Connections", parent: null }).catch(() => undefined);
  const bytes = new TextEncoder().encode(writeBpmn(model));
  const { version } = await runUseCase(localMember, fileUseCases.importFile, {
    name: `${name}.bpmn`,
    area: "area",
    bytes,
  });
  const { process } = await run<{ process: { id: string } }>("openVersion", { version });
  await run("renameProcess", { id: process.id, name });
  return version;
}

/** What a version holds on the server. */
export async function storedModel(version: string): Promise<Model> {
  const { model } = await run<{ model: StoredModel }>("openVersion", { version });
  return trustStored(model);
}

let batches = 0;
export async function send(
  version: string,
  ...commands: unknown[]
): Promise<{ sequence: number; since: { batch: string }[] }> {
  const { sequence } = await run<{ sequence: number }>("openVersion", { version });
  return run("applyCommands", { version, batch: `batch-${batches++}`, base: sequence, commands });
}

/** Home as it is when everything on it is counted. */
export async function countedHome<Home>(): Promise<Home> {
  await run("openHome", {});
  await backgroundDone();
  return run<Home>("openHome", {});
}

export async function nameOfElement(version: string, id: string): Promise<string | undefined> {
  const { model } = await run<{ model: { elements: { id: string; name?: string }[] } }>("openVersion", { version });
  return model.elements.find((element) => element.id === id)?.name;
}
