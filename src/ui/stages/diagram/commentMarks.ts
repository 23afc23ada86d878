import type { ThreadRow } from "@/contract/comments";
import type { Id } from "@/core/model";
import type { Mark } from "../../canvas/marks/mark";

/** At each element that is talked about: how many of its threads are open. */
export function commentMarks(threads: readonly ThreadRow[]): Mark[] {
  const open = new Map<Id, number>();
  for (const { about, resolved } of threads)
    if (about.kind === "element" && resolved === null) open.set(about.key, (open.get(about.key) ?? 0) + 1);
  return [...open].map(
    ([on, count]): Mark => ({
      on,
      means: "commented",
      as: "label",
      text: String(count),
      tone: "accent",
      at: "end",
      isFilled: true,
    }),
  );
}
