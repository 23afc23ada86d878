import { locale } from "../messages";

/** A moment as people write it: "25 Nov 2026, 14:40". */
export const momentWords = (at: string): string =>
  new Date(at).toLocaleString(locale(), { dateStyle: "medium", timeStyle: "short" });

const clocks = new Map<string, Intl.DateTimeFormat>();

/** A moment as a clock on a wall somewhere shows it: "Mon 4 Jan, 09:20". */
export function clockWords(at: number, zone: string): string {
  let clock = clocks.get(zone);
  if (!clock) {
    const look = { weekday: "short", day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" } as const;
    clock = new Intl.DateTimeFormat(locale(), { ...look, timeZone: zone });
    clocks.set(zone, clock);
  }
  return clock.format(new Date(at));
}
