import { readBpmn } from "../bpmn";
import { type DecisionModel, readDecisions } from "../decisions";
import { say } from "../messages";
import { failure, type Id, type Model, type Result } from "../model";
import { openArchive, TooLarge } from "./archive";

/** What of a package is run: its model, and the decisions its steps decide by. */
export interface PackageToRun {
  readonly model: Model;
  /** By the ids that the model's steps name them by. */
  readonly decisions: ReadonlyMap<Id, DecisionModel>;
}

/** The bytes of a zip archive begin so. */
export const isArchive = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

interface Listed {
  readonly file: string;
  readonly part: string;
}
const isListed = (value: unknown): value is Listed =>
  typeof value === "object" &&
  value !== null &&
  "file" in value &&
  "part" in value &&
  typeof value.file === "string" &&
  typeof value.part === "string";

/** Opens a package to run it. Problems: no package, a part that is missing or cannot be read. */
export function openPackage(bytes: Uint8Array): Result<PackageToRun> {
  const archive = openArchive(bytes);
  if (!archive.ok) return archive;
  const refuse = (message: ReturnType<typeof say>) => failure({ code: "no-package", message });
  try {
    const { read } = archive.value;
    const file = read("model.bpmn");
    if (!file) return refuse(say`There is no model.bpmn in this archive, so it is no package.`);
    const model = readBpmn(file);
    if (!model.ok) return model;
    const listed = read("decisions.json");
    const decisions = new Map<Id, DecisionModel>();
    for (const one of listed ? listIn(listed) : []) {
      const part = read(one.part);
      const decided = part && readDecisions(part);
      if (!decided?.ok) return refuse(say`The decisions in ${one.part} cannot be read.`);
      decisions.set(one.file, decided.value);
    }
    return { ok: true, value: { model: model.value, decisions } };
  } catch (error) {
    if (error instanceof TooLarge) return refuse(error.said);
    throw error;
  }
}

function listIn(bytes: Uint8Array): readonly Listed[] {
  try {
    const value: unknown = JSON.parse(new TextDecoder().decode(bytes));
    return Array.isArray(value) ? value.filter(isListed) : [];
  } catch {
    // A list that cannot be read names nothing; `verify` says that the part has changed.
    return [];
  }
}
