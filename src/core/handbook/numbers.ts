import { stepSheetOf } from "../capture";
import type { Element, Id, Model } from "../model";

/** A flow node of a process, in the order one reads it. */
export interface NumberedNode {
  readonly element: Element;
  /** The number of its row in the step sheet ("3a1"); what has none there is counted by what it does: S1 begins, E1 ends, J1 joins, B1 sits at an edge. */
  readonly number: string;
  readonly depth: number;
}

/** All flow nodes of a process with their numbers, those inside of sub-processes behind them. The cost is that of the step sheet. */
export function numberedNodes(model: Model, process: Id): NumberedNode[] {
  const counts = new Map<string, number>();
  const counted = (letter: string) => {
    const count = (counts.get(letter) ?? 0) + 1;
    counts.set(letter, count);
    return `${letter}${count}`;
  };
  return stepSheetOf(model, process).flatMap((row): NumberedNode[] => {
    const element = row.kind === "step" ? model.elements.get(row.element) : undefined;
    if (row.kind !== "step" || !element) return [];
    return [{ element, number: row.number || counted(letterOf(element)), depth: row.depth }];
  });
}

function letterOf({ type }: Element): string {
  switch (type) {
    case "startEvent":
      return "S";
    case "endEvent":
      return "E";
    case "boundaryEvent":
      return "B";
    default:
      return "J";
  }
}
