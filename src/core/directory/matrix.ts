import { type Element, type Model, nameOf, type SystemUse, systemsOf, wordFor } from "../model";
import { type RolePart, rolesOf } from "./assignments";
import { handoverMatrix, handoversOf, stepsOf } from "./handovers";

/** The letters of a responsibility matrix (RACI, common practice), and those of what a step does with a system. */
export const partOfLetter: { readonly [letter: string]: RolePart } = {
  r: "responsible",
  a: "accountable",
  c: "consulted",
  i: "informed",
};
export const useOfLetter: { readonly [letter: string]: SystemUse } = { r: "reads", w: "writes", x: "runs on" };

export type MatrixView = "roles" | "systems" | "roleHandovers" | "systemHandovers";

export interface MatrixColumn {
  readonly entry: string;
  readonly name: string;
}

/** A table that says who does what with what, as it stands on a page. */
export interface MatrixTable {
  readonly columns: readonly string[];
  readonly rows: readonly { readonly name: string; readonly cells: readonly string[] }[];
}

export const stepName = (model: Model, step: Element) => nameOf(model, step.id) || wordFor(step.type);

/** The roles or systems that some steps use, in the order they come. O(steps). */
export function matrixColumns(model: Model, steps: readonly Element[], kind: "roles" | "systems"): MatrixColumn[] {
  const found = new Map<string, MatrixColumn>();
  for (const step of steps) {
    const used = kind === "roles" ? rolesOf(model, step.id) : systemsOf(step);
    for (const { entry, name } of used) if (entry) found.set(entry, { entry, name });
  }
  return [...found.values()];
}

const letterOf = (record: { readonly [letter: string]: string }, value: string) =>
  Object.keys(record)
    .find((letter) => record[letter] === value)
    ?.toUpperCase() ?? "";

/** What a step does with a role or system, in letters, and whether a role has it only by its lane. */
export function matrixCell(
  model: Model,
  step: Element,
  entry: string,
  kind: "roles" | "systems",
): { readonly letters: string; readonly fromLane: boolean } {
  if (kind === "systems") {
    const used = systemsOf(step).find((system) => system.entry === entry);
    return { letters: used ? letterOf(useOfLetter, used.use) : "", fromLane: false };
  }
  const parts = rolesOf(model, step.id).filter((role) => role.entry === entry);
  return {
    letters: parts.map((role) => letterOf(partOfLetter, role.part)).join(" "),
    fromLane: parts.length > 0 && parts.every((role) => role.from === "lane"),
  };
}

/**
 * A matrix as a table of words, to be taken away as a file. Letters that a role has by its lane stand in brackets.
 * @param nameOfEntry what an entry is called now
 * O(steps × columns), or O(hand-overs × hands).
 */
export function matrixTable(
  model: Model,
  view: MatrixView,
  nameOfEntry: (column: MatrixColumn) => string = ({ name }) => name,
): MatrixTable {
  if (view === "roleHandovers" || view === "systemHandovers") {
    const { hands, count } = handoverMatrix(handoversOf(model, view === "roleHandovers" ? "roles" : "systems"));
    const times = (from: string, to: string) => (count(from, to) > 0 ? String(count(from, to)) : "");
    return { columns: hands, rows: hands.map((from) => ({ name: from, cells: hands.map((to) => times(from, to)) })) };
  }
  const steps = stepsOf(model);
  const columns = matrixColumns(model, steps, view);
  const words = (step: Element, entry: string) => {
    const { letters, fromLane } = matrixCell(model, step, entry, view);
    return fromLane ? `(${letters})` : letters;
  };
  return {
    columns: columns.map(nameOfEntry),
    rows: steps.map((step) => ({
      name: stepName(model, step),
      cells: columns.map(({ entry }) => words(step, entry)),
    })),
  };
}
