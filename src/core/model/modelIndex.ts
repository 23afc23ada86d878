import type { Diagram, Edge, Shape } from "./diagram";
import type { Element, Id } from "./element";
import { typeInfo } from "./metamodel/lookup";
import type { Model } from "./model";
import { Table } from "./table";

export interface Reference {
  readonly from: Id;
  readonly field: string;
}

/** What can be looked up of a model, other than by id. Derived, never stored; kept up to date edit by edit. */
export interface ModelIndex {
  /** Child ids by parent, in schema order of their slots and then by rank. */
  readonly children: Table<readonly Id[]>;
  /** Who names an element, and in which field. */
  readonly referrers: Table<readonly Reference[]>;
  /** Shape ids and edge ids by the element they draw. */
  readonly shapes: Table<readonly Id[]>;
  readonly edges: Table<readonly Id[]>;
}

/** Records as they were before and as they are now, by id, of what one step of editing touched. */
export interface Touched {
  readonly elements: ReadonlyMap<Id, readonly [before: Element | undefined, after: Element | undefined]>;
  readonly diagrams: ReadonlyMap<Id, readonly [before: Diagram | undefined, after: Diagram | undefined]>;
  readonly shapes: ReadonlyMap<Id, readonly [before: Shape | undefined, after: Shape | undefined]>;
  readonly edges: ReadonlyMap<Id, readonly [before: Edge | undefined, after: Edge | undefined]>;
}

const indexes = new WeakMap<Model, ModelIndex>();

/** The index of a model. O(n) the first time, then O(1); models made by edits get theirs from their predecessor. */
export function indexOf(model: Model): ModelIndex {
  const known = indexes.get(model);
  if (known) return known;
  const built = buildIndex(model);
  indexes.set(model, built);
  return built;
}

/** Gives a model made by edits its index, from its predecessor's. */
export function carryIndex(from: Model, to: Model, touched: Touched): void {
  const old = indexes.get(from);
  if (!old) return;
  const children = new Lists(old.children);
  const referrers = new Lists(old.referrers);
  const shapes = new Lists(old.shapes);
  const edges = new Lists(old.edges);
  for (const [id, [before, after]] of touched.elements) {
    if (before?.parent != null) {
      const moved =
        !after || after.parent !== before.parent || after.order !== before.order || after.slot !== before.slot;
      if (moved) children.remove(before.parent, (child) => child === id);
    }
    if (before) for (const [target, field] of referencesOf(before)) referrers.remove(target, sameReference(id, field));
    if (after) for (const [target, field] of referencesOf(after)) referrers.add(target, { from: id, field });
  }
  // Children are placed once all elements stand, since their rank depends on their siblings.
  for (const [id, [before, after]] of touched.elements) {
    if (after?.parent == null) continue;
    const stays =
      before && after.parent === before.parent && after.order === before.order && after.slot === before.slot;
    if (!stays) children.insertSorted(after.parent, id, (a, b) => compareSiblings(to, a, b));
  }
  for (const [id, [before, after]] of touched.shapes) {
    if (before?.element === after?.element) continue;
    if (before) shapes.remove(before.element, (shape) => shape === id);
    if (after) shapes.add(after.element, id);
  }
  for (const [id, [before, after]] of touched.edges) {
    if (before?.element === after?.element) continue;
    if (before) edges.remove(before.element, (edge) => edge === id);
    if (after) edges.add(after.element, id);
  }
  indexes.set(to, {
    children: children.done(),
    referrers: referrers.done(),
    shapes: shapes.done(),
    edges: edges.done(),
  });
}

/** The elements an element names, with the field that names each. Its parent is not among them. */
export function referencesOf(element: Element): [target: Id, field: string][] {
  const found: [Id, string][] = [];
  for (const { field, many } of typeInfo(element.type).references) {
    const value = element[field];
    if (value === undefined) continue;
    if (many) for (const target of value as readonly Id[]) found.push([target, field]);
    else found.push([value as Id, field]);
  }
  return found;
}

