import type { CaseData } from "../feel";
import { drawnCase, drawnFor, Stream } from "../forecast";
import { flowNodesIn, type Id } from "../model";
import { draw, type Scenario } from "../scenario";
import type { World } from "../tokens";
import { Chance } from "./chance";
import type { Engine } from "./engine";
import { begunWith } from "./runCases";
import { sampleValues } from "./sampleData";
import { SimulatedCase } from "./simulatedCase";

/** What simulated members are to bring about. */
export interface StaffRequest {
  readonly scenario: Scenario | undefined;
  readonly seed: number;
  /** Cases come between these moments, at most so many; what is not done at the end stays open. Milliseconds since 1970. */
  readonly from: number;
  readonly until: number;
  readonly most: number;
}

/** People begin what comes within a day, on average. Seconds. */
const usualIdle = 86_400;
/** Without a word on how often cases come, one every so many hours. */
const usualInterval = 4 * 3_600_000;

/**
 * Cases as they would stand had simulated people worked them since: they come as often as the scenario says, with data as it is spread
 * there; people take as long as it says, and fill in what their step writes. The same request gives the same cases. O(cases × steps).
 */
export function* staffedCases(
  world: World,
  process: Id,
  { scenario, seed, from, until, most }: StaffRequest,
): Iterable<{ readonly number: number; readonly began: number; readonly engine: Engine }> {
  const start = flowNodesIn(world.model, process).find(({ type }) => type === "startEvent");
  const interval = start && scenario?.of.get(start.id)?.interval?.[0];
  const drawn = scenario
    ? drawnFor(scenario, start?.id ?? process, process).map((one) => ({
        ...one,
        stream: new Stream(seed, `data ${one.path}`),
      }))
    : [];
  const also = begunWith(world.model, process);
  let began = from;
  for (let number = 0; number < most; number++) {
    const chance = new Chance(seed, number);
    const gap = interval ? draw(interval.value, chance.of(process, "arrival")) * 1000 : usualInterval;
    began += Math.max(1000, gap);
    if (began > until) return;
    const one = new SimulatedCase({
      world,
      process,
      began,
      data: rounded(drawnCase(drawn, number) ?? {}),
      chance,
      scenario,
      also,
      idle: usualIdle,
      values: (engine, wait) => {
        const known = engine.elementOf(wait);
        if (!known) return {};
        const stream = chance.of(known.element.id, "fills in");
        return sampleValues(known.model, known.element.id, engine.dataAt(wait), () => stream.next(), engine.now);
      },
    });
    one.run(until);
    yield { number, began, engine: one.engine };
  }
}

/** Numbers that are drawn have more places than anybody writes down. */
function rounded(data: CaseData): CaseData {
  return Object.fromEntries(
    Object.entries(data).map(([name, value]) => [
      name,
      typeof value === "number"
        ? Math.round(value * 10) / 10
        : typeof value === "object" && value !== null && !Array.isArray(value)
          ? rounded(value as CaseData)
          : value,
    ]),
  );
}
