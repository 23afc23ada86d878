import { z } from "zod";
import type { BriefSummary } from "@/core/brief";
import { type Command, commandSchema } from "@/core/commands";
import type { BuildState } from "@/core/handoff";
import type { Edit, Id, StoredModel } from "@/core/model";
import { asks, type Done, named, type Right, version, workspace } from "./contract";
import { id, name, revisionNumber, sequenceNumber } from "./inputs";

export interface VersionHead {
  readonly id: string;
  readonly name: string;
  readonly kind: "as-is" | "to-be";
  /** The version it was copied from. */
  readonly source: string | null;
  /** What it is to reach. */
  readonly aim: string;
  readonly adoptedAt: string | null;
  /** How its build copies stood when they were last looked at; null where it has none. */
  readonly builds: BuildState | null;
}

export interface VersionData {
  readonly version: VersionHead;
  readonly process: { readonly id: string; readonly name: string };
  readonly trail: readonly string[];
  readonly siblings: readonly VersionHead[];
  readonly sequence: number;
  /** How often the workspace was replaced by a backup; sequences of before and after count two pasts. */
  readonly generation: number;
  readonly handedOff: number;
  /** Runs that go on, and what cannot go on in them. */
  readonly live: { readonly runs: number; readonly incidents: number; readonly logs: number };
  /** The name of the member who asks. */
  readonly member: string;
  /** What this member may do to this version. */
  readonly rights: readonly Right[];
  /** How much of the description the models account for; null where the process has none. */
  readonly brief: BriefSummary | null;
  readonly model: StoredModel;
}

/** What the server holds after a state one knows. */
export interface Since {
  readonly sequence: number;
  /** Everything between the sender's base and now, the sender's own edits included, in order. */
  readonly since: readonly { readonly batch: string; readonly edits: readonly Edit[]; readonly label: string }[];
}
export interface AppliedBatch extends Since {
  readonly remarks: readonly string[];
}

export interface RevisionRow {
  readonly number: number;
  readonly reason: string;
  readonly at: string;
  readonly member: string;
  readonly sequence: number;
}

export interface HistoryRow {
  readonly sequence: number;
  readonly label: string;
  readonly member: string;
  readonly at: string;
}

/** A call activity of another process that calls one of this version. */
export interface Caller {
  readonly version: string;
  readonly versionName: string;
  readonly process: string;
  readonly element: string;
  readonly elementName: string;
}

export interface Callable {
  readonly process: string;
  readonly bpmnId: string;
  readonly name: string;
  readonly version: string;
  readonly versions: readonly { readonly id: string; readonly name: string }[];
}

const ofVersion = z.object({ version: id });
const here = (input: { readonly version: string }) => [version(input.version)];

/** What a version holds, and what was done to it. */
export const inVersion = named({
  openVersion: asks<VersionData>()({ input: ofVersion, right: "read", on: here }),
  /**
   * Performs a batch of commands on a version's head, all or none, and makes it durable before answering. Commands say what is wanted,
   * not what was there; on a head that has moved on they are performed anew and refused where they no longer fit.
   */
  applyCommands: asks<AppliedBatch>()({
    input: z.object({
      version: id,
      batch: z.string().min(1).max(100),
      base: sequenceNumber,
      generation: sequenceNumber.optional(),
      // A pasted list of thousands of rows is one gesture.
      commands: z.array(commandSchema).min(1).max(60_000) as unknown as z.ZodType<
        readonly Command[],
        readonly Command[]
      >,
      /** What the sender calls it; lists show as much of it as fits. */
      label: z.string().max(100_000).optional(),
      /** For what is large: what was there before is kept as a revision, before this. */
      keep: z.string().trim().min(1).max(5_000).optional(),
    }),
    right: "edit",
    on: here,
  }),
  /** What others did to a version after a state that one knows. */
  changesSince: asks<Since>()({
    input: z.object({ version: id, base: sequenceNumber, generation: sequenceNumber.optional() }),
    right: "read",
    on: here,
  }),
  /** Makes a process of its own from steps of a version, beside it in its area; the caller puts a call in their place. */
  extractProcess: asks<{ process: string; version: string; calledElement: string }>()({
    input: z.object({ version: id, diagram: id, ids: z.array(id).min(1).max(2000), name }),
    right: "arrange",
    on: here,
  }),
  listRevisions: asks<{ revisions: readonly RevisionRow[]; changedSince: boolean }>()({
    input: ofVersion,
    right: "read",
    on: here,
  }),
  nameRevision: asks<{ number: number }>()({
    input: z.object({ version: id, reason: z.string().trim().min(1).max(200) }),
    right: "edit",
    on: here,
  }),
  /** Gives a kept state another name. */
  labelRevision: asks<Done>()({
    input: z.object({ version: id, number: revisionNumber, reason: z.string().trim().min(1).max(200) }),
    right: "edit",
    on: here,
  }),
  openRevision: asks<{ number: number; model: StoredModel }>()({
    input: z.object({ version: id, number: revisionNumber }),
    right: "read",
    on: here,
  }),
  /** Puts a kept state back. What was there until now is kept as a revision first, and the restored state is a new one. */
  restoreRevision: asks<{ number: number }>()({
    input: z.object({ version: id, number: revisionNumber }),
    right: "edit",
    on: here,
  }),
  /** What was done to a version after one of its states and up to another, the newest first. */
  listHistory: asks<{ changes: readonly HistoryRow[] }>()({
    input: z.object({ version: id, after: z.number().int().min(-1).max(2_147_483_647), upTo: sequenceNumber }),
    right: "read",
    on: here,
  }),
  /** Who changed an element last, and how; the newest first. What only moved its shape is left out. */
  elementHistory: asks<{ changes: readonly HistoryRow[] }>()({
    input: z.object({ version: id, element: z.string().min(1).max(1000) }),
    right: "read",
    on: here,
  }),
  /**
   * How often some groups of elements were changed, in this version and in the one it comes from: days on which something of a group was
   * another than before, without the day it was drawn; and over how many days that was looked at.
   */
  changeDays: asks<{ days: { readonly [group: string]: number }; over: number }>()({
    input: z.object({
      version: id,
      groups: z.record(z.string().max(300), z.array(z.string().min(1).max(1000)).max(1_000)),
    }),
    right: "read",
    on: here,
  }),
  /** Who calls it may change with any other process. */
  listCallers: asks<{ callers: readonly Caller[] }>()({
    input: ofVersion,
    right: "read",
    on: (input) => [...here(input), workspace],
  }),
  /** What a version calls, directly and further down, so that a case can be played into it. */
  openCalled: asks<{ called: readonly { readonly calls: Id; readonly model: StoredModel }[] }>()({
    input: ofVersion,
    right: "read",
    on: here,
  }),
});
