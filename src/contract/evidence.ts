import { z } from "zod";
import { asks, type Done, named, version } from "./contract";
import { id, name } from "./inputs";

/** So large a log may be as it is kept, compressed. */
export const mostLogBytes = 256 * 1024 * 1024;

const moment = z.number().min(-8.64e15).max(8.64e15).nullable();
/** What is told of a log in lists, without opening it. */
export const logFactsSchema = z.object({
  cases: z.number().int().min(0),
  events: z.number().int().min(0),
  first: moment,
  last: moment,
});
export type LogFacts = z.infer<typeof logFactsSchema>;

/** What is decided of a difference that stays. */
export const judgements = ["exception", "misconduct"] as const;
export type Judgement = (typeof judgements)[number];

export interface JudgedDifference {
  /** Which difference: see `differenceKey`. */
  readonly key: string;
  readonly as: Judgement;
  readonly note: string;
  readonly member: string;
  readonly at: string;
}

/** Which steps an activity is, as somebody said; none where it is not in the model. */
export type SaidSteps = { readonly [activity: string]: readonly string[] };

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
});
