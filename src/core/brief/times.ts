/** What a time in the text means. */
export type Time =
  | { readonly kind: "cycle"; readonly iso: string }
  | { readonly kind: "duration"; readonly iso: string; readonly isWait: boolean };

const numberWords: { readonly [word: string]: number } = {
  a: 1,
  an: 1,
  another: 1,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eleven: 11,
  twelve: 12,
  fourteen: 14,
  fifteen: 15,
  twenty: 20,
  thirty: 30,
  forty: 40,
  sixty: 60,
  ninety: 90,
};
const counts = `\\d+|${Object.keys(numberWords).join("|")}`;
const units: { readonly [unit: string]: string } = {
  hour: "PT1H",
  hourly: "PT1H",
  day: "P1D",
  daily: "P1D",
  night: "P1D",
  nightly: "P1D",
  morning: "P1D",
  evening: "P1D",
  week: "P1W",
  weekly: "P1W",
  month: "P1M",
  monthly: "P1M",
  quarter: "P3M",
  quarterly: "P3M",
  year: "P1Y",
  yearly: "P1Y",
  annually: "P1Y",
};
const weekdays = ["monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday"];
/** A Monday: cycles are counted from it, so that a weekly one falls on its day. */
const firstMonday = 5;

const recurring = new RegExp(
  `\\b(?:(?:every|each|once (?:a|per|every)|per)\\s+(?:working\\s+|business\\s+)?(?:(?:first|second|third|fourth|last|other)\\s+)?(?<unit>hour|day|night|morning|evening|week|month|quarter|year|${weekdays.join("|")})|(?<adverb>hourly|daily|nightly|weekly|monthly|quarterly|yearly|annually))\\b`,
  "i",
);
const clock = /\bat\s+(?<hour>\d{1,2})(?::(?<minute>\d{2}))?\s*(?<half>am|pm)?\b/i;
const lasting = new RegExp(
  `\\b(?<count>${counts})\\s+(?<working>(?:working|business)\\s+)?(?<unit>minute|hour|day|week|month|year)s?\\b`,
  "i",
);

/** Whether words say that something comes again by the clock: "every night", "weekly". */
export const isRecurring = (words: string): boolean => recurring.test(words);

/**
 * Reads a time: what recurs as an ISO 8601 repeating interval from the first Monday of 2026, what lasts as a duration. Working
 * days count five to a week. Undefined for other words ("soon").
 */
export function readTime(words: string): Time | undefined {
  const cycle = recurring.exec(words)?.groups;
  if (cycle) {
    const unit = (cycle.unit ?? cycle.adverb ?? "").toLowerCase();
    const weekday = weekdays.indexOf(unit);
    const at = clock.exec(words)?.groups;
    const hour = at ? (Number(at.hour) % (at.half ? 12 : 24)) + (at.half?.toLowerCase() === "pm" ? 12 : 0) : 0;
    const day = String(weekday < 0 ? firstMonday : firstMonday + weekday).padStart(2, "0");
    const time = `${String(hour).padStart(2, "0")}:${at?.minute ?? "00"}:00`;
    const period = /\bof (?:the|each|every) (month|quarter|year)\b/i.exec(words)?.[1]?.toLowerCase();
    const every = period ? units[period] : weekday < 0 ? units[unit] : "P1W";
    return { kind: "cycle", iso: `R/2026-01-${day}T${time}/${every}` };
  }
  const found = lasting.exec(words)?.groups;
  if (!found) return undefined;
  const written = (found.count as string).toLowerCase();
  const count = /^\d+$/.test(written) ? Number(written) : (numberWords[written] ?? 1);
  return {
    kind: "duration",
    iso: durationOf(count, (found.unit as string).toLowerCase(), found.working !== undefined),
    isWait: /^(?:after|for|waits?|another)\b/i.test(words.trim()),
  };
}

function durationOf(count: number, unit: string, working: boolean): string {
  if (working && unit === "day") return `P${Math.floor(count / 5) * 7 + (count % 5)}D`;
  const letter = unit[0]?.toUpperCase() as string;
  return unit === "minute" || unit === "hour" ? `PT${count}${letter}` : `P${count}${letter}`;
}

/** Where a text names times: how long something takes or waits, and what comes again. */
export const timePattern = new RegExp(
  `\\b(?:(?:within|after|for|no later than|at the latest)\\s+)?(?!another)(?:${counts})\\s+(?:working\\s+|business\\s+)?(?:minute|hour|day|week|month|year)s?\\b(?:\\s+before\\b)?|\\b(?:every|each|once (?:a|per))\\s+(?:working\\s+)?(?:hour|day|night|morning|evening|week|month|quarter|year|monday|tuesday|wednesday|thursday|friday|saturday|sunday)\\b|\\b(?:hourly|daily|nightly|weekly|monthly|quarterly|yearly)\\b`,
  "gi",
);
