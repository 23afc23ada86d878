import { z } from "zod";
import type { Id } from "../model";

/**
 * Where one case stands, as plain data by the ids of elements: a database can hold it, another process can go on with it. Lists of pairs,
 * since ids are foreign data.
 */
export interface Case {
  /** The process that is played, and those of other pools that it set going. */
  readonly pools: readonly CaseScope[];
  /** Messages on their way, by message flow. */
  readonly sent: readonly (readonly [flow: Id, count: number])[];
}

/** A scope under way: a process, or the inside of a sub-process or of a called process. */
export interface CaseScope {
  /** Its place: the pool's number, then node and number within each scope around it. */
  readonly key: string;
  readonly scope: Id;
  /** Tokens, by what they stand on: `flow ID`, `start NODE` before a node that begins the scope, `link NODE NODE`. */
  readonly tokens: readonly (readonly [on: string, count: number])[];
  /** Activities that are under way, and what each is doing, where it has an inside or is done several times. */
  readonly active: readonly Id[];
  readonly underWay: readonly (readonly [node: Id, what: CaseUnderWay])[];
  /** Events that have gone off in the present activation; what complex gateways have had, a bit each way in. */
  readonly fired: readonly (readonly [node: Id, what: number])[];
  /** Activities that have finished and can be undone, in that order. */
  readonly finished: readonly Id[];
}

export interface CaseUnderWay {
  /** How often it is to be done; undefined for a loop, which is told when it ends. */
  readonly times?: number;
  readonly finished: number;
  readonly scopes: readonly CaseScope[];
}

const id = z.string();
const count = z.number().int().min(0).max(4_294_967_295);
const scopeSchema: z.ZodType<CaseScope> = z.object({
  key: id,
  scope: id,
  tokens: z.array(z.tuple([id, count])),
  active: z.array(id),
  underWay: z.array(
    z.tuple([
      id,
      z.object({
        times: count.optional(),
        finished: count,
        scopes: z.array(z.lazy(() => scopeSchema)),
      }) as unknown as z.ZodType<CaseUnderWay>,
    ]),
  ),
  fired: z.array(z.tuple([id, count])),
  finished: z.array(id),
});

/** What a stored case must look like. */
export const caseSchema: z.ZodType<Case> = z.object({
  pools: z.array(scopeSchema),
  sent: z.array(z.tuple([id, count])),
});
