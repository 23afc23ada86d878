import { isCompared } from "../compare/compared";
import {
  ancestorsOf,
  childrenOf,
  type Element,
  type Id,
  type Json,
  laneOf,
  type Model,
  nameOf,
  referencesOf,
  sameJson,
  Table,
  type TableName,
  tableNames,
  typeInfo,
  wordFor,
} from "../model";
import { comparedField, ownField } from "./conflictFields";
import { mergeOrder } from "./mergeOrder";
import { type FieldConflict, mergeRecord, type Plain } from "./mergeRecord";
import { spelledLike } from "./prefixes";

/** Something both sides changed, differently. */
export interface MergeConflict {
  /** The element as people know it: what is changed inside it (a timer, a role) is told of it. */
  readonly element: Id;
  readonly name: string;
  /** A field as comparisons call it; "element" where one side took it out and the other still needs it. */
  readonly field: string;
  readonly ours: Json;
  readonly theirs: Json;
  /** Whether the field holds a text, so that another one may be written. */
  readonly isText: boolean;
}

export interface Merged {
  readonly model: Model;
  readonly conflicts: readonly MergeConflict[];
}

/** What a conflict is decided for: a side, or another text that somebody wrote. */
export type Decision = "ours" | "theirs" | { readonly text: string };

export interface MergeOptions {
  /** Ours where it does not say. A text counts where a field holds one, else ours does. */
  readonly decide?: (conflict: MergeConflict) => Decision;
}

const isExpression = (value: Json): value is { readonly text: string } & { readonly [field: string]: Json } =>
  typeof value === "object" && value !== null && "text" in value && typeof value.text === "string";

type Records = Map<string, Plain>;
const tables = tableNames;
const geometry = new Set<TableName>(["diagrams", "shapes", "edges"]);

/**
 * Merges two models that come from a third, element by element and field by field. What one side changed is taken over; what both
 * changed to the same is taken once; what both changed differently is a conflict, and stays as ours unless `decide` says otherwise.
 * Where one side took out what the other changed or built upon, it stays, with what belonged to it, and is a conflict. Places of
 * shapes that both moved are ours, without a conflict: geometry is no part of the process.
 * Records are matched by id. merge(base, a, base) is a, and merge(base, a, a) is a. O(size of all three).
 */
export function mergeModels(
  base: Model,
  ours: Model,
  theirs: Model,
  { decide = () => "ours" }: MergeOptions = {},
): Merged {
  const merger = new Merger(spelledLike(base, ours), ours, spelledLike(theirs, ours), decide);
  return merger.run();
}

class Merger {
  readonly #conflicts: MergeConflict[] = [];
  /** Elements that stay although one side took them out. */
  readonly #kept: Id[] = [];
  readonly #merged = Object.fromEntries(tables.map((table) => [table, new Map()])) as { [table in TableName]: Records };

  constructor(
    readonly base: Model,
    readonly ours: Model,
    readonly theirs: Model,
    readonly decide: NonNullable<MergeOptions["decide"]>,
  ) {}

