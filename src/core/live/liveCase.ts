import { z } from "zod";
import type { CaseData } from "../feel";
import type { Id } from "../model";
import { type Case, caseSchema } from "../tokens";

/**
 * What a case waits for at a node: a person's work, a service's answer, a time, a message from outside, a signal, that something holds;
 * or somebody to clear up what stands in the way.
 */
export const waitKinds = ["work", "service", "timer", "message", "signal", "condition", "incident"] as const;
export type WaitKind = (typeof waitKinds)[number];

export interface Wait {
  /** Within its case, in the order in which they came. */
  readonly id: number;
  readonly kind: WaitKind;
  /** The scope it is in, by key, and the node it waits at; of a race the gateway, and which of the events behind it. */
  readonly at: string;
  readonly node: Id;
  readonly event?: Id;
  /** The how-manieth instance of a step with several. */
  readonly instance?: number;
  /** What that instance has of its own: its item of the collection. */
  readonly own?: CaseData;
  /** Milliseconds since 1970. */
  readonly since: number;
  /** Of work: when somebody began it. */
  begun?: number;
  /** Of a timer: when it goes off (none: never again), and how often still; -1 for without end. */
  readonly due?: number;
  readonly left?: number;
  /** Of a message: another process of the model sends it, so nobody outside does. */
  readonly isInside?: boolean;
  /** Of a message or signal: its name. */
  readonly name?: string;
  /** Of an incident: why, and how often it was met. */
  readonly reason?: string;
  readonly times?: number;
  /** Of an incident: it is work, or a service's, that failed. */
  readonly isWork?: boolean;
}

export const caseStates = ["open", "completed", "failed", "stopped", "cancelled"] as const;
/** `stopped`: it met the bound of steps. */
export type CaseState = (typeof caseStates)[number];

/** A case that is run, as plain data: a database can hold it, and another process can go on with it. */
export interface LiveCase {
  readonly process: Id;
  readonly tokens: Case;
  readonly data: CaseData;
  /** What instances of what has an inside have of their own, by scope. */
  readonly own: { readonly [scope: string]: CaseData };
  readonly waits: readonly Wait[];
  /** Events that have happened behind a race and are passed at once, as scope and node. */
  readonly happened: readonly string[];
  /** The number of the next wait; how many steps were made. */
  readonly next: number;
  readonly steps: number;
  readonly state: CaseState;
  /** Where and with which error it failed. */
  readonly failure?: { readonly element: Id; readonly error: string };
}

const record = z.record(z.string(), z.unknown());
const waitSchema = z.object({
  id: z.number().int(),
  kind: z.enum(waitKinds),
  at: z.string(),
  node: z.string(),
  event: z.string().optional(),
  instance: z.number().int().optional(),
  own: record.optional(),
  since: z.number(),
  begun: z.number().optional(),
  due: z.number().optional(),
  left: z.number().int().optional(),
  isInside: z.boolean().optional(),
  name: z.string().optional(),
  reason: z.string().optional(),
  times: z.number().int().optional(),
  isWork: z.boolean().optional(),
});

/** What a stored case must look like. */
export const liveCaseSchema = z.object({
  process: z.string(),
  tokens: caseSchema,
  data: record,
  own: z.record(z.string(), record),
  waits: z.array(waitSchema),
  happened: z.array(z.string()),
  next: z.number().int(),
  steps: z.number().int(),
  state: z.enum(caseStates),
  failure: z.object({ element: z.string(), error: z.string() }).optional(),
}) as unknown as z.ZodType<LiveCase>;

/**
 * One thing that happened in a case: `enter` and `leave` of an element (tokens came, tokens went on), `start`, `complete` and `abort` of
 * one piece of work, an incident, and the end.
 */
export interface LiveEvent {
  readonly kind: "enter" | "leave" | "start" | "complete" | "abort" | "incident" | "completed" | "failed" | "stopped";
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly element?: Id;
  /** The process the element is in, as its model names it. */
  readonly process?: Id;
  readonly scope?: string;
  readonly wait?: number;
  readonly instance?: number;
  readonly reason?: string;
  /** Of a step that writes into a store, when it is complete: what it wrote. */
  readonly data?: CaseData;
}
