import {
  childrenOf,
  counterpartsOf,
  derivedId,
  type Element,
  figureId,
  type Id,
  type Model,
  nameOf,
  Table,
  typeInfo,
  withCounterparts,
} from "../model";
import { isCompared } from "./compared";

/** A model told in the ids of another, and where each of its elements is now. */
export interface SameIds {
  readonly model: Model;
  /** From the model's own ids to those of the other. */
  readonly ids: ReadonlyMap<Id, Id>;
}

/**
 * A model in the ids of another: what the two have in common goes by the other's ids, what only this one has keeps its own, or gets a
 * free one where the other uses it for something else. Links between the two are left as the other has them. O(elements of both).
 * @param pairs from the other model's compared elements to this one's
 */
export function inIdsOf(other: Model, model: Model, pairs: ReadonlyMap<Id, Id>): SameIds {
  const back = new Map([...pairs].map(([a, b]) => [b, a]));
  const ids = new Map<Id, Id>(back);
  ids.set(model.root, other.root);
  pairContainers(other, model, ids);
  const used = new Set(ids.values());
  const isTaken = (id: Id) =>
    used.has(id) || other.elements.has(id) || other.shapes.has(id) || other.edges.has(id) || other.diagrams.has(id);
  const settle = (map: Map<Id, Id>, id: Id) => {
    if (map.has(id)) return;
    const free = isTaken(id) ? derivedId(isTaken, id, "other") : id;
    map.set(id, free);
    used.add(free);
  };
  for (const element of model.elements) settle(ids, element.id);
  const linked = [...pairs].some(([a, b]) => {
    const element = other.elements.get(a);
    return element !== undefined && counterpartsOf(element).includes(b);
  });
  const elements = new Map<Id, Element>();
  for (const element of model.elements) {
    const id = ids.get(element.id) as Id;
    elements.set(id, linkedAs(other, renamed(element, ids), linked ? element.id : undefined));
  }
  const drawn = redrawn(other, model, ids, settle);
  return { model: { ...model, root: other.root, ...drawn, elements: Table.from(elements) }, ids };
}

/** What holds the compared elements, and what is inside of them: by place and sort, top down. */
function pairContainers(other: Model, model: Model, ids: Map<Id, Id>): void {
  const taken = new Set(ids.values());
  const pair = (mine: Element, theirs: Element | undefined) => {
    if (!theirs || ids.has(mine.id) || taken.has(theirs.id)) return;
    ids.set(mine.id, theirs.id);
    taken.add(theirs.id);
  };
  const processOfPool = (side: Model, process: Id) =>
    [...side.elements].find((element) => element.type === "participant" && element.processRef === process);
  const queue: Id[] = [model.root];
  for (let at = queue.shift(); at !== undefined; at = queue.shift()) {
    const here = childrenOf(model, at);
    const there = childrenOf(other, ids.get(at) ?? "");
    for (const element of here) {
      if (isCompared(element)) {
        if (ids.has(element.id)) queue.push(element.id);
        continue;
      }
      const alike = there.filter((one) => one.type === element.type && one.slot === element.slot && !taken.has(one.id));
      const pool = element.type === "process" ? processOfPool(model, element.id) : undefined;
      const byPool = pool && other.elements.get(String(other.elements.get(ids.get(pool.id) ?? "")?.processRef));
      const sameId = alike.find((one) => one.id === element.id);
      const sameName = nameOf(model, element.id)
        ? alike.find((one) => nameOf(other, one.id) === nameOf(model, element.id))
        : undefined;
      // What is used by name, such as messages and roles, is another thing if it is called otherwise.
      const byPlace = at === model.root && !["process", "collaboration"].includes(element.type) ? undefined : alike[0];
      pair(element, byPool ?? sameId ?? sameName ?? byPlace);
      if (ids.has(element.id)) queue.push(element.id);
    }
  }
}

