import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import {
  dottedChart,
  type EventLog,
  filtered,
  filterSchema,
  filterSentence,
  followMap,
  LogBuilder,
  type LogFilter,
  logOf,
  mapFile,
  openedLog,
  overviewOf,
  packedLog,
  pseudonymised,
  spreadOf,
  traceAt,
  variantsOf,
} from ".";

const hour = 3_600_000;
const day = 24 * hour;
const monday = Date.UTC(2027, 2, 1, 8);

/**
 * The log of W. van der Aalst, "Process Mining" (2nd edition, 2016), table 1.1 in short form, L1 = [⟨a,b,c,d⟩³, ⟨a,c,b,d⟩², ⟨a,e,d⟩]
 * (chapter 6), with a time for each event: an hour for each, a trace a day.
 */
const ways = ["abcd", "abcd", "abcd", "acbd", "acbd", "aed"];
const log = logOf(
  ways.map((way, trace) => ({
    case: `case ${trace + 1}`,
    events: [...way].map((activity, place) => ({
      activity,
      at: monday + trace * day + place * hour * (trace + 1),
      lifecycle: "complete",
      role: activity === "e" ? "crew" : "desk",
      who: activity === "d" ? "Mara" : trace % 2 === 0 ? "Ole" : "Pia",
    })),
  })),
);
const namesOf = (one: EventLog) => one.cases.map((name) => Number(name.slice(5)));

describe("a log that is kept", () => {
  const text = fc.string({ maxLength: 6 });
  const events = fc.array(
    fc.record({
      activity: fc.string({ minLength: 1, maxLength: 6 }),
      at: fc.option(fc.integer({ min: -1e12, max: 4e12 }), { nil: undefined }),
      lifecycle: fc.constantFrom("start", "complete", ""),
      role: text,
      who: text,
    }),
    { maxLength: 6 },
  );
  const some = fc
    .array(fc.tuple(text, events, fc.dictionary(fc.constantFrom("channel", "region"), text)), { maxLength: 6 })
    .map((traces) => {
      const builder = new LogBuilder();
      for (const [name, own, attributes] of traces) {
        const of = builder.case(name, true);
        for (const event of own) builder.event(of, event);
        for (const [key, value] of Object.entries(attributes)) builder.attribute(of, key, value);
      }
      return builder.end();
    });

  test("is the same when it is opened again", () => {
    fc.assert(
      fc.property(some, (one) => {
        expect(openedLog(packedLog(one))).toEqual({ ok: true, value: one });
      }),
    );
  });

  test("of which a part is lost or changed is refused, and never half opened", () => {
    fc.assert(
      fc.property(some, fc.nat(), fc.nat(255), (one, place, value) => {
        const bytes = packedLog(one);
        expect(openedLog(bytes.subarray(0, bytes.length - 1)).ok).toBe(false);
        const changed = bytes.slice();
        changed[place % changed.length] = value;
        const opened = openedLog(changed);
        if (!opened.ok) return;
        // What is opened can be looked at, whatever it says.
        overviewOf(opened.value);
      }),
    );
  });

  test("with other names for people keeps who is the same, and nobody's name", () => {
    const other = pseudonymised(log);
    expect(other.who.words).toEqual(["", "Person 1", "Person 2", "Person 3"]);
    expect(JSON.stringify(other.who)).not.toMatch(/Mara|Ole|Pia/);
    const by = (one: EventLog) => one.cases.flatMap((_, trace) => traceAt(one, trace).events.map(({ who }) => who));
    const pairs = new Set(by(log).map((who, at) => `${who} ${by(other)[at]}`));
    expect(pairs.size).toBe(3);
  });
});

