import type { Said } from "../messages";
import {
  childrenOf,
  type Element,
  type Id,
  incomingOf,
  isActivity,
  isEvent,
  isFlowNode,
  isGateway,
  type Model,
  nameOf,
  outgoingOf,
} from "../model";
import type { Change, Comparison } from "./changes";
import { isFlow } from "./compared";
import { groupWords } from "./groupWords";
import { type Besides, splitAndMerged } from "./match";
import { orderKind, type Regrouped, Stars } from "./stars";
import { type Succession, successionOf } from "./succession";

export type GroupKind =
  | "new"
  | "gone"
  | "replaced"
  | "moved"
  | "changed"
  | "parallel"
  | "sequential"
  | "alternative"
  | "reordered"
  | "rerouted";

/** What a person would call one change: a step that is new, with the flows and gateways that came with it. */
export interface ChangeGroup {
  /** Stays the same while the change is worked on, so that a reason can be kept with it. */
  readonly key: string;
  readonly kind: GroupKind;
  readonly said: Said;
  readonly words: string;
  /** What it is about on either side, the most telling first. */
  readonly from: readonly Id[];
  readonly to: readonly Id[];
  /** Element by element. */
  readonly changes: readonly Change[];
}

/** A group on its way. */
export interface Draft {
  kind: GroupKind;
  readonly changes: Change[];
  readonly orders: Regrouped[];
}

/** Both sides, and what is asked of them again and again. */
export interface Sides {
  readonly from: Model;
  readonly to: Model;
  readonly pairs: ReadonlyMap<Id, Id>;
  /** The same from the new side to the old one. */
  readonly back: ReadonlyMap<Id, Id>;
  readonly order: { readonly from: Succession; readonly to: Succession };
  readonly split: readonly Besides[];
  readonly merged: readonly Besides[];
}

/**
 * Gathers the differences of two models into what a person would call one change each: a new step takes along the flows and unnamed
 * gateways that lead to it, a step in the place of another makes one change of two, and steps that stand otherwise to one another
 * (in parallel, in another order) are told as that. Each difference is in exactly one group. In the order of the new side.
 * O(steps² + differences).
 */
export function changeGroups(from: Model, to: Model, { changes, pairs }: Comparison): ChangeGroup[] {
  const sides: Sides = {
    from,
    to,
    pairs,
    back: new Map([...pairs].map(([a, b]) => [b, a])),
    order: { from: successionOf(from), to: successionOf(to) },
    ...splitAndMerged(from, to, pairs),
  };
  const drafts = new Grouping(sides, changes).drafts();
  const keys = new Set<string>();
  const groups = drafts.map((draft): ChangeGroup => {
    let key = keyOf(draft);
    while (keys.has(key)) key += "'";
    keys.add(key);
    const said = groupWords(sides, draft);
    const unique = (ids: readonly (Id | undefined)[]) => [...new Set(ids.filter((id) => id !== undefined))];
    const ordered = draft.orders.flatMap((order) => [order.step, ...order.others]);
    return {
      key,
      kind: draft.kind,
      said,
      words: said.text,
      from: unique([...draft.changes.map((change) => change.from?.id), ...ordered.map((id) => sides.back.get(id))]),
      to: unique([...draft.changes.map((change) => change.to?.id), ...ordered]),
      changes: draft.changes,
    };
  });
  return inOrderOf(groups, from, to);
}

function keyOf({ changes, orders }: Draft): string {
  const [lead] = changes;
  const [order] = orders;
  if (!lead || (order && lead.kind !== "new" && lead.kind !== "gone" && isFlowOrGateway(lead)))
    return `order ${order?.step ?? ""}`;
  return lead.to ? lead.to.id : `gone ${lead.from?.id}`;
}

const isFlowOrGateway = (change: Change) => {
  const type = (change.to ?? change.from)?.type ?? "";
  return isFlow(type) || isGateway(type);
};

class Grouping {
  readonly #drafts = new Set<Draft>();
  /** By what a draft is about: nodes of the new side by their id, of the old side alone as "-id". */
  readonly #about = new Map<string, Draft>();

  constructor(
    readonly sides: Sides,
    readonly changes: readonly Change[],
  ) {}

