import { isTidy, settled } from "../commands";
import { type Said, say, together } from "../messages";
import {
  ancestorsOf,
  applyEdits,
  type Edit,
  type Element,
  edgeOn,
  type Id,
  isFlowNode,
  type Json,
  laneOf,
  type Model,
  nameOf,
  referencesOf,
  referrersOf,
  sameJson,
  shapeOn,
  subtreeOf,
  typeInfo,
  wordFor,
} from "../model";
import { isCompared } from "./compared";
import type { ChangeGroup } from "./groups";
import { inIdsOf, type SameIds } from "./sameIds";

export interface Request {
  readonly from: Model;
  readonly to: Model;
  readonly pairs: ReadonlyMap<Id, Id>;
  readonly groups: readonly ChangeGroup[];
  /** The side that is changed; the other is where the changes come from. */
  readonly into: "from" | "to";
}

/** What taking over some changes came to. */
export type TakenOver =
  | {
      readonly ok: true;
      readonly model: Model;
      readonly edits: readonly Edit[];
    }
  | {
      readonly ok: false;
      /** Keys of the changes that have to come along. */
      readonly needs: readonly string[];
      readonly message: Said;
    };

/**
 * Takes changes over from one side of a comparison to the other, as edits of that side: what is new there comes with all that belongs
 * to it and a free place on the page, what is gone goes, what differs is set. A change that hangs on another (a flow to a step that is
 * not there, a step whose flows are part of another change) is refused, with those that have to come along. O(elements of both).
 */
export function takeOver(request: Request, keys: readonly string[]): TakenOver {
  return new Taking(request, new Set(keys)).run();
}

/** The given changes with all that have to come along, in any number of steps. */
export function withNeeded(request: Request, keys: readonly string[]): readonly string[] {
  const all = new Set(keys);
  for (;;) {
    const taken = takeOver(request, [...all]);
    if (taken.ok || taken.needs.length === 0) return [...all];
    for (const key of taken.needs) all.add(key);
  }
}

const listFields = new Set(["incoming", "outgoing", "flowNodeRef", "order", "spelling"]);

class Taking {
  readonly #target: Model;
  readonly #same: SameIds;
  /** The change each element of either side is part of, by its id on the side that is changed. */
  readonly #changeOf = new Map<Id, string>();
  readonly #edits: Edit[] = [];
  readonly #inserted = new Set<Id>();
  readonly #removed = new Set<Id>();
  readonly #changed = new Set<Id>();

  constructor(
    readonly request: Request,
    readonly keys: ReadonlySet<string>,
  ) {
    const { from, to, pairs, into } = request;
    const back = new Map([...pairs].map(([a, b]) => [b, a]));
    this.#target = into === "from" ? from : to;
    this.#same = into === "from" ? inIdsOf(from, to, pairs) : inIdsOf(to, from, back);
    for (const group of request.groups)
      for (const change of group.changes)
        for (const id of [
          into === "from" ? change.from?.id : this.#same.ids.get(change.from?.id ?? ""),
          into === "from" ? this.#same.ids.get(change.to?.id ?? "") : change.to?.id,
        ])
          if (id !== undefined) this.#changeOf.set(id, group.key);
  }

