import { z } from "zod";
import { say } from "../../messages";
import {
  boundaryEventsOf,
  brokenRules,
  called,
  childrenOf,
  connectionsOf,
  type Element,
  familyOf,
  isFlowNode,
  isSubProcess,
  termFor,
} from "../../model";
import { usualSize } from "../arrange/lineUp";
import { changeType, retype } from "../details/properties";
import { type Change, Refusal, refuse } from "../kernel/change";
import { canHoldBoundaryEvents, fieldsOf, kindSchema } from "../kinds/kinds";

const id = z.string().min(1).max(200);

export const replaceSchema = z.object({ type: z.literal("replace"), diagram: id, id, kind: kindSchema });

/**
 * Makes a step, event or gateway another kind, of whatever family. Name, flows, counterpart and every property that the new type
 * has too are kept; where the standard does not let its flows lead to or from the new type, it is refused.
 */
export function replace(change: Change, { diagram, id: elementId, kind }: z.infer<typeof replaceSchema>): void {
  const element = change.element(elementId);
  const words = called(change.model, element);
  if (!isFlowNode(element.type) || !isFlowNode(kind.type) || [element.type, kind.type].includes("boundaryEvent"))
    if (!familyOf(element.type).includes(kind.type))
      refuse("other-family", say`${words} is a ${termFor(element.type)} and cannot become a ${termFor(kind.type)}.`, [
        elementId,
      ]);
  const content = childrenOf(change.model, elementId, "flowElements");
  if (content.length > 0 && !isSubProcess(kind.type))
    refuse("has-content", say`${words} has steps inside; dissolve it, or take them out first.`, [elementId]);
  if (element.type !== kind.type) changeType(change, element, kind.type);
  const kept = {
    triggeredByEvent: undefined,
    instantiate: undefined,
    eventGatewayType: undefined,
    isInterrupting: undefined,
    cancelActivity: undefined,
  };
  for (const [field, value] of Object.entries({ ...kept, ...fieldsOf(kind) }))
    change.set("elements", elementId, field, value);
  retype(change, { type: "retype", id: elementId, to: kind.type, trigger: kind.trigger ?? "none" });
  refuseBrokenFlows(change, change.element(elementId));
  if (!sameFamilySize(element, kind.type)) usualSize(change, diagram, change.element(elementId));
}

const sameFamilySize = (element: Element, to: string) => familyOf(element.type).includes(to as Element["type"]);

function refuseBrokenFlows(change: Change, element: Element): void {
  const [event] = boundaryEventsOf(change.model, element.id);
  if (event && !canHoldBoundaryEvents(element))
    refuse(
      "boundary-host",
      say`${called(change.model, event)} is attached to it, and only activities have events at their edge.`,
      [event.id],
    );
  for (const flow of connectionsOf(change.model, element.id)) {
    if (flow.type !== "sequenceFlow" && flow.type !== "messageFlow") continue;
    const source = change.model.elements.get(String(flow.sourceRef));
    const target = change.model.elements.get(String(flow.targetRef));
    const problems = source && target ? brokenRules(change.model, flow.type, source, target) : [];
    if (problems.length > 0) throw new Refusal(problems);
  }
}
