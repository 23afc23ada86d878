import { type Said, say } from "../messages";
import type { Id, Model, XmlElement, XmlNode } from "../model";
import { putFigures, simulationNamespace } from "./bpsim";
import { type CalendarEvent, readCalendar } from "./calendar/iCalendar";
import { isZone, momentOf } from "./calendar/zone";
import type { Distribution } from "./distributions";
import type { DrawnData } from "./drawnData";
import { holderIn } from "./estimates";
import { readDistribution, type Units, unitSeconds } from "./readDistribution";
import { readDrawn } from "./readDrawn";
import { readNeed } from "./readNeed";
import type { Assumption, Given, Scenario, TimeKind } from "./scenario";
import { shareBelow } from "./shareBelow";
import { type Link, readSiteProperty, type Sites, siteProperty, sitesAfter, zoneProperty } from "./sites";

const localName = (name: string) => name.slice(name.indexOf(":") + 1);
const elementsIn = (element: XmlElement): XmlElement[] =>
  element.children.flatMap((child) =>
    "element" in child && child.element.uri === simulationNamespace ? [child.element] : [],
  );
const childrenNamed = (element: XmlElement, name: string) =>
  elementsIn(element).filter((child) => localName(child.name) === name);
const attribute = (element: XmlElement, name: string) => element.attributes.find(([key]) => key === name)?.[1];
const textOf = (element: XmlElement) => element.children.map((child) => ("text" in child ? child.text : "")).join("");

const nowhere: readonly XmlNode[] = [];
/** By the data and the figures they are read from, which stay the same objects while other things of a model change. */
const remembered = new WeakMap<
  readonly XmlNode[],
  { readonly figures: Model["figures"]; readonly scenarios: readonly Scenario[] }
>();

/**
 * The scenarios of a model, each whole: what it does not say itself is taken from the one it inherits from.
 * Source of the form: "BPSim: Business Process Simulation Specification", 1.0 (WfMC, 2013), chapter 5 to 8, from memory: names of elements
 * and attributes, `baseTimeUnit` being minutes where nothing is said. O(size of the data).
 */
export function scenariosOf(model: Model): readonly Scenario[] {
  const data = holderIn(model)?.extension ?? nowhere;
  const known = remembered.get(data);
  if (known && known.figures === model.figures) return known.scenarios;
  const whole = putFigures(data, model.figures);
  const found = whole
    .flatMap((node) => ("element" in node && node.element.uri === simulationNamespace ? [node.element] : []))
    .filter((element) => localName(element.name) === "BPSimData")
    .flatMap((data) => childrenNamed(data, "Scenario"));
  const own = found.map((element, at) => ownScenario(element, at));
  const scenarios = own.map((one) => inherited(one, own, new Set()));
  remembered.set(data, { figures: model.figures, scenarios });
  return scenarios;
}

/** What is said of an element twice: the later word counts, of times and of data one by one. */
function joined(before: Assumption, own: Assumption): Assumption {
  const kept = before.drawn?.filter(({ path }) => !own.drawn?.some((one) => one.path === path)) ?? [];
  const drawn = [...kept, ...(own.drawn ?? [])];
  return { ...before, ...own, times: { ...before.times, ...own.times }, ...(drawn.length > 0 && { drawn }) };
}

type Own = Scenario & { readonly said: ReadonlySet<string> };

function inherited(one: Own, all: readonly Own[], seen: Set<Id>): Scenario {
  if (one.inherits === undefined) return one;
  const base = all.find(({ id }) => id === one.inherits);
  if (!base || seen.has(one.id))
    return {
      ...one,
      problems: [
        ...one.problems,
        base
          ? say`It inherits from itself, over “${{ name: base.name }}”.`
          : say`It inherits from “${one.inherits}”, which is not there.`,
      ],
    };
  const from = inherited(base, all, new Set([...seen, one.id]));
  const of = new Map(from.of);
  for (const [element, own] of one.of) {
    const before = of.get(element);
    of.set(element, before ? joined(before, own) : own);
  }
  const kept = <Field extends keyof Scenario>(field: Field) => (one.said.has(field) ? one[field] : from[field]);
  const { duration, warmUp, replications, seed } = from;
  return {
    ...(duration !== undefined && { duration }),
    ...(warmUp !== undefined && { warmUp }),
    ...(replications !== undefined && { replications }),
    ...(seed !== undefined && { seed }),
    ...one,
    currency: kept("currency"),
    start: kept("start"),
    zone: kept("zone"),
    calendars: new Map([...from.calendars, ...one.calendars]),
    sites: sitesAfter(from.sites, one.sites),
    of,
    problems: [...from.problems.filter(({ text }) => !one.problems.some((own) => own.text === text)), ...one.problems],
  };
}

