import { boundaryEventsOf, type Element, type Id, isActivity, triggerOf } from "../model";
import { type CaseState, type Instance, insideOf, loopOf, openInstance, type UnderWay, type World } from "./caseState";
import type { NetNode } from "./scopeNet";
import { afterMove, type Move } from "./scopeState";

/** One thing that happened: a node was entered or left, or its work was undone. */
export interface Happened {
  readonly at: string;
  readonly node: Id;
  readonly event: "entered" | "left" | "undone";
  /** The sequence flows a token went along. */
  readonly flows: readonly Id[];
}

export interface Stepped {
  readonly state: CaseState;
  readonly happened: readonly Happened[];
}

/** A scope after a move of its net: what comes under way is opened, what stops is closed. */
export function moved(world: World, instance: Instance, move: Move, times?: number): Instance {
  const { net, model } = instance;
  const underWay = new Map(move.clears ? [] : instance.underWay);
  const node = net.nodes[move.node] as NetNode;
  const element = model.elements.get(node.id) as Element;
  if (move.stop !== undefined) underWay.delete(move.stop);
  if (move.start !== undefined) {
    const opened = opening(world, instance, move.start, element, times);
    if (opened) underWay.set(move.start, opened);
  }
  const isDone = isActivity(element.type) && move.start === undefined && node.kind !== "called";
  return {
    ...instance,
    state: afterMove(net, instance.state, move),
    underWay,
    finished: isDone && canBeUndone(instance, element) ? [...instance.finished, element.id] : instance.finished,
  };
}

const canBeUndone = ({ model }: Instance, activity: Element) =>
  boundaryEventsOf(model, activity.id).some((event) => triggerOf(model, event) === "compensateEventDefinition");

function opening(
  world: World,
  { key, model }: Instance,
  node: number,
  element: Element,
  wanted: number | undefined,
): UnderWay | undefined {
  const loop = loopOf(model, element.id);
  const inside = insideOf(world, model, element);
  if (!loop && !inside) return undefined;
  const isMulti = loop?.type === "multiInstanceLoopCharacteristics";
  const times = !loop ? 1 : isMulti ? Math.max(1, wanted ?? cardinalityOf(loop) ?? 1) : wanted;
  const atOnce = isMulti && loop.isSequential !== true ? (times ?? 1) : 1;
  const instances = inside
    ? Array.from({ length: atOnce }, (_, number) =>
        openInstance(world, inside.model, inside.scope, `${key}/${node}:${number}`),
      )
    : [];
  return { times, finished: 0, instances };
}

/** How many instances a model itself says there are, where it says a number. */
export function cardinalityOf(loop: Element): number | undefined {
  const text = (loop.loopCardinality as { readonly text: string } | undefined)?.text.trim() ?? "";
  return /^\d{1,3}$/.test(text) ? Number(text) : undefined;
}

/** The next round of a repeated activity. */
export function oneMore(world: World, instance: Instance, node: number): Instance {
  const one = instance.underWay.get(node) as UnderWay;
  const element = instance.model.elements.get(instance.net.nodes[node]?.id as Id) as Element;
  const inside = insideOf(world, instance.model, element);
  const finished = one.finished + 1;
  const instances = inside
    ? [openInstance(world, inside.model, inside.scope, `${instance.key}/${node}:${finished}`)]
    : [];
  return { ...instance, underWay: new Map([...instance.underWay, [node, { ...one, finished, instances }]]) };
}
