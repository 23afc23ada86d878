import { z } from "zod";
import type { Diagram, Edge, Shape } from "./diagram";
import type { Element } from "./element";
import { isElementType } from "./metamodel/lookup";
import type { Model } from "./model";
import { failure, ok, type Result } from "./problem";
import { Table } from "./table";

/** A model as it is kept and sent: plain data with the number of its form. */
export interface StoredModel {
  readonly schemaVersion: number;
  readonly root: string;
  readonly elements: readonly Element[];
  readonly diagrams: readonly Diagram[];
  readonly shapes: readonly Shape[];
  readonly edges: readonly Edge[];
  readonly form: Model["form"];
  readonly notes: Model["notes"];
}

/** Changes of the stored form, from one number to the next. Append only: an entry never changes once a release has carried it. */
interface Migration {
  readonly to: number;
  readonly name: string;
  readonly up: (stored: { readonly [field: string]: unknown }) => { readonly [field: string]: unknown };
}
const migrations: readonly Migration[] = [
  // The first form; what was kept before there was a number has the same shape.
  { to: 1, name: "number-the-form", up: (stored) => ({ ...stored, schemaVersion: 1 }) },
];
export const currentSchemaVersion = migrations.length;

const id = z.string().min(1);
const bounds = z.looseObject({ x: z.number(), y: z.number(), width: z.number(), height: z.number() });
const storedSchema = z.object({
  schemaVersion: z.literal(currentSchemaVersion),
  root: id,
  elements: z.array(
    z.looseObject({
      id,
      type: z.string().refine(isElementType, "is no element type of BPMN 2.0"),
      parent: id.nullable(),
      slot: z.string(),
      order: z.number(),
    }),
  ),
  diagrams: z.array(z.looseObject({ id, order: z.number(), plane: z.looseObject({}) })),
  shapes: z.array(z.looseObject({ id, order: z.number(), diagram: id, element: z.string(), bounds })),
  edges: z.array(
    z.looseObject({
      id,
      order: z.number(),
      diagram: id,
      element: z.string(),
      waypoints: z.array(z.looseObject({ x: z.number(), y: z.number() })),
    }),
  ),
  form: z.object({
    prefixes: z.array(z.tuple([z.string(), z.string()])),
    before: z.array(z.any()),
    after: z.array(z.any()),
  }),
  notes: z.array(z.any()),
});

export function toStored(model: Model): StoredModel {
  return {
    schemaVersion: currentSchemaVersion,
    root: model.root,
    elements: [...model.elements],
    diagrams: [...model.diagrams],
    shapes: [...model.shapes],
    edges: [...model.edges],
    form: model.form,
    notes: model.notes,
  };
}

/** Opens a stored model of this form or an older one. O(size). */
export function fromStored(stored: unknown): Result<Model> {
  const envelope = z.looseObject({ schemaVersion: z.number().int().min(0).default(0) }).safeParse(stored);
  if (!envelope.success) {
    return failure({ code: "not-a-model", message: `This is not a stored model: ${z.prettifyError(envelope.error)}` });
  }
  if (envelope.data.schemaVersion > currentSchemaVersion) {
    return failure({
      code: "newer-schema",
      message: "This model was saved by a newer release. Start that release to open it.",
    });
  }
  const current = migrations
    .slice(envelope.data.schemaVersion)
    .reduce<{ readonly [field: string]: unknown }>((older, migration) => migration.up(older), envelope.data);
  const parsed = storedSchema.safeParse(current);
  if (!parsed.success) {
    return failure({ code: "not-a-model", message: `This stored model is damaged: ${z.prettifyError(parsed.error)}` });
  }
  return ok(trustStored(parsed.data as unknown as StoredModel));
}

/** Opens what this same release has just stored, without looking at every field again. */
export function trustStored(stored: StoredModel): Model {
  const table = <Value extends { readonly id: string }>(records: readonly Value[]) =>
    Table.from<Value>(records.map((record) => [record.id, record]));
  return {
    root: stored.root,
    elements: table(stored.elements),
    diagrams: table(stored.diagrams),
    shapes: table(stored.shapes),
    edges: table(stored.edges),
    form: stored.form,
    notes: stored.notes,
  };
}
