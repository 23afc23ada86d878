import type { CalendarEvent } from "@/core/scenario";

const letters = ["MO", "TU", "WE", "TH", "FR", "SA", "SU"] as const;
const names = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"] as const;

export interface Week {
  readonly days: readonly string[];
  readonly from: string;
  readonly to: string;
  /** Days on which nobody works: ISO 8601. */
  readonly off: readonly string[];
}

const isDay = (text: string): boolean =>
  /^\d{4}-\d\d-\d\d$/.test(text) && !Number.isNaN(Date.parse(text)) && new Date(text).toISOString().startsWith(text);

const dayAt = (word: string) => names.findIndex((name) => word.toLowerCase().startsWith(name.toLowerCase()));

/** "Mon-Fri 8:00-16:00", "Mon, Wed 9-12:30", "Mon-Fri 8-16, not 2027-04-05, 2027-05-01". */
export function readWeek(typed: string): Week | undefined {
  const [text = "", ...exceptions] = typed.split(/,?\s+(?:not|except)\s+/i);
  const off = exceptions.flatMap((one) => one.split(/[\s,]+/)).filter((one) => one !== "");
  if (!off.every(isDay)) return undefined;
  const found = /^([A-Za-z,\s–-]+?)\s+(\d{1,2})(?::(\d\d))?\s*(?:-|–|to)\s*(\d{1,2})(?::(\d\d))?$/.exec(text.trim());
  if (!found) return undefined;
  const days: string[] = [];
  for (const part of (found[1] ?? "").split(/\s*,\s*/)) {
    const [first = "", last = first] = part.split(/\s*[-–]\s*/);
    const [from, to] = [dayAt(first), dayAt(last)];
    if (from < 0 || to < from) return undefined;
    for (let at = from; at <= to; at++) days.push(letters[at] as string);
  }
  const clock = (hour: string | undefined, minute: string | undefined) =>
    `${String(hour).padStart(2, "0")}:${minute ?? "00"}`;
  const [from, to] = [clock(found[2], found[3]), clock(found[4], found[5])];
  return days.length > 0 && from < to && to <= "24:00"
    ? { days: [...new Set(days)], from, to, off: [...new Set(off)].sort() }
    : undefined;
}

/** A calendar of one event a week, in every week and in that zone, in the same words; undefined for any other. */
export function weekWords(events: readonly CalendarEvent[], zone: string): string | undefined {
  const [event, ...others] = events;
  if (!event || others.length > 0 || event.rule?.every !== "week" || event.zone !== zone) return undefined;
  const { interval, count, until, months, days: said } = event.rule;
  if (interval > 1 || count !== undefined || until !== undefined || months.length > 0 || event.also.length > 0)
    return undefined;
  const { year, month, day: first } = event.start;
  // Without a word on days it is the one it began on.
  const of = said.length > 0 ? said.map(({ day }) => day) : [new Date(Date.UTC(year, month - 1, first)).getUTCDay()];
  const days = of.map((day) => (day + 6) % 7).sort((a, b) => a - b);
  const isRow = days.length > 1 && days.every((day, at) => at === 0 || day === (days[at - 1] ?? 0) + 1);
  const named = isRow ? `${names[days[0] ?? 0]}-${names[days.at(-1) ?? 0]}` : days.map((day) => names[day]).join(", ");
  const clock = (minutes: number) => `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;
  const from = event.start.hour * 60 + event.start.minute;
  const off = event.not.map((stamp) => stamp.replace(/^(\d{4})(\d\d)(\d\d).*$/, "$1-$2-$3"));
  const hours = `${named} ${clock(from)}-${clock(from + Math.round(event.lasts / 60))}`;
  return off.length > 0 ? `${hours}, not ${off.join(", ")}` : hours;
}
