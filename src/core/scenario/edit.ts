import type { Id, Model, XmlElement, XmlNode } from "../model";
import { isSimulation, putFigures } from "./bpsim";
import type { Distribution } from "./distributions";
import type { Spread } from "./drawnData";
import { holderIn } from "./estimates";
import { type ParameterName, type ParameterValue, parameters } from "./parameters";
import { linkProperty, roomProperty, systemProperty, zoneProperty } from "./sites";
import { distributionElement, isoOf, make, spreadElement, valueElement } from "./writeValues";

/** Groups in the order the standard has them. */
const groupOrder = [
  "TimeParameters",
  "ControlParameters",
  "ResourceParameters",
  "PriorityParameters",
  "CostParameters",
  "PropertyParameters",
];

const local = (element: XmlElement) => element.name.slice(element.name.indexOf(":") + 1);
const attributeOf = (element: XmlElement, name: string) => element.attributes.find(([key]) => key === name)?.[1];
/** The simulation data of a model as a file would have it, figures in their places; undefined where there is none. */
export function simulationOf(model: Model): readonly XmlNode[] | undefined {
  const holder = holderIn(model);
  return holder && putFigures(holder.extension ?? [], model.figures);
}

type Change = (scenario: XmlElement) => XmlElement;

/** The data with one scenario changed; the first where no id is the same is not taken for it. */
export function withScenario(data: readonly XmlNode[], scenario: Id, change: Change): readonly XmlNode[] {
  return inData(data, (inside) => ({
    ...inside,
    children: inside.children.map((node) =>
      isSimulation(node, "Scenario") && attributeOf(node.element, "id") === scenario
        ? { element: change(node.element) }
        : node,
    ),
  }));
}

function inData(data: readonly XmlNode[], change: Change): readonly XmlNode[] {
  const at = data.findIndex((node) => isSimulation(node, "BPSimData"));
  return data.map((node, place) => (place === at && "element" in node ? { element: change(node.element) } : node));
}

/** Says something of an element in a scenario; undefined takes it off. What stands beside it stays as it is. O(size of the scenario). */
export function withParameter(
  data: readonly XmlNode[],
  scenario: Id,
  element: Id,
  parameter: ParameterName,
  value: ParameterValue | undefined,
): readonly XmlNode[] {
  return withSaid(
    data,
    scenario,
    element,
    parameters[parameter],
    value === undefined ? undefined : valueElement(parameter, value),
  );
}

/** Says how a piece of data of a process is drawn for each case: a property of the process, by its path; undefined takes it off. */
export const withDrawn = (
  data: readonly XmlNode[],
  scenario: Id,
  process: Id,
  path: string,
  spread: Spread | undefined,
): readonly XmlNode[] =>
  withSaid(
    data,
    scenario,
    process,
    { group: "PropertyParameters", name: "Property", property: path },
    spread && spreadElement(spread),
  );

function withSaid(
  data: readonly XmlNode[],
  scenario: Id,
  element: Id,
  place: Place,
  value: XmlElement | undefined,
): readonly XmlNode[] {
  const written = value && make(place.name, { name: place.property }, [{ element: value }]);
  return withScenario(data, scenario, (one) => {
    const at = one.children.findIndex(
      (node) => isSimulation(node, "ElementParameters") && attributeOf(node.element, "elementRef") === element,
    );
    const known = at < 0 ? undefined : (one.children[at] as { readonly element: XmlElement }).element;
    if (!known && !written) return one;
    const changed = inGroup(known ?? make("ElementParameters", { elementRef: element }), place, written);
    const isEmpty = !changed.children.some((node) => "element" in node);
    const node: XmlNode = { element: changed };
    if (at >= 0)
      return {
        ...one,
        children: one.children.flatMap((other, place) => (place === at ? (isEmpty ? [] : [node]) : [other])),
      };
    return { ...one, children: inPlace(one.children, node) };
  });
}

/** Element parameters stand before calendars. */
function inPlace(children: readonly XmlNode[], node: XmlNode): readonly XmlNode[] {
  const at = children.findIndex((one) => isSimulation(one, "Calendar") || isSimulation(one, "VendorExtension"));
  return at < 0 ? [...children, node] : [...children.slice(0, at), node, ...children.slice(at)];
}

