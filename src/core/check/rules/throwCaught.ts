import { say } from "../../messages";
import { type Element, eventDefinitionsOf, flowNodesIn, isSubProcess, type Model, triggerOf } from "../../model";
import { type Found, type Rule, saidOf } from "../finding";

const words = { errorEventDefinition: "error", escalationEventDefinition: "escalation" } as const;
type Trigger = keyof typeof words;
const isThrown = (trigger: string): trigger is Trigger => Object.hasOwn(words, trigger);
const refOf = (model: Model, event: Element) => {
  const definition = eventDefinitionsOf(model, event.id)[0];
  return definition?.errorRef ?? definition?.escalationRef;
};

/** Whether an event catches what another throws: the same, or everything where it names nothing. */
const catches = (model: Model, catcher: Element, thrower: Element) =>
  triggerOf(model, catcher) === triggerOf(model, thrower) &&
  (refOf(model, catcher) === undefined || refOf(model, catcher) === refOf(model, thrower));

/** Everything inside an activity that throws, at any depth. */
function throwersIn(model: Model, scope: string): Element[] {
  return flowNodesIn(model, scope).flatMap((node) => [
    ...(node.type === "endEvent" || node.type === "intermediateThrowEvent" ? [node] : []),
    ...(isSubProcess(node.type) ? throwersIn(model, node.id) : []),
  ]);
}

/** BPMN 2.0, 10.5.7: an error or escalation is caught by a scope around it, or by nobody. */
export const throwCaught: Rule = {
  id: "throw-without-catch",
  group: "connections",
  severity: "warning",
  wants: say`What is thrown inside a sub-process is caught, and what is caught is thrown.`,
  find: (model) =>
    [...model.elements].flatMap((event): Found[] => {
      const trigger = triggerOf(model, event);
      if (!isThrown(trigger)) return [];
      if (event.type === "boundaryEvent") {
        const host = model.elements.get(String(event.attachedToRef));
        if (!host || !isSubProcess(host.type) || flowNodesIn(model, host.id).length === 0) return [];
        const inside = throwersIn(model, host.id);
        // Tasks and calls inside may fail by themselves; escalations are only ever thrown.
        const mayFail =
          trigger === "errorEventDefinition" &&
          flowNodesIn(model, host.id).some((node) => /Task$|^callActivity$/.test(node.type));
        if (mayFail || inside.some((thrower) => catches(model, event, thrower))) return [];
        return [
          {
            elements: [event.id],
            message: say`${saidOf(model, event)} waits for an ${words[trigger]} that nothing inside ever throws, so what follows it never happens. Throw it inside, or take the event away.`,
          },
        ];
      }
      if (event.type !== "endEvent" && event.type !== "intermediateThrowEvent") return [];
      for (let scope = model.elements.get(event.parent ?? ""); scope; scope = model.elements.get(scope.parent ?? "")) {
        const here = scope;
        if (here.type === "process") break;
        const at = [...model.elements].filter(
          (one) =>
            (one.type === "boundaryEvent" && one.attachedToRef === here.id) ||
            (one.type === "startEvent" &&
              model.elements.get(one.parent ?? "")?.triggeredByEvent === true &&
              model.elements.get(one.parent ?? "")?.parent === here.id),
        );
        if (at.some((catcher) => catches(model, catcher, event))) return [];
        if (here.parent !== null && model.elements.get(here.parent)?.type === "process")
          return [
            {
              elements: [event.id],
              message: say`${saidOf(model, event)} throws an ${words[trigger]} that nobody catches: ${trigger === "errorEventDefinition" ? say`the whole case ends there` : say`it is lost`}. Put an event for it at the edge of the sub-process.`,
            },
          ];
      }
      return [];
    }),
};
