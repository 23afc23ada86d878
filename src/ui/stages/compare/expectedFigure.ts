import type { Difference } from "@/core/forecast";

/** Which figure an expectation in words speaks of: money, waiting, work, else how long a case takes; none where it names no amount. */
export function expectedFigure(effect: string): Difference["figure"] | undefined {
  if (!/\d/.test(effect)) return undefined;
  if (/€|\b(?:EUR|USD|GBP|cost|costs|cheaper|dearer|money)\b/i.test(effect)) return "cost";
  if (/\bwait(?:s|ing)?\b/i.test(effect)) return "waiting";
  if (/\b(?:work|effort|handling)\b(?! ?days?)/i.test(effect)) return "processing";
  if (/\b(?:sec(?:ond)?s?|min(?:ute)?s?|h|hours?|days?|weeks?|months?)\b|%|\bfaster|\bsooner|\bearlier/i.test(effect))
    return "cycleTime";
  return undefined;
}
