import { type Element, isActivity, isDataNode, isEvent, isFlowNode, isGateway } from "../model";

/** What a comparison is about; everything else of a model is seen through these. */
export function isCompared(element: Element): boolean {
  return (
    isFlowNode(element.type) ||
    ["sequenceFlow", "messageFlow", "participant", "lane", "dataStore", "property"].includes(element.type) ||
    (isDataNode(element.type) && element.type !== "dataInput" && element.type !== "dataOutput")
  );
}

export const isFlow = (type: string): boolean => type === "sequenceFlow" || type === "messageFlow";

/** Elements of one family can stand for one another: a step stays a step, whoever or whatever does it. */
export function familyOfCompared({ type }: { readonly type: string }): string {
  if (isActivity(type)) return "activity";
  if (isGateway(type)) return "gateway";
  if (type === "startEvent" || type === "endEvent") return type;
  return isEvent(type) ? "event" : type;
}