describe("what a log holds", () => {
  const seen = overviewOf(log);

  test("is counted: cases, events, activities, ways, where cases begin and end", () => {
    expect(seen).toMatchObject({
      cases: 6,
      events: 23,
      variantCount: 3,
      first: monday,
      last: monday + 5 * day + 12 * hour,
    });
    expect(seen.variants.map(({ activities, traces }) => [activities.join(""), traces])).toEqual([
      ["abcd", 3],
      ["acbd", 2],
      ["aed", 1],
    ]);
    expect(seen.activities.map(({ name, times, traces }) => [name, times, traces]).sort()).toEqual([
      ["a", 6, 6],
      ["b", 5, 5],
      ["c", 5, 5],
      ["d", 6, 6],
      ["e", 1, 1],
    ]);
    expect([seen.starts, seen.ends]).toEqual([[{ name: "a", count: 6 }], [{ name: "d", count: 6 }]]);
    expect(seen.people[0]).toEqual({ name: "Ole", count: 9 });
  });

  test("is timed: how long cases took, and how long they waited for each step", () => {
    // Three hours times the number of the case; the last has one step less.
    expect(seen.durations).toEqual(spreadOf([3, 6, 9, 12, 15, 12].map((hours) => hours * hour)));
    expect(seen.activities.find(({ name }) => name === "e")?.waiting).toMatchObject({ count: 1, median: 6 * hour });
    expect(seen.variants.map(({ median }) => median / hour)).toEqual([6, 13.5, 12]);
  });

  test("tells who hands to whom", () => {
    expect(seen.handOvers.slice(0, 4)).toEqual([
      { from: "Ole", to: "Ole", count: 6 },
      { from: "Pia", to: "Pia", count: 5 },
      { from: "Ole", to: "Mara", count: 3 },
      { from: "Pia", to: "Mara", count: 3 },
    ]);
  });

  test("where beginnings are told, work and waiting are told apart", () => {
    const event = (activity: string, lifecycle: string, at: number) => ({
      activity,
      lifecycle,
      at: at * hour,
      role: "",
      who: "",
    });
    const one = logOf([
      {
        case: "1",
        events: [event("a", "start", 0), event("a", "complete", 2), event("b", "start", 5), event("b", "complete", 6)],
      },
    ]);
    const [a, b] = overviewOf(one).activities;
    expect([a?.working.median, b?.working.median, b?.waiting.median]).toEqual([2 * hour, hour, 3 * hour]);
  });

  test("an empty log, and one without times, hold what they hold", () => {
    expect(overviewOf(logOf([]))).toMatchObject({ cases: 0, events: 0, variantCount: 0, durations: { count: 0 } });
    const timeless = overviewOf(
      logOf([{ case: "1", events: [{ activity: "a", at: undefined, lifecycle: "", role: "", who: "" }] }]),
    );
    expect(timeless).toMatchObject({
      cases: 1,
      durations: { count: 0 },
      activities: [{ name: "a", waiting: { count: 0 } }],
    });
  });

  test("as a dotted chart has a point for each event, the cases in the order they began", () => {
    const chart = dottedChart(log);
    expect(chart).toMatchObject({ cases: 6, shown: 6 });
    expect(chart.points).toHaveLength(23);
    expect(chart.points.filter(([, row]) => row === 5).map(([at]) => (at - monday) / hour)).toEqual([120, 126, 132]);
  });
});

// NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.5.1 and 7.2.6.2, from memory: the median of an even number is the mean of the middle two.
test.each([
  [[5, 1, 4, 2], 3, 5],
  [[7], 7, 7],
  [[1, 2, 3, 4, 5, 6, 7, 8, 9, 10], 5.5, 9],
])("the spread of %j", (values, median, ninth) => {
  expect(spreadOf(values)).toMatchObject({ median, ninth });
});

