import type { Id } from "../model";
import type { Scenario } from "../scenario";
import { withInput } from "../scenario";
import type { Forecast } from "./forecast";

/** A staffing that was tried: how many of each resource, and what came of it. */
export interface Staffing {
  readonly quantities: ReadonlyMap<Id, number>;
  /** Money an hour for all of them. */
  readonly hourly: number;
  /** The share of cases that are done in time; 0 to 1. */
  readonly inTime: number;
  readonly keeps: boolean;
}

export interface Target {
  /** Seconds within which cases are to be done, and the share of them that has to be; 0 to 1. */
  readonly within: number;
  readonly share: number;
}

/** Who has been under way for longer is not done in time; of who has not, nobody knows yet. */
export const shareWithin = ({ durations, cases, replications, openFor }: Forecast, within: number): number => {
  const done = cases * replications;
  const inTime = (durations.filter((duration) => duration <= within).length / Math.max(1, durations.length)) * done;
  return inTime / Math.max(1, done + openFor.filter((open) => open > within).length);
};

/**
 * The cheapest staffing that keeps a target: from what there is, people are added where cases wait longest until it is kept, and then
 * taken away one by one, the dearest first, as long as it stays so. A search by neighbours: what it finds cannot be made cheaper by one
 * person less, and may not be the cheapest of all. Each staffing is tried once.
 * @param run makes the forecast of a scenario
 * @param tell hears how many were tried, and may throw to end the search
 * @returns those that keep the target, cheapest first, and the nearest of the others where none does
 */
export async function staffingFor(
  scenario: Scenario,
  people: readonly { readonly id: Id; readonly quantity: number; readonly rate: number }[],
  target: Target,
  run: (scenario: Scenario) => Forecast | Promise<Forecast>,
  tell: (tried: number) => void = () => undefined,
  most = 60,
): Promise<{ readonly kept: readonly Staffing[]; readonly nearest: Staffing | undefined; readonly isWhole: boolean }> {
  const tried = new Map<string, { staffing: Staffing; forecast: Forecast }>();
  const keyOf = (quantities: ReadonlyMap<Id, number>) => people.map(({ id }) => quantities.get(id) ?? 0).join(" ");
  const attempt = async (quantities: ReadonlyMap<Id, number>) => {
    const known = tried.get(keyOf(quantities));
    if (known) return known;
    tell(tried.size);
    let changed = scenario;
    for (const [id, quantity] of quantities) changed = withInput(changed, { element: id, what: "quantity" }, quantity);
    const forecast = await run(changed);
    const inTime = shareWithin(forecast, target.within);
    const hourly = people.reduce((sum, { id, rate }) => sum + rate * (quantities.get(id) ?? 0), 0);
    const made = { staffing: { quantities, hourly, inTime, keeps: inTime >= target.share }, forecast };
    tried.set(keyOf(quantities), made);
    return made;
  };
  let here = await attempt(new Map(people.map(({ id, quantity }) => [id, quantity])));
  const isFull = () => tried.size >= most;
  // Up: one more where most is waited, as long as that helps.
  while (!here.staffing.keeps && !isFull()) {
    const byWaiting = [...here.forecast.resources]
      .filter(
        ({ id, requests, waitingBusyMean }) => people.some((one) => one.id === id) && requests * waitingBusyMean > 0,
      )
      .sort((a, b) => b.requests * b.waitingBusyMean - a.requests * a.waitingBusyMean);
    let better: typeof here | undefined;
    for (const { id } of byWaiting.slice(0, 3)) {
      if (isFull()) break;
      const next = await attempt(
        new Map(here.staffing.quantities).set(id, (here.staffing.quantities.get(id) ?? 0) + 1),
      );
      if (next.staffing.inTime > here.staffing.inTime + 1e-9 || next.staffing.keeps) {
        better = next;
        break;
      }
    }
    if (!better) break;
    here = better;
  }
  // Down: one less, the dearest first.
  for (let isChanged = here.staffing.keeps; isChanged && !isFull(); ) {
    isChanged = false;
    for (const { id } of [...people].sort((a, b) => b.rate - a.rate)) {
      const count = here.staffing.quantities.get(id) ?? 0;
      if (count <= 1 || isFull()) continue;
      const next = await attempt(new Map(here.staffing.quantities).set(id, count - 1));
      if (!next.staffing.keeps) continue;
      here = next;
      isChanged = true;
    }
  }
  const all = [...tried.values()].map(({ staffing }) => staffing);
  const kept = all.filter(({ keeps }) => keeps).sort((a, b) => a.hourly - b.hourly || b.inTime - a.inTime);
  const nearest = [...all].sort((a, b) => b.inTime - a.inTime)[0];
  return { kept, nearest: kept.length > 0 ? undefined : nearest, isWhole: !isFull() };
}
