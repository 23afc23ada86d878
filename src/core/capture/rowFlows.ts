import { type Element, type Id, incomingOf, type Model, outgoingOf } from "../model";
import type { StepRow } from "./stepRow";

/** The flow by which the sheet comes to a step's row from above; undefined where it begins there. */
export function flowInto(model: Model, rows: readonly StepRow[], at: number): Element | undefined {
  const row = rows[at];
  if (row?.kind !== "step" || row.lead !== "flow") return undefined;
  const incoming = incomingOf(model, row.element);
  const above = rows[at - 1];
  if (above?.kind === "path") return incoming.find((flow) => flow.id === above.flow) ?? incoming[0];
  const elsewhere = new Set(rows.flatMap((other) => (other.kind === "jump" ? [other.flow] : [])));
  const shown = incoming.filter((flow) => !elsewhere.has(flow.id));
  for (let before = at - 1; before >= 0; before--) {
    const other = rows[before] as StepRow;
    if (other.kind !== "step") continue;
    const flow = shown.find((candidate) => candidate.sourceRef === other.element);
    if (flow) return flow;
  }
  return shown[0] ?? incoming[0];
}

/** The flow a new step behind a row is put on; undefined where nothing follows yet. */
export function flowBehind(model: Model, rows: readonly StepRow[], at: number): Element | undefined {
  const row = rows[at];
  switch (row?.kind) {
    case "path":
    case "jump":
      return model.elements.get(row.flow);
    case "step": {
      if (model.elements.get(row.element)?.type === "endEvent") return flowInto(model, rows, at);
      const flows = outgoingOf(model, row.element);
      const main = rows.find((other) => other.kind === "path" && other.of === row.element && other.isMain);
      return (main?.kind === "path" ? flows.find((flow) => flow.id === main.flow) : undefined) ?? flows[0];
    }
    default:
      return undefined;
  }
}

/** The step a row is about, or stands behind. */
export function stepOf(model: Model, row: StepRow): Id {
  switch (row.kind) {
    case "step":
    case "stop":
      return row.element;
    case "path":
      return row.of;
    case "jump":
      return model.elements.get(row.flow)?.sourceRef as Id;
  }
}
