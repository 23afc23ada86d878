import type { ChangeGroup, ChangeMark } from "@/core/compare";
import type { Id } from "@/core/model";
import type { Mark, Pen, Tone } from "../../canvas/marks/mark";
import { worded } from "../../messages";

export const toneOf = (side: Pen): Tone => (side === "from" ? "pencil" : "accent");

/** What only one side has, in its pen. */
export const pennedMark = (on: Id, pen: Pen): Mark => ({
  on,
  means: pen === "from" ? "onlyBefore" : "onlyAfter",
  as: "pen",
  pen,
});

/** What happened to an element, in a word on a paper label. */
export const tagMark = (on: Id, text: string, side: Pen): Mark => ({
  on,
  means: "whatHappened",
  as: "label",
  text,
  tone: toneOf(side),
  at: "end",
});

/** What is looked at: a ribbon along a flow, a frame around anything else; each shows on what it is for. */
export const currentMarks = (on: Id, side: Pen): Mark[] => [
  { on, means: "current", as: "frame", tone: toneOf(side) },
  { on, means: "current", as: "ribbon", tone: toneOf(side) },
];

/**
 * The marks of one side's drawing; `focus`: elements that are looked at, changed or not. What happened to a connection is said by its
 * pen alone: labels along flows would hide the drawing.
 */
export function sideMarks(
  side: Pen,
  changes: ReadonlyMap<Id, ChangeMark>,
  group: ChangeGroup | undefined,
  focus: readonly Id[],
  isShape: (id: Id) => boolean,
): Mark[] {
  const current = new Set(focus);
  const marks: Mark[] = [];
  for (const [id, { key, kind, tag }] of changes) {
    if (kind === "new" || kind === "gone") marks.push(pennedMark(id, side));
    if (tag.text !== "" && isShape(id)) marks.push(tagMark(id, worded(tag), side));
    if (key === group?.key) current.add(id);
  }
  for (const id of current) marks.push(...currentMarks(id, side));
  return marks;
}
