import { z } from "zod";
import {
  called,
  derivedId,
  type Element,
  emptySimulation,
  estimatesOf,
  isActivity,
  processOf,
  readDuration,
  simulationHolder,
  withEstimate,
} from "../model";
import { type Change, refuse } from "./change";

export const setEstimateSchema = z.object({
  type: z.literal("setEstimate"),
  id: z.string().min(1).max(200),
  /** As people write it or ISO 8601; null takes it off, absent leaves it. */
  time: z.string().max(200).nullable().optional(),
  cost: z.number().min(0).max(1e12).nullable().optional(),
});

/** Says how long an activity takes, and what it costs. */
export function setEstimate(change: Change, { id, time, cost }: z.infer<typeof setEstimateSchema>): void {
  const step = change.element(id);
  if (!isActivity(step.type))
    refuse(
      "not-an-activity",
      `${called(change.model, step)} is not an activity; time and cost are estimated for activities.`,
      [id],
    );
  const iso = typeof time === "string" && time.trim() !== "" ? readDuration(time) : undefined;
  if (typeof time === "string" && time.trim() !== "" && iso === undefined)
    refuse("no-duration", `"${time}" is no duration. Write it like 30 min, 1 h 30 min, 2 days or PT30M.`, [id]);
  const known = estimatesOf(change.model).get(id) ?? {};
  const nextTime = time === undefined ? known.time : iso;
  const nextCost = cost === undefined ? known.cost : (cost ?? undefined);
  if (nextTime === known.time && nextCost === known.cost) return;
  const holder = simulationHolder(change.model) ?? newHolder(change, step);
  const estimate = {
    ...(nextTime !== undefined && { time: nextTime }),
    ...(nextCost !== undefined && { cost: nextCost }),
  };
  change.set("elements", holder.id, "extension", withEstimate(holder.extension ?? [], id, estimate));
}

/** The standard's place for simulation data: a relationship of the definitions, here of the process with itself. */
function newHolder(change: Change, step: Element): Element {
  const process = processOf(change.model, step.id)?.id ?? change.model.root;
  const id = derivedId(change.isTaken, change.model.root, "estimates");
  change.insert("relationship", id, change.model.root, { typeRef: "BPSimData", source: [process], target: [process] });
  change.set("elements", id, "extension", [emptySimulation()]);
  return change.element(id);
}

/** An element that goes takes its estimate with it. */
export function forgetEstimate(change: Change, id: string): void {
  const holder = estimatesOf(change.model).has(id) ? simulationHolder(change.model) : undefined;
  if (holder) change.set("elements", holder.id, "extension", withEstimate(holder.extension ?? [], id, {}));
}
