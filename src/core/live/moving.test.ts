import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { CaseData } from "../feel";
import { byData, Engine, firstProcess, movedCase, runWorld } from ".";
import { chain, edge, end, file, flow, modelOf, node, processOf, start, task, timer } from "./testing/models";

const at = Date.UTC(2027, 4, 3, 8);
const worldOf = (inner: string) => runWorld(modelOf(file(processOf(inner))));
const begun = (world: ReturnType<typeof worldOf>, data: CaseData = {}) =>
  Engine.begin({ world, choosing: byData, zone: "UTC", now: at }, firstProcess(world.model) ?? "", data);
const goOn = (world: ReturnType<typeof worldOf>, saved: ReturnType<Engine["saved"]>) => {
  const engine = Engine.load({ world, choosing: byData, zone: "UTC", now: at + 1000 }, saved);
  engine.settle();
  return engine;
};
const waitsAt = (engine: Engine) => [...engine.waits].map(({ kind, node: id }) => `${kind} ${id}`).sort();
const complete = (engine: Engine, id: string) => {
  const wait = [...engine.waits].find((one) => one.node === id);
  if (!wait) throw new Error(`Nothing waits at ${id}.`);
  engine.complete(wait.id);
};
const moved = (engine: Engine, from: ReturnType<typeof worldOf>, to: ReturnType<typeof worldOf>) => {
  const result = movedCase(engine.saved(), from, to);
  if (!result.isPossible) throw new Error(result.why.map(({ text }) => text).join(" "));
  return goOn(to, result.moved);
};
const refusal = (engine: Engine, from: ReturnType<typeof worldOf>, to: ReturnType<typeof worldOf>) => {
  const result = movedCase(engine.saved(), from, to);
  return result.isPossible ? "" : result.why.map(({ text }) => text).join(" ");
};

