import { say } from "../../messages";
import {
  called,
  type Element,
  flowNodesIn,
  incomingOf,
  isGateway,
  isScope,
  type Model,
  nameOf,
  outgoingOf,
  shapesOf,
  triggerOf,
  wordFor,
} from "../../model";
import { type Repair, type Rule, saidOf } from "../finding";

export function needsWayOut(model: Model, node: Element): boolean {
  if (node.type === "endEvent" || node.triggeredByEvent === true || node.isForCompensation === true) return false;
  const trigger = node.type.endsWith("Event") ? triggerOf(model, node) : "none";
  if (node.type === "intermediateThrowEvent" && trigger === "linkEventDefinition") return false;
  return !(node.type === "boundaryEvent" && trigger === "compensateEventDefinition");
}

/** A gateway with one way in and then one out would neither split nor join. */
export const canLeadOn = (model: Model, node: Element) =>
  !isGateway(node.type) || incomingOf(model, node.id).length > 1;

/** It is led to the one end there is, or gets an end of its own, which has a name where there are others. */
function repairsOf(model: Model, node: Element, ends: readonly Element[]): readonly Repair[] {
  const diagram = shapesOf(model, node.id)[0]?.diagram;
  if (diagram === undefined || !canLeadOn(model, node)) return [];
  const [only, ...more] = ends;
  const isNear = only !== undefined && more.length === 0 && shapesOf(model, only.id)[0]?.diagram === diagram;
  const repairs: Repair[] = [];
  if (isNear)
    repairs.push({
      label: say`Lead it to ${called(model, only)}`,
      commands: [{ type: "connect", diagram, id: `${node.id}.to-end`, source: node.id, target: only.id }],
    });
  // A second end beside one without a name would make both hard to tell apart.
  if (!isNear || nameOf(model, only.id))
    repairs.push({
      label: say`Add an end event behind it`,
      commands: [
        {
          type: "append",
          diagram,
          from: node.id,
          id: `${node.id}.end`,
          flow: `${node.id}.to-end`,
          kind: { type: "endEvent" },
          ...(ends.length > 0 && { name: `Done: ${nameOf(model, node.id) || wordFor(node.type)}` }),
        },
      ],
    });
  return repairs;
}

export const noWayOut: Rule = {
  id: "no-way-out",
  group: "completeness",
  severity: "warning",
  wants: say`Every step but an end event leads on.`,
  find: (model) =>
    [...model.elements].flatMap((scope) => {
      if (!isScope(scope.type) || scope.type === "adHocSubProcess") return [];
      const nodes = flowNodesIn(model, scope.id);
      if (!nodes.some((node) => node.type === "endEvent" || node.type === "startEvent")) return [];
      return nodes
        .filter((node) => needsWayOut(model, node) && outgoingOf(model, node.id).length === 0)
        .map((node) => ({
          elements: [node.id],
          message: say`${saidOf(model, node)} leads nowhere. It counts as an end, but readers cannot tell whether one was meant. Connect it to the next step, or end it with an end event.`,
          repairs: repairsOf(
            model,
            node,
            nodes.filter((one) => one.type === "endEvent"),
          ),
        }));
    }),
};
