import { z } from "zod";
import { say } from "../../messages";
import { called, decidedBy, withDecidedBy } from "../../model";
import { type Change, refuse } from "../kernel/change";

const decided = {
  decision: z.string().min(1).max(500),
  name: z.string().trim().min(1).max(500),
  /** What can come out, where that can be listed. */
  answers: z.array(z.string().max(500)).max(200).nullable().default(null),
  /** The inputs it needs. */
  needs: z.array(z.string().min(1).max(500)).max(200).default([]),
};

/** Says which decision a business rule task decides by, and what the result is called; null takes it away. */
export const decideBySchema = z.object({
  type: z.literal("decideBy"),
  id: z.string().min(1).max(200),
  to: z
    .object({
      file: z.string().min(1).max(200),
      ...decided,
      /** The decision's own name where none is given. */
      result: z.string().trim().max(500).optional(),
    })
    .nullable(),
});

export function decideBy(change: Change, { id, to }: z.infer<typeof decideBySchema>): void {
  const step = change.element(id);
  if (step.type !== "businessRuleTask")
    refuse(
      "decides-nothing",
      say`${called(change.model, step)} cannot decide by a table: only a business rule task does. Make it one first.`,
      [id],
    );
  const by = to ? { ...to, result: to.result || to.name, answers: to.answers ?? undefined } : undefined;
  change.set("elements", id, "extension", withDecidedBy(step, by));
}

/** What the decisions of a file are called now and what can come out of them, in all steps that decide by it. */
export const renewDecisionsSchema = z.object({
  type: z.literal("renewDecisions"),
  file: z.string().min(1).max(200),
  decisions: z.array(z.object(decided)).max(2_000),
});

export function renewDecisions(change: Change, { file, decisions }: z.infer<typeof renewDecisionsSchema>): void {
  const now = new Map(decisions.map((one) => [one.decision, one]));
  for (const step of change.model.elements) {
    const to = decidedBy(step);
    const renewed = to?.file === file ? now.get(to.decision) : undefined;
    if (!to || !renewed) continue;
    const by = { ...to, name: renewed.name, answers: renewed.answers ?? undefined, needs: renewed.needs };
    if (JSON.stringify(by) !== JSON.stringify(to))
      change.set("elements", step.id, "extension", withDecidedBy(step, by));
  }
}
