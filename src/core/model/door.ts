import { z } from "zod";
import { type Said, say } from "../messages";
import { applyEdits, type Edit, type TableName } from "./edit";
import type { Element, Id } from "./element";
import { figureId } from "./figure";
import { brokenBy, brokenDrawing } from "./invariants";
import type { ContentField } from "./metamodel/fields";
import { elementTypes, isElementType, typeInfo } from "./metamodel/lookup";
import type { Model } from "./model";
import { indexOf } from "./modelIndex";
import { failure, type Result } from "./problem";
import { diagramSchema, edgeSchema, elementSchema, figureSchema, shapeSchema } from "./records";

/** What a model may hold at most, so that none grows beyond what can be opened again. */
export const modelLimits = { elements: 400_000, drawings: 800_000, diagrams: 20_000, figures: 800_000 } as const;

const schemas: { readonly [table in TableName]: z.ZodType } = {
  elements: elementSchema,
  diagrams: diagramSchema,
  shapes: shapeSchema,
  edges: edgeSchema,
  figures: figureSchema,
};

/**
 * Applies edits that come from outside, or says why not: what they touch must be records of the model's form, stand in what can hold
 * it and name what is there. What was wrong with a model before (a file opens whatever is wrong with it) may stay, not become more.
 * O(edits + what names the touched).
 */
export function admitEdits(model: Model, edits: readonly Edit[]): Result<Model> {
  for (const edit of edits) {
    const wrong = wrongAlone(edit);
    if (wrong) return failure({ code: "not-a-model", ...refusal(wrong.id, wrong.what), elements: [wrong.id] });
  }
  const applied = applyEdits(model, edits);
  if (!applied.ok) return applied;
  const problem = newFault(model, applied.value, edits);
  return problem ? failure({ code: "not-a-model", message: problem.message, elements: [problem.id] }) : applied;
}

const refusal = (id: Id, what: Said) => ({
  id,
  message: say`This change would break the model: ${what}. Nothing of it was done.`,
});

/** What fields of elements hold, whatever the type: for looking at an edit before it is known what it is made on. */
const everyField = new Map<string, Field[]>();
for (const type of elementTypes) {
  const { attributes, content } = typeInfo(type);
  for (const [field, spec] of [...attributes, ...content])
    everyField.set(field, [...(everyField.get(field) ?? []), spec]);
}

/** What is wrong with an edit on whatever model: it could not even be looked up by. */
function wrongAlone(edit: Edit): { readonly id: Id; readonly what: Said } | undefined {
  if (edit.kind !== "set") {
    const { id } = edit.record;
    const parsed = schemas[edit.table].safeParse(edit.record);
    if (!parsed.success) return { id, what: say`"${id}" of the ${edit.table}: ${z.prettifyError(parsed.error)}` };
    const what =
      edit.table === "elements" ? wrongFields(edit.record as Element, "all") : wrongCommon(edit.record, "all");
    return what === undefined ? undefined : { id, what: say`${what}` };
  }
  const { id, field, to } = edit;
  if (field === "id") return { id, what: say`"${id}" would be called "${String(to)}"` };
  if (edit.table !== "elements" || to === null) return undefined;
  const holds =
    field === "type"
      ? typeof to === "string" && isElementType(to)
      : field === "parent" || field === "slot"
        ? typeof to === "string"
        : field === "order"
          ? typeof to === "number"
          : (commonFields[field]?.(to) ?? everyField.get(field)?.some((spec) => holdsValue(spec, to)));
  return holds ? undefined : { id, what: say`"${JSON.stringify(to).slice(0, 60)}" is no ${field} of "${id}"` };
}

