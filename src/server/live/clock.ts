import { type SQL, sql } from "drizzle-orm";
import type { RunClock, runs } from "@/data/schema";

/** What a run's clock shows at a real moment (milliseconds since 1970). A clock of the machine that jumps back does not take the run's with it. */
export const shownAt = ({ real, shows, pace }: RunClock, now = Date.now()): number =>
  shows + Math.max(0, now - real) * pace;

/** The same as the database works it out, of a run's row. */
export const shownInRow = (clock: typeof runs.clock, now: number): SQL<number> =>
  sql`((${clock} ->> 'shows')::float8 + greatest(0, ${now}::float8 - (${clock} ->> 'real')::float8) * (${clock} ->> 'pace')::float8)`;

/** The clock from now on at another pace, or at another time. */
export const setTo = (clock: RunClock, pace: number, shows = shownAt(clock)): RunClock => ({
  real: Date.now(),
  shows,
  pace,
});
