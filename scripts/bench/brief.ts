import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { measure, type Share, totalOf } from "@/core/brief/corpus/measure";
import type { BenchRow } from "./measure";

const percent = ({ share, right, of }: Share, times = 1) =>
  `${(share * 100).toFixed(1)} % (${right / times}/${of / times})`;

/** How well descriptions are read: the corpus, marked by hand and not, by half and by kind. */
export function briefRows(): BenchRow[] {
  return (["known", "unseen"] as const).flatMap((half) => {
    const folder = join("src/core/brief/corpus", half);
    const files = readdirSync(folder).map((name) => readFileSync(join(folder, name), "utf8"));
    const begun = performance.now();
    const total = totalOf(files.map(measure));
    const each = (performance.now() - begun) / files.length;
    const kinds = total.byMark.map(([kind, share]) => `${kind} ${Math.round(share.share * 100)}`).join(", ");
    const facts = total.byFact
      .map(
        ([kind, marked, unmarked]) => `${kind} ${Math.round(marked.share * 100)}/${Math.round(unmarked.share * 100)}`,
      )
      .join(", ");
    const row = (what: string, measured: string, goal: string, met: boolean): BenchRow => ({
      what: `brief, ${files.length} ${half} texts: ${what}`,
      measured,
      goal,
      met,
    });
    return [
      row("marks suggested", `${percent(total.marks, 2)}; ${kinds}`, "90 % right", total.marks.share >= 0.9),
      row("facts of what is built, marked by hand", percent(total.marked), "95 %", total.marked.share >= 0.95),
      row("facts of what is built, not marked", percent(total.unmarked), "85 %", total.unmarked.share >= 0.85),
      row("by kind, marked/not", facts, "told", true),
      row("reading and building a text twice", `${each.toFixed(0)} ms`, "≤ 500 ms", each <= 500),
    ];
  });
}
