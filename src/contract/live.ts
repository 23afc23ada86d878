import { z } from "zod";
import type { CaseState, LiveEvent, Measured, StandIn, WaitKind } from "@/core/live";
import { standInSchema } from "@/core/live";
import type { Id, LiveTarget, StoredModel } from "@/core/model";
import type { Distribution } from "@/core/scenario";
import { asks, type Done, named, version, workspace } from "./contract";
import { id, name } from "./inputs";

const values = z.record(z.string().max(500), z.unknown());
const number = z.number().int().min(1).max(2_147_483_647);
const wait = z.number().int().min(1).max(2_147_483_647);
const reason = z.string().trim().min(1, "Say why.").max(2_000);
/** A name for what is asked for: asked once more after an answer was lost, it is not done again. */
const act = z.string().min(1).max(100);
const inRun = z.object({ version: id, run: id });
const inCase = inRun.extend({ number });
const onWait = inCase.extend({ wait, act });
/** What a supervisor does to a case. */
export const interferenceSchema = z.discriminatedUnion("what", [
  z.object({ what: z.literal("data"), values }),
  z.object({ what: z.enum(["suspend", "resume", "cancel"]) }),
  z.object({ what: z.literal("retry"), wait }),
  z.object({ what: z.literal("skip"), wait, values: values.default({}) }),
  z.object({ what: z.literal("move"), wait, to: id }),
  z.object({ what: z.literal("lead"), wait, flows: z.array(id).min(1).max(50) }),
  z.object({ what: z.literal("happen"), wait, values: values.default({}) }),
]);

export type Interference = z.infer<typeof interferenceSchema>;

const here = (input: { readonly version: string }) => [version(input.version)];

export interface RunRow {
  readonly id: string;
  readonly name: string;
  readonly version: string;
  readonly revision: number;
  /** How many packages it has taken so far. */
  readonly edition: number;
  readonly open: number;
  readonly cases: number;
  readonly incidents: number;
  readonly isEnded: boolean;
  readonly member: string;
  readonly at: string;
}

/** What waits at an element, and what went through it. Times in milliseconds of the run's clock. */
export interface ElementStanding {
  readonly element: Id;
  readonly waiting: number;
  readonly median: number;
  readonly oldest: number;
  readonly incidents: number;
  readonly doneToday: number;
}

export interface WaitRow {
  readonly run: string;
  readonly version: string;
  readonly number: number;
  readonly wait: number;
  readonly kind: WaitKind;
  readonly element: Id;
  readonly label: string;
  readonly roleName: string;
  readonly member: string | null;
  readonly memberName: string | null;
  readonly since: number;
  readonly due: number | null;
  readonly reason: string | null;
  readonly tried: number;
}

export interface CaseRow {
  readonly number: number;
  /** Which of the packages of its run it runs by. */
  readonly edition: number;
  readonly state: CaseState;
  readonly isSuspended: boolean;
  readonly began: number;
  readonly ended: number | null;
  /** Where it stands, by name. */
  readonly at: readonly string[];
  readonly incidents: number;
}

/** A case that may be moved to the newest package of its run; or why it may not. */
export interface MoveRow {
  readonly number: number;
  readonly edition: number;
  readonly why: readonly string[];
}

export interface AuditRow {
  readonly sequence: number;
  readonly kind: LiveEvent["kind"] | string;
  readonly at: number;
  readonly element: Id | null;
  readonly name: string;
  readonly member: string | null;
  readonly reason: string | null;
  readonly data: { readonly [name: string]: unknown } | null;
}

export interface OpenRun {
  readonly run: RunRow;
  readonly process: Id;
  /** What the run's clock shows now, and how fast it goes. */
  readonly now: number;
  readonly pace: number;
  /** When something comes of its own accord. */
  readonly next: number | null;
  readonly standing: readonly ElementStanding[];
  /** Of what targets broke that nobody has seen yet: steps, or the process. */
  readonly alerts: readonly Id[];
  readonly standIns: { readonly [element: Id]: StandIn };
  /** Steps that a service answers. */
  readonly services: readonly { readonly element: Id; readonly name: string }[];
}

