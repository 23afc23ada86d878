import { z } from "zod";
import { say } from "../messages";
import type { Diagram, Edge, Shape } from "./diagram";
import type { Element, Id, Json } from "./element";
import type { Figure } from "./figure";
import type { Model } from "./model";
import { carryIndex, type Touched } from "./modelIndex";
import { failure, ok, type Result } from "./problem";

export const tableNames = ["elements", "diagrams", "shapes", "edges", "figures"] as const;
export type TableName = (typeof tableNames)[number];
type RecordOf = { elements: Element; diagrams: Diagram; shapes: Shape; edges: Edge; figures: Figure };
type AnyRecord = RecordOf[TableName];

/**
 * The three primitive changes of a model. Each holds what it replaces, so each can be taken back, and so it can be seen
 * whether a model still is what the edit was made for. `null` stands for a field that is not there.
 */
export type Edit =
  | { readonly kind: "insert"; readonly table: TableName; readonly record: AnyRecord }
  | { readonly kind: "remove"; readonly table: TableName; readonly record: AnyRecord }
  | {
      readonly kind: "set";
      readonly table: TableName;
      readonly id: Id;
      readonly field: string;
      readonly from: Json;
      readonly to: Json;
    };

const tableName = z.enum(tableNames);
const record = z.looseObject({ id: z.string().min(1) });
/** For edits that come from outside. What a record holds is checked by `door.ts` on the model that results. */
export const editSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("insert"), table: tableName, record }),
  z.object({ kind: z.literal("remove"), table: tableName, record }),
  z.object({
    kind: z.literal("set"),
    table: tableName,
    id: z.string().min(1),
    field: z.string().min(1),
    from: z.json(),
    to: z.json(),
  }),
]);

export function invert(edit: Edit): Edit {
  switch (edit.kind) {
    case "insert":
      return { ...edit, kind: "remove" };
    case "remove":
      return { ...edit, kind: "insert" };
    case "set":
      return { ...edit, from: edit.to, to: edit.from };
  }
}

/** The edits that undo a list of edits: each taken back, last first. */
export function invertAll(edits: readonly Edit[]): Edit[] {
  return edits.map(invert).reverse();
}

/**
 * Applies edits in order, all or none. An edit that meets a model which does not hold what it replaces is a conflict.
 * O(edits + √n) apart from lists of siblings touched, which are copied.
 */
export function applyEdits(model: Model, edits: readonly Edit[]): Result<Model> {
  if (edits.length === 0) return ok(model);
  const drafts = {
    elements: new Draft<Element>(model.elements),
    diagrams: new Draft<Diagram>(model.diagrams),
    shapes: new Draft<Shape>(model.shapes),
    edges: new Draft<Edge>(model.edges),
    figures: new Draft<Figure>(model.figures),
  };
  for (const edit of edits) {
    const draft = drafts[edit.table] as Draft<AnyRecord>;
    const id = edit.kind === "set" ? edit.id : edit.record.id;
    const current = draft.get(id);
    switch (edit.kind) {
      case "insert":
        if (current) return conflict(id, `"${id}" is there already`);
        draft.put(id, edit.record);
        break;
      case "remove":
        if (!current) return conflict(id, `"${id}" is not there any more`);
        if (!sameJson(current, edit.record)) return conflict(id, `"${id}" was changed meanwhile`);
        draft.put(id, undefined);
        break;
      case "set": {
        if (!current) return conflict(id, `"${id}" is not there any more`);
        const value = (current as unknown as { [field: string]: Json | undefined })[edit.field] ?? null;
        if (!sameJson(value, edit.from)) return conflict(id, `the ${edit.field} of "${id}" was changed meanwhile`);
        draft.put(id, withField(current, edit.field, edit.to));
        break;
      }
    }
  }
  const next: Model = {
    ...model,
    elements: drafts.elements.done(),
    diagrams: drafts.diagrams.done(),
    shapes: drafts.shapes.done(),
    edges: drafts.edges.done(),
    figures: drafts.figures.done(),
  };
  const touched: Touched = {
    elements: drafts.elements.touched(),
    diagrams: drafts.diagrams.touched(),
    shapes: drafts.shapes.touched(),
    edges: drafts.edges.touched(),
  };
  carryIndex(model, next, touched);
  return ok(next);
}

function conflict(id: Id, what: string) {
  return failure({
    code: "edit-conflict",
    message: say`This change no longer fits the model: ${what}. Look at the newer state and make the change again.`,
    elements: [id],
  });
}

function withField<Record extends object>(record: Record, field: string, value: Json): Record {
  const next = { ...record } as { [field: string]: unknown };
  if (value === null && field !== "parent") delete next[field];
  else next[field] = value;
  return next as Record;
}

/** Whether two plain values are the same, whatever the order of their fields; an absent field equals null. */
export function sameJson(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (a == null || b == null) return a == null && b == null;
  if (typeof a !== "object" || typeof b !== "object") return false;
  if (Array.isArray(a) || Array.isArray(b)) {
    if (!Array.isArray(a) || !Array.isArray(b) || a.length !== b.length) return false;
    return a.every((item, at) => sameJson(item, b[at]));
  }
  const first = a as { [key: string]: unknown };
  const second = b as { [key: string]: unknown };
  for (const key of Object.keys(first)) if (!sameJson(first[key], second[key])) return false;
  for (const key of Object.keys(second)) if (!(key in first) && second[key] != null) return false;
  return true;
}

class Draft<Value> {
  readonly #changes = new Map<Id, Value | undefined>();
  constructor(private readonly table: import("./table").Table<Value>) {}
  get(id: Id): Value | undefined {
    return this.#changes.has(id) ? this.#changes.get(id) : this.table.get(id);
  }
  put(id: Id, value: Value | undefined): void {
    this.#changes.set(id, value);
  }
  done() {
    return this.table.with(this.#changes);
  }
  touched(): Map<Id, readonly [Value | undefined, Value | undefined]> {
    return new Map([...this.#changes].map(([id, after]) => [id, [this.table.get(id), after]]));
  }
}