/** The first thing that edits have made wrong; undefined where nothing is. */
export function newFault(
  before: Model,
  after: Model,
  edits: readonly Edit[],
): { readonly id: Id; readonly message: Said } | undefined {
  const touched = new Map<TableName, Map<Id, Set<string> | "all">>();
  for (const edit of edits) {
    const ids = touched.get(edit.table) ?? new Map<Id, Set<string> | "all">();
    touched.set(edit.table, ids);
    const id = edit.kind === "set" ? edit.id : edit.record.id;
    const known = ids.get(id);
    if (edit.kind !== "set") ids.set(id, "all");
    else if (known === undefined) ids.set(id, new Set([edit.field]));
    else if (known !== "all") known.add(edit.field);
  }
  const told = refusal;
  for (const [table, ids] of touched)
    for (const [id, fields] of ids) {
      const record = after[table].get(id) as { readonly id: Id } | undefined;
      if (!record) continue;
      if (record.id !== id) return told(id, say`"${id}" would be called "${record.id}"`);
      const parsed = schemas[table].safeParse(record);
      if (!parsed.success) return told(id, say`"${id}" of the ${table}: ${z.prettifyError(parsed.error)}`);
      const wrong = table === "elements" ? wrongFields(record as Element, fields) : wrongCommon(record, fields);
      if (wrong) return told(id, say`${wrong}`);
    }
  const elements = touched.get("elements") ?? new Map<Id, unknown>();
  if (elements.has(after.root) && after.elements.get(after.root)?.type !== "definitions")
    return told(after.root, say`the definitions would be gone`);
  if (after.elements.size > modelLimits.elements)
    return told(after.root, say`it would have more than ${modelLimits.elements} elements`);
  if (after.shapes.size + after.edges.size > modelLimits.drawings)
    return told(after.root, say`it would have more than ${modelLimits.drawings} shapes and lines`);
  if (after.diagrams.size > modelLimits.diagrams || after.figures.size > modelLimits.figures)
    return told(after.root, say`it would have more pages or figures than a model may have`);

  // The touched themselves, and whatever names or stands in what is no longer there or has become another type.
  const concerned = new Set<Id>(elements.keys());
  for (const id of elements.keys()) {
    const [was, is] = [before.elements.get(id), after.elements.get(id)];
    if (!was || (is && is.type === was.type)) continue;
    for (const { from } of indexOf(after).referrers.get(id) ?? []) concerned.add(from);
    for (const child of indexOf(after).children.get(id) ?? []) concerned.add(child);
    if (is) continue;
    for (const drawn of [...(indexOf(after).shapes.get(id) ?? []), ...(indexOf(after).edges.get(id) ?? [])])
      return told(drawn, say`"${drawn}" draws "${id}", which would be gone`);
  }
  for (const id of concerned) {
    const element = after.elements.get(id);
    if (!element) continue;
    const was = before.elements.get(id);
    const known = new Set(was ? brokenBy(before, was) : []);
    const fresh = brokenBy(after, element).find((sentence) => !known.has(sentence));
    if (fresh) return told(id, say`${fresh}`);
    if (was?.parent !== element.parent && standsInItself(after, element))
      return told(id, say`"${id}" would stand in itself`);
  }
  for (const table of ["diagrams", "shapes", "edges"] as const)
    for (const id of touched.get(table)?.keys() ?? []) {
      const known = new Set(brokenDrawing(before, table, id));
      const fresh = brokenDrawing(after, table, id).find((sentence) => !known.has(sentence));
      if (fresh) return told(id, say`${fresh}`);
      if (table === "diagrams" && before.diagrams.has(id) && !after.diagrams.has(id)) {
        for (const drawn of [...after.shapes, ...after.edges])
          if (drawn.diagram === id) return told(drawn.id, say`"${drawn.id}" is on a page that would be gone`);
      }
    }
  for (const id of touched.get("figures")?.keys() ?? []) {
    const figure = after.figures.get(id);
    if (figure && figure.id !== figureId(figure.element, figure.field))
      return told(id, say`the figure "${id}" is of another element or kind`);
    if (figure && typeof figure.value !== (figure.field === "processingTime" ? "string" : "number"))
      return told(id, say`"${figure.value}" is no ${figure.field}`);
  }
  return undefined;
}

/** Whether an element's parents lead back to it, or never to the root. O(depth). */
function standsInItself(model: Model, element: Element): boolean {
  const seen = new Set<Id>([element.id]);
  for (let at = element.parent; at !== null; at = model.elements.get(at)?.parent ?? null) {
    if (seen.has(at)) return true;
    seen.add(at);
  }
  return false;
}

