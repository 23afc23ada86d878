import { type EventLog, wordAt } from "../logs/eventLog";

/** When those of a role were seen to work, by the clock of the log. */
export interface MeasuredHours {
  readonly role: string;
  /** Days of the week by two letters, from Monday (RFC 5545). */
  readonly days: readonly string[];
  /** "08:00": hours of the day. */
  readonly from: string;
  readonly to: string;
  /** Of what they did, what lies within these hours; 0 to 1. */
  readonly share: number;
  readonly observations: number;
}

const weekdays = ["MO", "TU", "WE", "TH", "FR", "SA", "SU"] as const;
const day = 86_400_000;
const half = 30;
/** Fewer observations say nothing of when somebody works. */
const leastSeen = 50;
/** A day is one of work where at least this share of the busiest day's work is done. */
const leastOfBusiest = 0.1;
/** So much of what is done may lie before the beginning, and as much behind the end. */
const beside = 0.01;

/**
 * Working hours as a log shows them: the days on which something is done at all, and from when to when all but two in a hundred of it is, to
 * half an hour. Roles that work around the clock, or of which little is told, have none. O(events).
 */
export function hoursIn(log: EventLog): MeasuredHours[] {
  const seen = new Map<string, number[]>();
  for (let trace = 0; trace < log.from.length; trace++)
    for (let event = log.from[trace] as number; event < (log.until[trace] as number); event++) {
      const role = wordAt(log.role, event);
      const at = log.at[event] as number;
      if (role === "" || Number.isNaN(at)) continue;
      const own = seen.get(role);
      if (own) own.push(at);
      else seen.set(role, [at]);
    }
  return [...seen]
    .flatMap(([role, moments]) => hoursOf(role, moments) ?? [])
    .sort((one, other) => one.role.localeCompare(other.role));
}

function hoursOf(role: string, moments: readonly number[]): MeasuredHours | undefined {
  if (moments.length < leastSeen) return undefined;
  const onDay = new Array<number>(7).fill(0);
  const weekday = (at: number) => (Math.floor(at / day) + 3) % 7;
  for (const at of moments) onDay[weekday(at)] = (onDay[weekday(at)] as number) + 1;
  const busiest = Math.max(...onDay);
  const works = onDay.map((count) => count >= busiest * leastOfBusiest);
  const minutes = moments
    .filter((at) => works[weekday(at)])
    .map((at) => Math.floor((((at % day) + day) % day) / 60_000))
    .sort((one, other) => one - other);
  const [first, last] = [quantile(minutes, beside), quantile(minutes, 1 - beside)];
  const from = Math.floor(first / half) * half;
  const to = Math.min(24 * 60, (Math.floor(last / half) + 1) * half);
  // Whoever works around the clock has no hours to keep.
  if (to - from >= 23 * 60) return undefined;
  const within = minutes.filter((minute) => minute >= from && minute < to).length;
  return {
    role,
    days: weekdays.filter((_, at) => works[at]),
    from: clock(from),
    to: clock(to),
    share: within / moments.length,
    observations: moments.length,
  };
}

const quantile = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.max(0, Math.ceil(share * sorted.length) - 1))] ?? 0;

const clock = (minutes: number) =>
  minutes === 24 * 60
    ? "23:59"
    : `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