/** Monday, 4 January 2027, 8:00 in UTC, where a scenario names no start: a day any calendar of working days is open on. */
const usualStart = Date.UTC(2027, 0, 4, 8);

function ownScenario(element: XmlElement, at: number): Own {
  const problems: Said[] = [];
  const said = new Set<string>();
  const [parameters] = childrenNamed(element, "ScenarioParameters");
  const unit = (parameters && attribute(parameters, "baseTimeUnit")) ?? "min";
  if (unitSeconds(unit) === undefined) problems.push(say`“${unit}” is no unit of time; minutes are taken.`);
  const units: Units = { base: unitSeconds(unit) ?? 60 };
  const currency = parameters && attribute(parameters, "baseCurrencyUnit");
  if (currency !== undefined) said.add("currency");
  const first = (name: string) => {
    const value = parameters && childrenNamed(parameters, name).flatMap(elementsIn)[0];
    return value && attribute(value, "value") !== undefined ? value : undefined;
  };
  const properties = propertiesOf(parameters);
  const zone = properties.get(zoneProperty);
  const namedZone = (zone && attribute(zone, "value")) ?? (parameters && attribute(parameters, "zone"));
  const begin = startOf(first("Start"), namedZone, problems);
  if (first("Start")) said.add("start");
  if (first("Start") || namedZone !== undefined) said.add("zone");
  const seconds = (name: string) => {
    const value = first(name);
    const one = value && readDistribution(value, units);
    if (value && (one?.kind !== "constant" || !(one.value >= 0)))
      problems.push(say`“${attribute(value, "value") ?? ""}” is no length of time for ${name}.`);
    return one?.kind === "constant" ? one.value : undefined;
  };
  const whole = (name: string) => {
    const text = parameters && attribute(parameters, name);
    return text !== undefined && /^-?\d+$/.test(text.trim()) ? Number(text) : undefined;
  };
  const calendars = new Map<Id, { name: string; events: readonly CalendarEvent[] }>();
  for (const calendar of childrenNamed(element, "Calendar")) {
    const id = attribute(calendar, "id");
    if (id === undefined) continue;
    const read = readCalendar(textOf(calendar), begin.zone);
    const name = attribute(calendar, "name") ?? id;
    for (const problem of read.problems) problems.push(say`Calendar “${{ name }}”: ${problem}.`);
    calendars.set(id, { name, events: read.events });
  }
  const of = new Map<Id, Assumption>();
  for (const group of childrenNamed(element, "ElementParameters")) {
    const reference = attribute(group, "elementRef");
    const id = reference?.slice(reference.indexOf(":") + 1);
    if (reference === undefined || id === undefined) continue;
    const read = assumptionOf(group, units, calendars, (problem) => problems.push(say`${{ name: id }}: ${problem}.`));
    for (const name of new Set([reference, id])) {
      const before = of.get(name);
      of.set(name, before ? joined(before, read) : read);
    }
  }
  const [duration, warmUp] = [seconds("Duration"), seconds("Warmup")];
  const [replications, seed] = [whole("replication"), whole("seed")];
  const inherits = attribute(element, "inherits");
  return {
    id: attribute(element, "id") ?? `scenario-${at + 1}`,
    name: attribute(element, "name") ?? attribute(element, "id") ?? `Scenario ${at + 1}`,
    ...(inherits !== undefined && { inherits }),
    currency: currency ?? "EUR",
    ...begin,
    ...(duration !== undefined && { duration }),
    ...(warmUp !== undefined && { warmUp }),
    ...(replications !== undefined && replications >= 1 && { replications }),
    ...(seed !== undefined && { seed }),
    calendars,
    sites: sitesOf(properties, units, problems),
    of,
    own: of,
    problems,
    said,
  };
}

