import { type Said, say } from "../../messages";
import {
  admitEdits,
  applyEdits,
  childrenOf,
  type Diagram,
  derivedId,
  type Edge,
  type Edit,
  type Element,
  type ElementType,
  type Figure,
  type Id,
  type Json,
  type Model,
  type Problem,
  problem,
  type Shape,
  slotFor,
  type TableName,
} from "../../model";

/** A refusal on its way out of a command; `perform` turns it into a result. */
export class Refusal extends Error {
  constructor(readonly problems: readonly Problem[]) {
    super(problems.map((problem) => problem.message).join(" "));
  }
}

export function refuse(code: string, message: Said, elements: readonly Id[] = []): never {
  throw new Refusal([problem({ code, message, elements })]);
}

export type Setting = readonly [table: TableName, id: Id, field: string, value: unknown];

/** A model on its way to the next: every step is an edit that is applied at once and kept for undo. */
export class Change {
  readonly edits: Edit[] = [];
  /** What a person ought to know of the change, such as what went with a deletion. */
  readonly remarks: Said[] = [];
  #model: Model;

  constructor(
    model: Model,
    /** Flows need no course yet, since the page is tidied at the end: they are drawn straight, which spares looking for a way. */
    readonly isRough = false,
  ) {
    this.#model = model;
  }

  get model(): Model {
    return this.#model;
  }

  #apply(edits: readonly Edit[]): void {
    const applied = applyEdits(this.#model, edits);
    if (!applied.ok) throw new Refusal(applied.problems);
    this.#model = applied.value;
    this.edits.push(...edits);
  }

  /** The element, or a refusal: the model may have moved on since the command was made. */
  element(id: Id): Element {
    const element = this.#model.elements.get(id);
    return (
      element ?? refuse("unknown-element", say`What this change is about ("${id}") is no longer in the model.`, [id])
    );
  }

  diagram(id: Id): Diagram {
    return (
      this.#model.diagrams.get(id) ?? refuse("unknown-diagram", say`The page this change is about is no longer there.`)
    );
  }

  isTaken = (id: Id): boolean =>
    this.#model.elements.has(id) ||
    this.#model.shapes.has(id) ||
    this.#model.edges.has(id) ||
    this.#model.diagrams.has(id);

  /** Puts an element into a parent, behind its siblings, where the metamodel has a place for its type. */
  insert(
    type: ElementType,
    id: Id,
    parent: Id,
    fields: { readonly [field: string]: unknown } = {},
    slot?: string,
  ): Element {
    const container = this.element(parent);
    const place = slot ?? slotFor(container.type, type);
    if (!place) refuse("containment", say`A ${type} cannot stand in a ${container.type}.`, [parent]);
    if (this.isTaken(id)) refuse("id-taken", say`The id "${id}" is in use already.`, [id]);
    const siblings = childrenOf(this.#model, parent);
    const order = siblings.reduce((most, sibling) => Math.max(most, sibling.order), container.order) + 1;
    const element: Element = { id, type, parent, slot: place as string, order, ...withoutAbsent(fields) };
    this.#apply([{ kind: "insert", table: "elements", record: element }]);
    return element;
  }

  insertRecord(table: "shapes" | "edges" | "diagrams" | "figures", record: Shape | Edge | Diagram | Figure): void {
    this.#apply([{ kind: "insert", table, record: withoutAbsent(record) as Shape }]);
  }

  insertShape(diagram: Id, element: Id, bounds: Shape["bounds"], more: Partial<Shape> = {}): Shape {
    this.diagram(diagram);
    const shape: Shape = {
      id: derivedId(this.isTaken, element, "shape"),
      order: this.#nextShapeOrder(),
      diagram,
      element,
      bounds,
      ...more,
    };
    this.insertRecord("shapes", shape);
    return shape;
  }

  insertEdge(diagram: Id, element: Id, waypoints: Edge["waypoints"], more: Partial<Edge> = {}): Edge {
    this.diagram(diagram);
    const edge: Edge = {
      id: derivedId(this.isTaken, element, "edge"),
      order: this.#nextShapeOrder(),
      diagram,
      element,
      waypoints,
      ...more,
    };
    this.insertRecord("edges", edge);
    return edge;
  }

  #nextShapeOrder(): number {
    // Order only has to grow within a page; the tables' sizes and this change's own edits make it so for new models, and
    // files count from the first element.
    let order = this.#orderSeed;
    if (order === 0) {
      for (const shape of this.#model.shapes) order = Math.max(order, shape.order);
      for (const edge of this.#model.edges) order = Math.max(order, edge.order);
    }
    this.#orderSeed = order + 1;
    return this.#orderSeed;
  }
  #orderSeed = 0;

  /** Sets a field to a value, or takes it away with `undefined`. Nothing happens where it is so already. */
  set(table: TableName, id: Id, field: string, value: unknown): void {
    this.setAll([[table, id, field, value]]);
  }

  /** Sets many fields, each of which is named once, in one step: what a step costs besides them does not grow with their number. */
  setAll(settings: readonly Setting[]): void {
    const edits = settings.flatMap(([table, id, field, value]): Edit[] => {
      const record = this.#model[table].get(id) as unknown as { readonly [field: string]: unknown } | undefined;
      if (!record) refuse("unknown-element", say`What this change is about ("${id}") is no longer in the model.`, [id]);
      const from = ((record as { readonly [field: string]: unknown })[field] ?? null) as Json;
      const to = (value ?? null) as Json;
      return isSame(from, to) ? [] : [{ kind: "set", table, id, field, from, to }];
    });
    if (edits.length > 0) this.#apply(edits);
  }

  remove(table: TableName, id: Id): void {
    const record = this.#model[table].get(id);
    if (record) this.#apply([{ kind: "remove", table, record }]);
  }

  apply(edits: readonly Edit[]): void {
    this.#apply(edits);
  }

  /** Edits from outside, through the model's door. */
  admit(edits: readonly Edit[]): void {
    const admitted = admitEdits(this.#model, edits);
    if (!admitted.ok) throw new Refusal(admitted.problems);
    this.#model = admitted.value;
    this.edits.push(...edits);
  }
}

/** Plain values are the same when they hold the same, in whatever order their fields stand. */
function isSame(a: Json | undefined, b: Json | undefined): boolean {
  if (a === b) return true;
  if (a === null || b === null || typeof a !== "object" || typeof b !== "object") return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [one, other] = [a as { readonly [key: string]: Json }, b as { readonly [key: string]: Json }];
  const keys = Object.keys(one);
  return keys.length === Object.keys(other).length && keys.every((key) => key in other && isSame(one[key], other[key]));
}

function withoutAbsent<Fields extends object>(fields: Fields): Fields {
  return Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) as Fields;
}
