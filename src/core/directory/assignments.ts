import {
  childrenOf,
  decidedBy,
  type Element,
  entryOf,
  type Id,
  isActivity,
  laneOf,
  type Model,
  nameOf,
  referrersOf,
  systemsOf,
  type UsedSystem,
} from "../model";

export type RolePart = "responsible" | "accountable" | "consulted" | "informed";
export const roleParts: readonly RolePart[] = ["responsible", "accountable", "consulted", "informed"];

/** A role's part in a step, and whether the step itself says so or the lane it stands in. */
export interface RoleAssignment {
  readonly part: RolePart;
  readonly name: string;
  /** The directory's entry; absent for a resource that only a file knows. */
  readonly entry?: Id;
  readonly from: "step" | "lane";
  /** The element that says so: the resource role, or the lane. */
  readonly element: Id;
}

/**
 * Who does a step. A step's own performers come first; where it has none, the role of its lane is responsible.
 * In the file these are the standard's performers and resource roles (BPMN 2.0, 10.2.1 "Resource Assignment").
 */
export function rolesOf(model: Model, step: Id): RoleAssignment[] {
  const own = childrenOf(model, step, "resourceRoles").map((role): RoleAssignment => {
    const resource = typeof role.resourceRef === "string" ? model.elements.get(role.resourceRef) : undefined;
    const entry = resource && entryOf(resource);
    return {
      part: partOf(role),
      name: resource?.name ?? role.name ?? String(role.resourceRef ?? ""),
      ...(entry && { entry }),
      from: "step",
      element: role.id,
    };
  });
  if (own.some((assignment) => assignment.part === "responsible")) return own;
  const lane = laneOf(model, step);
  const element = model.elements.get(step);
  if (!lane || !element || !isActivity(element.type)) return own;
  const role = roleOfLane(model, lane);
  if (!role) return own;
  return [{ part: "responsible", ...role, from: "lane", element: lane.id }, ...own];
}

/** The role a lane stands for: the resource it is partitioned by, else its name. */
export function roleOfLane(model: Model, lane: Element): { name: string; entry?: Id } | undefined {
  const resource =
    typeof lane.partitionElementRef === "string" ? model.elements.get(lane.partitionElementRef) : undefined;
  if (resource?.type === "resource") {
    const entry = entryOf(resource);
    return { name: resource.name ?? "", ...(entry && { entry }) };
  }
  const name = nameOf(model, lane.id);
  return name ? { name } : undefined;
}

function partOf(role: Element): RolePart {
  const name = role.name?.toLowerCase() as RolePart | undefined;
  if (name && roleParts.includes(name)) return name;
  return role.type === "resourceRole" ? "consulted" : "responsible";
}

export interface DocumentUse {
  readonly direction: "in" | "out";
  readonly name: string;
  readonly entry?: Id;
  readonly association: Id;
  /** The data object's reference as drawn. */
  readonly element: Id;
}

/** Documents a step needs and gives, by its data associations. */
export function documentsOf(model: Model, step: Id): DocumentUse[] {
  return childrenOf(model, step).flatMap((association): DocumentUse[] => {
    const direction =
      association.type === "dataInputAssociation"
        ? "in"
        : association.type === "dataOutputAssociation"
          ? "out"
          : undefined;
    if (!direction) return [];
    const target =
      direction === "in"
        ? (association.sourceRef as readonly Id[] | undefined)?.[0]
        : (association.targetRef as Id | undefined);
    const data = target === undefined ? undefined : model.elements.get(target);
    if (!data) return [];
    const entry = entryOf(data);
    return [
      {
        direction,
        name: nameOf(model, data.id),
        ...(entry && { entry }),
        association: association.id,
        element: data.id,
      },
    ];
  });
}

/** A use of a directory entry in a model: entry, the element that uses it, and how. */
export interface EntryUse {
  readonly entry: Id;
  readonly element: Id;
  readonly how: string;
}

/**
 * Uses of directory entries in a model: all of them, or those that some elements have or give others (a lane's resource, a drawn
 * document's reference). O(sources and what refers to them).
 */
export function entryUses(model: Model, sources: Iterable<Element> = model.elements): EntryUse[] {
  const uses: EntryUse[] = [];
  for (const element of sources) {
    for (const system of systemsOf(element)) uses.push({ entry: system.entry, element: element.id, how: system.use });
    const decided = decidedBy(element);
    if (decided) uses.push({ entry: decided.file, element: element.id, how: `decides by ${decided.name}` });
    const entry = entryOf(element);
    if (entry === undefined) continue;
    if (element.type === "resource") {
      for (const referrer of referrersOf(model, element.id)) {
        if (referrer.type === "lane") uses.push({ entry, element: referrer.id, how: "lane" });
        else if (referrer.parent !== null) uses.push({ entry, element: referrer.parent, how: partOf(referrer) });
      }
    } else if (element.type === "dataObjectReference" || element.type === "dataStoreReference") {
      const links = referrersOf(model, element.id).filter(
        (referrer) => referrer.type.startsWith("data") && referrer.type.endsWith("Association"),
      );
      if (links.length === 0) uses.push({ entry, element: element.id, how: "drawn" });
      for (const link of links) {
        if (link.parent !== null)
          uses.push({ entry, element: link.parent, how: link.type === "dataInputAssociation" ? "needed" : "given" });
      }
    }
  }
  return uses;
}

export type { UsedSystem };