  run(): Merged {
    for (const table of tables) this.#mergeTable(table);
    this.#keepWhatIsNeeded();
    this.#dropMisplaced();
    this.#mergeLanes();
    this.#mergeOrders();
    this.#dropUndrawn();
    const built = (table: TableName) => Table.from([...this.#merged[table]]) as never;
    const model: Model = {
      ...this.ours,
      elements: built("elements"),
      diagrams: built("diagrams"),
      shapes: built("shapes"),
      edges: built("edges"),
      figures: built("figures"),
    };
    return { model, conflicts: this.#conflicts };
  }

  #records(model: Model, table: TableName) {
    return model[table] as unknown as Iterable<Plain> & { get(id: string): Plain | undefined };
  }

  #mergeTable(table: TableName): void {
    const [base, ours, theirs] = [this.base, this.ours, this.theirs].map((model) => this.#records(model, table));
    if (!base || !ours || !theirs) return;
    const merged = this.#merged[table];
    for (const mine of ours) {
      const before = base.get(mine.id);
      const other = theirs.get(mine.id);
      if (other) this.#mergeOne(table, before, mine, other);
      else if (!before) merged.set(mine.id, mine);
      else if (!sameJson(before, mine)) this.#keepAgainst(table, before, mine, "theirs");
    }
    for (const other of theirs) {
      if (ours.get(other.id)) continue;
      const before = base.get(other.id);
      if (!before) merged.set(other.id, other);
      else if (!sameJson(before, other)) this.#keepAgainst(table, before, other, "ours");
    }
  }

  #mergeOne(table: TableName, before: Plain | undefined, mine: Plain, other: Plain): void {
    const merged = this.#merged[table];
    // Two new records of one id: whole against whole.
    if (!before) {
      if (table === "figures" && !sameJson(mine, other)) merged.set(mine.id, this.#figure(mine, other));
      else if (sameJson(mine, other) || geometry.has(table)) merged.set(mine.id, mine);
      else {
        const isOther = mine.type !== other.type;
        const [field, own, their] = isOther ? ["type", mine.type, other.type] : ["element", "new", "new"];
        const side = this.#conflict(mine.id, field as string, own as Json, their as Json);
        merged.set(mine.id, side === "ours" ? mine : other);
      }
      return;
    }
    if (table === "figures" && !sameJson(mine, before) && !sameJson(other, before) && !sameJson(mine, other)) {
      merged.set(mine.id, this.#figure(mine, other));
      return;
    }
    const { record, conflicts } = mergeRecord(before, mine, other);
    const decided: { [field: string]: unknown } = { ...record };
    for (const conflict of conflicts) {
      if (geometry.has(table) || conflict.field === "order" || conflict.field === "spelling") continue;
      const { value } = this.#decideField(mine.id, conflict);
      if (value === null) delete decided[conflict.field];
      else decided[conflict.field] = value;
    }
    merged.set(mine.id, (mine.type === other.type ? decided : this.#fitted(before, mine, other, decided)) as Plain);
  }

  /** Both said something else of what a step takes. */
  #figure(mine: Plain, other: Plain): Plain {
    const side = this.#conflict(mine.element as Id, String(mine.field), mine.value as Json, other.value as Json);
    return side === "ours" ? mine : other;
  }

  /**
   * A type is a field like others, as long as the type it becomes has a place for what the other side did to the element. Where it has
   * none, the types are a conflict, since one of the two changes cannot be had.
   */
  #fitted(
    before: Plain,
    mine: Plain,
    other: Plain,
    decided: { [field: string]: unknown },
  ): { [field: string]: unknown } {
    const has = (type: unknown, field: string) => {
      const info = typeInfo(type as Element["type"]);
      const isOfSomeType = info.attributes.has(field) || info.content.has(field);
      return isOfSomeType || !this.#isTyped(field, mine, other);
    };
    const loser = decided.type === mine.type ? other : mine;
    const lost =
      Object.keys(loser).some((field) => !sameJson(loser[field], before[field]) && !has(decided.type, field)) ||
      this.#ownParts(loser === mine ? this.ours : this.theirs, mine.id).some(
        (part) => !typeInfo(decided.type as Element["type"]).content.has(part.slot),
      );
    const isBoth = mine.type !== before.type && other.type !== before.type;
    if (lost && !isBoth) {
      const side = this.#conflict(mine.id, "type", String(mine.type), String(other.type)) === "ours" ? mine : other;
      decided.type = side.type;
      decided.slot = side.slot;
    }
    return Object.fromEntries(Object.entries(decided).filter(([field]) => has(decided.type, field)));
  }

  /** Whether a field is one that types have or have not, rather than one of every element. */
  #isTyped(field: string, ...records: readonly Plain[]): boolean {
    return records.some(({ type }) => {
      const info = typeInfo(type as Element["type"]);
      return info.attributes.has(field) || info.content.has(field);
    });
  }

  /** Parts of an element that a side put in or changed. */
  #ownParts(side: Model, id: Id): Element[] {
    return childrenOf(side, id).filter((part) => !sameJson(part, this.base.elements.get(part.id) ?? null));
  }