export interface OpenCase {
  readonly row: CaseRow;
  readonly data: { readonly [name: string]: unknown };
  readonly waits: readonly WaitRow[];
  readonly audit: readonly AuditRow[];
  /** Elements it has been at, and ways it went, so often. */
  readonly path: readonly { readonly element: Id; readonly times: number }[];
}

export interface WorkItem extends WaitRow {
  readonly process: string;
  readonly runName: string;
  readonly now: number;
  /** Until when it should be done, on the run's clock. */
  readonly dueBy: number | null;
}

/** A piece of work that one has done. */
export interface DoneWork {
  readonly version: string;
  readonly run: string;
  readonly number: number;
  readonly label: string;
  readonly process: string;
  readonly at: number;
  readonly note: string | null;
}

/** A key of a program, without what it is. */
export interface KeyRow {
  readonly id: string;
  readonly name: string;
  readonly memberName: string;
  readonly at: string;
  readonly isWithdrawn: boolean;
}

export interface TargetRow {
  readonly element: Id;
  readonly name: string;
  readonly target: LiveTarget;
  readonly measured: Measured;
  /** The alert that is open about it. */
  readonly alert: { readonly id: string; readonly at: number } | null;
}

/** What happened on one day of the run's clock; and how many cases were open when it ended. */
export interface DayFigures {
  /** Milliseconds since 1970, when the day began. */
  readonly day: number;
  readonly began: number;
  readonly ended: number;
  readonly open: number;
}

/** What was measured at a step. Seconds. */
export interface StepFigures {
  readonly element: Id;
  readonly name: string;
  readonly role: string;
  readonly count: number;
  readonly waitingMean: number;
  readonly workingMean: number;
  /** As a spread to forecast with. */
  readonly waiting: Distribution | null;
  readonly working: Distribution | null;
}

export interface RunFigures {
  readonly now: number;
  readonly days: readonly DayFigures[];
  /** How long open cases have been open, the oldest first. Seconds. */
  readonly ages: readonly number[];
  /** Cases that came to their end, in the order in which they did. Seconds. */
  readonly ended: readonly { readonly number: number; readonly at: number; readonly seconds: number }[];
  /** By who did it: pieces of work, and the seconds that one took on average. */
  readonly people: readonly { readonly name: string; readonly done: number; readonly workingMean: number }[];
  /** The cases that steps and ways were measured in: the last ones. */
  readonly measured: number;
  readonly interval: Distribution | null;
  readonly steps: readonly StepFigures[];
  readonly ways: readonly { readonly flow: Id; readonly gateway: Id; readonly name: string; readonly share: number }[];
}

/** What was written into a store: a row each time. */
export interface WrittenRow {
  readonly number: number;
  readonly at: number;
  readonly step: string;
  readonly data: { readonly [name: string]: unknown };
}

/** What would follow if something were done to a case. */
export interface CasePreview {
  /** Why it cannot be done, in words. */
  readonly refused: string | null;
  readonly state: CaseState;
  readonly isSuspended: boolean;
  /** What is not waited for any more then, and what is waited for instead. */
  readonly ends: readonly { readonly kind: WaitKind; readonly name: string }[];
  readonly comes: readonly { readonly kind: WaitKind; readonly name: string }[];
}

