import type { StepRow } from "../capture";
import { type Element, type Id, type Model, nameOf } from "../model";

/**
 * Reads a step sheet as a person would, by its rules alone (see `StepRow`), and tells the sequence flows it speaks of as
 * "source>target", sorted. Of the model it only asks what is an end event.
 */
export function flowsRead(model: Model, rows: readonly StepRow[]): string[] {
  const flows: string[] = [];
  let at = 0;

  /** The rows of one depth, as far as they go. Gives the steps from which they lead on to whatever comes after them. */
  const readColumn = (depth: number, scope: Id, from: Id | undefined): Id[] => {
    let sources: Id[] = from === undefined ? [] : [from];
    for (let row = rows[at]; row && row.depth >= depth && row.scope === scope; row = rows[at]) {
      if (row.depth > depth) throw new Error(`Row ${row.id} stands too deep.`);
      switch (row.kind) {
        case "step":
          at++;
          if (row.lead === "flow") for (const source of sources) flows.push(`${source}>${row.element}`);
          else if (sources.length > 0) throw new Error(`Row ${row.id} begins while ${sources} still leads on.`);
          readInside(row.element, depth + 1);
          readEdges(depth + 1, scope);
          sources = model.elements.get(row.element)?.type === "endEvent" ? [] : [row.element];
          break;
        case "path":
          sources = readPaths(row.of, depth, scope);
          break;
        case "jump":
          at++;
          for (const source of sources) flows.push(`${source}>${row.to}`);
          sources = [];
          break;
        case "stop":
          at++;
          sources = [];
      }
    }
    return sources;
  };
  const readPaths = (of: Id, depth: number, scope: Id): Id[] => {
    const open: Id[] = [];
    for (let row = rows[at]; row?.kind === "path" && row.of === of; row = rows[at]) {
      at++;
      if (row.isMain) {
        if (open.length > 0) throw new Error(`Paths of ${of} lead on beside the main one.`);
        return [of];
      }
      open.push(...readColumn(depth + 1, scope, of));
    }
    return open;
  };
  const readInside = (scope: Id, depth: number) => {
    if (rows[at]?.scope === scope) readColumn(depth, scope, undefined);
  };
  const readEdges = (depth: number, scope: Id) => {
    const row = rows[at];
    if (row?.kind !== "step" || row.lead !== "edge" || row.depth !== depth) return;
    if (readColumn(depth, scope, undefined).length > 0) throw new Error(`The path at ${row.id} leads nowhere.`);
  };
  const [first] = rows;
  if (first) readColumn(0, first.scope, undefined);
  if (at < rows.length) throw new Error(`Row ${rows[at]?.id} is not reached by reading.`);
  return flows.sort();
}

/** The sheet as text, indented: for golden tests. */
export function sheetText(model: Model, rows: readonly StepRow[]): string {
  const called = (id: Id) => nameOf(model, id) || (model.elements.get(id) as Element).type;
  const words = (row: StepRow): string => {
    switch (row.kind) {
      case "step":
        return `${row.number || "-"} ${called(row.element)}${row.lead === "edge" ? " [edge]" : ""}`;
      case "path":
        return `> ${nameOf(model, row.flow) || "(no answer)"}${row.isMain ? " [main]" : ""}`;
      case "jump":
        return `${row.isBack ? "back to" : "on to"} ${called(row.to)}`;
      case "stop":
        return "stop";
    }
  };
  return rows.map((row) => "   ".repeat(row.depth) + words(row)).join("\n");
}
