import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { chain, definition, end, file, node, processOf, start, task, timer } from "@/core/live/testing/models";
import { leaveWorkspace, openWorkspace, run } from "../testing/workspace";
import { started } from "./testing/startedRun";
import { passTime } from "./ticking";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

const states = async (at: object) =>
  (await run<{ cases: { number: number; state: string; began: number }[] }>("listCases", at)).cases.reverse();

describe("a case begins", () => {
  test("by its timer, as often as that says, each at the time it was due; the clock can jump there", async () => {
    const { at, monitor } = await started(
      file(
        processOf(
          node("startEvent", "s", timer("timeCycle", "R3/PT1H")) + task("look") + end + chain("s", "look", "e"),
        ),
      ),
    );
    const { now, next } = await monitor();
    expect(next).toBe(now + 3_600_000);
    expect(await passTime()).toBe(0);
    await run("setClock", { ...at, to: "next" });
    await passTime();
    expect(await states(at)).toMatchObject([{ number: 1, state: "open", began: now + 3_600_000 }]);
    // A day later the two that are left have come when they were due, and no more come.
    await run("setClock", { ...at, to: now + 86_400_000 });
    await passTime();
    await passTime();
    expect((await states(at)).map(({ began }) => (began - now) / 3_600_000)).toEqual([1, 2, 3]);
    expect((await monitor()).next).toBeNull();
  });

  test("where somebody says, and nowhere else than at a start", async () => {
    const { begin, open } = await started(
      file(
        processOf(
          start +
            node("startEvent", "other") +
            task("a") +
            task("b") +
            end +
            chain("s", "a", "e") +
            chain("other", "b", "e"),
        ),
      ),
    );
    const number = await begin({}, { start: "other" });
    expect((await open(number)).row.at).toEqual(["b"]);
    await expect(begin({}, { start: "a" })).rejects.toMatchObject({ code: "not-a-start" });
  });

  test("by the message of its start, by name; what no process begins with is said", async () => {
    const { begin, open } = await started(
      file(
        processOf(
          start +
            node("startEvent", "order", definition("message")) +
            task("a") +
            task("b") +
            end +
            chain("s", "a", "e") +
            chain("order", "b", "e"),
        ),
      ),
    );
    const number = await begin({ power: 5 }, { message: "order" });
    expect(await open(number)).toMatchObject({ row: { at: ["b"] }, data: { power: 5 } });
    await expect(begin({}, { message: "refusal" })).rejects.toMatchObject({ code: "nothing-waits" });
  });
});

describe("a signal", () => {
  const signals =
    '<signal id="storm" name="Storm warning"/>' +
    processOf(
      start +
        node("exclusiveGateway", "g") +
        task("work") +
        node("intermediateCatchEvent", "wait", definition("signal", 'signalRef="storm"')) +
        node("intermediateThrowEvent", "warn", definition("signal", 'signalRef="storm"')) +
        end +
        chain("s", "g", "wait", "e") +
        chain("g", "work", "warn", "e").replace(
          /targetRef="work">/,
          'targetRef="work"><conditionExpression>warns = true</conditionExpression>',
        ),
    ).replace('<exclusiveGateway id="g" name="g" >', '<exclusiveGateway id="g" name="g" default="gw">');
  const text = file(signals).replace(/id="f\d+"( sourceRef="g" targetRef="wait")/, 'id="gw"$1');

  test("is heard by every case that waits for it when it is thrown, once, and by none that waits later", async () => {
    const { at, begin, complete, open } = await started(text);
    const [one, two] = [await begin({ warns: false }), await begin({ warns: false })];
    const warner = await begin({ warns: true });
    await complete("work");
    const late = await begin({ warns: false });
    // They are found by what they wait for.
    const { waits } = await run<{ waits: { number: number }[] }>("listWaits", {
      ...at,
      kinds: ["signal"],
      named: "Storm warning",
    });
    expect(waits.map(({ number }) => number)).toEqual([one, two, late]);
    expect((await open(warner)).row.state).toBe("completed");
    expect((await open(one)).row.state).toBe("open");
    await passTime();
    await passTime();
    expect((await states(at)).map(({ number, state }) => [number, state])).toEqual([
      [one, "completed"],
      [two, "completed"],
      [warner, "completed"],
      [late, "open"],
    ]);
    expect((await open(one)).audit.filter(({ kind }) => kind === "signal heard")).toHaveLength(1);
  });

  test("of a run that has ended meanwhile is over, and keeps no other run from going on", async () => {
    const { at, begin, complete, open } = await started(text);
    const one = await begin({ warns: false });
    await begin({ warns: true });
    await complete("work");
    await run("endRun", at);
    expect(await passTime()).toBe(1);
    expect(await passTime()).toBe(0);
    expect((await open(one)).row.state).toBe("open");
  });
});
