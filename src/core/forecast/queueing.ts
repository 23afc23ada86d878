/**
 * Formulas for stations with one queue, served in the order of arrival. Times in any one unit.
 * Sources: L. Kleinrock, "Queueing Systems", volume 1 (1975), chapters 3 and 5; A. O. Allen, "Probability, Statistics and Queueing Theory"
 * (1990), 5.3 for the approximation named after him and J. B. Cunneen.
 */
export interface Station {
  readonly meanInterval: number;
  readonly meanWork: number;
  readonly count: number;
}

/** The share of time that each is busy. */
export const loadOf = ({ meanInterval, meanWork, count }: Station): number => meanWork / (meanInterval * count);

/**
 * The chance that somebody who comes has to wait, where intervals and work are exponential (Erlang's C formula). O(count).
 * @returns 1 where more comes than can be done
 */
export function waitingChance(station: Station): number {
  const { meanInterval, meanWork, count } = station;
  const load = loadOf(station);
  if (load >= 1) return 1;
  const offered = meanWork / meanInterval;
  // Erlang's B by its recursion, which never overflows.
  let blocked = 1;
  for (let servers = 1; servers <= count; servers++) blocked = (offered * blocked) / (servers + offered * blocked);
  return blocked / (1 - load * (1 - blocked));
}

/** Mean wait in the queue, intervals and work exponential (M/M/c). Infinity where more comes than can be done. */
export function exponentialWait(station: Station): number {
  const load = loadOf(station);
  return load >= 1
    ? Number.POSITIVE_INFINITY
    : (waitingChance(station) * station.meanWork) / (station.count * (1 - load));
}

/** Mean wait before one who serves, intervals exponential, work of any spread (M/G/1, Pollaczek and Khinchine). */
export function generalWait(meanInterval: number, meanWork: number, varianceOfWork: number): number {
  const load = meanWork / meanInterval;
  return load >= 1 ? Number.POSITIVE_INFINITY : (meanWork ** 2 + varianceOfWork) / (2 * meanInterval * (1 - load));
}

/** Mean wait, both of any spread, by their squared coefficients of variation: an approximation (Allen and Cunneen). */
export function approximateWait(station: Station, ofIntervals: number, ofWork: number): number {
  return (exponentialWait(station) * (ofIntervals + ofWork)) / 2;
}

/** Mean waits by priority, first the most urgent, before one who serves; nobody is interrupted (A. Cobham, Operations Research 2, 1954). */
export function priorityWaits(
  classes: readonly { readonly meanInterval: number; readonly meanWork: number; readonly squareOfWork: number }[],
): number[] {
  const residual = classes.reduce((sum, { meanInterval, squareOfWork }) => sum + squareOfWork / meanInterval, 0) / 2;
  let before = 0;
  return classes.map(({ meanInterval, meanWork }) => {
    const after = before + meanWork / meanInterval;
    const wait = residual / ((1 - before) * (1 - after));
    before = after;
    return wait;
  });
}
