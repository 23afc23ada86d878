import type { MyThread } from "@/contract/comments";
import type { MyReview } from "@/contract/review";
import { counted } from "@/core/model";
import type { Mail } from "./mail";

/** What waits for a member. */
export interface Waiting {
  readonly threads: readonly MyThread[];
  readonly reviews: readonly MyReview[];
  readonly overdue: number;
}

/** So many of a kind are told one by one; the rest is in the application. */
const mostTold = 20;
const begun = (words: string) => {
  const line = words.replace(/\s+/g, " ").trim();
  return line.length <= 160 ? line : `${line.slice(0, 159)}…`;
};

function told<One>(title: string, all: readonly One[], line: (one: One) => string): string[] {
  if (all.length === 0) return [];
  const more = all.length > mostTold ? [`  and ${all.length - mostTold} more`] : [];
  return [title, ...all.slice(0, mostTold).map((one) => `  ${line(one)}`), ...more, ""];
}

/** What waits for a member, as a mail in plain text; undefined where nothing does. */
export function digestOf(
  { threads, reviews, overdue }: Waiting,
  to: { readonly name: string; readonly email: string },
  origin: string,
): Mail | undefined {
  const parts = [
    ...(threads.length > 0 ? [counted(threads.length, "comment")] : []),
    ...(reviews.length > 0 ? [counted(reviews.length, "review")] : []),
    ...(overdue > 0 ? [counted(overdue, "piece of overdue work", "pieces of overdue work")] : []),
  ];
  if (parts.length === 0) return undefined;
  const at = (version: string, stage: string) => `${origin}/v/${encodeURIComponent(version)}/${stage}`;
  return {
    to: to.email,
    subject: `Lucid Lane: ${parts.join(", ")}`,
    text: [
      `${to.name}, this waits for you:`,
      "",
      ...told("Comments", threads, ({ about, process, version, said }) => {
        const last = said.at(-1);
        return `${process}, ${begun(about.words)}: ${last ? `${last.name}: ${begun(last.text)}` : ""} (${at(version, "diagram")})`;
      }),
      ...told("Reviews", reviews, ({ process, question, due, version }) => {
        const until = due === null ? "" : `, answers by ${due}`;
        return `${process}: ${begun(question)}${until} (${at(version, "diagram")})`;
      }),
      ...(overdue > 0 ? [`Work that is overdue: ${overdue} (${origin}/work)`, ""] : []),
    ].join("\n"),
  };
}
