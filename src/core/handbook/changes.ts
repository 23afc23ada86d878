import { type Block, line } from "../booklet";
import { type Said, say } from "../messages";

/** More changes than these are counted. */
const mostTold = 300;

/** What has changed since a state that was approved, as a part of a handbook. */
export function changeBlocks(revision: number, changes: readonly Said[], words: (said: Said) => string): Block[] {
  const since = words(say`Since revision ${revision}, which was approved:`);
  if (changes.length === 0)
    return [
      {
        kind: "paragraph",
        says: line(words(say`Nothing has changed since revision ${revision}, which was approved.`)),
      },
    ];
  const left = changes.length - mostTold;
  return [
    { kind: "paragraph", says: line(since) },
    { kind: "list", isOrdered: false, items: changes.slice(0, mostTold).map((said) => line(words(said))) },
    ...(left > 0 ? [{ kind: "paragraph" as const, says: line(words(say`and ${left} more`)) }] : []),
  ];
}