/** Where a parameter stands: its group, its name, and of a property what that is called. */
interface Place {
  readonly group: string;
  readonly name: string;
  readonly property?: string;
}

function inGroup(of: XmlElement, { group, name, property }: Place, written: XmlElement | undefined): XmlElement {
  const isIt = (node: XmlNode) =>
    isSimulation(node, name) && (property === undefined || attributeOf(node.element, "name") === property);
  const known = of.children.find((node) => isSimulation(node, group));
  const before = known && "element" in known ? known.element : make(group);
  const children = before.children.filter((node) => !isIt(node));
  const place = before.children.findIndex(isIt);
  if (written) children.splice(place < 0 ? children.length : place, 0, { element: written });
  const isEmpty = !children.some((node) => "element" in node);
  const node: XmlNode = { element: { ...before, children } };
  if (known)
    return { ...of, children: of.children.flatMap((one) => (one === known ? (isEmpty ? [] : [node]) : [one])) };
  if (isEmpty) return of;
  const rank = (one: XmlNode) => ("element" in one ? groupOrder.indexOf(local(one.element)) : -1);
  const at = of.children.findIndex((one) => rank(one) > groupOrder.indexOf(group));
  return {
    ...of,
    children: at < 0 ? [...of.children, node] : [...of.children.slice(0, at), node, ...of.children.slice(at)],
  };
}

/** What a scenario says of itself. Null takes off. */
export interface ScenarioWords {
  readonly name?: string;
  readonly inherits?: Id | null;
  readonly currency?: string;
  readonly replications?: number | null;
  readonly seed?: number | null;
  /** ISO 8601; durations in seconds. */
  readonly start?: string | null;
  readonly duration?: number | null;
  readonly warmUp?: number | null;
  readonly zone?: string | null;
}

/** What a scenario says of sites. Null takes off. */
export type SiteWords =
  | {
      readonly system: Id;
      readonly site?: string | null;
      /** How many steps can use it at once. */
      readonly capacity?: number | null;
    }
  | {
      readonly from: string;
      readonly to: string;
      /** Seconds; how much at once. */
      readonly delay?: Distribution | null;
      readonly capacity?: number | null;
    };

const withAttribute = (element: XmlElement, name: string, value: string | undefined): XmlElement => ({
  ...element,
  attributes:
    value === undefined
      ? element.attributes.filter(([key]) => key !== name)
      : element.attributes.some(([key]) => key === name)
        ? element.attributes.map((pair) => (pair[0] === name ? ([name, value] as const) : pair))
        : [...element.attributes, [name, value] as const],
});

/** Says how a scenario is to be run. */
export function withWords(data: readonly XmlNode[], scenario: Id, words: ScenarioWords): readonly XmlNode[] {
  const text = (value: string | number | null | undefined) =>
    value === null || value === undefined ? undefined : String(value);
  return withScenario(data, scenario, (one) => {
    let next = one;
    if (words.name !== undefined) next = withAttribute(next, "name", words.name);
    if (words.inherits !== undefined) next = withAttribute(next, "inherits", text(words.inherits));
    const known = next.children.find((node) => isSimulation(node, "ScenarioParameters"));
    let own = known && "element" in known ? known.element : make("ScenarioParameters");
    if (words.currency !== undefined) own = withAttribute(own, "baseCurrencyUnit", words.currency);
    if (words.replications !== undefined) own = withAttribute(own, "replication", text(words.replications));
    if (words.seed !== undefined) own = withAttribute(own, "seed", text(words.seed));
    const put = (name: string, form: string, value: string | undefined) => {
      const others = own.children.filter((node) => !isSimulation(node, name));
      own = {
        ...own,
        children:
          value === undefined ? others : [...others, { element: make(name, {}, [{ element: make(form, { value }) }]) }],
      };
    };
    if (words.start !== undefined) put("Start", "DateTimeParameter", words.start ?? undefined);
    if (words.duration !== undefined)
      put("Duration", "DurationParameter", words.duration === null ? undefined : isoOf(words.duration));
    if (words.warmUp !== undefined)
      put("Warmup", "DurationParameter", words.warmUp === null ? undefined : isoOf(words.warmUp));
    if (words.zone !== undefined) {
      // Another program's way of saying it gives way.
      own = withAttribute(own, "zone", undefined);
      own = withProperty(
        own,
        zoneProperty,
        words.zone === null ? undefined : make("StringParameter", { value: words.zone }),
      );
    }
    const rest = next.children.filter((node) => node !== known);
    return { ...next, children: [{ element: own }, ...rest] };
  });
}

