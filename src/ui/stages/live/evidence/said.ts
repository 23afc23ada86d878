import { filterSentence, type LogFilter } from "@/core/evidence";
import { timeWords } from "../../../controls/units";
import { locale, worded } from "../../../messages";

const days = () =>
  new Intl.DateTimeFormat(locale(), { day: "numeric", month: "short", year: "numeric", timeZone: "UTC" });
const moments = () =>
  new Intl.DateTimeFormat(locale(), {
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
    timeZone: "UTC",
  });

/** A day of a log, and a moment; logs are told by the clock of UTC. */
export const dayWords = (at: number): string => days().format(at);
export const logMoment = (at: number | null | undefined): string => (at == null ? "" : moments().format(at));

/** A length of time in milliseconds; nothing where there is none. */
export const spanWords = (milliseconds: number | null): string =>
  milliseconds === null || Number.isNaN(milliseconds) ? "" : timeWords(milliseconds / 1_000);

/** A filter in words, behind "only cases that". */
export const filterWords = (filter: LogFilter): string =>
  worded(filterSentence(filter, { moment: dayWords, duration: (took) => timeWords(took / 1_000) }));
