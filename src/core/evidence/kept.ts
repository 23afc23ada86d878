import { z } from "zod";

const moment = z.number().min(-8.64e15).max(8.64e15).nullable();
/** What is told of a log in lists, without opening it. Moments are milliseconds since 1970; null in a log without times. */
export const logFactsSchema = z.object({
  cases: z.number().int().min(0),
  events: z.number().int().min(0),
  first: moment,
  last: moment,
});
export type LogFacts = z.infer<typeof logFactsSchema>;

/** What is decided of a difference that stays: it is no part of the model, and goes into the report. */
export const judgements = ["exception", "misconduct"] as const;
export type Judgement = (typeof judgements)[number];

/** Which steps an activity is, as somebody said; none where it is not in the model. */
export type SaidSteps = { readonly [activity: string]: readonly string[] };
