import { locale } from "../../messages";

const day = 86_400;
/** From so many seconds on a day of the year says too little: it comes twice. */
const twoOfADay = 365 * day;
/** From so many seconds on only the year fits, and is all that is asked. */
const manyYears = 20 * twoOfADay;

/** How the moments of a run that long are said at an axis: by day and month, with the year, or by the year alone. */
export function dayFormat(seconds: number): Intl.DateTimeFormat {
  const said: Intl.DateTimeFormatOptions =
    seconds > manyYears
      ? { year: "numeric" }
      : seconds > twoOfADay
        ? { month: "short", year: "numeric" }
        : { day: "numeric", month: "short" };
  return new Intl.DateTimeFormat(locale(), { ...said, timeZone: "UTC" });
}
