import { childrenOf, type Element, type Id, isActivity, laneOf, type Model, nameOf } from "../model";

/** An operation of a candidate service, with the activity it comes from. */
export interface CandidateOperation {
  readonly name: string;
  readonly from: Id;
}

/** A service that could be built, derived from a lane and its activities. */
export interface Candidate {
  readonly name: string;
  readonly from: Id;
  readonly operations: readonly CandidateOperation[];
}

const called = (model: Model, id: Id) => nameOf(model, id) || id;

/** The activities inside something, in the order of the model, those of its sub-processes behind each. */
function activitiesIn(model: Model, scope: Id): Element[] {
  return childrenOf(model, scope, "flowElements")
    .filter(({ type }) => isActivity(type))
    .flatMap((activity) => [activity, ...activitiesIn(model, activity.id)]);
}

/**
 * The candidate services of a model: one for each lane that has activities itself, with an operation for each of them, also of those
 * inside its sub-processes. Source of the terms: SoaML 1.0 (capability, service interface, operation). O(elements x nesting).
 */
export function candidatesOf(model: Model): Candidate[] {
  const byLane = new Map<Id, Element[]>();
  const lanes: Element[] = [];
  const visit = (scope: Id): void => {
    for (const child of childrenOf(model, scope)) {
      if (child.type === "lane") lanes.push(child);
      if (isActivity(child.type))
        for (const lane of lanesAround(model, child)) byLane.set(lane, [...(byLane.get(lane) ?? []), child]);
      visit(child.id);
    }
  };
  visit(model.root);
  return lanes
    .filter(({ id }) => byLane.has(id))
    .map((lane) => ({
      name: called(model, lane.id),
      from: lane.id,
      operations: (byLane.get(lane.id) ?? []).map(({ id }) => ({ name: called(model, id), from: id })),
    }));
}

/** The lane an activity stands in, and those its sub-processes stand in, where they are others. */
function lanesAround(model: Model, activity: Element): Set<Id> {
  const lanes = new Set<Id>();
  for (let at: Element | undefined = activity; at && isActivity(at.type); at = model.elements.get(at.parent ?? "")) {
    const lane = laneOf(model, at.id);
    if (lane) lanes.add(lane.id);
  }
  return lanes;
}

/** The candidate a single activity, sub-process or process makes, named as it. */
export function candidateFrom(model: Model, id: Id): Candidate | undefined {
  const element = model.elements.get(id);
  if (!element) return undefined;
  if (element.type === "lane") return candidatesOf(model).find(({ from }) => from === id);
  const inside = activitiesIn(model, id);
  const activities = isActivity(element.type) && inside.length === 0 ? [element] : inside;
  if (activities.length === 0) return undefined;
  return {
    name: called(model, id),
    from: id,
    operations: activities.map((activity) => ({ name: called(model, activity.id), from: activity.id })),
  };
}
