import type { XmlElement } from "../../model";
import type { Aggregator, HitPolicy } from "../model";
import { textIn } from "./document";
import {
  attributeOf,
  elementIn,
  elementsIn,
  makeElement,
  withAttribute,
  withChild,
  withChildren,
  withWordsIn,
  wordsIn,
} from "./tree";

/** A column of a table: `from` is its number in the table it was read from, so that what a file says besides stays with it. */
interface Column {
  readonly from?: number;
  readonly type: string;
  /** Allowed values, as the tests of a cell; "" for all. */
  readonly allowed: string;
  readonly label: string;
}
export interface InputColumn extends Column {
  readonly expression: string;
}
export interface OutputColumn extends Column {
  readonly name: string;
  /** What is so where no rule matches; "" for nothing. */
  readonly usual: string;
}
export interface NoteColumn {
  readonly from?: number;
  readonly name: string;
}
export interface SheetRule {
  readonly source?: XmlElement;
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly notes: readonly string[];
}

/** A decision table as a sheet of words, a row a rule. */
export interface TableSheet {
  readonly hitPolicy: HitPolicy;
  readonly aggregator: Aggregator | undefined;
  readonly inputs: readonly InputColumn[];
  readonly outputs: readonly OutputColumn[];
  readonly notes: readonly NoteColumn[];
  readonly rules: readonly SheetRule[];
}

const partOrder = ["description", "extensionElements", "input", "output", "annotation", "rule"];
const ruleOrder = ["description", "extensionElements", "inputEntry", "outputEntry", "annotationEntry"];
const clauseOrder = [
  "description",
  "extensionElements",
  "inputExpression",
  "outputValues",
  "inputValues",
  "defaultOutputEntry",
];

/** A table's element as a sheet. O(cells). */
export function sheetOf(table: XmlElement): TableSheet {
  const inputs = elementsIn(table, "input").map((input, from): InputColumn => {
    const expression = elementIn(input, "inputExpression");
    const label = attributeOf(input, "label") ?? "";
    return {
      from,
      label,
      expression: wordsIn(expression) || label,
      type: typeIn(expression),
      allowed: wordsIn(elementIn(input, "inputValues")),
    };
  });
  const outputs = elementsIn(table, "output").map(
    (output, from): OutputColumn => ({
      from,
      label: attributeOf(output, "label") ?? "",
      name: attributeOf(output, "name") ?? "",
      type: typeIn(output),
      allowed: wordsIn(elementIn(output, "outputValues")),
      usual: wordsIn(elementIn(output, "defaultOutputEntry")),
    }),
  );
  const notes = elementsIn(table, "annotation").map(
    (one, from): NoteColumn => ({ from, name: attributeOf(one, "name") ?? "" }),
  );
  const rules = elementsIn(table, "rule").map((source): SheetRule => {
    const cells = (local: string) => elementsIn(source, local).map(wordsIn);
    const [ins, outs, said] = [cells("inputEntry"), cells("outputEntry"), cells("annotationEntry")];
    return {
      source,
      inputs: inputs.map((_, at) => ins[at] || "-"),
      outputs: outputs.map((_, at) => outs[at] ?? ""),
      notes: notes.map((_, at) => said[at] ?? ""),
    };
  });
  const policy = (attributeOf(table, "hitPolicy") ?? "UNIQUE") as HitPolicy;
  return {
    hitPolicy: policy,
    aggregator: policy === "COLLECT" ? (attributeOf(table, "aggregation") as Aggregator | undefined) : undefined,
    inputs,
    outputs,
    notes,
    rules,
  };
}
const typeIn = (element: XmlElement | undefined): string => (element && attributeOf(element, "typeRef")) ?? "";

/** The table's element as a sheet says it. What a sheet does not hold stays; what is as it was is the same element. O(cells). */
export function withSheet(table: XmlElement, sheet: TableSheet, newId: () => string): XmlElement {
  const old = {
    inputs: elementsIn(table, "input"),
    outputs: elementsIn(table, "output"),
    notes: elementsIn(table, "annotation"),
  };
  const made = (local: string) => makeElement(table, local, [["id", newId()]]);
  const inputs = sheet.inputs.map((column) => {
    const before = (column.from === undefined ? undefined : old.inputs[column.from]) ?? made("input");
    const held = elementIn(before, "inputExpression");
    let input = withAttribute(before, "label", column.label || undefined);
    // A heading by itself is the expression, too.
    if (held || column.expression !== column.label || column.type !== "") {
      const words = withWordsIn(held ?? made("inputExpression"), column.expression);
      input = withChildren(
        input,
        "inputExpression",
        [withAttribute(words, "typeRef", column.type || undefined)],
        clauseOrder,
      );
    }
    return withValue(input, "inputValues", column.allowed);
  });
  const outputs = sheet.outputs.map((column) => {
    let output = (column.from === undefined ? undefined : old.outputs[column.from]) ?? made("output");
    output = withAttribute(output, "name", column.name || undefined);
    output = withAttribute(output, "label", column.label || undefined);
    output = withAttribute(output, "typeRef", column.type || undefined);
    return withValue(withValue(output, "outputValues", column.allowed), "defaultOutputEntry", column.usual);
  });
  const notes = sheet.notes.map((column) =>
    withAttribute(
      (column.from === undefined ? undefined : old.notes[column.from]) ?? makeElement(table, "annotation"),
      "name",
      column.name,
    ),
  );
  const rules = sheet.rules.map((rule) => {
    let element = rule.source ?? made("rule");
    const cells = (local: string, words: readonly string[], columns: readonly { readonly from?: number }[]) => {
      const before = elementsIn(element, local);
      return words.map((said, at) => {
        const from = columns[at]?.from;
        const cell =
          (rule.source && from !== undefined ? before[from] : undefined) ??
          (local === "annotationEntry" ? makeElement(table, local) : made(local));
        // Nothing written in a cell of an input says "whatever", too.
        return local === "inputEntry" && said === "-" && wordsIn(cell) === "" && before.includes(cell)
          ? cell
          : withWordsIn(cell, said);
      });
    };
    for (const [local, words, columns] of [
      ["inputEntry", rule.inputs, sheet.inputs],
      ["outputEntry", rule.outputs, sheet.outputs],
      ["annotationEntry", rule.notes, sheet.notes],
    ] as const)
      element = withChildren(element, local, cells(local, words, columns), ruleOrder);
    return element;
  });
  let next = withAttribute(
    table,
    "hitPolicy",
    sheet.hitPolicy === "UNIQUE" && attributeOf(table, "hitPolicy") === undefined ? undefined : sheet.hitPolicy,
  );
  next = withAttribute(next, "aggregation", sheet.hitPolicy === "COLLECT" ? sheet.aggregator : undefined);
  for (const [local, elements] of [
    ["input", inputs],
    ["output", outputs],
    ["annotation", notes],
    ["rule", rules],
  ] as const)
    next = withChildren(next, local, elements, partOrder);
  return next;
}

/** An element that holds tests or an expression in a `text`; none where nothing is said. */
function withValue(clause: XmlElement, local: string, words: string): XmlElement {
  const before = elementIn(clause, local);
  if (words === "") return before ? withChild(clause, before, undefined) : clause;
  return withChildren(clause, local, [withWordsIn(before ?? makeElement(clause, local), words)], clauseOrder);
}

/** The words of a description, where an element has one. */
export const descriptionOf = (element: XmlElement): string => {
  const held = elementIn(element, "description");
  return held ? textIn(held).trim() : "";
};
