import { z } from "zod";
import { say } from "../../messages";
import { isActivity, targetKinds, withTargets } from "../../model";
import { type Change, refuse } from "../kernel/change";

const target = z.object({
  what: z.enum(targetKinds),
  seconds: z.number().min(0).max(1e10),
  amount: z.number().min(0).max(1e12).optional(),
  until: z.string().min(1).max(200).optional(),
  share: z.number().min(0).max(1),
  days: z.number().min(1).max(3_650),
});
export const setTargetsSchema = z.object({
  type: z.literal("setTargets"),
  id: z.string().min(1).max(200),
  targets: z.array(target).max(20),
});

/** Says what is to be kept of a process or a step, in place of what was said before. */
export function setTargets(change: Change, { id, targets }: z.infer<typeof setTargetsSchema>): void {
  const element = change.element(id);
  if (element.type !== "process" && !isActivity(element.type))
    refuse("no-target", say`Targets are of a process or a step.`, [id]);
  for (const { what, until, amount } of targets) {
    if (what === "cost" && amount === undefined) refuse("no-amount", say`A target of cost says how much.`, [id]);
    if (until === undefined) continue;
    if (what !== "duration" || !isActivity(change.element(until).type))
      refuse("no-path", say`A path is from one step through another, and is done within a time.`, [id]);
  }
  change.set("elements", id, "extension", withTargets(element, targets));
}
