import { roleOfLane } from "../directory";
import { Stream } from "../forecast";
import { childrenOf, type Id, laneOf, type Model, nameOf } from "../model";
import { writeTable } from "../table";
import { escapeText } from "../xml";
import type { LiveEvent } from "./liveCase";

/** One line of a log: a piece of work of a case began or was completed. */
export interface LogEvent {
  readonly activity: string;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly lifecycle: "start" | "complete";
  readonly role: string;
  /** Who did it, where that is known. */
  readonly who?: string;
}

export interface LogTrace {
  readonly case: string;
  readonly events: readonly LogEvent[];
}

/** Who does a step, as a log has it: the lane it stands in, else who is said to do it. */
export function roleOf(model: Model, step: Id): string {
  const lane = laneOf(model, step);
  if (lane) return nameOf(model, lane.id) || roleOfLane(model, lane)?.name || "";
  const [first] = childrenOf(model, step, "resourceRoles");
  if (!first) return "";
  const resource = typeof first.resourceRef === "string" ? model.elements.get(first.resourceRef) : undefined;
  return resource?.name ?? first.name ?? "";
}

/** The lines of one case: of tasks and of calls, each instance, also of called processes. O(events). */
export function traceOf(
  name: string,
  events: readonly (LiveEvent & { readonly who?: string })[],
  models: readonly Model[],
): LogTrace {
  const lines = events.flatMap(({ kind, element, at, who }): LogEvent[] => {
    if ((kind !== "start" && kind !== "complete") || element === undefined) return [];
    const model = models.find((one) => one.elements.has(element));
    const type = model?.elements.get(element)?.type ?? "";
    if (!model || !(type === "task" || type.endsWith("Task") || type === "callActivity")) return [];
    const said = { activity: nameOf(model, element) || element, role: roleOf(model, element) };
    return [{ ...said, at, lifecycle: kind, ...(who !== undefined && { who }) }];
  });
  return { case: name, events: lines };
}

const moment = (at: number) => new Date(Math.round(at)).toISOString();

/** A log as CSV, a line an event: `case,activity,timestamp,lifecycle,role`; and who did it, where that is known of any. */
export function logCsv(traces: Iterable<LogTrace>): string {
  const all = [...traces];
  const isNamed = all.some(({ events }) => events.some(({ who }) => who !== undefined));
  return writeTable([
    ["case", "activity", "timestamp", "lifecycle", "role", ...(isNamed ? ["resource"] : [])],
    ...all.flatMap((trace) =>
      trace.events.map(({ activity, at, lifecycle, role, who = "" }) => [
        trace.case,
        activity,
        moment(at),
        lifecycle,
        role,
        ...(isNamed ? [who] : []),
      ]),
    ),
  ]);
}

const attribute = (value: string) =>
  escapeText(value)
    .replace(/"/g, "&quot;")
    .replace(/[\t\n\r]/g, (sign) => `&#${sign.charCodeAt(0)};`);
const string = (key: string, value: string) => `<string key="${key}" value="${attribute(value)}"/>`;

/**
 * A log as XES (IEEE 1849-2016): a trace for each case, with the standard extensions for names, times, the lifecycle and who did it. From
 * memory of the standard's schema. O(events).
 */
export function logXes(traces: Iterable<LogTrace>, title: string): string {
  const parts: string[] = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<log xes.version="1849-2016" xes.features="" xmlns="http://www.xes-standard.org/">',
    '  <extension name="Concept" prefix="concept" uri="http://www.xes-standard.org/concept.xesext"/>',
    '  <extension name="Time" prefix="time" uri="http://www.xes-standard.org/time.xesext"/>',
    '  <extension name="Lifecycle" prefix="lifecycle" uri="http://www.xes-standard.org/lifecycle.xesext"/>',
    '  <extension name="Organizational" prefix="org" uri="http://www.xes-standard.org/org.xesext"/>',
    `  <global scope="trace">${string("concept:name", "")}</global>`,
    `  <global scope="event">${string("concept:name", "")}<date key="time:timestamp" value="1970-01-01T00:00:00.000+00:00"/>${string("lifecycle:transition", "complete")}</global>`,
    '  <classifier name="Activity" keys="concept:name"/>',
    '  <classifier name="Activity and lifecycle" keys="concept:name lifecycle:transition"/>',
    `  ${string("concept:name", title)}`,
    `  ${string("lifecycle:model", "standard")}`,
  ];
  for (const trace of traces) {
    parts.push("  <trace>", `    ${string("concept:name", trace.case)}`);
    for (const { activity, at, lifecycle, role, who } of trace.events) {
      const by = `${who === undefined ? "" : string("org:resource", who)}${role === "" ? "" : string("org:role", role)}`;
      parts.push(
        `    <event>${string("concept:name", activity)}<date key="time:timestamp" value="${moment(at).replace("Z", "+00:00")}"/>${string("lifecycle:transition", lifecycle)}${by}</event>`,
      );
    }
    parts.push("  </trace>");
  }
  parts.push("</log>", "");
  return parts.join("\n");
}

/**
 * A log without what tells who it was: cases, roles and people get names of their own that stay the same within the log, and all times are moved
 * by the same span of days, drawn from a seed, so that durations, weekdays and times of day stay.
 */
export function anonymised(traces: readonly LogTrace[], seed: number): LogTrace[] {
  const roleFor = pseudonyms("Role");
  const personFor = pseudonyms("Person");
  const weeks = 100 + Math.floor(new Stream(seed, "moved by").at(0, 0).next() * 400);
  const moved = weeks * 7 * 86_400_000;
  return traces.map((trace, at) => ({
    case: `Case ${at + 1}`,
    events: trace.events.map(({ who, ...event }) => ({
      ...event,
      at: event.at - moved,
      role: roleFor(event.role),
      ...(who !== undefined && { who: personFor(who) }),
    })),
  }));
}

/** Names by the order in which they are met; of nobody none. */
function pseudonyms(word: string): (name: string) => string {
  const known = new Map<string, string>();
  return (name) => {
    if (name === "") return "";
    const given = known.get(name) ?? `${word} ${known.size + 1}`;
    known.set(name, given);
    return given;
  };
}
