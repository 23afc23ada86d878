import { describe, expect, test } from "vitest";
import { byData, Engine, firstProcess, runWorld, staffedCases } from ".";
import { chain, end, file, flow, modelOf, node, processOf, start, task, timer } from "./testing/models";

const model = modelOf(
  file(
    processOf(
      start +
        task("first") +
        node("exclusiveGateway", "g") +
        task("second") +
        node("intermediateCatchEvent", "wait", timer("timeDuration", "P2D")) +
        end +
        chain("s", "first", "g") +
        flow("g", "second", "", "on") +
        chain("second", "wait", "e"),
    ),
  ),
);
const world = runWorld(model);
const process = firstProcess(model) ?? "";
const [from, until] = [Date.UTC(2027, 0, 4), Date.UTC(2027, 2, 1)];
const request = { scenario: undefined, seed: 3, from, until, most: 400 };
const worked = (more: object = {}) => [...staffedCases(world, process, { ...request, ...more })];

describe("cases as simulated people would have worked them", () => {
  test("come one after the other within the time, and what is not done at its end is open", () => {
    const cases = worked();
    expect(cases.length).toBeGreaterThan(200);
    let last = from;
    for (const { began, engine } of cases) {
      expect(began).toBeGreaterThan(last);
      expect(began).toBeLessThanOrEqual(until);
      last = began;
      for (const { at } of engine.events) expect(at).toBeLessThanOrEqual(until);
      expect(engine.events.map(({ at }) => at)).toEqual([...engine.events.map(({ at }) => at)].sort((a, b) => a - b));
    }
    const open = cases.filter(({ engine }) => engine.state === "open");
    expect(open.length).toBeGreaterThan(0);
    // The first ones had all the time there is.
    expect(cases.slice(0, 50).every(({ engine }) => engine.state === "completed")).toBe(true);
    expect(open.every(({ began }) => until - began < 20 * 86_400_000)).toBe(true);
  });

  test("are the same for the same seed, others for another; and no more than are asked for", () => {
    const told = (cases: ReturnType<typeof worked>) => cases.map(({ began, engine }) => [began, engine.events.length]);
    expect(told(worked())).toEqual(told(worked()));
    expect(told(worked({ seed: 4 }))).not.toEqual(told(worked()));
    expect(worked({ most: 7 })).toHaveLength(7);
    expect(worked({ until: from })).toEqual([]);
  });

  test("can be gone on with by anybody: what is open is whole", () => {
    const running = { world, choosing: byData, zone: "UTC", now: until };
    for (const { engine } of worked().filter(({ engine: one }) => one.state === "open")) {
      const again = Engine.load(running, JSON.parse(JSON.stringify(engine.saved())));
      for (let round = 0; round < 10 && again.state === "open"; round++) {
        const [wait] = again.waits;
        if (!wait) throw new Error("It waits for nothing, and is not over.");
        again.happen(wait.id);
      }
      expect(again.state).toBe("completed");
    }
  });

  test("wait two days where the process says so", () => {
    const span = 2 * 86_400_000;
    for (const { engine } of worked().slice(0, 30)) {
      const done = engine.events.find(({ kind, element }) => kind === "complete" && element === "second")?.at ?? 0;
      const over = engine.events.find(({ kind, element }) => kind === "leave" && element === "wait")?.at ?? 0;
      expect(over - done).toBe(span);
    }
  });
});
