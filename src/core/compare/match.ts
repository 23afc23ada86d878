import { counterpartsOf, type Element, type Id, isWithoutCounterpart, type Model, nameOf } from "../model";
import { pairsByName } from "./byName";
import { familyOfCompared, isCompared, isFlow } from "./compared";

export type MatchBy = "counterpart" | "id" | "name";

/**
 * Pairs the compared elements of two models, one to one. Without a wish each is paired by its counterpart where it has one there, else
 * by its id, else by its name: by the same name where the two models share any counterpart or id, by a similar one where they do
 * not, since then nothing else can tell. Flows that are left are paired by what they connect. O(elements); by name see `pairsByName`.
 */
export function matchElements(from: Model, to: Model, by?: MatchBy): Map<Id, Id> {
  const pairing = new Pairing(from, to);
  if (by === "counterpart") pairing.byCounterpart();
  else if (by === "id") pairing.byId();
  else if (by === "name") pairing.bySimilarName();
  else {
    pairing.byCounterpart();
    pairing.byId({ unlessDenied: true });
    if (pairing.pairs.size === 0) pairing.bySimilarName();
    else pairing.bySameName();
  }
  if (by === "name" || by === undefined) pairing.flowsByEnds();
  return pairing.pairs;
}

/** An element of one side whose counterpart has another partner already: one that became several, or several that became one. */
export interface Besides {
  readonly id: Id;
  /** The elements of the other side that it comes from, or went into. */
  readonly of: readonly Id[];
}

/**
 * What counterpart links say beyond the pairs: elements of `to` that were split off from paired ones, and elements of `from` that
 * were merged into paired ones. O(elements).
 */
export function splitAndMerged(
  from: Model,
  to: Model,
  pairs: ReadonlyMap<Id, Id>,
): { readonly split: readonly Besides[]; readonly merged: readonly Besides[] } {
  const paired = new Set(pairs.values());
  const split: Besides[] = [];
  const into = new Map<Id, Id[]>();
  for (const element of to.elements) {
    if (!isCompared(element)) continue;
    const known = counterpartsOf(element).filter((id) => from.elements.has(id));
    if (!paired.has(element.id) && known.some((id) => pairs.has(id)))
      split.push({ id: element.id, of: known.filter((id) => pairs.has(id)) });
    for (const id of known) if (!pairs.has(id)) into.set(id, [...(into.get(id) ?? []), element.id]);
  }
  return { split, merged: [...into].map(([id, of]) => ({ id, of })) };
}

/** Links by element; first those of elements that have their own original, before one that it was merged with takes it. */
function linksOf(elements: readonly Element[]): (readonly [id: Id, links: readonly Id[]])[] {
  const linked = elements.flatMap((element) => {
    const links = element.extension ? counterpartsOf(element) : [];
    return links.length > 0 ? [[element.id, links] as const] : [];
  });
  const [own, others] = [
    linked.filter(([id, links]) => links.includes(id)),
    linked.filter(([id, links]) => !links.includes(id)),
  ];
  return [...own, ...others];
}

class Pairing {
  readonly pairs = new Map<Id, Id>();
  readonly #taken = new Set<Id>();
  readonly #before: readonly Element[];
  readonly #after: readonly Element[];

  constructor(
    readonly from: Model,
    readonly to: Model,
  ) {
    this.#before = [...from.elements].filter(isCompared);
    this.#after = [...to.elements].filter(isCompared);
  }

  #pair(a: Id, b: Id): void {
    if (this.pairs.has(a) || this.#taken.has(b)) return;
    this.pairs.set(a, b);
    this.#taken.add(b);
  }

  /** By links in either direction; then by links that both have to the same third, as two copies of one original have. */
  byCounterpart(): void {
    const before = new Set(this.#before.map((element) => element.id));
    const after = new Set(this.#after.map((element) => element.id));
    const [mine, theirs] = [linksOf(this.#before), linksOf(this.#after)];
    for (const [id, links] of theirs) for (const link of links) if (before.has(link)) this.#pair(link, id);
    for (const [id, links] of mine) for (const link of links) if (after.has(link)) this.#pair(id, link);
    const byThird = new Map<Id, Id>();
    for (const [id, links] of mine) for (const link of links) if (!byThird.has(link)) byThird.set(link, id);
    for (const [id, links] of theirs)
      for (const link of links) {
        const other = byThird.get(link);
        if (other !== undefined) this.#pair(other, id);
      }
  }

  byId({ unlessDenied = false } = {}): void {
    const known = new Map(this.#before.map((element) => [element.id, element]));
    for (const element of this.#after) {
      const other = known.get(element.id);
      if (!other || (unlessDenied && [element, other].some(isWithoutCounterpart))) continue;
      this.#pair(element.id, element.id);
    }
  }

  /** What is called the same and is the same sort of thing; a second one of a name with the second of the other side. */
  bySameName(): void {
    const key = (model: Model, element: Element) =>
      `${familyOfCompared(element)}\n${nameOf(model, element.id).toLowerCase()}`;
    const waiting = new Map<string, Id[]>();
    const named = (model: Model, element: Element) =>
      !isFlow(element.type) && nameOf(model, element.id) !== "" && !isWithoutCounterpart(element);
    for (const element of this.#before)
      if (!this.pairs.has(element.id) && named(this.from, element)) {
        const list = waiting.get(key(this.from, element));
        if (list) list.push(element.id);
        else waiting.set(key(this.from, element), [element.id]);
      }
    for (const element of this.#after) {
      if (this.#taken.has(element.id) || !named(this.to, element)) continue;
      const other = waiting.get(key(this.to, element))?.shift();
      if (other !== undefined) this.#pair(other, element.id);
    }
  }

  bySimilarName(): void {
    for (const [a, b] of pairsByName(this.from, this.to)) this.#pair(a, b);
  }

  /** Most flows have no name: they are the ways between things. */
  flowsByEnds(): void {
    const key = (element: Element, source: unknown, target: unknown) => `${element.type}\n${source}\n${target}`;
    const waiting = new Map<string, Id[]>();
    for (const element of this.#after) {
      if (this.#taken.has(element.id) || !isFlow(element.type)) continue;
      const at = key(element, element.sourceRef, element.targetRef);
      waiting.set(at, [...(waiting.get(at) ?? []), element.id]);
    }
    for (const element of this.#before) {
      if (this.pairs.has(element.id) || !isFlow(element.type)) continue;
      const [source, target] = [this.pairs.get(String(element.sourceRef)), this.pairs.get(String(element.targetRef))];
      if (source === undefined || target === undefined) continue;
      const list = waiting.get(key(element, source, target)) ?? [];
      // Of several ways out of a decision, the one with the same answer.
      const same = list.findIndex((id) => nameOf(this.to, id) === nameOf(this.from, element.id));
      const [other] = list.splice(Math.max(0, same), 1);
      if (other !== undefined) this.#pair(element.id, other);
    }
  }
}
