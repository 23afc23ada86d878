import { entryUses } from "../directory";
import {
  type Element,
  eventDefinitionTypes,
  type Id,
  isEvent,
  type Model,
  nameOf,
  processOf,
  triggerOf,
} from "../model";
import { writeTable } from "../table";
import { cellsOf } from "./cells";
import type { StepRow } from "./stepRow";
import { stepSheetOf } from "./stepSheet";

/** The headings of a sheet in a file; see docs/step-sheet.md. */
export const sheetHeadings = ["No", "Level", "Kind", "Step", "By", "Uses", "Needs", "Gives", "Guidance"] as const;
/** Further columns, where any step has an estimate. */
const estimateHeadings = ["Time", "Cost"] as const;

const several = (names: readonly string[]) => names.map((name) => name.replace(/([\\;])/g, "\\$1")).join("; ");

/**
 * A process as a table in a file. Every step has a number there, since a path may lead to any; those that have none in the sheet
 * are numbered with a star.
 */
export function writeSheet(model: Model, process: Id): string {
  const rows = stepSheetOf(model, process);
  const numbers = fileNumbers(rows);
  const name = nameOf(model, process);
  const lines = rows.map((row) => lineOf(model, row, numbers));
  const estimates = rows.map((row) => {
    const cells = row.kind === "step" ? cellsOf(model, row.element) : undefined;
    return [cells?.time ?? "", cells?.cost ?? ""];
  });
  const table = [
    [...sheetHeadings],
    ["", "0", "process", name, "", "", "", "", model.elements.get(process)?.documentation?.[0]?.text.trim() ?? ""],
    ...lines,
  ];
  if (estimates.every(([time, cost]) => time === "" && cost === "")) return writeTable(table);
  const further = [[...estimateHeadings], ["", ""], ...estimates];
  return writeTable(table.map((line, at) => [...line, ...(further[at] as string[])]));
}

function fileNumbers(rows: readonly StepRow[]): ReadonlyMap<Id, string> {
  const numbers = new Map<Id, string>();
  let unnumbered = 0;
  for (const row of rows) if (row.kind === "step") numbers.set(row.element, row.number || `*${++unnumbered}`);
  return numbers;
}

function lineOf(model: Model, row: StepRow, numbers: ReadonlyMap<Id, string>): string[] {
  const level = String(row.depth);
  switch (row.kind) {
    case "path": {
      const isDefault = model.elements.get(row.of)?.default === row.flow;
      return [
        "",
        level,
        `${row.isMain ? "main path" : "path"}${isDefault ? ", default" : ""}`,
        nameOf(model, row.flow),
        "",
        "",
        "",
        "",
        "",
      ];
    }
    case "jump":
      return ["", level, "continues at", numbers.get(row.to) ?? "", "", "", "", "", ""];
    case "stop":
      return ["", level, "stops", "", "", "", "", "", ""];
    case "step": {
      const cells = cellsOf(model, row.element);
      const element = model.elements.get(row.element);
      const kind = element ? kindWords(model, element) : "";
      return [
        numbers.get(row.element) ?? "",
        level,
        kind,
        cells.name,
        several(cells.by.map((role) => role.name)),
        several(cells.uses.map((used) => `${used.name}${used.use === "writes" ? "" : ` (${used.use})`}`)),
        several(cells.needs.map((use) => use.name)),
        several(cells.gives.map((use) => use.name)),
        cells.guidance.trim(),
      ];
    }
  }
}

/** The standard's own words: the type, then what triggers it, then what makes it a kind of its own. */
function kindWords(model: Model, element: Element): string {
  const trigger = isEvent(element.type) ? triggerOf(model, element) : "none";
  const isDefined = (eventDefinitionTypes as readonly string[]).includes(trigger);
  return [
    element.type,
    ...(isDefined ? [trigger] : []),
    ...(element.cancelActivity === false ? ["non-interrupting"] : []),
    ...(element.triggeredByEvent === true ? ["event"] : []),
  ].join(", ");
}

/** What of a model its sheet does not say, in words, for whoever turns one into the other. */
export function notInSheet(model: Model, process: Id): string[] {
  const left: string[] = [];
  const count = (what: string, number: number) => {
    if (number > 0) left.push(`${number} ${what}`);
  };
  const inside = [...model.elements].filter((element) => processOf(model, element.id)?.id === process);
  count("conditions", inside.filter((element) => element.conditionExpression).length);
  count("notes", inside.filter((element) => element.type === "textAnnotation").length);
  count("message flows", [...model.elements].filter((element) => element.type === "messageFlow").length);
  count(
    "roles that are not responsible",
    entryUses(model).filter((use) => ["accountable", "consulted", "informed"].includes(use.how)).length,
  );
  count("further processes", [...model.elements].filter((element) => element.type === "process").length - 1);
  return left;
}