function renamed(element: Element, ids: ReadonlyMap<Id, Id>): Element {
  const next: { [field: string]: unknown } = { ...element, id: ids.get(element.id) };
  if (element.parent !== null) next.parent = ids.get(element.parent) ?? element.parent;
  for (const { field, many } of typeInfo(element.type).references) {
    const value = element[field];
    if (value === undefined) continue;
    const now = (id: Id) => ids.get(id) ?? id;
    next[field] = many ? (value as readonly Id[]).map(now) : now(value as Id);
  }
  return next as Element;
}

/** Links to counterparts are those of the element the other model has; what it does not have is linked if the others are. */
function linkedAs(other: Model, element: Element, original: Id | undefined): Element {
  const theirs = other.elements.get(element.id);
  const links = theirs ? counterpartsOf(theirs) : original !== undefined && isCompared(element) ? [original] : [];
  const extension = withCounterparts(element, links.length > 0 ? links : null);
  const { extension: _, ...rest } = element;
  return (extension ? { ...rest, extension } : rest) as Element;
}

function redrawn(
  other: Model,
  model: Model,
  ids: ReadonlyMap<Id, Id>,
  settle: (map: Map<Id, Id>, id: Id) => void,
): Pick<Model, "diagrams" | "shapes" | "edges" | "figures"> {
  const pageOf = new Map([...other.diagrams].map((diagram) => [diagram.element ?? "", diagram.id]));
  const pages = new Map<Id, Id>();
  for (const diagram of model.diagrams) {
    const same = pageOf.get(ids.get(diagram.element ?? "") ?? "");
    if (same !== undefined) pages.set(diagram.id, same);
  }
  // Models of one process that draw different planes (a process, and a pool around it) still have their first page in common.
  const first = (side: Model) => [...side.diagrams].sort((a, b) => a.order - b.order)[0]?.id;
  const [mine, theirs] = [first(model), first(other)];
  if (mine !== undefined && theirs !== undefined && !pages.has(mine) && ![...pages.values()].includes(theirs))
    pages.set(mine, theirs);
  for (const diagram of model.diagrams) settle(pages, diagram.id);
  const place = (drawn: { readonly diagram: Id; readonly element: Id }) =>
    `${pages.get(drawn.diagram) ?? drawn.diagram} ${ids.get(drawn.element) ?? drawn.element}`;
  const table = <Drawn extends { readonly id: Id; readonly diagram: Id; readonly element: Id }>(
    own: Iterable<Drawn>,
    others: Iterable<Drawn>,
  ) => {
    const known = new Map([...others].map((drawn) => [`${drawn.diagram} ${drawn.element}`, drawn.id]));
    const map = new Map<Id, Id>();
    const found = new Map<Id, Drawn>();
    for (const drawn of own) {
      const same = known.get(place(drawn));
      if (same !== undefined) map.set(drawn.id, same);
      else settle(map, drawn.id);
      const id = map.get(drawn.id) as Id;
      found.set(id, {
        ...drawn,
        id,
        diagram: pages.get(drawn.diagram) ?? drawn.diagram,
        element: ids.get(drawn.element) ?? drawn.element,
      });
    }
    return Table.from<Drawn>(found);
  };
  const diagrams = new Map(
    [...model.diagrams].map((diagram) => {
      const id = pages.get(diagram.id) as Id;
      const element = diagram.element === undefined ? undefined : (ids.get(diagram.element) ?? diagram.element);
      return [id, { ...diagram, id, ...(element !== undefined && { element }) }] as const;
    }),
  );
  return {
    diagrams: Table.from(diagrams),
    shapes: table(model.shapes, other.shapes),
    edges: table(model.edges, other.edges),
    figures: Table.from(
      [...model.figures].map((figure) => {
        const element = ids.get(figure.element) ?? figure.element;
        const id = figureId(element, figure.field);
        return [id, { ...figure, id, element }] as const;
      }),
    ),
  };
}
