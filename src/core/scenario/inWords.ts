import { type Id, type Model, nameOf, wordFor } from "../model";
import type { Distribution } from "./distributions";
import { spreadWords } from "./drawnData";
import type { SaidAs } from "./said";
import { saidOf } from "./said";
import type { Assumption, Given, Scenario } from "./scenario";

/** One thing that a scenario says of an element, as a person reads it. */
export interface SaidRow {
  readonly element: Id;
  readonly name: string;
  readonly what: string;
  readonly value: string;
}

const timeWords = {
  transfer: "transfer",
  queue: "queue",
  wait: "waits before",
  setUp: "set-up",
  processing: "working time",
  validation: "validation",
  rework: "rework",
  lag: "lag",
} as const;
const decimal = (value: number) => String(Number(value.toPrecision(6)));

/** All that a scenario says of the elements of a model, in the order of the model. O(elements + what is said). */
export function scenarioInWords(model: Model, scenario: Scenario): readonly SaidRow[] {
  const known = [...model.elements].filter(({ id }) => scenario.of.has(id));
  return known.flatMap(({ id, type }) =>
    assumptionInWords(scenario.of.get(id) as Assumption, scenario).map(([what, value]) => ({
      element: id,
      name: nameOf(model, id) || wordFor(type) || id,
      what,
      value,
    })),
  );
}

const availableWords = (isThere: boolean, calendar: string) =>
  isThere ? calendar : calendar === "" ? "never" : `not ${calendar}`;

function assumptionInWords(of: Assumption, scenario: Scenario): (readonly [what: string, value: string])[] {
  const calendar = (during: Id | undefined) =>
    during === undefined ? "" : scenario.calendars.get(during)?.name || during;
  const hours = (during: Id | undefined) => (during === undefined ? "" : ` (${calendar(during)})`);
  const spread = (given: readonly Given<Distribution>[] | undefined, as: SaidAs) =>
    given?.map(({ value, during }) => saidOf(value, as) + hours(during)).join(", ") ?? "";
  const rows: (readonly [string, string])[] = [
    ...Object.entries(timeWords).map(
      ([kind, words]) => [words, spread(of.times[kind as keyof typeof timeWords], "time")] as const,
    ),
    ["a case comes, or the event comes after", spread(of.interval, "time")],
    ["cases at most", of.count === undefined ? "" : decimal(of.count)],
    ["share", of.probability === undefined ? "" : `${decimal(of.probability * 100)} %`],
    ["how many", of.quantity?.map(({ value, during }) => decimal(value) + hours(during)).join(", ") ?? ""],
    ["hours", of.available?.map(({ value, during }) => availableWords(value, calendar(during))).join(", ") ?? ""],
    ["priority", of.priority === undefined ? "" : decimal(of.priority)],
    ["an hour costs", of.unitCost === undefined ? "" : `${decimal(of.unitCost * 3600)} ${scenario.currency}`],
    ["each costs", of.fixedCost ? `${spread(of.fixedCost, "number")} ${scenario.currency}` : ""],
    [
      "needs",
      of.needs?.map(({ oneOf, count }) => `${count > 1 ? `${count} of ` : ""}${oneOf.join(" or ")}`).join(", ") ?? "",
    ],
  ];
  const drawn = (of.drawn ?? []).map(({ path, spread }) => [path, spreadWords(spread)] as const);
  return [...rows.filter(([, value]) => value !== ""), ...drawn];
}
