import { z } from "zod";
import { bookletKinds } from "@/core/booklet";
import {
  filterSchema,
  type Judgement,
  judgements,
  type LogFacts,
  logFactsSchema,
  type SaidSteps,
} from "@/core/evidence";
import { asks, type Done, named, version } from "./contract";
import { id, name } from "./inputs";

/** So large a log may be as it is kept, compressed. */
export const mostLogBytes = 256 * 1024 * 1024;

export { type Judgement, judgements, type LogFacts, logFactsSchema, type SaidSteps };

export interface JudgedDifference {
  /** Which difference: see `differenceKey`. */
  readonly key: string;
  readonly as: Judgement;
  readonly note: string;
  readonly member: string;
  readonly at: string;
}

export interface LogRow {
  readonly id: string;
  readonly name: string;
  readonly facts: LogFacts;
  readonly bytes: number;
  readonly member: string;
  readonly at: string;
}

export interface OpenedLogRow extends LogRow {
  readonly steps: SaidSteps;
  readonly judged: readonly JudgedDifference[];
}

const ofLog = z.object({ version: id, log: id });
const here = (input: { readonly version: string }) => [version(input.version)];
const activity = z.string().min(1).max(2_000);
const key = z.string().min(1).max(20_000);

/** Logs of what happened, kept with a process and held against its versions. */
export const evidence = named({
  listLogs: asks<{ logs: readonly LogRow[] }>()({ input: z.object({ version: id }), right: "read", on: here }),
  openLog: asks<OpenedLogRow>()({ input: ofLog, right: "read", on: here }),
  /** What was kept of a log, as it was sent. */
  logContent: asks<{ name: string; bytes: Uint8Array }>()({ input: ofLog, right: "read", on: here }),
  /** Keeps a log with the process; what activities are is taken over from the log that was kept last. */
  keepLog: asks<{ log: string }>()({
    input: ofLog.extend({ name, facts: logFactsSchema, bytes: z.instanceof(Uint8Array) }),
    right: "edit",
    on: here,
  }),
  deleteLog: asks<Done>()({ input: ofLog, right: "edit", on: here }),
  restoreLog: asks<Done>()({ input: ofLog, right: "edit", on: here }),
  /** Says which steps an activity is; null takes back what was said. */
  sayStep: asks<{ before: readonly string[] | null }>()({
    input: ofLog.extend({ activity, steps: z.array(id).max(200).nullable() }),
    right: "edit",
    on: here,
  }),
  /** Says that a difference is to stay, and what it is; null takes it back. */
  judgeDifference: asks<{ before: { as: Judgement; note: string } | null }>()({
    input: ofLog.extend({
      key,
      judged: z.object({ as: z.enum(judgements), note: z.string().trim().max(2_000) }).nullable(),
    }),
    right: "judge",
    on: here,
  }),
  /** What a log says of a version as it is now, as a file. */
  reportFile: asks<{ name: string; bytes: Uint8Array }>()({
    input: ofLog.extend({ kind: z.enum(bookletKinds), filters: z.array(filterSchema).max(100) }),
    right: "read",
    on: here,
  }),
});
