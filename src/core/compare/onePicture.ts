import { isTidy, settled } from "../commands";
import {
  ancestorsOf,
  childrenOf,
  type Edge,
  type Element,
  type Id,
  isFlowNode,
  laneOf,
  type Model,
  referrersOf,
  type Shape,
  shapeOn,
  Table,
} from "../model";
import { isCompared, isFlow } from "./compared";
import type { ChangeGroup } from "./groups";
import { inIdsOf, type SameIds } from "./sameIds";

/** Where a figure of the one picture is to be seen, and whose it is. */
export interface Part {
  /** Drawn in ink where both have it, else in the pencil of the old side or the pen of the new one. */
  readonly of: "both" | "from" | "to";
  /** Whether it is seen with the switch on the old side, on both, on the new side. */
  readonly seen: { readonly from: boolean; readonly both: boolean; readonly to: boolean };
  /** The change it is part of. */
  readonly key?: string;
}

/** Old and new side in one drawing. Ids are those of the new side; what only the old one has keeps its own where it is free. */
export interface OnePicture {
  /** Everything of both, with the new side's names and types. */
  readonly model: Model;
  /** The same drawing with the old side's names and types. */
  readonly older: Model;
  /** What is not simply the same on both sides. */
  readonly parts: ReadonlyMap<Id, Part>;
  /** Steps that moved: where each was, by the id of what is drawn there. */
  readonly ghosts: ReadonlyMap<Id, Id>;
  /** The old side's ids in the picture. */
  readonly ids: ReadonlyMap<Id, Id>;
}

const onlyFrom = { from: true, both: true, to: false };
const onlyTo = { from: false, both: true, to: true };
const onlyBefore = { from: true, both: false, to: false };
const notBefore = { from: false, both: true, to: true };

/**
 * Draws two models as one: the new side as it is, what only the old one has beside it, and each step that is in another place now
 * once more where it was. A page that was tidy is laid out again with both; on a page arranged by hand everything of the new side
 * stays, and the rest gets free spots. O(elements), and the layout of pages on which something is drawn that the new side does not
 * have.
 */
export function onePicture(
  from: Model,
  to: Model,
  pairs: ReadonlyMap<Id, Id>,
  groups: readonly ChangeGroup[],
): OnePicture {
  return new Picture(from, to, pairs, groups).drawn();
}

class Picture {
  readonly #same: SameIds;
  readonly #elements: Map<Id, Element>;
  readonly #parts = new Map<Id, Part>();
  /** What stands once more where it was, by the id it has on the new side. */
  readonly #ghostOf = new Map<Id, Id>();
  readonly #keys = new Map<Id, string>();

  constructor(
    readonly from: Model,
    readonly to: Model,
    readonly pairs: ReadonlyMap<Id, Id>,
    readonly groups: readonly ChangeGroup[],
  ) {
    this.#same = inIdsOf(to, from, new Map([...pairs].map(([a, b]) => [b, a])));
    this.#elements = new Map([...to.elements].map((element) => [element.id, element]));
    for (const group of groups)
      for (const change of group.changes) {
        if (change.from) this.#keys.set(this.#same.ids.get(change.from.id) ?? "", group.key);
        if (change.to) this.#keys.set(change.to.id, group.key);
      }
  }