export const live = named({
  listKeys: asks<{ keys: readonly KeyRow[] }>()({ input: z.object({}), right: "own", on: () => [workspace] }),
  /** A key for a program, which works in the name of who makes it. It is shown this once. */
  makeKey: asks<{ key: string }>()({ input: z.object({ id, name }), right: "own", on: () => [workspace] }),
  withdrawKey: asks<Done>()({ input: z.object({ id }), right: "own", on: () => [workspace] }),
  listRuns: asks<{ runs: readonly RunRow[]; mayStart: boolean }>()({
    input: z.object({ version: id }),
    right: "read",
    on: here,
  }),
  /** Starts up what was handed off last, with what it calls and decides by. */
  startRun: asks<{ run: string }>()({
    input: z.object({ version: id, run: id, name, pace: z.number().min(0).max(10_000).default(1) }),
    right: "operate",
    on: here,
  }),
  endRun: asks<Done>()({ input: inRun, right: "operate", on: here }),
  /** What a run runs, which never changes. */
  runModel: asks<{ model: StoredModel }>()({ input: inRun, right: "read", on: here }),
  openRun: asks<OpenRun>()({ input: inRun, right: "read", on: here }),
  /** How fast the run's clock goes; or that it jumps to a time, or to what comes next. */
  setClock: asks<Done>()({
    input: inRun.extend({
      pace: z.number().min(0).max(10_000).optional(),
      to: z.union([z.number(), z.literal("next")]).optional(),
    }),
    right: "operate",
    on: here,
  }),
  setStandIn: asks<Done>()({
    input: inRun.extend({ element: id, standIn: standInSchema.nullable() }),
    right: "operate",
    on: here,
  }),
  /** Simulated members work so many days up to now, after the first scenario. */
  runStaff: asks<{ cases: number }>()({
    input: inRun.extend({ days: z.number().min(1).max(3_650), most: z.number().int().min(1).max(2_000) }),
    right: "operate",
    on: here,
  }),
  /** What is to be kept, as the version says now, and what it came to in this run. */
  listTargets: asks<{ targets: readonly TargetRow[]; alerts: number }>()({ input: inRun, right: "read", on: here }),
  /** Stores that steps write into, and the rows of one of them, the latest first. */
  listWritten: asks<{ stores: readonly string[]; rows: readonly WrittenRow[]; total: number }>()({
    input: inRun.extend({
      store: z.string().max(500).optional(),
      from: z.number().int().min(0).default(0),
      count: z.number().int().min(1).max(200).default(50),
    }),
    right: "read",
    on: here,
  }),
  /** Figures of the last days of the run's clock. */
  runFigures: asks<RunFigures>()({
    input: inRun.extend({ days: z.number().int().min(1).max(3_650).default(30) }),
    right: "read",
    on: here,
  }),
  /** A member has seen that a target broke. */
  acknowledgeAlert: asks<Done>()({ input: inRun.extend({ alert: id, reason }), right: "operate", on: here }),
  /** What has happened in the cases of a run, as a log. */
  downloadLog: asks<{ text: string; name: string; type: string }>()({
    input: inRun.extend({ as: z.enum(["xes", "csv"]), isAnonymised: z.boolean().default(false) }),
    right: "read",
    on: here,
  }),
  /** The run takes what was handed off last as its next edition, which new cases run by. */
  renewRun: asks<{ edition: number }>()({
    input: inRun.extend({ edition: z.number().int().min(2).max(10_000) }),
    right: "operate",
    on: here,
  }),
  /** Open cases of earlier editions: which of them can be moved to the newest, and why others cannot. */
  listMoves: asks<{ moves: readonly MoveRow[]; isMore: boolean }>()({ input: inRun, right: "read", on: here }),
  moveCases: asks<{ moved: number; refused: readonly MoveRow[] }>()({
    input: inRun.extend({ numbers: z.array(number).min(1).max(200), act: act.max(80), reason }),
    right: "operate",
    on: here,
  }),
  listCases: asks<{ cases: readonly CaseRow[]; total: number }>()({
    input: inRun.extend({
      state: z.enum(["open", "over", "incident", "all"]).default("all"),
      text: z.string().max(200).default(""),
      from: z.number().int().min(0).default(0),
      count: z.number().int().min(1).max(200).default(50),
    }),
    right: "read",
    on: here,
  }),
  openCase: asks<OpenCase>()({ input: inCase, right: "read", on: here }),
  beginLiveCase: asks<{ number: number }>()({
    input: inRun.extend({
      act,
      values: values.default({}),
      /** The start event it begins with, or the name of the message that begins it; the first of the process where neither is said. */
      start: id.optional(),
      message: z.string().max(500).optional(),
    }),
    right: "work",
    on: here,
  }),
  /** Work of all runs, or of one, that a member may do: of the roles it fills, and what it has taken on. */
  listWork: asks<{ items: readonly WorkItem[]; total: number; done: readonly DoneWork[] }>()({
    input: z.object({
      whose: z.enum(["mine", "open", "all"]).default("all"),
      run: id.optional(),
      count: z.number().int().min(1).max(500).default(100),
    }),
    right: "read",
    on: () => [workspace],
  }),
  openWork: asks<{
    item: WorkItem;
    model: StoredModel;
    data: { readonly [name: string]: unknown };
    draft: { readonly [name: string]: unknown } | null;
  }>()({ input: inCase.extend({ wait }), right: "read", on: here }),
  /** Takes work on, or gives it back, or hands it to somebody. */
  assignWork: asks<Done>()({
    input: onWait.extend({ to: id.nullable(), reason: z.string().max(2_000).default("") }),
    right: "work",
    on: here,
  }),
  /** How much of what one has taken on should have been done by now, or should be within the hour. */
  remindWork: asks<{ overdue: number; soon: number }>()({ input: z.object({}), right: "read", on: () => [workspace] }),
  /** Until when work should be done; null for whenever. */
  setDue: asks<Done>()({ input: onWait.extend({ dueBy: z.number().nullable() }), right: "work", on: here }),
  saveWork: asks<Done>()({ input: onWait.extend({ values }), right: "work", on: here }),
  completeWork: asks<Done>()({
    input: onWait.extend({ values, note: z.string().max(2_000).default("") }),
    right: "work",
    on: here,
  }),
  /** A message from outside, a signal, or a timer that is not waited for: it has happened. */
  letHappen: asks<Done>()({
    input: onWait.extend({ values: values.default({}), reason: z.string().max(2_000).default("") }),
    right: "work",
    on: here,
  }),
  listWaits: asks<{ waits: readonly WaitRow[]; now: number }>()({
    input: inRun.extend({
      kinds: z.array(z.enum(["message", "signal", "incident", "timer"])).max(4),
      /** Only what is called so, by what it waits for or by its own name. */
      named: z.string().max(500).optional(),
    }),
    right: "read",
    on: here,
  }),
  previewCase: asks<CasePreview>()({
    input: inCase.extend({ doing: interferenceSchema }),
    right: "read",
    on: here,
  }),
  retryIncident: asks<Done>()({ input: onWait, right: "operate", on: here }),
  /** A supervisor leaves a step out: it counts as done, with values that stand for its outcome. */
  skipStep: asks<Done>()({ input: onWait.extend({ values: values.default({}), reason }), right: "operate", on: here }),
  /** A token goes to another step of the same scope: done once more, or left out. */
  moveToken: asks<Done>()({ input: onWait.extend({ to: id, reason }), right: "operate", on: here }),
  /** A gateway that cannot decide is led along a way. */
  leadOn: asks<Done>()({
    input: onWait.extend({ flows: z.array(id).min(1).max(50), reason }),
    right: "operate",
    on: here,
  }),
  setCaseData: asks<Done>()({ input: inCase.extend({ act, values, reason }), right: "operate", on: here }),
  suspendCase: asks<Done>()({
    input: inCase.extend({ act, isSuspended: z.boolean(), reason }),
    right: "operate",
    on: here,
  }),
  cancelCase: asks<Done>()({ input: inCase.extend({ act, reason }), right: "operate", on: here }),
});