  get #wanted(): Model {
    return this.#same.model;
  }

  run(): TakenOver {
    for (const element of this.#wanted.elements) this.#bring(element);
    for (const element of this.#target.elements) this.#drop(element);
    this.#setLanes();
    this.#forgetLists();
    const needs = this.#needs();
    if (needs) return needs;
    const drawn = this.#draw();
    const applied = applyEdits(this.#target, [...this.#edits, ...drawn]);
    if (!applied.ok) return { ok: false, needs: [], message: together(applied.problems.map(({ said }) => said)) };
    return this.#place(applied.value, [...this.#edits, ...drawn]);
  }

  /** The change an element belongs to: its own, or that of what it is a part of. */
  #owner(model: Model, id: Id): string | undefined {
    const owner = ancestorsOf(model, id).find(isCompared) ?? holderOf(model, id);
    return owner && this.#changeOf.get(owner.id);
  }

  #isChosen(model: Model, id: Id): boolean {
    const key = this.#owner(model, id);
    return key !== undefined && this.keys.has(key);
  }

  #bring(element: Element): void {
    const there = this.#target.elements.get(element.id);
    if (!this.#isChosen(this.#wanted, element.id)) return;
    if (there && there.type === element.type) {
      this.#setFields(there, element);
      this.#renewNamed(element);
      return;
    }
    // Another type in the same place: parts that do not fit go, since they are not in the wanted model either.
    if (there) this.#edits.push({ kind: "remove", table: "elements", record: there });
    this.#insert(element);
  }

  #insert(element: Element): void {
    if (this.#inserted.has(element.id)) return;
    this.#inserted.add(element.id);
    const { incoming: _, outgoing: __, ...record } = element as Element & { incoming?: unknown; outgoing?: unknown };
    const own = element.type === "lane" ? this.#emptied(record as Element) : (record as Element);
    this.#edits.push({ kind: "insert", table: "elements", record: own });
    // Messages, roles and the like that only the other side has come along.
    for (const [id] of referencesOf(own)) {
      const named = this.#wanted.elements.get(id);
      if (!named || this.#target.elements.has(id) || this.#inserted.has(id)) continue;
      if (ancestorsOf(this.#wanted, id).some(isCompared)) continue;
      for (const part of subtreeOf(this.#wanted, id)) this.#insert(part);
    }
    // So do the places for it that nobody needed before: a set of lanes, say.
    const holder = element.parent === null ? undefined : this.#wanted.elements.get(element.parent);
    if (holder && !isCompared(holder) && !this.#target.elements.has(holder.id)) this.#insert(holder);
  }

  #emptied(lane: Element): Element {
    const { flowNodeRef: _, ...rest } = lane;
    return rest as Element;
  }

  #setFields(there: Element, element: Element): void {
    const [before, after] = [
      there as { readonly [field: string]: unknown },
      element as { readonly [field: string]: unknown },
    ];
    for (const field of new Set([...Object.keys(before), ...Object.keys(after)])) {
      if (listFields.has(field) || sameJson(before[field], after[field])) continue;
      this.#changed.add(there.id);
      this.#edits.push({
        kind: "set",
        table: "elements",
        id: there.id,
        field,
        from: (before[field] ?? null) as Json,
        to: (after[field] ?? null) as Json,
      });
      const { references } = typeInfo(element.type);
      if (!references.some((reference) => reference.field === field)) continue;
      for (const [id] of referencesOf(element)) {
        const named = this.#wanted.elements.get(id);
        if (!named || this.#target.elements.has(id) || ancestorsOf(this.#wanted, id).some(isCompared)) continue;
        for (const part of subtreeOf(this.#wanted, id)) this.#insert(part);
      }
    }
  }

  /** What an element names and does not own (a role, a message) is one for all who name it: its new name comes with any of them. */
  #renewNamed(element: Element): void {
    for (const [id] of referencesOf(element)) {
      const [there, named] = [this.#target.elements.get(id), this.#wanted.elements.get(id)];
      if (!there || there.type !== named?.type || this.#changed.has(id)) continue;
      if (holderOf(this.#wanted, id) || ancestorsOf(this.#wanted, id).some(isCompared)) continue;
      if (!sameJson(withoutLists(there), withoutLists(named))) this.#setFields(there, named);
    }
  }

  #drop(element: Element): void {
    if (this.#wanted.elements.has(element.id) || !this.#isChosen(this.#target, element.id)) return;
    this.#removed.add(element.id);
    this.#edits.push({ kind: "remove", table: "elements", record: element });
  }

  /** Lanes list their steps: steps that are part of a chosen change stand in the lists they stand in on the other side. */
  #setLanes(): void {
    for (const lane of this.#target.elements) {
      if (lane.type !== "lane" || this.#removed.has(lane.id)) continue;
      const listed = (lane.flowNodeRef as readonly Id[] | undefined) ?? [];
      const wanted = (this.#wanted.elements.get(lane.id)?.flowNodeRef as readonly Id[] | undefined) ?? [];
      const kept = listed.filter(
        (id) => !this.#removed.has(id) && (!this.#isChosen(this.#wanted, id) || wanted.includes(id)),
      );
      const added = wanted.filter(
        (id) => !listed.includes(id) && this.#isChosen(this.#wanted, id) && this.#isThere(id),
      );
      this.#setList(lane, [...kept, ...added]);
    }
    for (const id of this.#inserted) {
      const lane = this.#wanted.elements.get(id);
      if (lane?.type !== "lane") continue;
      const listed = ((lane.flowNodeRef as readonly Id[] | undefined) ?? []).filter(
        (node) => this.#isThere(node) && this.#isChosen(this.#wanted, node),
      );
      if (listed.length > 0)
        this.#edits.push({ kind: "set", table: "elements", id, field: "flowNodeRef", from: null, to: listed });
    }
  }

  #isThere = (id: Id): boolean => (this.#target.elements.has(id) && !this.#removed.has(id)) || this.#inserted.has(id);

  #setList(lane: Element, list: readonly Id[]): void {
    const before = lane.flowNodeRef as readonly Id[] | undefined;
    if (sameJson(before ?? [], list)) return;
    this.#edits.push({
      kind: "set",
      table: "elements",
      id: lane.id,
      field: "flowNodeRef",
      from: (before ?? null) as Json,
      to: list.length > 0 ? ([...list] as Json) : null,
    });
  }

  /** Files may repeat a node's flows; once they change, the repetition is left to the writer. */
  #forgetLists(): void {
    for (const element of this.#target.elements) {
      if (this.#removed.has(element.id) || this.#inserted.has(element.id)) continue;
      for (const field of ["incoming", "outgoing"]) {
        const list = (element as { readonly [field: string]: unknown })[field] as readonly Id[] | undefined;
        if (!list?.some((id) => this.#removed.has(id) || this.#changed.has(id))) continue;
        this.#edits.push({ kind: "set", table: "elements", id: element.id, field, from: list as Json, to: null });
      }
    }
  }

  /** What is not there once the chosen changes are made, and the changes that bring it, or take it along. */
  #needs(): Extract<TakenOver, { ok: false }> | undefined {
    const needs = new Set<string>();
    let reason = "";
    const need = (key: string | undefined, id: Id, why: string) => {
      if (key !== undefined && this.keys.has(key)) return;
      const element = this.#wanted.elements.get(id) ?? this.#target.elements.get(id);
      const model = this.#wanted.elements.has(id) ? this.#wanted : this.#target;
      const name = nameOf(model, id) ? `“${nameOf(model, id)}”` : `a ${wordFor(element?.type ?? "")}`;
      reason ||= `${name} ${why}`;
      if (key !== undefined) needs.add(key);
    };
    for (const id of [...this.#inserted, ...this.#changed]) {
      const element = this.#wanted.elements.get(id) as Element;
      for (const [target, field] of referencesOf(element)) {
        if (field === "calledElement" || target.includes(":") || listFields.has(field)) continue;
        if (!this.#isThere(target) && this.#wanted.elements.has(target))
          need(this.#owner(this.#wanted, target), target, "is not there.");
      }
      if (element.parent !== null && !this.#isThere(element.parent))
        need(this.#owner(this.#wanted, element.parent), element.parent, "is not there.");
      // A step that comes needs its flows, or it would stand loose.
      if (!this.#inserted.has(id) || !isFlowNode(element.type)) continue;
      for (const flow of [...referrersOf(this.#wanted, id, "sourceRef"), ...referrersOf(this.#wanted, id, "targetRef")])
        if (flow.type === "sequenceFlow" && this.#owner(this.#wanted, flow.id) !== undefined)
          need(this.#owner(this.#wanted, flow.id), flow.id, "belongs to it.");
      const lane = laneOf(this.#wanted, id);
      if (lane && !this.#isThere(lane.id)) need(this.#owner(this.#wanted, lane.id), lane.id, "is not there.");
    }
    for (const id of this.#removed)
      for (const referrer of referrersOf(this.#target, id)) {
        if (this.#removed.has(referrer.id) || referrer.type === "lane") continue;
        const now = this.#changed.has(referrer.id) ? this.#wanted.elements.get(referrer.id) : referrer;
        const stillNamed = referencesOf(now as Element).some(
          ([target, field]) => target === id && !listFields.has(field),
        );
        if (stillNamed) need(this.#owner(this.#target, referrer.id), referrer.id, "still needs what would go.");
      }
    for (const lane of this.#wanted.elements) {
      if (lane.type !== "lane" || this.#isThere(lane.id)) continue;
      for (const id of (lane.flowNodeRef as readonly Id[] | undefined) ?? [])
        if (this.#isChosen(this.#wanted, id) && this.#isThere(id))
          need(this.#owner(this.#wanted, lane.id), lane.id, "is not there.");
    }
    if (reason === "") return undefined;
    return {
      ok: false,
      needs: [...needs],
      message: say`This change hangs on another: ${reason}${needs.size > 0 ? say` Take both over.` : say` It cannot be taken over by itself.`}`,
    };
  }

  #draw(): Edit[] {
    const edits: Edit[] = [];
    const pages = new Set([...this.#target.diagrams].map((diagram) => diagram.id));
    for (const diagram of this.#wanted.diagrams) {
      if (pages.has(diagram.id) || !this.#inserted.has(diagram.element ?? "")) continue;
      edits.push({ kind: "insert", table: "diagrams", record: diagram });
      pages.add(diagram.id);
    }
    const gone = new Set(
      [...this.#target.diagrams].filter(({ element }) => this.#removed.has(element ?? "")).map(({ id }) => id),
    );
    for (const table of ["shapes", "edges"] as const) {
      const wanted = this.#wanted[table] as Iterable<Model["shapes"] extends Iterable<infer S> ? S : never>;
      for (const drawn of wanted)
        if (this.#inserted.has(drawn.element) && pages.has(drawn.diagram) && !this.#target[table].has(drawn.id))
          edits.push({ kind: "insert", table, record: drawn });
      const present = this.#target[table] as typeof wanted;
      for (const drawn of present)
        if (this.#removed.has(drawn.element) || gone.has(drawn.diagram))
          edits.push({ kind: "remove", table, record: drawn });
    }
    for (const id of gone) {
      const record = this.#target.diagrams.get(id);
      if (record) edits.push({ kind: "remove", table: "diagrams", record });
    }
    return edits;
  }

  /** Places for what came, and for steps that are in another lane now. */
  #place(model: Model, edits: readonly Edit[]): TakenOver {
    let current = model;
    const all = [...edits];
    const moved = [...this.#target.elements]
      .filter((element) => isFlowNode(element.type) && model.elements.has(element.id))
      .filter((element) => laneOf(this.#target, element.id)?.id !== laneOf(model, element.id)?.id)
      .map((element) => element.id);
    const touched = [...this.#inserted, ...moved];
    const ways = [...this.#changed].filter((id) => model.elements.get(id)?.type.endsWith("Flow"));
    const isFrame = (id: Id) => {
      const type = (this.#target.elements.get(id) ?? model.elements.get(id))?.type;
      return type === "lane" || type === "participant";
    };
    const isReframed = [...this.#inserted, ...this.#removed].some(isFrame);
    for (const diagram of model.diagrams) {
      // A page that came whole is as it was drawn.
      if (!this.#target.diagrams.has(diagram.id)) continue;
      const isDrawn = (id: Id) =>
        shapeOn(model, diagram.id, id) !== undefined || edgeOn(model, diagram.id, id) !== undefined;
      const [shapes, edges] = [touched.filter(isDrawn), ways.filter(isDrawn)];
      const isThinner = [...this.#target.shapes].some(
        (shape) => shape.diagram === diagram.id && this.#removed.has(shape.element),
      );
      if (shapes.length === 0 && edges.length === 0 && !isThinner) continue;
      const placed = settled(current, diagram.id, shapes, edges, isReframed || isTidy(this.#target, diagram.id));
      current = placed.model;
      all.push(...placed.edits);
    }
    return { ok: true, model: current, edits: all };
  }
}

const withoutLists = (element: Element) =>
  Object.fromEntries(Object.entries(element).filter(([field]) => !listFields.has(field))) as Json;

/** What a piece of data holds stands beside the processes: it belongs to the first data of that kind. */
const holderOf = (model: Model, id: Id): Element | undefined =>
  model.elements.get(id)?.type === "itemDefinition"
    ? referrersOf(model, id, "itemSubjectRef").find((element) => isCompared(element))
    : undefined;
