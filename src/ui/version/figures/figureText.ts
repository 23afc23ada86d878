import type { Command } from "@/core/commands";
import {
  constant,
  type Distribution,
  type Given,
  type ParameterName,
  readSaid,
  readSpread,
  type Scenario,
  type Spread,
  saidOf,
  spreadWords,
  weekText,
} from "@/core/scenario";
import { typedDecimals } from "../../controls/units";
import { text } from "../../messages";
import type { CellName, SheetRow } from "./sheetRows";
import { takesExpression, takesWords } from "./takes";
import { readWeek, weekWords } from "./week";

const words = text.forecast.sheet;
type Assumption = ReturnType<Scenario["of"]["get"]>;

/** What a scenario says of a row, as it stands in its cell; or only what it says itself, without what it takes over. */
export function shown(row: SheetRow, name: CellName, scenario: Scenario, isOwn = false): string {
  const { sites } = scenario;
  if (row.data) {
    const { process, path } = row.data;
    const drawn = (isOwn ? scenario.own : scenario.of).get(process)?.drawn?.find((one) => one.path === path);
    return drawn ? spreadWords(drawn.spread) : "";
  }
  if (row.kind === "system")
    return name === "capacity" ? roomText(sites.roomOf.get(row.element)) : (sites.ofSystems.get(row.element) ?? "");
  if (row.between) {
    const [from, to] = row.between;
    const link = sites.links.find((one) => one.from === from && one.to === to);
    if (name === "capacity") return roomText(link?.capacity);
    return link?.delay?.[0] ? saidOf(link.delay[0].value, "time") : "";
  }
  if (name === "selection") {
    const need = (isOwn ? scenario.own : scenario.of).get(row.element)?.needs;
    return need ? takesWords(need, row.people ?? new Map()) : "";
  }
  return ofParameter((isOwn ? scenario.own : scenario.of).get(row.element), name as ParameterName, scenario);
}

const roomText = (room: number | undefined): string => (room === undefined ? "" : String(room));

/** How what stands in a cell is spread; undefined where it is no time. */
export function spreadIn(row: SheetRow, name: CellName, scenario: Scenario): Distribution | undefined {
  if (row.data) {
    const { process, path } = row.data;
    const spread = scenario.of.get(process)?.drawn?.find((one) => one.path === path)?.spread;
    return spread?.kind === "values" ? undefined : spread;
  }
  if (row.between) {
    const [from, to] = row.between;
    return scenario.sites.links.find((one) => one.from === from && one.to === to)?.delay?.[0]?.value;
  }
  const of = scenario.of.get(row.element);
  const only = (given: readonly Given<Distribution>[] | undefined) =>
    given?.length === 1 ? given[0]?.value : undefined;
  if (name === "processing" || name === "wait" || name === "transfer") return only(of?.times[name]);
  return name === "interval" ? only(of?.interval) : undefined;
}

function ofParameter(of: Assumption, parameter: ParameterName, scenario: Scenario): string {
  if (!of) return "";
  const hoursOf = (during: string) => {
    const calendar = scenario.calendars.get(during);
    return (calendar && (weekWords(calendar.events, scenario.zone) ?? calendar.name)) || during;
  };
  // Of several, each with the hours it holds in: a cell that showed one of them would say it is all.
  const each = <Value>(given: readonly Given<Value>[] | undefined, said: (value: Value) => string) =>
    (given ?? [])
      .map(({ value, during }) => said(value) + (during === undefined ? "" : ` (${hoursOf(during)})`))
      .join(", ");
  const times = (given: readonly Given<Distribution>[] | undefined) => each(given, (one) => saidOf(one, "time"));
  switch (parameter) {
    case "processing":
    case "wait":
    case "transfer":
      return times(of.times[parameter]);
    case "interval":
      return times(of.interval);
    case "probability":
      return of.probability === undefined ? "" : `${typedDecimals(of.probability * 100)} %`;
    case "quantity":
      return each(of.quantity, String);
    case "unitCost":
      return of.unitCost === undefined ? "" : typedDecimals(of.unitCost * 3600);
    case "fixedCost":
      return each(of.fixedCost, (one) => saidOf(one, "number"));
    case "availability":
      return (of.available ?? [])
        .map(({ value, during }) =>
          during === undefined ? words[value ? "always" : "never"] : (value ? "" : "not ") + hoursOf(during),
        )
        .join(", ");
    case "site":
      return of.site ?? "";
    default:
      return "";
  }
}

