import type { Element } from "../model";
import { type Act, expectedFrom } from "./acts";
import { type CaseState, type Instance, instancesOf, type World, withInstance } from "./caseState";
import { type Happened, moved, oneMore, type Stepped } from "./moving";
import { afterMove } from "./scopeState";
import { thrownBy } from "./throwing";

/**
 * A case after one act, with what followed at once: an error caught, a signal heard, a message sent.
 * @param times for an activity with several instances: how many
 * @throws RangeError for an act of a scope that is not under way
 * O(nodes of the scopes touched).
 */
export function step(world: World, state: CaseState, act: Act, times?: number): Stepped {
  const instance = instancesOf(state).find((one) => one.key === act.at);
  if (!instance) throw new RangeError(`There is no scope "${act.at}" under way in this case.`);
  const happened: Happened[] = [
    { at: act.at, node: act.node, event: act.does === "finish" ? "left" : "entered", flows: act.flows },
  ];
  if (act.does === "pick")
    return {
      state: withInstance(state, { ...instance, state: afterMove(instance.net, instance.state, act.move) }),
      happened: [],
    };
  const element = instance.model.elements.get(act.node) as Element;
  if (act.does === "again") return { state: withInstance(state, oneMore(world, instance, act.move.node)), happened };
  let next = withInstance(state, moved(world, instance, act.move, times));
  next = received(world, next, instance, element, act);
  if (act.does !== "begin") {
    const thrown = thrownBy(world, next, act.at, element);
    next = thrown.state;
    happened.push(...thrown.happened);
  }
  return { state: next, happened };
}

/** A message that came is used up where it is received. */
function received(world: World, state: CaseState, instance: Instance, element: Element, act: Act): CaseState {
  if (act.does === "finish" && element.type !== "receiveTask") return state;
  if (act.does === "begin" && element.type === "receiveTask") return state;
  const flow = expectedFrom(world, instance.model, element).find((one) => (state.sent.get(one) ?? 0) > 0);
  if (flow === undefined) return state;
  const left = (state.sent.get(flow) as number) - 1;
  const sent = new Map(state.sent);
  if (left === 0) sent.delete(flow);
  else sent.set(flow, left);
  return { ...state, sent };
}
