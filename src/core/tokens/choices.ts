import { type CaseData, holds } from "../feel";
import { type Element, type Id, type Model, outgoingOf } from "../model";
import type { Act } from "./acts";

/** What a case is told to do where it could do several things. All of it by the ids of the model, so that it can be kept. */
export interface WalkChoices {
  /** The start event it begins with; the first of the process where none is named. */
  readonly start?: Id;
  /** By gateway or activity: the flows to take at its first visit, its second, and so on; the last stays. */
  readonly choose?: ReadonlyMap<Id, readonly (readonly Id[])[]>;
  /** By repeated activity: how often it is done, or for how many, at its first visit and so on. */
  readonly times?: ReadonlyMap<Id, readonly number[]>;
  /** Events at edges and event sub-processes (or their start events) that go off, each once. */
  readonly fire?: readonly FireChoice[];
  /** Data of the case: conditions in FEEL that it decides need no choice. */
  readonly data?: CaseData;
  /** Steps after which it is stopped. */
  readonly bound?: number;
}

export interface FireChoice {
  readonly element: Id;
  /** When: right after an element was entered for the n-th time. As soon as it can, where nothing is said. */
  readonly after?: { readonly element: Id; readonly times: number };
}

/** The last entry of a list of visits stays for all later ones. */
export const forVisit = <Entry>(list: readonly Entry[] | undefined, visit: number): Entry | undefined =>
  list?.[Math.min(visit, list.length - 1)];

/** Flows of a node that get a token in every case: those of a step that have no condition and are not its default. */
export function alwaysTaken(model: Model, node: Element): Id[] {
  if (node.type.endsWith("Gateway")) return [];
  const outs = outgoingOf(model, node.id);
  if (!outs.some((flow) => flow.conditionExpression !== undefined && flow.id !== node.default)) return [];
  return outs
    .filter((flow) => flow.conditionExpression === undefined && flow.id !== node.default)
    .map((flow) => flow.id);
}

/** The one of some alternatives that gives tokens to exactly these flows, and to those that always get one. */
export function actTaking(model: Model, node: Element, acts: readonly Act[], flows: readonly Id[]): Act | undefined {
  const set = new Set([...flows, ...alwaysTaken(model, node)]);
  return acts.find((act) => act.flows.length === set.size && act.flows.every((flow) => set.has(flow)));
}

/**
 * The flows that data decides for: at an exclusive gateway the first whose condition holds, elsewhere all of them, and the default
 * where none does (BPMN 2.0, 13.3.2, 13.3.3; 13.2 for conditional flows of activities).
 * @returns undefined where the data leaves it open; none at a gateway where no condition holds and there is no default, which the
 * standard calls a runtime exception
 */
export function flowsByData(model: Model, node: Element, data: CaseData): Id[] | undefined {
  const isChoice = node.type === "exclusiveGateway" || node.type === "inclusiveGateway";
  if (node.type.endsWith("Gateway") && !isChoice) return undefined;
  const taken: Id[] = [];
  for (const flow of outgoingOf(model, node.id)) {
    if (flow.id === node.default) continue;
    const condition = flow.conditionExpression as { readonly text: string } | undefined;
    if (!condition) {
      if (isChoice) return undefined;
      continue;
    }
    const answer = holds(condition.text, data);
    if (answer === undefined) return undefined;
    if (answer && node.type === "exclusiveGateway") return [flow.id];
    if (answer) taken.push(flow.id);
  }
  if (taken.length > 0) return taken;
  if (typeof node.default === "string") return [node.default];
  return isChoice ? [] : undefined;
}

/** Whether data keeps a case from going on at a gateway: none of its conditions holds, and it has no default. */
export const isBarred = (model: Model, node: Element, data: CaseData | undefined): boolean =>
  data !== undefined && flowsByData(model, node, data)?.length === 0;