const text = z.string();
const pairs = z.array(z.tuple([text, text])).readonly();
const isPairs = (value: unknown) => pairs.safeParse(value).success;

/** XML that is kept, looked at without recursion: its depth is the sender's. */
function isXmlList(value: unknown): boolean {
  const open: unknown[] = [value];
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    if (!Array.isArray(next)) return false;
    for (const node of next) {
      if (node === null || typeof node !== "object") return false;
      if ("element" in node) {
        const { name, uri, attributes, children } = (node.element ?? {}) as { readonly [field: string]: unknown };
        if (typeof name !== "string" || typeof uri !== "string" || !isPairs(attributes)) return false;
        open.push(children);
      } else if ("instruction" in node) {
        if (!z.tuple([text, text]).safeParse(node.instruction).success) return false;
      } else {
        const [kind] = Object.keys(node);
        if ((kind !== "text" && kind !== "comment") || typeof (node as Record<string, unknown>)[kind] !== "string")
          return false;
      }
    }
  }
  return true;
}

const isPlaced = (value: unknown) =>
  Array.isArray(value) &&
  value.every(
    (one) => one !== null && typeof one === "object" && typeof one.after === "string" && isXmlList([one.node]),
  );
const isSpelling = (value: unknown) => z.record(text, text).safeParse(value).success;
const isTexted = (value: unknown): boolean => {
  if (value === null || typeof value !== "object" || Array.isArray(value)) return false;
  const { text: words, nodes, attributes, ...more } = value as { readonly [field: string]: unknown };
  return (
    typeof words === "string" &&
    (nodes === undefined || isXmlList(nodes)) &&
    (attributes === undefined || isPairs(attributes)) &&
    Object.values(more).every((one) => typeof one === "string")
  );
};

/** What every record may have, whatever its kind. */
const commonFields: { readonly [field: string]: (value: unknown) => boolean } = {
  extension: isXmlList,
  extensionAttributes: isPairs,
  foreignAttributes: isPairs,
  foreign: isPlaced,
  spelling: isSpelling,
  prefix: (value) => typeof value === "string",
  documentation: (value) => typeof value === "string" || (Array.isArray(value) && value.every(isTexted)),
};

function wrongCommon(record: object, fields: Set<string> | "all"): string | undefined {
  for (const [field, value] of Object.entries(record))
    if (isAbout(fields, field) && value !== undefined && commonFields[field]?.(value) === false)
      return `"${JSON.stringify(value).slice(0, 60)}" is no ${field}`;
  return undefined;
}

const isAbout = (fields: Set<string> | "all", field: string) => fields === "all" || fields.has(field);

/** The first field of an element, of those touched, that is not what its type has or holds what it cannot. */
function wrongFields(element: Element, fields: Set<string> | "all"): string | undefined {
  const info = typeInfo(element.type);
  for (const [field, value] of Object.entries(element)) {
    if (!isAbout(fields, field) || value === undefined) continue;
    if (["id", "type", "parent", "slot", "order"].includes(field)) continue;
    const own = info.attributes.get(field) ?? info.content.get(field);
    const holds = own ? holdsValue(own, value) : commonFields[field]?.(value);
    if (holds === undefined) return `a ${element.type} ("${element.id}") has no "${field}"`;
    if (!holds) return `"${JSON.stringify(value).slice(0, 60)}" is no value for the ${field} of "${element.id}"`;
  }
  return undefined;
}

type Field = ContentField | { readonly kind: string; readonly values?: readonly string[] };
/** Whether a value is one that a field of the metamodel can hold; whether what it names is there is another question. */
export function holdsValue(field: Field, value: unknown): boolean {
  switch (field.kind) {
    case "string":
    case "reference":
      return typeof value === "string";
    case "boolean":
      return typeof value === "boolean";
    case "integer":
      return Number.isInteger(value);
    case "enum":
      return typeof value === "string" && ((field as { values?: readonly string[] }).values ?? []).includes(value);
    case "references":
      return (field as { many?: boolean }).many
        ? Array.isArray(value) && value.every((one) => typeof one === "string")
        : typeof value === "string";
    case "expression":
    case "text":
      return isTexted(value);
    default:
      return false;
  }
}
