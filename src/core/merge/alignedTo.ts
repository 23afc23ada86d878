import { anonymousId, childrenOf, type Element, type Id, isAnonymous, type Model, Table } from "../model";

/**
 * A model whose elements without an id are known by the ids that another model gives to what stands at the same place: files number
 * them as they come, so one more in the middle of a file would make each that follows another one. The place is what it stands in, its
 * slot, its type, and which of several such it is.
 * @param model read from one file
 * @param like a model of the same origin, from another file or a workspace. O(size of both).
 */
export function alignedTo(model: Model, like: Model): Model {
  const ids = new Map<Id, Id>();
  const taken = new Set<Id>();
  const known = placesOf(like);
  for (const [place, id] of placesOf(model)) {
    const other = known.get(place);
    // What stands nowhere there is called after its place, the same whichever file it comes from.
    const wanted = other ?? anonymousId(numberOf(place));
    if (taken.has(wanted)) continue;
    taken.add(wanted);
    if (wanted !== id) ids.set(id, wanted);
  }
  return ids.size === 0 ? model : renamed(model, ids);
}

/** A number made of a place, far above those that files count to (FNV-1a on 32 bits, twice). */
function numberOf(place: string): number {
  const half = (start: number) => {
    let hash = start;
    for (let at = 0; at < place.length; at++) hash = Math.imul(hash ^ place.charCodeAt(at), 0x01000193) >>> 0;
    return hash;
  };
  return 2 ** 40 + (half(0x811c9dc5) % 2 ** 20) * 2 ** 32 + half(0x9dc5811c);
}

/** Every element, page, shape and edge without an id, by its place. */
function placesOf(model: Model): Map<string, Id> {
  const places = new Map<string, Id>();
  const nameOf = new Map<Id, string>();
  const put = (id: Id, place: string) => {
    if (!isAnonymous(id)) return nameOf.set(id, id);
    places.set(place, id);
    return nameOf.set(id, `(${place})`);
  };
  const visit = (element: Element, place: string): void => {
    put(element.id, place);
    const counts = new Map<string, number>();
    for (const child of childrenOf(model, element.id)) {
      const kind = `${nameOf.get(element.id)} ${child.slot} ${child.type}`;
      const at = counts.get(kind) ?? 0;
      if (isAnonymous(child.id)) counts.set(kind, at + 1);
      visit(child, `${kind} ${at}`);
    }
  };
  const root = model.elements.get(model.root);
  if (root) visit(root, "root");
  const pages = [...model.diagrams].sort((a, b) => a.order - b.order);
  for (const [at, { id }] of pages.entries()) put(id, `page ${at}`);
  for (const [kind, table] of [
    ["shape", model.shapes],
    ["edge", model.edges],
  ] as const)
    for (const { id, diagram, element } of table) put(id, `${kind} ${nameOf.get(diagram)} ${nameOf.get(element)}`);
  return places;
}

function renamed(model: Model, ids: ReadonlyMap<Id, Id>): Model {
  const of = (id: Id): Id => ids.get(id) ?? id;
  const record = <Value extends { readonly id: Id }>(value: Value): Value => respelled(value, of) as Value;
  const table = <Value extends { readonly id: Id }>(values: Table<Value>): Table<Value> =>
    Table.from([...values].map((value) => [of(value.id), record(value)] as const));
  return {
    ...model,
    root: of(model.root),
    elements: table(model.elements),
    diagrams: table(model.diagrams),
    shapes: table(model.shapes),
    edges: table(model.edges),
    figures: table(model.figures),
  };
}

/** Fields that hold ids or lists of them; what came with a file is no id, but stands behind one. */
const foreign = new Set(["extension", "foreignAttributes", "extensionAttributes", "documentation", "spelling", "name"]);

function respelled(value: unknown, of: (id: Id) => Id, field = ""): unknown {
  if (foreign.has(field)) return value;
  if (typeof value === "string") return isAnonymous(value) ? of(value) : value;
  if (Array.isArray(value)) {
    const items = value.map((item) => respelled(item, of, field === "foreign" ? "placed" : ""));
    return items.some((item, at) => item !== value[at]) ? items : value;
  }
  if (typeof value !== "object" || value === null) return value;
  let changed: { [key: string]: unknown } | undefined;
  for (const [key, inner] of Object.entries(value)) {
    const other = field === "placed" && key === "node" ? inner : respelled(inner, of, key);
    if (other === inner) continue;
    changed ??= { ...value };
    changed[key] = other;
  }
  return changed ?? value;
}