  drawn(): OnePicture {
    this.#takeFromOld();
    this.#raiseGhosts();
    this.#doubleFlows();
    for (const element of this.to.elements)
      if (isCompared(element) && !this.#same.model.elements.has(element.id)) this.#note(element.id, "to", onlyTo);
    const model = this.#place();
    return {
      model,
      older: this.#older(model),
      parts: this.#parts,
      ghosts: new Map([...this.#ghostOf].map(([id, ghost]) => [ghost, id])),
      ids: this.#same.ids,
    };
  }

  #note(id: Id, of: Part["of"], seen: Part["seen"], owner = id): void {
    const key = this.#keys.get(owner);
    this.#parts.set(id, { of, seen, ...(key !== undefined && { key }) });
  }

  /** What only the old side has, with all that belongs to it. Parts of what both have are as the new side has them. */
  #takeFromOld(): void {
    const old = this.#same.model;
    for (const element of old.elements) {
      if (this.to.elements.has(element.id)) continue;
      const owner = ancestorsOf(old, element.id).find(isCompared);
      if (owner && this.to.elements.has(owner.id)) continue;
      const { incoming: _, outgoing: __, ...record } = element as Element & { incoming?: unknown; outgoing?: unknown };
      this.#elements.set(element.id, record as Element);
      if (isCompared(element)) this.#note(element.id, "from", onlyFrom);
    }
    for (const lane of old.elements) {
      if (lane.type !== "lane") continue;
      const listed = (lane.flowNodeRef as readonly Id[] | undefined) ?? [];
      const mine = listed.filter((id) => this.#elements.has(id) && !this.to.elements.has(id));
      const there = this.to.elements.get(lane.id);
      const kept = there ? ((there.flowNodeRef as readonly Id[] | undefined) ?? []) : [];
      this.#elements.set(lane.id, { ...(there ?? lane), flowNodeRef: [...kept, ...mine] } as Element);
    }
  }

  /** A step in another lane, or on another page, is drawn once more where it was. */
  #raiseGhosts(): void {
    const old = this.#same.model;
    for (const [before, id] of this.pairs) {
      const element = old.elements.get(id);
      if (!element || !isFlowNode(element.type)) continue;
      const lanes = [laneOf(old, id), laneOf(this.to, id)];
      const isElsewhere = lanes[0] && lanes[1] && lanes[0].id !== lanes[1].id && element.type !== "boundaryEvent";
      const isOnOtherPage = element.parent !== this.to.elements.get(id)?.parent;
      if (!isElsewhere && !isOnOtherPage) continue;
      const ghost = `${before}.was`;
      this.#ghostOf.set(id, ghost);
      const { incoming: _, outgoing: __, ...record } = element as Element & { incoming?: unknown; outgoing?: unknown };
      this.#elements.set(ghost, { ...record, id: ghost } as Element);
      for (const part of childrenOf(old, id))
        if (!isCompared(part)) {
          const copy = `${part.id}.was`;
          this.#elements.set(copy, { ...part, id: copy, parent: ghost } as Element);
        }
      const lane = lanes[0] && this.#elements.get(lanes[0].id);
      if (lane)
        this.#elements.set(lane.id, {
          ...lane,
          flowNodeRef: [...((lane.flowNodeRef as readonly Id[] | undefined) ?? []), ghost],
        } as Element);
      this.#note(ghost, "from", onlyFrom, id);
      this.#note(id, "both", notBefore);
    }
  }

  /** Flows that led elsewhere are drawn once more as they were; so are those of steps that stand elsewhere, for the old side alone. */
  #doubleFlows(): void {
    const old = this.#same.model;
    const placed = (id: unknown) => this.#ghostOf.get(id as Id) ?? (id as Id);
    for (const flow of old.elements) {
      if (!isFlow(flow.type)) continue;
      const ends = { sourceRef: placed(flow.sourceRef), targetRef: placed(flow.targetRef) };
      const now = this.to.elements.get(flow.id);
      if (!now) {
        this.#elements.set(flow.id, { ...(this.#elements.get(flow.id) as Element), ...ends } as Element);
        continue;
      }
      const isRerouted = now.sourceRef !== flow.sourceRef || now.targetRef !== flow.targetRef;
      const isMoved = ends.sourceRef !== flow.sourceRef || ends.targetRef !== flow.targetRef;
      if (!isRerouted && !isMoved) continue;
      const copy = `${flow.id}.was`;
      this.#elements.set(copy, { ...flow, id: copy, ...ends } as Element);
      this.#ghostOf.set(flow.id, copy);
      this.#note(copy, "from", isRerouted ? onlyFrom : onlyBefore, flow.id);
      this.#note(flow.id, isRerouted ? "to" : "both", isRerouted ? onlyTo : notBefore);
    }
  }

  /** Shapes of the old side, and then a place for each. */
  #place(): Model {
    const old = this.#same.model;
    const elements = Table.from(this.#elements);
    const isOld = (id: Id) => this.#elements.has(id) && !this.to.elements.has(id);
    const pages = new Map([...this.to.diagrams].map((diagram) => [diagram.id, diagram]));
    for (const diagram of old.diagrams)
      if (!pages.has(diagram.id) && isOld(diagram.element ?? "")) pages.set(diagram.id, diagram);
    const [shapes, edges] = [new Map<Id, Shape>(), new Map<Id, Edge>()];
    for (const shape of old.shapes) if (isOld(shape.element) && pages.has(shape.diagram)) shapes.set(shape.id, shape);
    for (const edge of old.edges) if (isOld(edge.element) && pages.has(edge.diagram)) edges.set(edge.id, edge);
    let model: Model = {
      ...this.to,
      elements,
      diagrams: Table.from(pages),
      shapes: this.to.shapes.with(shapes),
      edges: this.to.edges.with(edges),
    };
    for (const diagram of this.to.diagrams) {
      const here = [...shapes.values()].filter((shape) => shape.diagram === diagram.id).map((shape) => shape.element);
      const ways = [...edges.values()].filter((edge) => edge.diagram === diagram.id).map((edge) => edge.element);
      if (here.length === 0 && ways.length === 0) continue;
      const isReframed = here.some((id) => ["lane", "participant"].includes(this.#elements.get(id)?.type ?? ""));
      model = settled(model, diagram.id, here, ways, isReframed || isTidy(this.to, diagram.id)).model;
    }
    return this.#placeGhosts(model);
  }

  /** After the rest, so that they do not push it about: in the lane where it was, above or below where it is now. */
  #placeGhosts(start: Model): Model {
    const old = this.#same.model;
    let model = start;
    for (const diagram of old.diagrams) {
      if (!model.diagrams.has(diagram.id)) continue;
      const [shapes, edges] = [new Map<Id, Shape>(), new Map<Id, Edge>()];
      for (const [id, ghost] of this.#ghostOf) {
        const was = shapeOn(old, diagram.id, id);
        const now = shapeOn(model, diagram.id, id);
        if (was)
          shapes.set(`${ghost}.shape`, {
            ...was,
            id: `${ghost}.shape`,
            element: ghost,
            bounds: now ? { ...was.bounds, x: now.bounds.x } : was.bounds,
          });
        const way = [...old.edges].find((edge) => edge.element === id && edge.diagram === diagram.id);
        if (way) edges.set(`${ghost}.edge`, { ...way, id: `${ghost}.edge`, element: ghost });
      }
      if (shapes.size === 0 && edges.size === 0) continue;
      const ids = [...shapes.values()].map((shape) => shape.element);
      const ways = [...edges.values()].map((edge) => edge.element);
      const withThem = { ...model, shapes: model.shapes.with(shapes), edges: model.edges.with(edges) };
      // Messages of a step that moved may go through the place where it was.
      const messages = [...this.#ghostOf.keys()].flatMap((id) => [
        ...referrersOf(this.to, id, "sourceRef"),
        ...referrersOf(this.to, id, "targetRef"),
      ]);
      ways.push(...messages.filter((one) => one.type === "messageFlow").map((one) => one.id));
      model = settled(withThem, diagram.id, ids, ways, false).model;
    }
    return model;
  }

  /** The same places with the names, types and marks of before. */
  #older(model: Model): Model {
    const old = this.#same.model;
    const changes = new Map<Id, Element | undefined>();
    for (const id of this.pairs.values()) {
      const [before, now] = [old.elements.get(id), this.to.elements.get(id)];
      if (!before || !now) continue;
      if (isFlow(before.type)) {
        changes.set(id, { ...before, sourceRef: now.sourceRef, targetRef: now.targetRef } as Element);
        continue;
      }
      if (before.type === "lane") {
        changes.set(id, { ...before, flowNodeRef: this.#elements.get(id)?.flowNodeRef } as Element);
        continue;
      }
      changes.set(id, before);
      for (const part of childrenOf(this.to, id)) if (!isCompared(part)) changes.set(part.id, undefined);
      for (const part of childrenOf(old, id)) if (!isCompared(part)) changes.set(part.id, part);
    }
    return { ...model, elements: model.elements.with(changes) };
  }
}
