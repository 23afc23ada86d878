/** Fields under the names that comparisons use. */
export function comparedField(field: string, type: string, isInside: boolean): string {
  if (isInside) return ownField(type) || field;
  switch (field) {
    case "sourceRef":
      return "source";
    case "targetRef":
      return "target";
    case "conditionExpression":
      return "condition";
    case "foreignAttributes":
    case "extension":
    case "extensionAttributes":
      return "extension";
    case "isForCompensation":
    case "triggeredByEvent":
    case "cancelActivity":
    case "isInterrupting":
      return "markers";
    default:
      return field;
  }
}

/** What a part of an element is compared as. */
export function ownField(type: string): string {
  if (type === "timerEventDefinition") return "timer";
  if (type.endsWith("EventDefinition")) return "type";
  if (type.endsWith("LoopCharacteristics")) return "markers";
  if (["resourceRole", "performer", "humanPerformer", "potentialOwner", "resourceAssignmentExpression"].includes(type))
    return "roles";
  if (type.startsWith("data") || type.startsWith("io") || type.endsWith("Set")) return "documents";
  return type;
}
