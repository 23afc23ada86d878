import { type Input, inputOf, type Scenario, withInput } from "../scenario";
import type { Forecast } from "./forecast";

/** What one input does to a figure when it is a little less, and a little more. */
export interface Effect {
  readonly input: Input;
  readonly now: number;
  readonly low: number;
  readonly high: number;
  /** The figure with either. */
  readonly atLow: number;
  readonly atHigh: number;
  /** By how much the figure moves between the two. */
  readonly range: number;
}

/** Times, intervals and shares a fifth less and more; one person fewer and more, and at least one. */
function around({ what }: Input, now: number): readonly [low: number, high: number] {
  if (what === "quantity") return [Math.max(1, now - 1), now + 1];
  if (what === "probability") return [Math.max(0, now * 0.8), Math.min(1, now * 1.2)];
  return [now * 0.8, now * 1.2];
}

/**
 * Which inputs matter: each is turned by itself, all others as they are, and ranked by how far a figure moves (one at a time, as a tornado
 * diagram shows it; A. Saltelli et al., "Global Sensitivity Analysis: The Primer", 2008, 1.2.5). The same cases meet all of them. Inputs of
 * which nothing is said are left out.
 * @param run makes the forecast of a scenario; it is asked twice for each input
 * @param tell hears how far it is, 0 to 1
 */
export function whatMatters(
  scenario: Scenario,
  inputs: readonly Input[],
  figure: (forecast: Forecast) => number,
  run: (scenario: Scenario) => Forecast,
  tell: (share: number) => void = () => undefined,
): readonly Effect[] {
  const known = inputs.flatMap((input) => {
    const now = inputOf(scenario, input);
    return now === undefined || now === 0 ? [] : [{ input, now }];
  });
  const effects = known.map(({ input, now }, at): Effect => {
    tell(at / known.length);
    const [low, high] = around(input, now);
    const atLow = figure(run(withInput(scenario, input, low)));
    const atHigh = figure(run(withInput(scenario, input, high)));
    return { input, now, low, high, atLow, atHigh, range: Math.abs(atHigh - atLow) };
  });
  return effects.sort((a, b) => b.range - a.range);
}