/** Values of properties, by their names. */
function propertiesOf(of: XmlElement | undefined): ReadonlyMap<string, XmlElement> {
  const found = (of ? childrenNamed(of, "PropertyParameters") : []).flatMap((group) =>
    childrenNamed(group, "Property"),
  );
  return new Map(
    found.flatMap((property) => {
      const name = attribute(property, "name");
      const [value] = elementsIn(property);
      return name !== undefined && value ? [[name, value] as const] : [];
    }),
  );
}

function sitesOf(properties: ReadonlyMap<string, XmlElement>, units: Units, problems: Said[]): Sites {
  const ofSystems = new Map<Id, string>();
  const roomOf = new Map<Id, number>();
  const links = new Map<string, Link>();
  for (const [name, value] of properties) {
    const read = readSiteProperty(name);
    if (!read) continue;
    if ("system" in read && read.what === "site") {
      const site = attribute(value, "value");
      if (site) ofSystems.set(read.system, site);
      continue;
    }
    const one = readDistribution(value, read.what === "delay" ? units : { base: undefined }, (problem) =>
      problems.push(say`${{ name }}: ${problem}.`),
    );
    if (!one) continue;
    const capacity =
      read.what === "capacity" && one.kind === "constant" && one.value >= 1 ? Math.round(one.value) : undefined;
    if (read.what !== "delay" && capacity === undefined) {
      problems.push(say`${{ name }}: a capacity is a number from 1.`);
      continue;
    }
    if ("system" in read) {
      if (capacity !== undefined) roomOf.set(read.system, capacity);
      continue;
    }
    const { from, to } = read;
    const known = links.get(`${from} > ${to}`) ?? { from, to };
    links.set(`${from} > ${to}`, {
      ...known,
      ...(capacity === undefined ? { delay: [{ value: one }] } : { capacity }),
    });
  }
  return { ofSystems, roomOf, links: [...links.values()] };
}

/** "2027-03-01T08:00:00", "…Z", "…+01:00", in a zone where one is named. */
function startOf(value: XmlElement | undefined, zone: string | undefined, problems: Said[]) {
  if (zone !== undefined && !isZone(zone)) problems.push(say`“${zone}” is no known time zone; UTC is taken.`);
  const own = zone !== undefined && isZone(zone) ? zone : "UTC";
  const text = value && attribute(value, "value");
  if (text === undefined) return { start: usualStart, zone: own };
  const found = /^(\d{4})-(\d\d)-(\d\d)(?:T(\d\d):(\d\d)(?::(\d\d)(?:\.\d+)?)?)?(Z|[+-]\d\d:\d\d)?$/.exec(text.trim());
  if (!found) {
    problems.push(say`“${text}” is no date.`);
    return { start: usualStart, zone: own };
  }
  const [year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0] = found
    .slice(1, 7)
    .map((part) => Number(part ?? 0));
  const offset = found[7];
  if (offset === undefined) return { start: momentOf({ year, month, day, hour, minute, second }, own), zone: own };
  const utc = Date.UTC(year, month - 1, day, hour, minute, second);
  const shift =
    offset === "Z" ? 0 : (Number(offset.slice(1, 3)) * 60 + Number(offset.slice(4))) * (offset[0] === "-" ? -1 : 1);
  return { start: utc - shift * 60_000, zone: own };
}

const timeNames: { readonly [name: string]: TimeKind } = {
  TransferTime: "transfer",
  QueueTime: "queue",
  WaitTime: "wait",
  SetUpTime: "setUp",
  SetupTime: "setUp",
  ProcessingTime: "processing",
  ValidationTime: "validation",
  ReworkTime: "rework",
  LagTime: "lag",
};