/** What is typed in a cell as commands; or why it is none. */
export function commandsFor(
  row: SheetRow,
  name: CellName,
  typed: string,
  scenario: Scenario,
): readonly Command[] | string {
  if (name === "site" && /[<>]/.test(typed)) return words.cannotSite(typed);
  if (row.kind === "system") {
    const say = (what: { readonly site?: string | null; readonly capacity?: number | null }): Command[] => [
      { type: "setSites", scenario: scenario.id, words: { system: row.element, ...what } },
    ];
    return name === "capacity" ? roomCommands(typed, say) : say({ site: typed || null });
  }
  if (row.data) return drawnCommands(row.data, typed, scenario);
  if (row.between) return wayCommands(row.between, name, typed, scenario);
  const parameter = name as ParameterName;
  const say = (value: Distribution | string | null): Command => ({
    type: "setAssumption",
    scenario: scenario.id,
    element: row.element,
    parameter,
    value,
  });
  if (typed === "") return [say(null)];
  if (parameter === "site") return [say(typed)];
  if (parameter === "selection") {
    const people = row.people ?? new Map<string, string>();
    const expression = takesExpression(typed, people);
    return expression === undefined ? words.cannotTake(typed, [...people.values()]) : [say(expression)];
  }
  if (parameter === "availability") {
    const week = readWeek(typed);
    if (!week) return words.cannotHours(typed);
    const off = week.off.length > 0 ? `-not-${week.off.join("-")}` : "";
    const id = `hours-${week.days.join("").toLowerCase()}-${week.from}-${week.to}${off}`
      .replace(/:/g, "")
      .slice(0, 200);
    const first = new Date(scenario.start - 14 * 86_400_000).toISOString().slice(0, 10);
    return [
      {
        type: "setCalendar",
        scenario: scenario.id,
        id,
        name: typed,
        text: weekText(week.days, week.from, week.to, first, undefined, week.off),
      },
      say(id),
    ];
  }
  if (parameter === "probability") {
    const share = /^(\d+(?:[.,]\d+)?) ?%?$/.exec(typed)?.[1];
    const value = share === undefined ? Number.NaN : Number(share.replace(",", ".")) / 100;
    return value >= 0 && value <= 1 ? [say(constant(Number(value.toPrecision(6))))] : words.cannotShare(typed);
  }
  if (parameter === "quantity" || parameter === "unitCost") {
    const value = Number(typed.replace(",", "."));
    const isWhole = parameter !== "quantity" || Number.isInteger(value);
    return Number.isFinite(value) && value >= 0 && isWhole ? [say(constant(value))] : words.cannotNumber(typed);
  }
  const read = readSaid(typed, parameter === "fixedCost" ? "number" : "time");
  return read ? [say(read)] : parameter === "fixedCost" ? words.cannotNumber(typed) : words.cannot(typed);
}

/** How much at once, of what has room for so much; an empty cell says nothing of it. */
function roomCommands(
  typed: string,
  say: (what: { readonly capacity: number | null }) => Command[],
): readonly Command[] | string {
  if (typed === "") return say({ capacity: null });
  return /^[1-9]\d{0,5}$/.test(typed) ? say({ capacity: Number(typed) }) : words.cannotNumber(typed);
}

function drawnCommands(
  { process, path, kind, choices }: NonNullable<SheetRow["data"]>,
  typed: string,
  { id }: Scenario,
): readonly Command[] | string {
  const say = (spread: Spread | null): Command[] => [{ type: "setDrawn", scenario: id, process, path, spread }];
  if (typed === "") return say(null);
  const spread = readSpread(typed, kind);
  if (!spread) return words.cannotDraw[kind ?? "text"];
  const unknown =
    spread.kind === "values" && choices
      ? spread.points.find(({ value }) => !choices.includes(String(value)))
      : undefined;
  return unknown && choices ? words.noChoice(String(unknown.value), choices) : say(spread);
}

function wayCommands(
  [from, to]: readonly [string, string],
  name: CellName,
  typed: string,
  scenario: Scenario,
): readonly Command[] | string {
  const say = (what: { readonly delay?: Distribution | null; readonly capacity?: number | null }): Command[] => [
    { type: "setSites", scenario: scenario.id, words: { from, to, ...what } },
  ];
  if (name === "capacity") return roomCommands(typed, say);
  if (typed === "") return say({ delay: null });
  const read = readSaid(typed, "time");
  return read ? say({ delay: read }) : words.cannot(typed);
}
