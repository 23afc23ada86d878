import { z } from "zod";
import { say } from "../../messages";
import { isActivity, targetKinds, withTargets } from "../../model";
import { type Change, refuse } from "../kernel/change";

const target = z.object({
  what: z.enum(targetKinds),
  seconds: z.number().min(0).max(1e10),
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
  change.set("elements", id, "extension", withTargets(element, targets));
}
