import { z } from "zod";
import { say, term } from "../../messages";
import { failure, ok, type Result } from "../../model";
import type { EventLog, WordColumn } from "./eventLog";

const head = z.object({
  form: z.literal(1),
  cases: z.array(z.string()),
  events: z.number().int().min(0),
  words: z.object({
    activity: z.array(z.string()),
    lifecycle: z.array(z.string()),
    role: z.array(z.string()),
    who: z.array(z.string()),
  }),
  attributes: z.array(z.object({ name: z.string(), words: z.array(z.string()) })),
  eventAttributes: z.array(z.object({ name: z.string(), words: z.array(z.string()) })).default([]),
  left: z.array(z.object({ line: z.number(), why: z.string() })),
  leftOut: z.number(),
  corrected: z.number().default(0),
});
type Head = z.infer<typeof head>;
const columns = ["activity", "lifecycle", "role", "who"] as const;

/**
 * A log as it is kept: the words as JSON, with their length before them, then the columns as they are in memory (little endian). Not
 * compressed: that is done where it is stored. O(events).
 */
export function packedLog(log: EventLog): Uint8Array {
  const events = log.at.length;
  const words = new TextEncoder().encode(
    JSON.stringify({
      form: 1,
      cases: log.cases as string[],
      events,
      words: Object.fromEntries(columns.map((column) => [column, log[column].words])) as Head["words"],
      attributes: log.attributes.map(({ name, words: own }) => ({ name, words: [...own] })),
      eventAttributes: log.eventAttributes.map(({ name, words: own }) => ({ name, words: [...own] })),
      // The cells of a row were for correcting it.
      left: log.left.map(({ line, why }) => ({ line, why: why.text })),
      leftOut: log.leftOut,
      corrected: log.corrected,
    } satisfies Head),
  );
  const parts = [
    log.from,
    log.until,
    log.at,
    ...columns.map((column) => log[column].of),
    ...log.attributes.map(({ of }) => of),
    ...log.eventAttributes.map(({ of }) => of),
  ];
  const bytes = new Uint8Array(4 + words.length + parts.reduce((sum, part) => sum + part.byteLength, 0));
  new DataView(bytes.buffer).setUint32(0, words.length, true);
  bytes.set(words, 4);
  let place = 4 + words.length;
  for (const part of parts) {
    bytes.set(new Uint8Array(part.buffer, part.byteOffset, part.byteLength), place);
    place += part.byteLength;
  }
  return bytes;
}

/** The log that was packed; a failure where the bytes are none. O(events). */
export function openedLog(bytes: Uint8Array): Result<EventLog> {
  const broken = failure({ code: "bad-log", message: say`What was kept of this log cannot be read.` });
  if (bytes.length < 4) return broken;
  const length = new DataView(bytes.buffer, bytes.byteOffset).getUint32(0, true);
  const said = parsed(bytes.subarray(4, 4 + length));
  if (!said) return broken;
  let place = 4 + length;
  const { cases, events, words, attributes, eventAttributes } = said;
  const size =
    cases.length * 8 +
    events * (8 + 4 * columns.length) +
    attributes.length * cases.length * 4 +
    eventAttributes.length * events * 4;
  if (bytes.length !== place + size) return broken;
  const part = (count: number, width: number): ArrayBuffer => {
    // A copy, since a column begins where its numbers can.
    const own = bytes.slice(place, place + count * width).buffer as ArrayBuffer;
    place += count * width;
    return own;
  };
  const integers = (count: number) => new Uint32Array(part(count, 4));
  const from = integers(cases.length);
  const until = integers(cases.length);
  const at = new Float64Array(part(events, 8));
  const column = (own: readonly string[], count: number): WordColumn => ({ words: own, of: integers(count) });
  const log: EventLog = {
    cases,
    from,
    until,
    at,
    activity: column(words.activity, events),
    lifecycle: column(words.lifecycle, events),
    role: column(words.role, events),
    who: column(words.who, events),
    attributes: attributes.map(({ name, words: own }) => ({ name, ...column(own, cases.length) })),
    eventAttributes: eventAttributes.map(({ name, words: own }) => ({ name, ...column(own, events) })),
    left: said.left.map(({ line, why }) => ({ line, why: term(why) })),
    leftOut: said.leftOut,
    corrected: said.corrected,
  };
  return isWhole(log, events) ? ok(log) : broken;
}

function parsed(bytes: Uint8Array): Head | undefined {
  try {
    return head.safeParse(JSON.parse(new TextDecoder().decode(bytes))).data;
  } catch {
    return undefined;
  }
}

/** Whether every number names something that is there. */
function isWhole(log: EventLog, events: number): boolean {
  const isNamed = ({ words, of }: WordColumn) => of.every((word) => word < words.length);
  return (
    [...columns.map((column) => log[column]), ...log.attributes, ...log.eventAttributes].every(isNamed) &&
    log.from.every((from, trace) => from <= (log.until[trace] as number) && (log.until[trace] as number) <= events)
  );
}

/** The log with other names for its people, in the order in which they are first seen; nobody can tell from it who they are. */
export function pseudonymised(log: EventLog): EventLog {
  const places = new Map<number, number>([[0, 0]]);
  for (const who of log.who.of) if (!places.has(who)) places.set(who, places.size);
  return {
    ...log,
    who: {
      words: ["", ...Array.from({ length: places.size - 1 }, (_, number) => `Person ${number + 1}`)],
      of: log.who.of.map((who) => places.get(who) as number),
    },
  };
}
