import type { DecisionModel } from "../decisions";
import {
  calledProcessOf,
  callKeyOf,
  childrenOf,
  type Element,
  flowNodesIn,
  type Id,
  isSubProcess,
  type Model,
} from "../model";

/** What a case is played in. */
export interface World {
  readonly model: Model;
  /** What a call activity calls, where that can be entered. */
  readonly calls?: (call: Element) => { readonly model: Model; readonly process: Id } | undefined;
  /** Whether the other pools of the model are played with it, so that their messages come when they are sent. */
  readonly together?: boolean;
  /**
   * Whether it is run and not only looked at: a message also goes by its name to whoever waits for it, one to the start of a process
   * that is under way begins it once more, and one to an event sub-process sets that off.
   */
  readonly isRun?: boolean;
  /** Files of decisions by their ids in the workspace: what business rule tasks decide by. */
  readonly decisions?: ReadonlyMap<Id, DecisionModel>;
}

/** A model with what its calls lead to: processes of its own, and those of other models by the ids they have there. */
export function worldWith(
  model: Model,
  called: ReadonlyMap<Id, Model>,
  together = false,
  decisions: ReadonlyMap<Id, DecisionModel> = new Map(),
): World {
  return {
    model,
    together,
    decisions,
    calls: (call) => {
      const process = String(call.calledElement ?? "");
      const record = calledProcessOf(call);
      const there = called.get(callKeyOf(call)) ?? called.get(process) ?? [];
      // What the call names by its record is not what happens to have the same id here.
      const at = [...(record ? [] : [model]), ...[there].flat(), ...(record ? [model] : [])].find(
        (one) => one.elements.get(process)?.type === "process" && flowNodesIn(one, process).length > 0,
      );
      return at && { model: at, process };
    },
  };
}

/** The model of a world and all those that its calls lead to. */
export function modelsOf(world: World): Model[] {
  const found: Model[] = [world.model];
  for (const model of found)
    for (const element of model.elements) {
      const called = isCall(element) ? world.calls?.(element)?.model : undefined;
      if (called && !found.includes(called)) found.push(called);
    }
  return found;
}

export const isCall = (element: Element) => element.type === "callActivity";

/** The standard loop or the multi-instance of an activity. */
export const loopOf = (model: Model, activity: Id): Element | undefined =>
  childrenOf(model, activity, "loopCharacteristics")[0];

export const isAdHoc = (model: Model, scope: Id) => model.elements.get(scope)?.type === "adHocSubProcess";

/** Whether something can be played inside an activity. */
export function insideOf(
  world: World,
  model: Model,
  activity: Element,
): { readonly model: Model; readonly scope: Id } | undefined {
  if (isSubProcess(activity.type)) {
    return flowNodesIn(model, activity.id).length > 0 ? { model, scope: activity.id } : undefined;
  }
  if (!isCall(activity)) return undefined;
  const called = world.calls?.(activity);
  return called && { model: called.model, scope: called.process };
}
