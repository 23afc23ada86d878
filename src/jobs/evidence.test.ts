import { gzipSync } from "node:zlib";
import { describe, expect, test } from "vitest";
import { readBpmn } from "@/core/bpmn";
import { performed } from "@/core/commands";
import { type LogFilter, logOf, packedLog } from "@/core/evidence";
import { chain, end, file, modelOf, processOf, start, task } from "@/core/live/testing/models";
import { trustStored } from "@/core/model";
import { scenariosOf } from "@/core/scenario";
import { calledName } from "./called";
import { caseOfLog, figuresOfLog, holdLog, repairAll, repairDifference, replayLog } from "./evidence";
import type { InputOf, Jobs } from "./index";
import {
  compareGroups,
  discoverLog,
  dotsOfLog,
  mapOfLog,
  overviewLog,
  packLog,
  readLog,
  traceOfLog,
  tracesOfLog,
} from "./logs";
import { notHeld } from "./ofLog";

const quiet = () => undefined;
const model = modelOf(
  file(processOf(start + ["a", "b", "c"].map((name) => task(name)).join("") + end + chain("s", "a", "b", "c", "e"))),
);
const models = { model };
const event = (activity: string, place: number, number: number) => ({
  activity,
  at: Date.UTC(2027, 0, 1 + number, place),
  lifecycle: "complete",
  role: "",
  who: `Person of ${number % 3}`,
});
/** Ten cases: seven as modelled, two without b, one with something nobody foresaw. */
const ways = [...Array(7).fill("abc"), "ac", "ac", "abxc"] as string[];
const log = logOf(
  ways.map((way, number) => ({ case: `case ${number}`, events: [...way].map((name, at) => event(name, at, number)) })),
);
const packed = new Uint8Array(gzipSync(packedLog(log)));
let logs = 0;
/** Each test a log of its own name: what a worker holds is not handed over again. */
const asked = (filters: readonly LogFilter[] = []) => ({ log: `log ${++logs}`, packed, filters, steps: {} });

describe("a log in a worker", () => {
  test("is held from when it was handed over; a worker that does not hold it says so", async () => {
    const { packed: _, ...without } = asked();
    await expect(overviewLog({}, without, quiet)).rejects.toThrow(notHeld);
    const of = asked();
    expect((await overviewLog({}, of, quiet)).overview.cases).toBe(10);
    const { packed: __, ...again } = of;
    expect((await overviewLog({}, again, quiet)).overview.cases).toBe(10);
    // Another one takes its place: one is looked at.
    await overviewLog({}, asked(), quiet);
    await expect(overviewLog({}, again, quiet)).rejects.toThrow(notHeld);
  });

  test("tells of the part that its filters keep, and how large the whole is", async () => {
    const of = asked([{ kind: "passes", activity: "b", is: false }]);
    const { whole, overview } = await overviewLog({}, of, quiet);
    expect([whole.cases, whole.people, overview.cases]).toEqual([10, 3, 2]);
    const traces = await tracesOfLog({}, { ...of, start: 1, count: 5, sought: "CASE" }, quiet);
    expect(traces).toMatchObject({ total: 2, rows: [{ case: "case 8", events: 2 }] });
    expect((await traceOfLog({}, { ...of, case: "case 8" }, quiet)).map(({ activity }) => activity)).toEqual([
      "a",
      "c",
    ]);
    expect(await traceOfLog({}, { ...of, case: "case 0" }, quiet)).toEqual([]);
  });

  test("is kept as it was read, with other names for people if wished", async () => {
    const name = `log ${++logs}`;
    const text = "case,activity,who,channel\n1,a,Ole,form\n1,b,Pia,form\n";
    const shares: number[] = [];
    const read = await readLog({}, { log: name, name: "x.csv", bytes: new TextEncoder().encode(text) }, (share) =>
      shares.push(share),
    );
    expect(read).toMatchObject({ facts: { cases: 1, events: 2, people: 2, first: null }, leftOut: { count: 0 } });
    expect(shares.at(-1)).toBe(1);
    const bytes = await packLog({}, { log: name, isPseudonymised: true }, quiet);
    const { overview } = await overviewLog({}, { log: "another", packed: bytes, filters: [] }, quiet);
    expect(overview.people.map((one) => one.name).sort()).toEqual(["Person 1", "Person 2"]);
    expect(overview.attributes).toEqual([{ name: "channel", values: [{ name: "form", count: 1 }] }]);
  });

  test.each<[string, string, object]>([
    [
      "a.csv",
      "x,y\n1,2\n",
      {
        problem: { code: "no-columns" },
        table: {
          rows: [
            ["x", "y"],
            ["1", "2"],
          ],
        },
      },
    ],
    ["a.xes", "<log><trace>", { problem: { code: "bad-log" } }],
    ["a.csv", "", { problem: { code: "no-columns" } }],
    ["a.csv", 'case,activity\n1,"a', { problem: { code: "bad-table", line: 2 } }],
  ])("%s that holds %j is told what stands in its way", async (name, text, wanted) => {
    const bytes = new TextEncoder().encode(text);
    expect(await readLog({}, { log: "bad", name, bytes }, quiet)).toMatchObject(wanted);
    const zipped = new Uint8Array(gzipSync(bytes));
    expect(await readLog({}, { log: "bad", name: `${name}.gz`, bytes: zipped }, quiet)).toMatchObject(wanted);
  });
});