describe("a case is moved to another edition of its process", () => {
  const before = worldOf(start + task("a") + task("b") + end + chain("s", "a", "b", "e"));

  test("it stands where it stood, with its data and work, and goes on by the new one", () => {
    const after = worldOf(start + task("a") + task("new") + task("b") + end + chain("s", "a", "new", "b", "e"));
    const engine = begun(before, { roof: "flat" });
    const [wait] = engine.waits;
    engine.beginWork(wait?.id ?? 0);
    const there = moved(engine, before, after);
    expect(there.data).toEqual({ roof: "flat" });
    expect([...there.waits]).toMatchObject([{ id: wait?.id, node: "a", begun: at, since: at }]);
    complete(there, "a");
    expect(waitsAt(there)).toEqual(["work new"]);
    complete(there, "new");
    complete(there, "b");
    expect(there.state).toBe("completed");
  });

  test("a way that is gone is replaced by another to the same step", () => {
    const after = worldOf(
      start + node("exclusiveGateway", "g") + task("a") + task("b") + end + chain("s", "g", "a", "b", "e"),
    );
    const there = moved(begun(before), before, after);
    expect(waitsAt(there)).toEqual(["work a"]);
    complete(there, "a");
    complete(there, "b");
    expect(there.state).toBe("completed");
  });

  test("what is new at an edge is waited for, what is gone there is not any more", () => {
    const edged = worldOf(
      start +
        task("a") +
        task("late") +
        end +
        edge("soon", "a", timer("timeDuration", "PT1H")) +
        chain("s", "a", "e") +
        chain("soon", "late", "e"),
    );
    const plain = worldOf(start + task("a") + end + chain("s", "a", "e"));
    const here = begun(plain);
    const there = moved(here, plain, edged);
    expect(waitsAt(there)).toEqual(["timer soon", "work a"]);
    expect(waitsAt(moved(there, edged, plain))).toEqual(["work a"]);
    const timerWait = [...there.waits].find(({ kind }) => kind === "timer");
    // An hour from when it was moved: it was not there before.
    expect(timerWait?.due).toBe(at + 1000 + 3_600_000);
  });

  test("a step that is gone, or has become something else, is why it cannot", () => {
    const without = worldOf(start + task("b") + end + chain("s", "b", "e"));
    expect(refusal(begun(before), before, without)).toBe("“a”, where it stands, is not there any more.");
    const other = worldOf(start + node("serviceTask", "a") + task("b") + end + chain("s", "a", "b", "e"));
    expect(refusal(begun(before), before, other)).toBe(
      "“a”, where it stands, is of another kind now: service task, before user task.",
    );
    const unreached = worldOf(start + task("a") + task("b") + end + chain("s", "b", "e"));
    expect(refusal(begun(before), before, unreached)).toBe("Nothing leads to “a” any more.");
    const alien = runWorld(modelOf(file(processOf(start + task("a") + end + chain("s", "a", "e"), "q"))));
    expect(refusal(begun(before), before, alien)).toMatch(/is not there any more/);
  });

  test("inside a sub-process that stands elsewhere in the file it keeps its instances and what each has of its own", () => {
    const several =
      '<multiInstanceLoopCharacteristics id="m"><loopCardinality>3</loopCardinality></multiInstanceLoopCharacteristics>';
    const inner = node("startEvent", "is") + task("ia") + node("endEvent", "ie") + chain("is", "ia", "ie");
    const one = worldOf(
      start +
        node("subProcess", "sub", several + inner) +
        end +
        flow("s", "sub", "", "f1") +
        flow("sub", "e", "", "f2"),
    );
    const two = worldOf(
      task("x") +
        node("exclusiveGateway", "g") +
        start +
        end +
        node("subProcess", "sub", several + inner) +
        flow("s", "g", "", "f0") +
        flow("g", "sub", "", "f1") +
        flow("sub", "x", "", "f2") +
        flow("x", "e", "", "f3"),
    );
    const engine = begun(one);
    complete(engine, "ia");
    const there = moved(engine, one, two);
    expect(waitsAt(there)).toEqual(["work ia", "work ia"]);
    complete(there, "ia");
    expect(there.state).toBe("open");
    complete(there, "ia");
    expect(waitsAt(there)).toEqual(["work x"]);
    const back = moved(there, two, two);
    complete(back, "x");
    expect(back.state).toBe("completed");
    expect(
      refusal(engine, one, worldOf(start + node("subProcess", "sub", several) + end + chain("s", "sub", "e"))),
    ).toMatch(/nothing inside any more/);
  });

  test("a step that was done once and is done several times now, or the other way round, is refused", () => {
    const several =
      '<multiInstanceLoopCharacteristics id="m"><loopCardinality>2</loopCardinality></multiInstanceLoopCharacteristics>';
    const of = (inner: string) => worldOf(start + task("a", inner) + end + chain("s", "a", "e"));
    const [once, twice] = [of(""), of(several)];
    expect(refusal(begun(twice), twice, once)).toBe(
      "“a”, where it stands, was done several times and is done once now.",
    );
    expect(refusal(begun(once), once, twice)).toBe(
      "“a”, where it stands, was done once and is done several times now.",
    );
  });

  test("an event that was waited for first of several stays waited for; one that is gone is dropped", () => {
    const race = (events: readonly string[]) =>
      worldOf(
        start +
          node("eventBasedGateway", "first") +
          events.map((id) => node("intermediateCatchEvent", id, timer("timeDuration", "P1D"))).join("") +
          end +
          chain("s", "first") +
          events.map((id) => chain("first", id, "e")).join(""),
      );
    const [three, two] = [race(["t1", "t2", "t3"]), race(["t1", "t4"])];
    const there = moved(begun(three), three, two);
    expect([...there.waits].map(({ event }) => event).sort()).toEqual(["t1", "t4"]);
    const first = [...there.waits].find(({ event }) => event === "t1");
    there.happen(first?.id ?? 0);
    expect(there.state).toBe("completed");
  });

  test("moved to the edition it runs by, at any moment, it is what it was", () => {
    const world = worldOf(
      start +
        node("parallelGateway", "fork") +
        task("a") +
        task("b") +
        edge("soon", "a", timer("timeDuration", "PT1H"), false) +
        task("late") +
        node("parallelGateway", "join") +
        task("c") +
        end +
        node("endEvent", "e2") +
        chain("s", "fork", "a", "join", "c", "e") +
        chain("fork", "b", "join") +
        chain("soon", "late", "e2"),
    );
    fc.assert(
      fc.property(fc.array(fc.nat(9), { maxLength: 8 }), (picks) => {
        const engine = begun(world);
        for (const pick of picks) {
          const waits = [...engine.waits];
          const wait = waits[pick % Math.max(1, waits.length)];
          if (wait) engine.happen(wait.id);
        }
        const result = movedCase(engine.saved(), world, world);
        if (!result.isPossible) throw new Error("refused");
        expect(result.moved).toEqual(engine.saved());
      }),
      { numRuns: 100 },
    );
  });
});
