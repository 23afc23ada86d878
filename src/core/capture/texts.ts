import type { Command } from "../commands";
import { say } from "../messages";
import {
  descriptionIn,
  documentationIn,
  type Element,
  failure,
  flowNodesIn,
  type Id,
  isPlainText,
  isRead,
  isScope,
  lanesOf,
  type Model,
  nameIn,
  ok,
  ownName,
  participantsOf,
  processesOf,
  type Result,
  subtreeOf,
  wordFor,
} from "../model";
import { readTable, writeTable } from "../table";
import { stepSheetOf } from "./stepSheet";

/** The texts of an element in the model's own language, and in another. */
export interface TextRow {
  readonly element: Id;
  /** What it is, in words. */
  readonly kind: string;
  readonly own: { readonly name: string; readonly description: string };
  readonly told: { readonly name: string; readonly description: string };
  /** Whether its description is more than lines of words: such a one is written beside its element, with its emphasis and lists. */
  readonly isRich: boolean;
}

/**
 * All that has a text that somebody reads, in the order one meets it: pools, processes, lanes, steps as in the sheet, then flows with answers,
 * data and notes. O(elements), apart from the step sheet.
 */
export function textRows(model: Model, language: string): TextRow[] {
  const found = new Set<Id>();
  for (const { id } of participantsOf(model)) found.add(id);
  for (const process of processesOf(model)) {
    found.add(process.id);
    for (const lane of lanesWithin(model, process.id)) found.add(lane.id);
    for (const row of stepSheetOf(model, process.id)) if (row.kind === "step") found.add(row.element);
    for (const element of subtreeOf(model, process.id))
      if (isScope(element.type)) for (const node of flowNodesIn(model, element.id)) found.add(node.id);
  }
  for (const element of model.elements) if (isRead(element.type)) found.add(element.id);
  return [...found].flatMap((id): TextRow[] => {
    const element = model.elements.get(id);
    const row = element && rowOf(element, language);
    return row && (row.own.name !== "" || row.own.description !== "") ? [row] : [];
  });
}

const lanesWithin = (model: Model, of: Id): Element[] =>
  lanesOf(model, of).flatMap((lane) => [lane, ...lanesWithin(model, lane.id)]);

const rowOf = (element: Element, language: string): TextRow => ({
  element: element.id,
  kind: wordFor(element.type),
  own: { name: ownName(element), description: descriptionIn(element) },
  told: { name: nameIn(element, language) ?? "", description: descriptionIn(element, language) },
  isRich: !isPlainText(documentationIn(element)),
});

/** How many texts of the model are not there in a language. */
export const missingIn = (rows: readonly TextRow[]): number =>
  rows.reduce(
    (sum, { own, told: of }) =>
      sum + (own.name !== "" && of.name === "" ? 1 : 0) + (own.description !== "" && of.description === "" ? 1 : 0),
    0,
  );

const head = ["Id", "Kind", "Name", "Description"] as const;

/** The texts as a table to be filled in elsewhere: the model's own beside those of the language. */
export const textsAsCsv = (rows: readonly TextRow[], language: string): string =>
  writeTable([
    [...head, `Name (${language})`, `Description (${language})`],
    ...rows.map(({ element, kind, own, told: of }) => [
      element,
      kind,
      own.name,
      own.description,
      of.name,
      of.description,
    ]),
  ]);

/** What comes back: commands for what was filled in, and the ids of rows that the model does not have. */
export interface TextsRead {
  readonly commands: readonly Command[];
  readonly unknown: readonly string[];
}

/** Reads such a table: what is filled in and says something else than now is taken, what is empty stays as it is. O(rows). */
export function textsFromCsv(model: Model, language: string, text: string): Result<TextsRead> {
  const table = readTable(text);
  if (!table.ok) return table;
  const [names = [], ...rows] = table.value;
  const at = (name: string) => names.findIndex((one) => one.trim().toLowerCase() === name.toLowerCase());
  const [id, name, description] = [at("Id"), at(`Name (${language})`), at(`Description (${language})`)];
  if (id < 0 || (name < 0 && description < 0))
    return failure({
      code: "no-texts",
      message: say`There is no column “Id” and “Name (${language})” or “Description (${language})” in this table. Save it as CSV here, fill it in, and read it again.`,
    });
  const commands: Command[] = [];
  const unknown: string[] = [];
  for (const row of rows) {
    const of = (row[id] ?? "").trim();
    if (of === "") continue;
    const element = model.elements.get(of);
    if (!element) {
      unknown.push(of);
      continue;
    }
    const [called, described] = [(row[name] ?? "").trim(), (row[description] ?? "").trim()];
    if (called !== "" && called !== nameIn(element, language))
      commands.push({ type: "nameIn", id: of, language, name: called });
    if (described !== "" && described !== descriptionIn(element, language))
      commands.push(describing(of, language, described));
  }
  return ok({ commands, unknown });
}

/** Says a description in plain words, a paragraph for each line. */
export const describing = (id: Id, language: string, words: string): Command => ({
  type: "describeIn",
  id,
  language,
  text: {
    type: "doc",
    content: words.split("\n").map((line) => ({
      type: "paragraph" as const,
      ...(line !== "" && { content: [{ type: "text" as const, text: line }] }),
    })),
  },
});