describe("a log held against a model in a worker", () => {
  test("tells how many cases fit, what differs with examples and times, and what is left out where", async () => {
    const held = await holdLog(models, asked(), quiet);
    expect(held).toMatchObject({ traces: 10, fitting: 7, variants: 3, isCut: false });
    expect(held.differences.map(({ kind, traces, examples }) => [kind, traces, examples])).toEqual([
      ["skipped", 2, ["case 7", "case 8"]],
      ["unforeseen", 1, ["case 9"]],
    ]);
    const hour = 3_600_000;
    expect(held.differences[0]?.took).toEqual({ with: hour, without: 2 * hour });
    expect(held.steps.find(({ step }) => step === "b")).toEqual({ step: "b", asModelled: 8, skipped: 2 });
    expect(held.activities.find(({ name }) => name === "x")).toMatchObject({ times: 1, steps: [] });
  });

  test("takes an activity for the step that somebody said", async () => {
    const held = await holdLog(models, { ...asked(), steps: { x: ["c"] } }, quiet);
    expect(held.differences.some(({ kind, elements }) => kind === "repeated" && elements[0] === "c")).toBe(true);
    const none = await holdLog(models, { ...asked(), steps: { b: [] } }, quiet);
    expect(none.fitting).toBe(0);
  });

  test("a repair is made in a copy, with what it does; of one that is not there, nothing", async () => {
    const of = asked();
    const { differences } = await holdLog(models, of, quiet);
    const repaired = await repairDifference(models, { ...of, key: differences[0]?.key ?? "" }, quiet);
    expect(repaired).toMatchObject({ before: { fitting: 7, differences: 2 }, after: { fitting: 9, differences: 1 } });
    const after = trustStored((repaired as NonNullable<typeof repaired>).model);
    expect(after.elements.size).toBeGreaterThan(model.elements.size);
    for (const id of repaired?.changed ?? []) expect(after.elements.has(id)).toBe(true);
    expect(await repairDifference(models, { ...of, key: "nothing" }, quiet)).toBeNull();
    // The model it was asked with is as it was.
    expect((await holdLog(models, of, quiet)).fitting).toBe(7);
  });

  test("repairs one after the other until none is left, but none that is judged", async () => {
    const of = asked();
    const { differences } = await holdLog(models, of, quiet);
    const shares: number[] = [];
    const all = await repairAll(models, { ...of, judged: [] }, (share) => shares.push(share));
    expect(all.mended).toHaveLength(2);
    expect(all.after).toMatchObject({ fitting: 10, fitness: 1, differences: 0 });
    expect(shares).toEqual([...shares].sort((one, other) => one - other));
    const some = await repairAll(models, { ...of, judged: [differences[0]?.key ?? ""] }, quiet);
    expect(some.mended.map(({ text }) => text)).toEqual([differences[1]?.statement.text]);
    const none = await repairAll(models, { ...of, judged: differences.map(({ key }) => key) }, quiet);
    expect(none).toMatchObject({ commands: [], mended: [] });
  });

  test("is held anew when only a process that is called has changed", async () => {
    const calling = modelOf(
      file(processOf(`${start}<callActivity id="go" name="Go" calledElement="sub"/>${end}${chain("s", "go", "e")}`)),
    );
    const called = (name: string) =>
      modelOf(file(processOf(start + task(name) + end + chain("s", name, "e")).replace('id="p"', 'id="sub"')));
    const one = logOf([{ case: "1", events: [event("x", 0, 0), event("Go", 1, 0)] }]);
    const of = { log: `log ${++logs}`, packed: new Uint8Array(gzipSync(packedLog(one))), filters: [], steps: {} };
    expect((await holdLog({ model: calling, [calledName("sub")]: called("x") }, of, quiet)).fitting).toBe(1);
    expect((await holdLog({ model: calling, [calledName("sub")]: called("y") }, of, quiet)).fitting).toBe(0);
  });

  test("of filters that keep nothing there is nothing to tell", async () => {
    const filters: LogFilter[] = [{ kind: "passes", activity: "nowhere", is: true }];
    const input: InputOf<Jobs, "holdLog"> = asked(filters);
    expect(await holdLog(models, input, quiet)).toMatchObject({ traces: 0, fitting: 0, fitness: 1, differences: [] });
  });
});