function sameReference(from: Id, field: string) {
  return (reference: Reference) => reference.from === from && reference.field === field;
}

function compareSiblings(model: Model, a: Id, b: Id): number {
  const first = model.elements.get(a);
  const second = model.elements.get(b);
  if (!first || !second) return a < b ? -1 : 1;
  if (first.slot !== second.slot && first.parent !== null) {
    const parent = model.elements.get(first.parent);
    if (parent) {
      const ranks = typeInfo(parent.type).slotRank;
      return (ranks.get(first.slot) ?? 0) - (ranks.get(second.slot) ?? 0);
    }
  }
  return first.order - second.order || (a < b ? -1 : 1);
}

function buildIndex(model: Model): ModelIndex {
  const children = new Map<Id, Id[]>();
  const referrers = new Map<Id, Reference[]>();
  for (const element of model.elements) {
    if (element.parent !== null) push(children, element.parent, element.id);
    for (const [target, field] of referencesOf(element)) push(referrers, target, { from: element.id, field });
  }
  for (const list of children.values()) list.sort((a, b) => compareSiblings(model, a, b));
  const shapes = new Map<Id, Id[]>();
  for (const shape of model.shapes) push(shapes, shape.element, shape.id);
  const edges = new Map<Id, Id[]>();
  for (const edge of model.edges) push(edges, edge.element, edge.id);
  return {
    children: Table.from<readonly Id[]>(children),
    referrers: Table.from<readonly Reference[]>(referrers),
    shapes: Table.from<readonly Id[]>(shapes),
    edges: Table.from<readonly Id[]>(edges),
  };
}

function push<Item>(lists: Map<Id, Item[]>, key: Id, item: Item): void {
  const list = lists.get(key);
  if (list) list.push(item);
  else lists.set(key, [item]);
}

/** Lists under change: each touched list is copied once. */
class Lists<Item> {
  readonly #changes = new Map<Id, Item[]>();
  constructor(private readonly table: Table<readonly Item[]>) {}

  #list(key: Id): Item[] {
    let list = this.#changes.get(key);
    if (!list) {
      list = [...(this.table.get(key) ?? [])];
      this.#changes.set(key, list);
    }
    return list;
  }
  add(key: Id, item: Item): void {
    this.#list(key).push(item);
  }
  remove(key: Id, match: (item: Item) => boolean): void {
    const list = this.#list(key);
    const at = list.findIndex(match);
    if (at >= 0) list.splice(at, 1);
  }
  insertSorted(key: Id, item: Item, compare: (a: Item, b: Item) => number): void {
    const list = this.#list(key);
    let low = 0;
    let high = list.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (compare(list[middle] as Item, item) < 0) low = middle + 1;
      else high = middle;
    }
    list.splice(low, 0, item);
  }
  done(): Table<readonly Item[]> {
    const changes = new Map<Id, readonly Item[] | undefined>();
    for (const [key, list] of this.#changes) changes.set(key, list.length > 0 ? list : undefined);
    return this.table.with(changes);
  }
}

/** Whether the index a model carries is the one that would be built from scratch; for tests. O(n). */
export function indexIsTrue(model: Model): boolean {
  const carried = indexOf(model);
  const built = buildIndex(model);
  const sameLists = <Item>(a: Table<readonly Item[]>, b: Table<readonly Item[]>, ordered: boolean) => {
    if (a.size !== b.size) return false;
    for (const [key, list] of a.entries()) {
      const other = b.get(key) ?? [];
      const text = (items: readonly Item[]) =>
        (ordered ? items.map((item) => JSON.stringify(item)) : items.map((item) => JSON.stringify(item)).sort()).join();
      if (text(list) !== text(other)) return false;
    }
    return true;
  };
  return (
    sameLists(carried.children, built.children, true) &&
    sameLists(carried.referrers, built.referrers, false) &&
    sameLists(carried.shapes, built.shapes, false) &&
    sameLists(carried.edges, built.edges, false)
  );
}