  #decideField(id: Id, { field, ours, theirs, decided }: FieldConflict): { value: Json } {
    const isText = field === "name" || (isExpression(ours) && isExpression(theirs));
    const decision = this.#decided(id, field, ours, theirs, isText);
    if (typeof decision === "string") return { value: decided[decision] };
    const { text } = decision;
    return { value: isExpression(ours) ? ({ ...ours, text } as Json) : text };
  }

  /** One side changed what the other took out: it stays, unless it is decided for the side that took it out. */
  #keepAgainst(table: TableName, before: Plain, changed: Plain, taker: "ours" | "theirs"): void {
    if (geometry.has(table)) {
      this.#merged[table].set(changed.id, changed);
      return;
    }
    if (table === "figures") {
      // A figure that one side changed and the other took off; where its element is gone it goes with it.
      const [own, their] = taker === "ours" ? ["", changed.value] : [changed.value, ""];
      if (this.#conflict(changed.element as Id, String(changed.field), own as Json, their as Json) !== taker)
        this.#merged.figures.set(changed.id, changed);
      return;
    }
    // What only follows from other changes (a lane's list, a rank) is no reason to keep it.
    const own = Object.keys({ ...before, ...changed }).some(
      (field) =>
        !["order", "incoming", "outgoing", "flowNodeRef", "spelling", "default"].includes(field) &&
        !sameJson(before[field], changed[field]),
    );
    if (!own) return;
    const [ours, theirs] = taker === "ours" ? ["gone", "changed"] : ["changed", "gone"];
    const side = this.#conflict(changed.id, "element", ours as string, theirs as string, true);
    if (side === taker) return;
    this.#merged.elements.set(changed.id, changed);
    this.#kept.push(changed.id);
  }

  /**
   * What one side took out and something that is there now still names or stands in comes back, with its conflict; and so does what
   * was taken out along with it: its flows, its events, its drawing.
   */
  #keepWhatIsNeeded(): void {
    const elements = this.#merged.elements;
    const queue = [...elements.values()];
    for (const id of this.#kept) this.#restoreAround(id, queue);
    for (let at = 0; at < queue.length; at++) {
      const element = queue[at] as unknown as Element;
      if (elements.get(element.id) !== (element as unknown as Plain)) continue;
      const needed = [...referencesOf(element).map(([target]) => target), ...(element.parent ? [element.parent] : [])];
      for (const target of needed) {
        if (elements.has(target)) continue;
        const before = this.base.elements.get(target);
        if (!before) continue;
        if (this.#isLoose(element, target)) {
          this.#forget(element, target);
          continue;
        }
        const taker = this.ours.elements.has(target) ? "theirs" : "ours";
        const said = this.#conflicts.some(
          (conflict) => conflict.element === this.#owner(target) && conflict.field === "element",
        );
        if (!said)
          this.#conflict(
            target,
            "element",
            taker === "ours" ? "gone" : "needed",
            taker === "ours" ? "needed" : "gone",
            true,
          );
        this.#restore(before, queue);
      }
    }
  }

  /** A reference that can be let go: a lane's list, a default, a repeated flow. */
  #isLoose(element: Element, target: Id): boolean {
    return referencesOf(element).some(
      ([named, field]) =>
        named === target && ["flowNodeRef", "incoming", "outgoing", "default", "categoryValueRef"].includes(field),
    );
  }

  #forget(element: Element, target: Id): void {
    const record = { ...(this.#merged.elements.get(element.id) as Plain) } as { [field: string]: unknown };
    for (const field of ["flowNodeRef", "incoming", "outgoing", "default", "categoryValueRef"]) {
      const value = record[field];
      if (value === target) delete record[field];
      else if (Array.isArray(value)) {
        const left = value.filter((one) => one !== target);
        if (left.length > 0) record[field] = left;
        else delete record[field];
      }
    }
    this.#merged.elements.set(element.id, record as Plain);
  }

  #restore(before: Element, queue: Plain[]): void {
    if (this.#merged.elements.has(before.id)) return;
    this.#merged.elements.set(before.id, before as unknown as Plain);
    queue.push(before as unknown as Plain);
    this.#restoreAround(before.id, queue);
  }

  /** What was taken out along with an element that stays: its parts, events and flows, its drawing, its place in a lane. */
  #restoreAround(id: Id, queue: Plain[]): void {
    const elements = this.#merged.elements;
    for (const other of this.base.elements) {
      if (other.type === "lane" && (other.flowNodeRef as Id[] | undefined)?.includes(id))
        this.#backIntoLane(other.id, id);
      if (elements.has(other.id)) continue;
      const belongs = other.parent === id || other.attachedToRef === id;
      const flow = other.sourceRef === id ? other.targetRef : other.targetRef === id ? other.sourceRef : undefined;
      if (belongs || (typeof flow === "string" && elements.has(flow))) this.#restore(other, queue);
    }
    for (const table of ["shapes", "edges"] as const)
      for (const drawn of this.#records(this.base, table))
        if (drawn.element === id && !this.#merged[table].has(drawn.id)) this.#merged[table].set(drawn.id, drawn);
  }

  #backIntoLane(lane: Id, node: Id): void {
    const elements = this.#merged.elements;
    const refsOf = (record: Plain | undefined) => (record?.flowNodeRef as Id[] | undefined) ?? [];
    const isListed = [...elements.values()].some((other) => other.type === "lane" && refsOf(other).includes(node));
    const record = elements.get(lane);
    if (record && !isListed) elements.set(lane, { ...record, flowNodeRef: [...refsOf(record), node] });
  }

  /** Parts of the side whose type of an element was not taken, where the other type has no place for them; and what named those. */
  #dropMisplaced(): void {
    const elements = this.#merged.elements;
    const now = (id: Id) => elements.get(id) as Element | undefined;
    for (let gone = true; gone; ) {
      gone = false;
      for (const record of [...elements.values()]) {
        const element = record as unknown as Element;
        if (this.#stands(element, now)) continue;
        // What was wrong in its file already is for the check to tell, not for a merge to take out.
        const side = this.ours.elements.get(element.id) ? this.ours : this.theirs;
        if (!this.#stands(element, (id) => side.elements.get(id))) continue;
        for (const [target] of referencesOf(element))
          if (!now(target) && this.#isLoose(element, target)) this.#forget(element, target);
        if (this.#stands(now(element.id) as Element, now)) continue;
        elements.delete(element.id);
        gone = true;
      }
    }
  }

  /** Whether an element is in a place for its type, and everything it names is there. */
  #stands(element: Element, look: (id: Id) => Element | undefined): boolean {
    if (element.parent === null) return true;
    const parent = look(element.parent);
    const content = parent && typeInfo(parent.type).content.get(element.slot);
    const fits = content?.kind === "children" && content.types.includes(element.type);
    return (
      fits &&
      referencesOf(element).every(
        ([target, field]) => field === "calledElement" || target.includes(":") || look(target) !== undefined,
      )
    );
  }

  /** A step is in one lane: where the lists of both sides put it into two, that is a conflict about the step. */
  #mergeLanes(): void {
    const elements = this.#merged.elements;
    const lanes = [...elements.values()].filter((element) => element.type === "lane");
    const byNode = new Map<Id, Plain[]>();
    for (const lane of lanes)
      for (const node of (lane.flowNodeRef as Id[] | undefined) ?? [])
        byNode.set(node, [...(byNode.get(node) ?? []), lane]);
    for (const [node, found] of byNode) {
      const apart = found.filter((lane) => !found.some((other) => other !== lane && this.#isInside(other, lane)));
      if (apart.length < 2) continue;
      const [mine, other] = [laneOf(this.ours, node), laneOf(this.theirs, node)];
      const was = laneOf(this.base, node);
      let keep = mine?.id;
      if (mine && other && mine.id !== other.id)
        keep =
          mine.id === was?.id
            ? other.id
            : other.id === was?.id
              ? mine.id
              : this.#conflict(node, "lane", nameOf(this.ours, mine.id), nameOf(this.theirs, other.id)) === "ours"
                ? mine.id
                : other.id;
      for (const lane of apart) {
        if (lane.id === keep) continue;
        const current = elements.get(lane.id) as Plain;
        const left = ((current.flowNodeRef as Id[] | undefined) ?? []).filter((one) => one !== node);
        const { flowNodeRef: _, ...rest } = current;
        void _;
        elements.set(lane.id, (left.length > 0 ? { ...rest, flowNodeRef: left } : rest) as Plain);
      }
    }
  }

  /** Siblings stand as the side has them that changed their order, with what either side put among them. */
  #mergeOrders(): void {
    const elements = this.#merged.elements as Map<Id, Plain & { readonly order: number }>;
    const groups = new Map<string, Id[]>();
    for (const { id, parent, slot } of elements.values()) {
      const key = `${parent} ${slot}`;
      const group = groups.get(key);
      if (group) group.push(id);
      else groups.set(key, [id]);
    }
    for (const group of groups.values()) {
      if (group.length < 2) continue;
      const inOrder = (model: Model) =>
        group
          .flatMap((id) => model.elements.get(id) ?? [])
          .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1))
          .map(({ id }) => id);
      const [before, mine, other] = [inOrder(this.base), inOrder(this.ours), inOrder(this.theirs)];
      // Ranks may be counted anew on one side without anything standing elsewhere.
      const { order, clash } = mergeOrder(before, mine, other);
      const isLanes = elements.get(group[0] as Id)?.type === "lane";
      const names = (ids: readonly Id[]) =>
        ids.map((id) => nameOf(this.ours.elements.has(id) ? this.ours : this.theirs, id)).join(", ");
      const isTheirs =
        clash && isLanes && this.#conflict(group[0] as Id, "order", names(mine), names(other)) === "theirs";
      const wanted = isTheirs ? mergeOrder(before, other, mine).order : order;
      let last = Number.NEGATIVE_INFINITY;
      for (const id of wanted) {
        const record = elements.get(id);
        if (!record) continue;
        const rank = record.order > last ? record.order : last + 1;
        if (rank !== record.order) elements.set(id, { ...record, order: rank });
        last = rank;
      }
    }
  }

  #isInside(inner: Plain, outer: Plain): boolean {
    for (let at = inner.parent as Id | null; at; at = (this.#merged.elements.get(at)?.parent as Id | undefined) ?? null)
      if (at === outer.id) return true;
    return false;
  }

  /** Drawings of what is gone go; so do pages of it, with what is on them. */
  #dropUndrawn(): void {
    const { elements, diagrams, shapes, edges, figures } = this.#merged;
    for (const figure of [...figures.values()])
      if (!elements.has(figure.element as Id) && this.base.elements.has(figure.element as Id))
        figures.delete(figure.id);
    for (const diagram of [...diagrams.values()])
      if (typeof diagram.element === "string" && !elements.has(diagram.element)) diagrams.delete(diagram.id);
    for (const table of [shapes, edges])
      for (const drawn of [...table.values()])
        if (!elements.has(drawn.element as Id) || !diagrams.has(drawn.diagram as Id)) table.delete(drawn.id);
    // Taken out on one side and drawn anew on the other, an element may be on one page twice.
    const seen = new Set<string>();
    for (const table of [shapes, edges])
      for (const drawn of [...table.values()]) {
        const key = `${drawn.diagram} ${drawn.element}`;
        if (seen.has(key)) table.delete(drawn.id);
        seen.add(key);
      }
  }

  #owner(id: Id): Id {
    const model = this.ours.elements.has(id) ? this.ours : this.theirs.elements.has(id) ? this.theirs : this.base;
    const owner = ancestorsOf(model, id).find((element) => isCompared(element) || element.type === "process");
    return owner?.id ?? id;
  }

  #conflict(id: Id, field: string, ours: Json, theirs: Json, once = false): "ours" | "theirs" {
    return this.#decided(id, field, ours, theirs, false, once) as "ours" | "theirs";
  }

  #decided(id: Id, field: string, ours: Json, theirs: Json, isText: boolean, once = false): Decision {
    const element = this.#owner(id);
    const model = this.ours.elements.has(element) ? this.ours : this.theirs;
    const type = (model.elements.get(id) ?? this.base.elements.get(id))?.type ?? "";
    const conflict: MergeConflict = {
      element,
      name: nameOf(model, element) || wordFor(model.elements.get(element)?.type ?? type),
      field: field === "element" && element !== id ? ownField(type) : comparedField(field, type, element !== id),
      ours: this.#words(ours),
      theirs: this.#words(theirs),
      isText,
    };
    if (!(once && this.#conflicts.some((known) => known.element === element && known.field === conflict.field)))
      this.#conflicts.push(conflict);
    const decision = this.decide(conflict);
    return typeof decision === "string" || isText ? decision : "ours";
  }

  /** Elements are told by their names. */
  #words(value: Json): Json {
    if (typeof value === "object" && value !== null && !Array.isArray(value) && "text" in value)
      return value.text as Json;
    if (typeof value !== "string") return value;
    for (const model of [this.ours, this.theirs])
      if (model.elements.has(value)) return nameOf(model, value) || wordFor(model.elements.get(value)?.type ?? "");
    return value;
  }
}
