import type { HomeProcess, HomeVersion } from "@/contract/home";
import { firstState } from "@/core/handoff";
import { text } from "../messages";

export interface NeedWords {
  readonly words: string;
  readonly tone: "trouble" | "attention" | "good" | "quiet";
}

/** What matters of a process now, in a sentence: what is wrong before what is open, and what is open before what is well. */
export function needWords({ brief }: Pick<HomeProcess, "brief">, versions: readonly HomeVersion[]): NeedWords {
  const words = text.home.needs;
  if (versions.some(({ damaged }) => damaged !== null)) return { words: text.damaged.sign, tone: "trouble" };
  const sum = (of: "errors" | "warnings" | "failingWalks") =>
    versions.reduce((total, { summary }) => total + (summary?.[of] ?? 0), 0);
  const [errors, walks, warnings] = [sum("errors"), sum("failingWalks"), sum("warnings")];
  const first = versions[0];
  if (errors > 0) return { words: words.errors(errors), tone: "trouble" };
  if (walks > 0) return { words: words.walks(walks), tone: "attention" };
  if (warnings > 0) return { words: words.warnings(warnings), tone: "attention" };
  const open = brief?.asks?.length ?? 0;
  if (open > 0) return { words: words.questions(open), tone: "attention" };
  const built = firstState(versions.flatMap(({ builds }) => builds ?? []));
  if (built && built in words.builds)
    return { words: words.builds[built as keyof typeof words.builds], tone: "attention" };
  if (!first?.summary) return { words: text.home.notCounted, tone: "quiet" };
  if (first.summary.steps === 0) return { words: words.empty, tone: "quiet" };
  if (versions.some(({ handedOff }) => handedOff > 0)) return { words: words.handedOff, tone: "good" };
  return { words: words.well(first.summary.steps), tone: "quiet" };
}
