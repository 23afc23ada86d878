import { z } from "zod";
import { say } from "../messages";
import { counted } from "./counted";
import type { Diagram, Edge, Shape } from "./diagram";
import { applyEdits, type Edit } from "./edit";
import type { Element } from "./element";
import type { Figure } from "./figure";
import { figuresApart } from "./migrations/figuresApart";
import type { Model } from "./model";
import { failure, ok, type Problem, problem, type Result } from "./problem";
import { diagramSchema, edgeSchema, elementSchema, figureSchema, shapeSchema } from "./records";
import { Table } from "./table";

/** A model as it is kept and sent: plain data with the number of its form. */
export interface StoredModel {
  readonly schemaVersion: number;
  readonly root: string;
  readonly elements: readonly Element[];
  readonly diagrams: readonly Diagram[];
  readonly shapes: readonly Shape[];
  readonly edges: readonly Edge[];
  readonly figures: readonly Figure[];
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
  { to: 2, name: "figures-apart", up: figuresApart },
];
export const currentSchemaVersion = migrations.length;

const id = z.string().min(1);
const storedSchema = z.object({
  schemaVersion: z.literal(currentSchemaVersion),
  root: id,
  elements: z.array(elementSchema),
  diagrams: z.array(diagramSchema),
  shapes: z.array(shapeSchema),
  edges: z.array(edgeSchema),
  figures: z.array(figureSchema),
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
    figures: [...model.figures],
    form: model.form,
    notes: model.notes,
  };
}

/** What was done to a stored model after it was stored, each batch in the form of its day. */
export interface LoggedEdits {
  readonly sequence: number;
  readonly form: number;
  readonly edits: readonly Edit[];
}

type Plain = { readonly [field: string]: unknown };
const damaged = (what: string) =>
  failure({
    code: "not-a-model",
    message: say`This stored model is damaged: ${what.replace(/\s+/g, " ").slice(0, 300)}`,
  });

/**
 * Opens a stored model of this form or an older one, with what its log says was done since: the one way in for all that is kept (heads,
 * revisions, packages, backups). Edits are applied in the form they were made in; then the model is brought to this release's form.
 * O(size).
 */
export function fromStored(stored: unknown, { edits = [] }: { edits?: readonly LoggedEdits[] } = {}): Result<Model> {
  const envelope = z.looseObject({ schemaVersion: z.number().int().min(0).default(0) }).safeParse(stored);
  if (!envelope.success) {
    return failure({
      code: "not-a-model",
      message: say`This is not a stored model: ${z.prettifyError(envelope.error)}`,
    });
  }
  let plain: Plain = envelope.data;
  let form = envelope.data.schemaVersion;
  const raise = (to: number): Problem | undefined => {
    for (; form < to; form++) {
      const migration = migrations[form] as Migration;
      try {
        plain = migration.up(plain);
      } catch (error) {
        return problem({
          code: "not-a-model",
          message: say`It could not be brought to form ${migration.to} (${migration.name}): ${(error as Error).message}`,
        });
      }
    }
    return undefined;
  };
  const newer = Math.max(form, ...edits.map((batch) => batch.form));
  if (newer > currentSchemaVersion) {
    return failure({
      code: "newer-schema",
      message: say`This model was saved by a newer release. Start that release to open it.`,
    });
  }
  let at = 0;
  for (; (edits[at]?.form ?? currentSchemaVersion) < currentSchemaVersion; at++) {
    const batch = edits[at] as LoggedEdits;
    const fault = raise(batch.form);
    if (fault) return failure(fault);
    const done = plainlyEdited(plain, batch);
    if (typeof done === "string") return damaged(done);
    plain = done;
  }
  const fault = raise(currentSchemaVersion);
  if (fault) return failure(fault);
  const parsed = storedSchema.safeParse(plain);
  if (!parsed.success) {
    const [first, ...more] = parsed.error.issues;
    const place = first?.path.slice(0, 4).join(" ") || "the whole";
    const others = more.length > 0 ? `, and ${counted(more.length, "other place")} like it` : "";
    return damaged(`${place} is not what it should be${others}`);
  }
  let model = trustStored(parsed.data as unknown as StoredModel);
  if (!model.elements.has(model.root)) return damaged(`its root "${model.root}" is missing`);
  const circle = standingInItself(model);
  if (circle !== undefined) return damaged(`"${circle}" stands in itself`);
  for (const batch of edits.slice(at)) {
    const applied = applyEdits(model, batch.edits);
    if (!applied.ok) return damaged(`change ${batch.sequence}: ${applied.problems[0]?.message}`);
    model = applied.value;
  }
  return ok(model);
}

/** An element whose parents lead back to it, if there is one. O(elements). */
function standingInItself({ elements }: Model): string | undefined {
  const sound = new Set<string>();
  for (const { id } of elements) {
    const path: string[] = [];
    for (let at: string | null = id; at !== null && !sound.has(at); at = elements.get(at)?.parent ?? null) {
      // A path longer than there are elements comes round again; looking back along it would be slow for deep models.
      if (path.push(at) > elements.size) return id;
    }
    for (const passed of path) sound.add(passed);
  }
  return undefined;
}

/** Edits on a plain model of whatever form: records by id in tables by name. */
function plainlyEdited(plain: Plain, { edits, sequence }: LoggedEdits): Plain | string {
  const tables = new Map<string, Map<string, Plain>>();
  for (const edit of edits) {
    let table = tables.get(edit.table);
    if (!table) {
      const records = plain[edit.table];
      if (!Array.isArray(records)) return `change ${sequence} names a table ${edit.table}, which is not there`;
      table = new Map((records as Plain[]).map((record) => [String(record.id), record]));
      tables.set(edit.table, table);
    }
    const id = edit.kind === "set" ? edit.id : edit.record.id;
    if (edit.kind === "insert") table.set(id, edit.record as unknown as Plain);
    else if (!table.has(id)) return `change ${sequence} is about "${id}", which is not there`;
    else if (edit.kind === "remove") table.delete(id);
    else {
      const next = { ...table.get(id), [edit.field]: edit.to };
      if (edit.to === null && edit.field !== "parent") delete next[edit.field];
      table.set(id, next);
    }
  }
  return { ...plain, ...Object.fromEntries([...tables].map(([name, table]) => [name, [...table.values()]])) };
}

/** Opens what this same release has just made from a model (in the page, in a worker), without looking at every field again. */
export function trustStored(stored: StoredModel): Model {
  const table = <Value extends { readonly id: string }>(records: readonly Value[]) =>
    Table.from<Value>(records.map((record) => [record.id, record]));
  return {
    root: stored.root,
    elements: table(stored.elements),
    diagrams: table(stored.diagrams),
    shapes: table(stored.shapes),
    edges: table(stored.edges),
    figures: table(stored.figures),
    form: stored.form,
    notes: stored.notes,
  };
}
