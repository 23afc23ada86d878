import { isActivity, type Model } from "../model";
import type { WalkStep } from "../tokens";
import { Calls } from "./calls";
import { mostLines, type Sequence, type SequenceLine } from "./sequence";

/**
 * Who called whom in one case, in the order in which it went: each step at the moment it is entered. O(steps).
 * @param log of a walk; what it enters in called processes is left out
 */
export function sequenceOfWalk(model: Model, log: readonly Pick<WalkStep, "element" | "event">[]): Sequence {
  const calls = new Calls(model);
  const lines: SequenceLine[] = [];
  let before: string | undefined;
  let isCut = false;
  for (const { element: id, event } of log) {
    const element = model.elements.get(id);
    if (event === "left" || !element) continue;
    // What holds others is told by what is inside.
    if (isActivity(element.type) && /ubProcess$|^transaction$/.test(element.type)) continue;
    if (lines.length >= mostLines) {
      isCut = true;
      break;
    }
    const told = calls.of(element, before);
    lines.push(...told.lines);
    if (told.lines.length > 0) before = told.actor;
  }
  return { lifelines: calls.lifelines, lines, isCut };
}
