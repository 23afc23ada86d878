import { isDeepStrictEqual } from "node:util";
import { files } from "@/contract";
import type { SameProcess } from "@/contract/files";
import { say } from "@/core/messages";
import { type Model, processesOf, type StoredModel, trustStored } from "@/core/model";
import { addToBe } from "../compare/toBe";
import { enterNames, namesIn } from "../directory/directoryNames";
import { addProcess } from "../home/processes";
import { lock, type Transaction } from "../kernel/act";
import { DamagedVersion, tryHead } from "../kernel/heads";
import { processesWithIds } from "../kernel/processIds";
import { inThread } from "../kernel/threads";
import { longUseCase, type Outside, UseCaseError } from "../kernel/useCase";

/** A name as long as one may be, cut between characters. */
const shortened = (name: string) => [...name].slice(0, 200).join("").slice(0, 200);

/** So many processes of the same id are held against what is read. */
const mostLikely = 3;

/** A BPMN file, or a step sheet as CSV, becomes a process; what could not be read says where and why, and nothing is made. */
export const importFile = longUseCase(files.importFile, async (outside, { name, area, bytes, signal }) => {
  const title = name.replace(/\.[^.]*$/, "") || "Imported process";
  const { model, made, named } = await readModel(outside, { name, title, bytes, signal });
  return outside.write(async (context) => {
    if (signal?.aborted) throw new UseCaseError("stopped", say`${name} was not opened: it was cancelled.`);
    await lock(context.db, "home");
    await enterNames(context.db, made);
    const same = await sameProcess(context.db, model);
    return { ...(await addProcess(context, { name: shortened(named || title), area }, model)), same };
  });
});

/** A BPMN file becomes a to-be, to start from or to compare with: nothing of it is tied to the version it stands beside. */
export const importToBe = longUseCase(files.importToBe, async (outside, { source, name, bytes, signal }) => {
  const { model, made } = await readModel(outside, { name: `${name}.bpmn`, title: name, bytes, signal });
  return outside.write(async (context) => {
    if (signal?.aborted) throw new UseCaseError("stopped", say`${name} was not made: it was cancelled.`);
    await lock(context.db, "home");
    await enterNames(context.db, made);
    return { version: await addToBe(context, { source, name }, model) };
  });
});

interface ReadingFile {
  readonly name: string;
  readonly title: string;
  readonly bytes: Uint8Array;
  readonly signal: AbortSignal | undefined;
}

/** What a file holds, and the names it brings for the directory. */
async function readModel(outside: Outside, { name, title, bytes, signal }: ReadingFile) {
  const directory = await outside.read(({ db }) => namesIn(db));
  const read = await inThread("readFile", {}, { name, title, bytes, directory }, signal);
  if ("problems" in read) {
    const [problem] = read.problems;
    const place =
      problem?.column === undefined ? name : say`${name} (line ${problem.line ?? 1}, column ${problem.column})`;
    throw new UseCaseError("unreadable", say`${place}: ${problem?.said ?? ""}`, 422, read.problems);
  }
  return { model: trustStored(JSON.parse(read.model) as StoredModel), made: read.made, named: read.named };
}

/** So many elements are held against each other before others have their turn. */
const comparedAtOnce = 100;

/**
 * Whether two models hold the same, but for the names of their processes: where a file says none, they are called as the file is.
 * What differs mostly differs in its first elements, so most comparisons end at once. O(elements).
 */
async function holdSame(one: Model, other: Model): Promise<boolean> {
  if (one.elements.size !== other.elements.size || one.shapes.size !== other.shapes.size) return false;
  let compared = 0;
  for (const [mine, theirs] of [
    [one.elements, other.elements],
    [one.shapes, other.shapes],
    [one.edges, other.edges],
  ] as const)
    for (const record of mine) {
      const own = "type" in record && record.type === "process" ? { ...record, name: "" } : record;
      const found = theirs.get(record.id);
      const its = found && "type" in found && found.type === "process" ? { ...found, name: "" } : found;
      if (!isDeepStrictEqual(own, its)) return false;
      if (++compared % comparedAtOnce === 0) await new Promise(setImmediate);
    }
  return true;
}

/** A process that is here already with the same process id in its file: most likely this file, read once before. */
async function sameProcess(db: Transaction, model: Model): Promise<SameProcess | null> {
  const ids = processesOf(model).map(({ id }) => id);
  const rows = await processesWithIds(db, ids).limit(mostLikely);
  for (const { version, name } of rows) {
    const head = await tryHead(db, version);
    if (!(head instanceof DamagedVersion) && (await holdSame(model, head.model)))
      return { version, name, isEqual: true };
  }
  const [first] = rows;
  // Short ids are given by many programs; only one that nobody gives by chance says that it is the same process.
  const isTelling = ids.some((id) => id.length >= 12);
  return first && isTelling ? { version: first.version, name: first.name, isEqual: false } : null;
}
