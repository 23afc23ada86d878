import type { Element, Id } from "./element";
import { attribute, ownElement, ownNodes, replaced } from "./ownData";

/**
 * What a business rule task decides by. The standard has the task (BPMN 2.0, 10.3.3), and no place for the decision's name; that stands in
 * an element of ours.
 */
export interface DecidedBy {
  /** The file of decisions in the workspace, and the decision in it, by their ids. */
  readonly file: Id;
  readonly decision: Id;
  /** What the decision is called: kept beside its id, so that a file explains itself. */
  readonly name: string;
  /** The piece of data that gets what comes out. */
  readonly result: string;
  /** What can come out, where that can be listed: what a gateway behind it has to answer. */
  readonly answers: readonly string[] | undefined;
  /** The inputs it needs, by the names they have in the file of decisions. */
  readonly needs: readonly string[];
}

export function decidedBy(step: Element): DecidedBy | undefined {
  const node = ownNodes(step, "decides")[0];
  const [file, decision] = [node && attribute(node, "file"), node && attribute(node, "decision")];
  if (!node || file === undefined || decision === undefined) return undefined;
  const name = attribute(node, "name") ?? decision;
  const answers = ownNodes(step, "answer").flatMap((one) => attribute(one, "is") ?? []);
  return {
    file,
    decision,
    name,
    result: attribute(node, "result") || name,
    answers: attribute(node, "answers") === "listed" ? answers : undefined,
    needs: ownNodes(step, "needs").flatMap((one) => attribute(one, "data") ?? []),
  };
}

/** The files of decisions that steps of some models decide by, each once. O(elements). */
export function decidingFiles(models: Iterable<{ readonly elements: Iterable<Element> }>): Id[] {
  const files = new Set<Id>();
  for (const { elements } of models)
    for (const element of elements) {
      const file = element.type === "businessRuleTask" ? decidedBy(element)?.file : undefined;
      if (file !== undefined) files.add(file);
    }
  return [...files].sort();
}

export function withDecidedBy(step: Element, to: DecidedBy | undefined) {
  const answers = (to?.answers ?? []).map((answer) => ownElement("answer", [["is", answer]]));
  const needs = (to?.needs ?? []).map((data) => ownElement("needs", [["data", data]]));
  const answered = { ...step, extension: replaced(step, "answer", answers) ?? [] };
  const listed = { ...answered, extension: replaced(answered, "needs", needs) ?? [] };
  return replaced(
    listed,
    "decides",
    to
      ? [
          ownElement("decides", [
            ["file", to.file],
            ["decision", to.decision],
            ["name", to.name],
            ["result", to.result],
            ...(to.answers ? ([["answers", "listed"]] as const) : []),
          ]),
        ]
      : [],
  );
}