  drafts(): Draft[] {
    for (const change of this.changes) if (!this.#isGlue(change)) this.#begin(change);
    this.#takeIn();
    this.#replace();
    this.#order();
    for (const part of this.#glue()) this.#absorb(part);
    return [...this.#drafts];
  }

  #begin(change: Change): Draft {
    const draft: Draft = { kind: change.kind, changes: [change], orders: [] };
    this.#drafts.add(draft);
    this.#about.set(nodeKey(change), draft);
    return draft;
  }

  #merge(into: Draft, other: Draft): void {
    if (into === other) return;
    into.changes.push(...other.changes);
    into.orders.push(...other.orders);
    this.#drafts.delete(other);
    for (const [key, draft] of this.#about) if (draft === other) this.#about.set(key, into);
  }

  /** Ways, and gateways nobody named, are part of what they lead to. */
  #isGlue(change: Change): boolean {
    const { type, name } = (change.to ?? change.from) as { type: string; name: string };
    if (isFlow(type))
      return change.kind !== "changed" || change.fields.some(({ field }) => field === "source" || field === "target");
    if (change.kind === "changed" && isFlowNode(type)) return change.fields.every(({ field }) => field === "default");
    return isGateway(type) && !name && (change.kind === "new" || change.kind === "gone");
  }

  /** The inside of what is new or gone, and what hangs at it, is no change of its own; what goes into a new sub-process, or comes out of one, goes along. */
  #takeIn(): void {
    const { from, to } = this.sides;
    for (const draft of [...this.#drafts]) {
      const [change] = draft.changes;
      if (!change || draft.changes.length > 1) continue;
      const [newer, older] = [to.elements.get(change.to?.id ?? ""), from.elements.get(change.from?.id ?? "")];
      const hosts = [
        newer && this.#about.get(newer.parent ?? ""),
        newer && this.#about.get(String(newer.attachedToRef)),
        older && this.#about.get(`-${older.parent}`),
        older && this.#about.get(`-${older.attachedToRef}`),
      ];
      const host = hosts.find((one) => one && one !== draft && (one.kind === "new" || one.kind === "gone"));
      const moves = change.fields.some(({ field }) => field === "parent");
      if (host && (change.kind === host.kind || moves)) this.#merge(host, draft);
      else this.#joinData(draft, change);
    }
  }

  /** A data object goes with its reference, and that with the step that needs or gives it. */
  #joinData(draft: Draft, change: Change): void {
    const side = change.to ? this.sides.to : this.sides.from;
    const element = side.elements.get((change.to ?? change.from)?.id ?? "");
    if (!element || (change.kind !== "new" && change.kind !== "gone")) return;
    if (element.type === "dataObject") {
      const key = change.kind === "new" ? "" : "-";
      const reference = childrenOf(side, element.parent ?? "").find((one) => one.dataObjectRef === element.id);
      const host = reference && this.#about.get(`${key}${reference.id}`);
      if (host) this.#merge(host, draft);
      return;
    }
    if (element.type !== "dataObjectReference" && element.type !== "dataStoreReference") return;
    const name = nameOf(side, element.id);
    const step = [...this.#drafts].find((one) =>
      one.changes.some(
        (other) =>
          other.fields.some(({ field, from, to }) => field === "documents" && (to + from).includes(name)) ||
          (other.kind === change.kind &&
            isFlowNode((other.to ?? other.from)?.type) &&
            this.#handles(side, other, element)),
      ),
    );
    if (step && step !== draft) this.#merge(step, draft);
  }

  #handles(side: Model, step: Change, data: Element): boolean {
    const id = (step.to ?? step.from)?.id ?? "";
    return childrenOf(side, id).some(
      (child) =>
        child.targetRef === data.id || (Array.isArray(child.sourceRef) && (child.sourceRef as Id[]).includes(data.id)),
    );
  }

