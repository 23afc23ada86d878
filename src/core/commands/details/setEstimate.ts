import { z } from "zod";
import { say } from "../../messages";
import { called, derivedId, type FigureField, figureId, isActivity, processOf, readDuration } from "../../model";
import { emptySimulation, holderIn } from "../../scenario";
import { type Change, refuse } from "../kernel/change";

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
      say`${called(change.model, step)} is not an activity; time and cost are estimated for activities.`,
      [id],
    );
  const iso = typeof time === "string" && time.trim() !== "" ? readDuration(time) : undefined;
  if (typeof time === "string" && time.trim() !== "" && iso === undefined)
    refuse("no-duration", say`"${time}" is no duration. Write it like 30 min, 1 h 30 min, 2 days or PT30M.`, [id]);
  if (!holderIn(change.model) && (iso !== undefined || typeof cost === "number"))
    makeHolder(change, processOf(change.model, step.id)?.id ?? change.model.root);
  if (time !== undefined) setFigure(change, id, "processingTime", iso);
  if (cost !== undefined) setFigure(change, id, "fixedCost", cost ?? undefined);
}

function setFigure(change: Change, element: string, field: FigureField, value: string | number | undefined): void {
  const id = figureId(element, field);
  if (value === undefined) change.remove("figures", id);
  else if (change.model.figures.has(id)) change.set("figures", id, "value", value);
  else change.insertRecord("figures", { id, element, field, value });
}

/** The standard's place for simulation data: a relationship of the definitions, here of the process with itself. */
export function makeHolder(change: Change, process: string): void {
  const id = derivedId(change.isTaken, change.model.root, "estimates");
  change.insert("relationship", id, change.model.root, { typeRef: "BPSimData", source: [process], target: [process] });
  change.set("elements", id, "extension", [emptySimulation()]);
}

/** An element that goes takes its estimate with it. */
export function forgetEstimate(change: Change, id: string): void {
  for (const field of ["processingTime", "fixedCost"] as const) change.remove("figures", figureId(id, field));
}
