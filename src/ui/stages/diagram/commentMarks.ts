import type { ThreadRow } from "@/contract/comments";
import type { Mark } from "../../canvas/marks/mark";
import { openThreads } from "../../version/comments/openThreads";

/** At each element that is talked about: how many of its threads are open. */
export function commentMarks(threads: readonly ThreadRow[]): Mark[] {
  return [...openThreads(threads, "element")].map(
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