/** Parameters of one element. */
function assumptionOf(
  group: XmlElement,
  units: Units,
  calendars: ReadonlyMap<Id, unknown>,
  tell: (problem: Said) => void,
): Assumption {
  const times: { [kind in TimeKind]?: readonly Given<Distribution>[] } = {};
  let read: Omit<Assumption, "times" | "drawn"> = {};
  const drawn: DrawnData[] = [];
  const valuesOf = (parameter: XmlElement): XmlElement[] =>
    elementsIn(parameter)
      .filter(({ name }) => localName(name) !== "ResultRequest")
      .flatMap((value) => (localName(value.name) === "EnumParameter" ? elementsIn(value).slice(0, 1) : [value]));
  const during = (value: XmlElement): { readonly during?: Id } => {
    const calendar = attribute(value, "validFor");
    if (calendar === undefined) return {};
    if (!calendars.has(calendar)) tell(say`calendar “${calendar}” is not there`);
    return { during: calendar };
  };
  const spread = (parameter: XmlElement, isTime: boolean): readonly Given<Distribution>[] =>
    valuesOf(parameter).flatMap((value) => {
      const one = readDistribution(value, isTime ? units : { base: undefined }, tell);
      if (one && isTime && shareBelow(one, -1e-9) > 0) tell(say`a time below 0 counts as 0`);
      return one ? [{ value: one, ...during(value) }] : [];
    });
  const constantOf = (parameter: XmlElement, { value }: Given<Distribution>): number | undefined => {
    if (value.kind === "constant") return value.value;
    tell(say`${localName(parameter.name)} cannot be used: ${say`it has to be one number`}`);
    return undefined;
  };
  const number = (parameter: XmlElement): number | undefined => {
    const [one] = spread(parameter, false);
    return one && constantOf(parameter, one);
  };
  for (const kind of elementsIn(group))
    for (const parameter of elementsIn(kind)) {
      const name = localName(parameter.name);
      if (name === "Property") {
        const property = attribute(parameter, "name");
        const value = elementsIn(parameter).find(({ name }) => localName(name) !== "ResultRequest");
        if (property === undefined || !value) continue;
        const where = property === siteProperty ? attribute(value, "value") : undefined;
        if (where) read = { ...read, site: where };
        const spread = readDrawn(value, tell);
        if (spread) drawn.push({ path: property, spread });
        continue;
      }
      const time = timeNames[name];
      if (time) {
        const given = spread(parameter, true);
        if (given.length > 0) times[time] = given;
      } else if (name === "InterTriggerTimer") {
        const interval = spread(parameter, true);
        if (interval.length > 0) read = { ...read, interval };
      } else if (name === "TriggerCount") {
        const count = number(parameter);
        if (count !== undefined && count >= 0) read = { ...read, count: Math.round(count) };
      } else if (name === "Probability") {
        const probability = number(parameter);
        if (probability === undefined) continue;
        if (probability < 0 || probability > 1) tell(say`a probability of ${probability} cannot be; it is from 0 to 1`);
        read = { ...read, probability: Math.min(1, Math.max(0, probability)) };
      } else if (name === "Quantity") {
        const quantity = spread(parameter, false).flatMap(({ value, ...rest }) => {
          const count = constantOf(parameter, { value });
          if (count === undefined) return [];
          const whole = Math.max(0, Math.floor(count));
          if (whole !== count) tell(say`a number of ${count} counts as ${whole}`);
          return [{ value: whole, ...rest }];
        });
        if (quantity.length > 0) read = { ...read, quantity };
      } else if (name === "Availability")
        read = {
          ...read,
          available: valuesOf(parameter).map((value) => ({
            value: attribute(value, "value") !== "false" && attribute(value, "value") !== "0",
            ...during(value),
          })),
        };
      else if (name === "Selection") {
        const needs = valuesOf(parameter).flatMap((value) => {
          const text = attribute(value, "value") ?? textOf(value);
          const need = readNeed(text);
          if (!need) tell(say`the selection “${text}” cannot be read`);
          return need ?? [];
        });
        if (needs.length > 0) read = { ...read, needs };
      } else if (name === "Role") {
        const roles = valuesOf(parameter).flatMap((value) => attribute(value, "value") ?? []);
        if (roles.length > 0) read = { ...read, roles };
      } else if (name === "Priority") {
        const priority = number(parameter);
        if (priority !== undefined) read = { ...read, priority };
      } else if (name === "FixedCost") {
        const fixedCost = spread(parameter, false);
        if (fixedCost.length > 0) read = { ...read, fixedCost };
      } else if (name === "UnitCost") {
        const [value] = valuesOf(parameter);
        const amount = number(parameter);
        if (value && amount !== undefined) {
          const unit = attribute(value, "timeUnit");
          read = { ...read, unitCost: amount / ((unit !== undefined && unitSeconds(unit)) || (units.base ?? 60)) };
        }
      } else if (valuesOf(parameter).some((value) => attribute(value, "value") !== "false"))
        tell(say`${name} is not used in a forecast`);
    }
  return { times, ...read, ...(drawn.length > 0 && { drawn }) };
}