describe("a log looked at without a model", () => {
  test("dotsOfLog and mapOfLog tell what happened, the map as a process that is drawn", async () => {
    const dots = await dotsOfLog({}, asked(), quiet);
    expect([dots.points.length, dots.cases]).toEqual([29, 10]);
    const { model: drawn, map } = await mapOfLog({}, { ...asked(), activities: 1, paths: 1 }, quiet);
    expect(map.nodes.map(({ name }) => name)).toEqual(["a", "c", "b", "x"]);
    const shapes = [...trustStored(drawn).shapes].map(({ element }) => element);
    expect(map.nodes.every((_, place) => shapes.includes(`done-${place + 1}`))).toBe(true);
  });

  test("discoverLog makes a process that every case fits, or with noise only what is common", async () => {
    const made = async (noise: number) => {
      const read = readBpmn(await discoverLog({}, { ...asked(), noise, name: "As told" }, quiet));
      if (!read.ok) throw new Error(read.problems[0]?.message);
      return read.value;
    };
    expect((await holdLog({ model: await made(0) }, asked(), quiet)).fitting).toBe(10);
    const tasks = [...(await made(0.5)).elements].filter(({ type }) => type === "task");
    expect((await holdLog({ model: await made(0.5) }, asked(), quiet)).fitting).toBeLessThan(10);
    expect(tasks.length).toBeGreaterThan(0);
  });

  test("compareGroups holds what is kept against all others, or later cases against those before", async () => {
    const without: LogFilter[] = [{ kind: "passes", activity: "b", is: false }];
    const groups = await compareGroups({}, { ...asked(without), before: null }, quiet);
    expect(groups.cases).toEqual([2, 8]);
    const told = groups.differences.map(({ statement }) => statement.text);
    expect(told).toContain("“b” is done in 0 % of these cases and in 100 % of the others.");
    const periods = await compareGroups({}, { ...asked(), before: Date.UTC(2027, 0, 8) }, quiet);
    expect(periods.cases).toEqual([3, 7]);
  });

  test("figuresOfLog gives figures by name, and the commands of a scenario that holds them", async () => {
    const scenario = { id: "seen", name: "As measured" };
    const told = await figuresOfLog(models, { ...asked(), how: "measured", scenario }, quiet);
    expect(told.figures.map(({ name, parameter, observations }) => [name, parameter, observations])).toEqual([
      ["s", "interval", 9],
    ]);
    expect(told.durations.count).toBe(10);
    const filled = performed(model, told.commands);
    expect(filled && scenariosOf(filled).map(({ name }) => name)).toContain("As measured");
  });
});

describe("what happened, on the diagram", () => {
  test("one case is told move by move; one that is not looked at has none", async () => {
    const moves = await caseOfLog(models, { ...asked(), case: "case 8" }, quiet);
    expect(moves.map(({ kind }) => kind)).toEqual(["both", "model", "both"]);
    const narrowed = asked([{ kind: "passes", activity: "b", is: true }]);
    expect(await caseOfLog(models, { ...narrowed, case: "case 8" }, quiet)).toEqual([]);
  });

  test("counts, times and the cases to be played can be handed over to a window", async () => {
    const replayed = structuredClone(await replayLog(models, asked(), quiet));
    expect(replayed.replay.cases).toHaveLength(10);
    expect(replayed.spans.find(({ step }) => step === "b")).toMatchObject({ times: 8, skipped: 2 });
  });

  test("what nobody does though the model leaves it open is told apart from what differs", async () => {
    const { unused, differences } = await holdLog(models, asked(), quiet);
    expect(unused).toEqual([]);
    expect(differences.every(({ kind }) => kind !== "fixed" && kind !== "loop")).toBe(true);
  });

  test("what steps are said to cost is what leaving them out saves, and doing them again costs", async () => {
    const priced = performed(model, [{ type: "setEstimate", id: "b", cost: 12 }] as never);
    const { differences } = await holdLog({ model: priced ?? model }, asked(), quiet);
    expect(differences.find(({ kind }) => kind === "skipped")?.cost).toBe(-12);
    expect(differences.find(({ kind }) => kind === "unforeseen")?.cost).toBeNull();
  });
});