/** Properties stand behind what else a scenario is run by. */
function withProperty(of: XmlElement, property: string, value: XmlElement | undefined): XmlElement {
  const written = value && make("Property", { name: property }, [{ element: value }]);
  return inGroup(of, { group: "PropertyParameters", name: "Property", property }, written);
}

/** Says where a system is, or what lies between two sites. */
export function withSites(data: readonly XmlNode[], scenario: Id, words: SiteWords): readonly XmlNode[] {
  return withScenario(data, scenario, (one) => {
    const known = one.children.find((node) => isSimulation(node, "ScenarioParameters"));
    let own = known && "element" in known ? known.element : make("ScenarioParameters");
    const put = (property: string, value: XmlElement | undefined) => {
      own = withProperty(own, property, value);
    };
    const room = (capacity: number | null) =>
      capacity === null ? undefined : make("NumericParameter", { value: capacity });
    if ("system" in words) {
      const { system, site, capacity } = words;
      if (site !== undefined)
        put(systemProperty(system), site === null ? undefined : make("StringParameter", { value: site }));
      if (capacity !== undefined) put(roomProperty(system), room(capacity));
    } else {
      const { from, to, delay, capacity } = words;
      if (delay !== undefined)
        put(linkProperty("delay", from, to), delay === null ? undefined : distributionElement(delay, true));
      if (capacity !== undefined) put(linkProperty("capacity", from, to), room(capacity));
    }
    return { ...one, children: [{ element: own }, ...one.children.filter((node) => node !== known)] };
  });
}

/** A new scenario behind the others. */
export const withNewScenario = (data: readonly XmlNode[], id: Id, name: string, inherits?: Id): readonly XmlNode[] =>
  inData(data, (inside) => ({
    ...inside,
    children: [
      ...inside.children,
      {
        element: make(
          "Scenario",
          { id, name, inherits },
          inherits === undefined ? [{ element: make("ScenarioParameters", { baseTimeUnit: "min" }) }] : [],
        ),
      },
    ],
  }));

export const withoutScenario = (data: readonly XmlNode[], id: Id): readonly XmlNode[] =>
  inData(data, (inside) => ({
    ...inside,
    children: inside.children.filter(
      (node) => !(isSimulation(node, "Scenario") && attributeOf(node.element, "id") === id),
    ),
  }));

/** A calendar of a scenario: made, or given other hours. Without a text it goes. */
export function withCalendar(
  data: readonly XmlNode[],
  scenario: Id,
  calendar: { readonly id: Id; readonly name: string; readonly text: string | undefined },
): readonly XmlNode[] {
  return withScenario(data, scenario, (one) => {
    const rest = one.children.filter(
      (node) => !(isSimulation(node, "Calendar") && attributeOf(node.element, "id") === calendar.id),
    );
    if (calendar.text === undefined) return { ...one, children: rest };
    const made = make("Calendar", { id: calendar.id, name: calendar.name }, [{ text: calendar.text }]);
    return { ...one, children: [...rest, { element: made }] };
  });
}

/** Working hours as a calendar: days of the week by two letters, hours of the day, and days off (ISO 8601). */
export function weekText(
  days: readonly string[],
  from: string,
  to: string,
  firstDay: string,
  zone?: string,
  off: readonly string[] = [],
): string {
  const stamp = (time: string, day = firstDay) => `${day.replace(/-/g, "")}T${time.replace(":", "")}00`;
  const tied = zone === undefined ? "" : `;TZID=${zone}`;
  return [
    "BEGIN:VCALENDAR",
    "VERSION:2.0",
    "PRODID:-//Lucid Lane//EN",
    "BEGIN:VEVENT",
    `DTSTART${tied}:${stamp(from)}`,
    `DTEND${tied}:${stamp(to)}`,
    `RRULE:FREQ=WEEKLY;BYDAY=${days.join(",")}`,
    ...(off.length > 0 ? [`EXDATE${tied}:${off.map((day) => stamp(from, day)).join(",")}`] : []),
    "END:VEVENT",
    "END:VCALENDAR",
  ].join("\n");
}
