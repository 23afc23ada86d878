import { isRecurring, readTime } from "../times";
import type { Part } from "./part";

/** "After ten days", "waits a week", where nothing that is done takes that long. */
export function isWaitOfItsOwn(part: Part, words: string): boolean {
  const time = readTime(words);
  if (time?.kind !== "duration" || isRecurring(words)) return false;
  const mark = part.marks.find((one) => one.kind === "time" && one.text === words);
  const activities = part.sentence.marks.filter((other) => other.kind === "activity");
  if (!mark || activities.some((other) => other.from <= mark.from && other.to >= mark.to)) return false;
  if (activities.length === 0) return !/^(?:within|by|no later)\b/i.test(words);
  return time.isWait && !activities.some((other) => other.to <= mark.from);
}
