import { readFileSync } from "node:fs";
import { runInNewContext } from "node:vm";
import { beforeEach, describe, expect, test } from "vitest";

/** The script that all windows of a browser share, with streams that do what they are told. */
const script = readFileSync("public/event-stream.js", "utf8");

class Stream {
  static readonly CLOSED = 2;
  static readonly OPEN = 1;
  readyState = 0;
  onopen = () => {};
  onmessage = (_: { data: string; lastEventId: string }) => {};
  onerror = () => {};
  constructor(readonly url: string) {
    streams.push(this);
  }
  open() {
    this.readyState = Stream.OPEN;
    this.onopen();
  }
  say(lastEventId: string) {
    this.onmessage({ data: `said ${lastEventId}`, lastEventId });
  }
  breakFor(good: boolean) {
    this.readyState = good ? Stream.CLOSED : 0;
    this.onerror();
  }
}
let streams: Stream[] = [];
let connect: (event: { ports: unknown[] }) => void = () => {};
let waits: (() => void)[] = [];

/** A window whose page was made when an event was the last; gives what it is told from then on. */
function opened(position: string) {
  const told: string[] = [];
  const port = { onmessage: (_: { data: unknown }) => {}, postMessage: (message: string) => told.push(message) };
  connect({ ports: [port] });
  port.onmessage({ data: { position } });
  return { told, close: () => port.onmessage({ data: "gone" }) };
}

beforeEach(() => {
  streams = [];
  waits = [];
  const self: { onconnect?: typeof connect } = {};
  runInNewContext(script, { self, EventSource: Stream, setTimeout: (act: () => void) => waits.push(act) });
  connect = self.onconnect as typeof connect;
});

describe("the one stream of all windows of a browser", () => {
  test("begins where the first page was made, and a page that misses nothing is told so", () => {
    const { told } = opened("one-7");
    expect(streams.map(({ url }) => url)).toEqual(["/api/events?after=one-7"]);
    streams[0]?.open();
    streams[0]?.say("one-8");
    expect(told).toEqual(["open", "said one-8"]);
  });

  test("tells a window that comes later what was done since its page was made, and nothing twice", () => {
    opened("one-7");
    streams[0]?.open();
    for (const id of ["one-8", "one-9", "one-10"]) streams[0]?.say(id);
    expect(opened("one-8").told).toEqual(["said one-9", "said one-10", "open"]);
    expect(opened("one-10").told).toEqual(["open"]);
    // Its page was made after something of which the stream has not told yet.
    const early = opened("one-11");
    expect(early.told).toEqual(["open"]);
    streams[0]?.say("one-12");
    expect(early.told).toEqual(["open", "said one-12"]);
    expect(streams).toHaveLength(1);
  });

  test.each([
    ["made before the stream began", "one-6"],
    ["made by another process", "two-9"],
    ["that does not say when it was made", ""],
  ])("a page %s looks at everything once more", (_, position) => {
    opened("one-7");
    streams[0]?.open();
    streams[0]?.say("one-8");
    expect(opened(position).told).toEqual(["missed", "open"]);
  });

  test("knows the last five hundred events, and says where they do not reach", () => {
    opened("one-0");
    streams[0]?.open();
    for (let at = 1; at <= 510; at++) streams[0]?.say(`one-${at}`);
    expect(opened("one-9").told).toEqual(["missed", "open"]);
    expect(opened("one-10").told).toHaveLength(501);
  });

  test("after the server was begun anew a page of the new one misses nothing, one of the old one everything", () => {
    const { told } = opened("one-7");
    streams[0]?.open();
    streams[0]?.say("one-8");
    streams[0]?.breakFor(false);
    streams[0]?.open();
    streams[0]?.say("new-3");
    expect(told).toEqual(["open", "said one-8", "closed", "open", "said new-3"]);
    expect(opened("new-3").told).toEqual(["open"]);
    expect(opened("one-8").told).toEqual(["missed", "open"]);
  });

  test("one that the browser gave up is begun anew where it was; a window that comes meanwhile waits for it", () => {
    opened("one-7");
    streams[0]?.breakFor(true);
    const second = opened("one-7");
    expect(second.told).toEqual([]);
    waits.shift()?.();
    expect(streams[1]?.url).toBe("/api/events?after=one-7");
    streams[1]?.open();
    streams[1]?.say("one-8");
    streams[1]?.breakFor(true);
    waits.shift()?.();
    expect(streams[2]?.url).toBe("/api/events?after=one-8");
    expect(second.told).toEqual(["open", "said one-8", "closed"]);
  });

  test("a window that has gone is told nothing", () => {
    const { told, close } = opened("one-7");
    streams[0]?.open();
    close();
    streams[0]?.say("one-8");
    expect(told).toEqual(["open"]);
  });
});