  /** One step in the place of another: what came before and after the old one is around the new one. */
  #replace(): void {
    const isStep = (draft: Draft, kind: "new" | "gone") => {
      const [change] = draft.changes;
      const type = (change?.to ?? change?.from)?.type;
      return draft.kind === kind && (isActivity(type) || (isEvent(type) && type !== "boundaryEvent"));
    };
    const gone = [...this.#drafts].filter((draft) => isStep(draft, "gone"));
    const fresh = [...this.#drafts].filter((draft) => isStep(draft, "new"));
    const places = new Map(
      gone.map((draft) => [placeOf(this.sides, "from", draft.changes[0]?.from?.id ?? ""), draft] as const),
    );
    for (const draft of fresh) {
      const place = placeOf(this.sides, "to", draft.changes[0]?.to?.id ?? "");
      const old = place === undefined ? undefined : places.get(place);
      if (!old) continue;
      places.delete(place);
      draft.kind = "replaced";
      this.#merge(draft, old);
    }
  }

  /** Steps both sides have, which now stand otherwise to one another: each told of the one that most of it is about. */
  #order(): void {
    const { to, pairs, order } = this.sides;
    const steps = [...pairs].filter(([, id]) => {
      const type = to.elements.get(id)?.type;
      return isActivity(type) || type === "intermediateCatchEvent" || type === "intermediateThrowEvent";
    });
    const stars = new Stars();
    for (const [at, [oldA, a]] of steps.entries())
      for (const [oldB, b] of steps.slice(at + 1)) {
        const [was, is] = [order.from.relation(oldA, oldB), order.to.relation(a, b)];
        if (was !== undefined && is !== undefined && was !== is) stars.add(orderKind(was, is), is, a, b);
      }
    for (const found of stars.taken((step) => this.#about.has(step))) {
      const own = this.#about.get(found.step);
      if (own) own.orders.push(found);
      else {
        const draft: Draft = { kind: found.kind, changes: [], orders: [found] };
        this.#drafts.add(draft);
        this.#about.set(found.step, draft);
      }
    }
  }

  /** Parts of what is glue that hang together through unnamed gateways, with the nodes around each. */
  #glue(): { readonly changes: Change[]; readonly around: Set<string> }[] {
    const glue = this.changes.filter((change) => this.#isGlue(change));
    const gateways = new Set(glue.filter((change) => !isFlow((change.to ?? change.from)?.type ?? "")).map(nodeKey));
    const parts = new Map<string, { changes: Change[]; around: Set<string> }>();
    const joined = (keys: readonly string[]) => {
      const part = { changes: [] as Change[], around: new Set<string>() };
      for (const old of new Set(keys.flatMap((key) => parts.get(key) ?? []))) {
        part.changes.push(...old.changes);
        for (const key of old.around) part.around.add(key);
        for (const [key, one] of parts) if (one === old) parts.set(key, part);
      }
      for (const key of keys) parts.set(key, part);
      return part;
    };
    for (const change of glue) {
      const isWay = isFlow((change.to ?? change.from)?.type ?? "");
      const ends = isWay ? [...this.#ends(change), ...this.#ledBy(change)] : [];
      const own = isWay ? `flow ${nodeKey(change)}` : nodeKey(change);
      const part = joined([own, ...ends.filter((end) => gateways.has(end))]);
      part.changes.push(change);
      for (const end of ends) if (!gateways.has(end)) part.around.add(end);
    }
    return [...new Set(parts.values())];
  }

  #ends({ from, to }: Change): string[] {
    const { pairs } = this.sides;
    const older = from && this.sides.from.elements.get(from.id);
    const newer = to && this.sides.to.elements.get(to.id);
    // What a way leads to comes before what it comes from.
    const before = older ? [older.targetRef, older.sourceRef].map((id) => pairs.get(id as Id) ?? `-${id}`) : [];
    const now = newer ? [newer.targetRef, newer.sourceRef].map((id) => id as Id) : [];
    return [...now, ...before];
  }

  /**
   * What stands where a way was that is gone, or stood where one is now: the nodes of one side alone through which both its ends are
   * joined there.
   */
  #ledBy({ from, to }: Change): string[] {
    if (from && to) return [];
    const { back } = this.sides;
    const flow = to ? this.sides.to.elements.get(to.id) : this.sides.from.elements.get(from?.id ?? "");
    const there = (id: unknown) => (to ? back.get(id as Id) : this.sides.pairs.get(id as Id));
    const [start, end] = [there(flow?.sourceRef), there(flow?.targetRef)];
    if (start === undefined || end === undefined) return [];
    const model = to ? this.sides.from : this.sides.to;
    const isShared = (id: Id) => (to ? this.sides.pairs.has(id) : back.has(id));
    const cameFrom = new Map<Id, Id>();
    const queue = [start];
    for (let at = queue.shift(); at !== undefined; at = queue.shift())
      for (const next of outgoingOf(model, at)) {
        const id = next.targetRef as Id;
        if (id === end) {
          const through: string[] = [];
          for (let node = at; node !== start; node = cameFrom.get(node) as Id) through.push(to ? `-${node}` : node);
          return through;
        }
        if (isShared(id) || cameFrom.has(id)) continue;
        cameFrom.set(id, at);
        queue.push(id);
      }
    return [];
  }

