import { z } from "zod";
import { type CaseData, holds } from "../feel";
import { distributionSchema, draw, readSaid } from "../scenario";
import type { Chance } from "./chance";

/**
 * How a service that is not there is stood in for: how long it takes to answer, how often it fails, how often it is tried again before
 * somebody has to look, with pauses that grow, and what it answers: the first line whose condition holds, else made-up values.
 */
export const standInSchema = z.object({
  /** Seconds. */
  latency: distributionSchema,
  /** 0 to 1. */
  failure: z.number().min(0).max(1),
  tries: z.number().int().min(1).max(100),
  /** Seconds before the second try; twice as long before each next one. */
  pause: z.number().min(0).max(86_400),
  answers: z.array(z.object({ when: z.string().max(2_000), values: z.record(z.string(), z.unknown()) })).max(200),
  /** An error that the model may catch, instead of a mere failure. */
  error: z.string().max(200),
});
export type StandIn = z.infer<typeof standInSchema>;

export const usualStandIn: StandIn = {
  latency: readSaid("2 s", "time") ?? { kind: "constant", value: 2 },
  failure: 0,
  tries: 3,
  pause: 60,
  answers: [],
  error: "",
};

/** Seconds until it answers. */
export const latencyOf = (standIn: StandIn, chance: Chance, element: string): number =>
  Math.max(0, draw(standIn.latency, chance.of(element, "latency")));

export type Answer = { readonly is: "answer"; readonly values: CaseData | undefined } | { readonly is: "failure" };

/** What it answers this time; undefined values where no line says any. */
export function answerOf(standIn: StandIn, chance: Chance, element: string, data: CaseData): Answer {
  if (chance.happens(element, "failure", standIn.failure)) return { is: "failure" };
  const line = standIn.answers.find(({ when }) => when.trim() === "" || holds(when, data) === true);
  return { is: "answer", values: line?.values };
}

/** Seconds before the next try; undefined where it was tried often enough. */
export const pauseBefore = (standIn: StandIn, tried: number): number | undefined =>
  tried >= standIn.tries ? undefined : standIn.pause * 2 ** (tried - 1);
