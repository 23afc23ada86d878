import { z } from "zod";
import { isElementType } from "./metamodel/lookup";

/** What the records of a model's tables are at least; what a type of element adds is in the metamodel (see `door.ts`). */

const id = z.string().min(1).max(10_000);
/** Far more than any drawing; beyond it, arithmetic on places loses their fractions. */
const length = z.number().min(-1e9).max(1e9);
const bounds = z.looseObject({ x: length, y: length, width: length, height: length });
const label = z.looseObject({ bounds: bounds.optional() });
const order = z.number().min(-1e15).max(1e15);

export const elementSchema = z.looseObject({
  id,
  type: z.string().refine(isElementType, "is no element type of BPMN 2.0"),
  parent: id.nullable(),
  slot: z.string(),
  order,
});
export const diagramSchema = z.looseObject({
  id,
  order,
  plane: z.looseObject({}),
  name: z.string().optional(),
  documentation: z.string().optional(),
  resolution: z.number().optional(),
  element: z.string().optional(),
});
export const shapeSchema = z.looseObject({
  id,
  order,
  diagram: id,
  element: z.string(),
  bounds,
  label: label.optional(),
  isHorizontal: z.boolean().optional(),
  isExpanded: z.boolean().optional(),
  isMarkerVisible: z.boolean().optional(),
  isMessageVisible: z.boolean().optional(),
});
export const edgeSchema = z.looseObject({
  id,
  order,
  diagram: id,
  element: z.string(),
  waypoints: z.array(z.looseObject({ x: length, y: length })).max(10_000),
  label: label.optional(),
  sourceElement: z.string().optional(),
  targetElement: z.string().optional(),
});
export const figureSchema = z.strictObject({
  id,
  element: id,
  field: z.enum(["processingTime", "fixedCost"]),
  value: z.union([z.string().max(200), z.number()]),
});