  #absorb({ changes, around }: { readonly changes: Change[]; readonly around: ReadonlySet<string> }): void {
    const touched = [...around].flatMap((key) => this.#about.get(key) ?? []);
    const rank = { new: 0, replaced: 1, gone: 2 } as { readonly [kind in GroupKind]?: number };
    const anchors = touched
      .filter((draft) => rank[draft.kind] !== undefined)
      .sort((a, b) => (rank[a.kind] ?? 0) - (rank[b.kind] ?? 0));
    const hasGateway = changes.some((change) => !isFlow((change.to ?? change.from)?.type ?? ""));
    const ordered = [...this.#drafts].find((draft) =>
      draft.orders.some((order) => {
        const members = [order.step, ...order.others].filter((id) => around.has(id)).length;
        return (
          members > 1 || (members === 1 && (hasGateway || order.kind === "reordered" || order.kind === "sequential"))
        );
      }),
    );
    const host = anchors[0] ?? ordered;
    if (host) host.changes.push(...changes);
    else this.#drafts.add({ kind: "rerouted", changes, orders: [] });
  }
}

const nodeKey = ({ from, to }: Change): string => to?.id ?? `-${from?.id}`;

/** Where a step stands, in words of the new side: the nodes both sides have right before and after it. */
function placeOf({ from, to, pairs }: Sides, side: "from" | "to", id: Id): string | undefined {
  const model = side === "from" ? from : to;
  const back = side === "to" ? new Set(pairs.values()) : undefined;
  const shared = (node: Id) => (back ? (back.has(node) ? node : undefined) : pairs.get(node));
  const around = (flowsOf: typeof incomingOf, end: "sourceRef" | "targetRef"): Id[] => {
    const found = new Set<Id>();
    const seen = new Set([id]);
    const queue = [id];
    for (let at = queue.shift(); at !== undefined; at = queue.shift())
      for (const flow of flowsOf(model, at)) {
        const next = flow[end] as Id;
        const known = shared(next);
        if (known !== undefined) found.add(known);
        else if (!seen.has(next) && isGateway(model.elements.get(next)?.type)) {
          seen.add(next);
          queue.push(next);
        }
      }
    return [...found].sort();
  };
  const [before, after] = [around(incomingOf, "sourceRef"), around(outgoingOf, "targetRef")];
  return before.length === 0 && after.length === 0 ? undefined : `${before.join(" ")} | ${after.join(" ")}`;
}

/** Groups as the new side is read, each gone one where it was on the old side; ways alone come last. */
function inOrderOf(groups: readonly ChangeGroup[], from: Model, to: Model): ChangeGroup[] {
  const places = new Map<string, number>();
  const note = (model: Model, mark: string) => {
    const shapes = [...model.shapes].sort((a, b) => a.bounds.x - b.bounds.x || a.bounds.y - b.bounds.y);
    for (const [at, shape] of shapes.entries())
      if (!places.has(mark + shape.element)) places.set(mark + shape.element, shape.bounds.x + at / 1e6);
  };
  note(from, "-");
  note(to, "");
  const placed = (group: ChangeGroup) => {
    const own = group.to.map((id) => places.get(id)).find((place) => place !== undefined);
    return own ?? group.from.map((id) => places.get(`-${id}`)).find((place) => place !== undefined) ?? 1e9;
  };
  const last = ({ kind, changes }: ChangeGroup) =>
    Number(kind === "rerouted") + Number(changes[0] !== undefined && !isStepLike(changes[0]));
  return [...groups].sort((a, b) => last(a) - last(b) || placed(a) - placed(b) || (a.key < b.key ? -1 : 1));
}

const isStepLike = (change: Change) => isFlowNode((change.to ?? change.from)?.type ?? "");
