import { readFileSync } from "node:fs";
import { basename, extname, resolve } from "node:path";
import { readBpmn } from "@/core/bpmn";
import { readSheet } from "@/core/capture";
import { type DecisionModel, readDecisions } from "@/core/decisions";
import { foldedName } from "@/core/directory";
import { decidedBy, fromStored, type Id, type Model, type Problem } from "@/core/model";
import { decodeText } from "@/core/table";

export const EXIT = { done: 0, no: 1, unusable: 2 } as const;

/** Input that cannot be used; its message is the one line on standard error. */
export class UnusableInput extends Error {}

/** npm runs scripts in the project's folder; relative paths start where the caller stands. */
export function callerPath(path: string): string {
  return resolve(process.env.INIT_CWD ?? process.cwd(), path);
}

export function readBytes(path: string): Uint8Array {
  try {
    return readFileSync(callerPath(path));
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    throw new UnusableInput(
      `${path}: ${code === "ENOENT" ? "there is no such file" : code === "EISDIR" ? "this is a folder" : "the file cannot be read"}`,
    );
  }
}

/** A model from a .bpmn file, or from a .json file of our own. */
export function readModel(path: string): Model {
  const bytes = readBytes(path);
  if (path.toLowerCase().endsWith(".json")) {
    let stored: unknown;
    try {
      stored = JSON.parse(new TextDecoder().decode(bytes));
    } catch {
      throw new UnusableInput(`${path}: this is not valid JSON`);
    }
    const opened = fromStored(stored);
    if (!opened.ok) throw new UnusableInput(`${path}: ${oneLine(opened.problems)}`);
    return opened.value;
  }
  if (path.toLowerCase().endsWith(".csv")) return readSheetFile(path, bytes);
  const read = readBpmn(bytes);
  if (read.ok) return read.value;
  const [problem] = read.problems;
  const place = problem?.line === undefined ? "" : `${problem.line}:${problem.column ?? 1}:`;
  throw new UnusableInput(`${path}:${place} ${oneLine(read.problems)}`);
}

/** A value given as JSON, or as `@FILE` that holds it; and what it is called in a complaint. */
export function readJson(said: string, option: string): { readonly value: unknown; readonly where: string } {
  const file = said.startsWith("@") ? said.slice(1) : undefined;
  const where = file ?? option;
  const text = file === undefined ? said : new TextDecoder().decode(readBytes(file));
  try {
    return { value: JSON.parse(text.replace(/^\uFEFF/, "")), where };
  } catch (error) {
    throw new UnusableInput(`${where}: this is no JSON: ${(error as Error).message.replace(/\s+/g, " ")}`);
  }
}

/** The decisions of a DMN file. */
export function readDecisionFile(file: string): DecisionModel {
  const result = readDecisions(readBytes(file));
  if (!result.ok) {
    const [problem] = result.problems;
    const place = problem?.line === undefined ? "" : `:${problem.line}:${problem.column ?? 1}`;
    throw new UnusableInput(`${file}${place}: ${problem?.message ?? "cannot be read"}`);
  }
  return result.value;
}

/** What business rule tasks decide by: for each file they name, the one of those given that has their decision. */
export function decisionsFor(model: Model, files: readonly string[]): ReadonlyMap<Id, DecisionModel> {
  const read = files.map(readDecisionFile);
  const found = new Map<Id, DecisionModel>();
  for (const element of model.elements) {
    const by = decidedBy(element);
    const one = by && read.find(({ decisions }) => decisions.has(by.decision));
    if (by && one) found.set(by.file, one);
  }
  return found;
}

/** A step sheet. There is no directory here: entries are called after their names. */
function readSheetFile(path: string, bytes: Uint8Array): Model {
  let made = 0;
  const slug = (name: string) => foldedName(name).replace(/[^\p{L}\p{N}]+/gu, "-");
  const read = readSheet(
    decodeText(bytes),
    basename(path, extname(path)),
    (of) => `${of}-${++made}`,
    (kind, name) => ({ entry: `${kind}-${slug(name)}`, name }),
  );
  if (!read.ok) throw new UnusableInput(`${path}: ${oneLine(read.problems)}`);
  return read.value;
}

const oneLine = (problems: readonly Problem[]) => (problems[0]?.message ?? "cannot be read").replace(/\s+/g, " ");