describe("a part of a log", () => {
  const period = (from: number | null, until: number | null): LogFilter => ({ kind: "period", from, until });
  test.each<[LogFilter, string, number[]]>([
    [period(monday + day, monday + 3 * day), "began from 24 to before 72", [2, 3]],
    [period(null, monday + day), "began before 24", [1]],
    [period(monday + 4 * day, null), "began on 96 or later", [5, 6]],
    [{ kind: "duration", least: 10 * hour, most: null }, "took 10 or longer", [4, 5, 6]],
    [{ kind: "duration", least: null, most: 6 * hour }, "took 6 at most", [1, 2]],
    [{ kind: "duration", least: 6 * hour, most: 9 * hour }, "took 6 to 9", [2, 3]],
    [{ kind: "passes", activity: "e", is: true }, "did “e”", [6]],
    [{ kind: "passes", activity: "e", is: false }, "did not do “e”", [1, 2, 3, 4, 5]],
    [{ kind: "passes", activity: "nowhere", is: true }, "did “nowhere”", []],
    [{ kind: "follows", first: "b", next: "c", isDirect: false, is: true }, "did “c” after “b”", [1, 2, 3]],
    [{ kind: "follows", first: "a", next: "d", isDirect: false, is: false }, "did not do “d” after “a”", []],
    [{ kind: "follows", first: "a", next: "c", isDirect: true, is: true }, "did “c” straight after “a”", [4, 5]],
    [
      { kind: "follows", first: "a", next: "c", isDirect: true, is: false },
      "did not do “c” straight after “a”",
      [1, 2, 3, 6],
    ],
    [{ kind: "common", variants: 1 }, "went the way most of them go", [1, 2, 3]],
    [{ kind: "common", variants: 2 }, "went one of the 2 commonest ways", [1, 2, 3, 4, 5]],
    [{ kind: "variant", activities: ["a", "e", "d"], is: true }, "went just this way: a, e, d", [6]],
    [{ kind: "variant", activities: ["a", "e", "d"], is: false }, "did not go this way: a, e, d", [1, 2, 3, 4, 5]],
    [{ kind: "attribute", name: "nothing", value: "x", is: true }, "nothing is x", []],
  ])("%j", (filter, sentence, cases) => {
    expect(filterSchema.parse(filter)).toEqual(filter);
    expect(namesOf(filtered(log, [filter]))).toEqual(cases);
    const times = {
      moment: (at: number) => String((at - monday) / hour),
      duration: (took: number) => String(took / hour),
    };
    expect(filterSentence(filter, times).text).toBe(sentence);
  });

  test("several hold together, one behind the other, and the traces keep what they are", () => {
    const filters: LogFilter[] = [
      { kind: "passes", activity: "b", is: true },
      { kind: "common", variants: 1 },
      { kind: "duration", least: 4 * hour, most: null },
    ];
    const some = filtered(log, filters);
    expect(namesOf(some)).toEqual([2, 3]);
    expect(traceAt(some, 1)).toEqual(traceAt(log, 2));
    expect(filtered(log, [])).toBe(log);
  });

  test("and the rest are the whole, whatever it is kept by", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("a", "b", "c", "d", "e", "x"),
        fc.constantFrom("a", "b", "e"),
        fc.boolean(),
        (first, next, isDirect) => {
          for (const filter of [
            { kind: "follows", first, next, isDirect, is: true },
            { kind: "passes", activity: first, is: true },
          ] as const) {
            const [those, others] = [filtered(log, [filter]), filtered(log, [{ ...filter, is: false }])];
            expect([...namesOf(those), ...namesOf(others)].sort()).toEqual([1, 2, 3, 4, 5, 6]);
            expect(variantsOf(those).reduce((sum, { traces }) => sum + traces.length, 0)).toBe(those.cases.length);
          }
        },
      ),
    );
  });

  test("by what is said of cases", () => {
    const builder = new LogBuilder();
    for (const [name, channel] of [
      ["1", "form"],
      ["2", "letter"],
      ["3", ""],
    ] as const)
      builder.attribute(builder.case(name), "channel", channel);
    const one = builder.end();
    const by = (value: string, is: boolean) => filtered(one, [{ kind: "attribute", name: "channel", value, is }]).cases;
    expect([by("form", true), by("form", false)]).toEqual([["1"], ["2", "3"]]);
    expect(overviewOf(one).attributes).toEqual([
      {
        name: "channel",
        values: [
          { name: "form", count: 1 },
          { name: "letter", count: 1 },
        ],
      },
    ]);
  });
});

describe("the map of a log", () => {
  const edges = (activities: number, paths: number) =>
    followMap(log, activities, paths)
      .edges.map(({ from = "▶", to = "■", times }) => `${from}${to}${times}`)
      .sort();

  test("has what directly followed what, how often, and how long after", () => {
    expect(edges(1, 1)).toEqual(["ab3", "ac2", "ae1", "bc3", "bd2", "cb2", "cd3", "d■6", "ed1", "▶a6"]);
    const map = followMap(log, 1, 1);
    expect(map).toMatchObject({ nodesLeft: 0, edgesLeft: 0 });
    expect(map.nodes[0]).toEqual({ name: "a", times: 6 });
    expect(map.edges.find(({ from, to }) => from === "a" && to === "b")?.median).toBe(2 * hour);
    expect(map.edges.find(({ from }) => from === undefined)?.median).toBeNaN();
  });

  test("of the commonest alone leaps over what is left out, and hangs together", () => {
    const map = followMap(log, 0.5, 0);
    expect(map.nodes.map(({ name }) => name)).toEqual(["a", "d", "b"]);
    expect(map.nodesLeft).toBe(2);
    // The one trace without b goes from a to d at once.
    expect(edges(0.5, 1)).toEqual(["ab5", "ad1", "bd5", "d■6", "▶a6"]);
    expect(edges(0.5, 0)).toEqual(["ab5", "bd5", "d■6", "▶a6"]);
  });

  test("counts all that was done, whatever the log", () => {
    const traces = fc.array(fc.array(fc.constantFrom("a", "b", "c"), { maxLength: 6 }), { maxLength: 6 });
    fc.assert(
      fc.property(traces, (words) => {
        const some = logOf(
          words.map((names, at) => ({
            case: String(at),
            events: names.map((activity) => ({ activity, at: undefined, lifecycle: "", role: "", who: "" })),
          })),
        );
        const map = followMap(some, 1, 1);
        const done = words.filter((names) => names.length > 0);
        const sum = (of: readonly { readonly times: number }[]) => of.reduce((all, { times }) => all + times, 0);
        expect(sum(map.nodes)).toBe(words.flat().length);
        // Each activity is followed by another one, or by the end; each begun case has one more step into it.
        expect(sum(map.edges)).toBe(words.flat().length + done.length);
        const read = readBpmn(new TextEncoder().encode(mapFile(map)));
        expect(read.ok).toBe(true);
      }),
    );
  });
});
