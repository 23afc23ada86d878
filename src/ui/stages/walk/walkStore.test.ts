import { beforeEach, describe, expect, test } from "vitest";
import { type Id, outgoingOf, processesOf } from "@/core/model";
import { performAll, smallModel } from "@/core/testing/models";
import { actsOf } from "@/core/tokens";
import { useWalk, usualNext } from "./walkStore";

const model = smallModel();
const process = processesOf(model)[0]?.id as Id;
const walk = () => useWalk.getState();
const entered = () =>
  walk()
    .past[walk().at]?.log.filter(({ event }) => event !== "left")
    .map(({ element }) => element) ?? [];
const choices = () => {
  const { world, past, at } = walk();
  const now = past[at];
  return world && now ? actsOf(world, now.state).filter(({ flows }) => flows.length === 1) : [];
};
/** Goes on until nothing goes on by itself. */
const goOn = () => {
  let steps = 0;
  while (steps < 50 && walk().stepOn()) steps++;
  return steps;
};

beforeEach(() => {
  useWalk.setState({ data: {} });
  walk().set({ goesUsualWay: false, together: false });
  walk().begin({ model }, process, null);
});

describe("a case that is walked", () => {
  test("begins at the start, and stops where a person has to choose", () => {
    expect(walk().at).toBe(0);
    expect(goOn()).toBeGreaterThan(0);
    expect(choices().length).toBeGreaterThan(1);
    expect(walk().stepOn()).toBe(false);
  });

  test("one that takes the usual way comes to its end by itself", () => {
    walk().set({ goesUsualWay: true });
    expect(goOn()).toBeLessThan(50);
    expect(choices()).toEqual([]);
  });

  test("steps back and forth go through what was, and another choice takes the place of what came after", () => {
    goOn();
    const at = walk().at;
    const [first, second] = choices();
    walk().act(first as never);
    goOn();
    const one = entered();
    walk().goTo(at);
    expect(walk().stepOn()).toBe(true);
    goOn();
    expect(entered()).toEqual(one);
    walk().goTo(at);
    walk().act(second as never);
    goOn();
    expect(entered()).not.toEqual(one);
    // What was taken back is gone.
    expect(walk().past).toHaveLength(walk().at + 1);
  });

  test("no step leads before the first or behind the last", () => {
    goOn();
    walk().goTo(-7);
    expect(walk().at).toBe(0);
    walk().goTo(999);
    expect(walk().at).toBe(walk().past.length - 1);
  });

  test("going to a step stops the playing and follows the case again", () => {
    walk().set({ isPlaying: true, looksAt: "somewhere" });
    walk().goTo(0);
    expect(walk()).toMatchObject({ isPlaying: false, looksAt: null });
  });

  test("a place where it is to stop is set and taken away", () => {
    walk().toggleBreak("check");
    walk().toggleBreak("approve");
    walk().toggleBreak("check");
    expect([...walk().breaks]).toEqual(["approve"]);
    walk().toggleBreak("approve");
  });

  test("standings of a walk that was kept are shown from their beginning", () => {
    goOn();
    const played = walk().past;
    walk().begin({ model }, process, null);
    walk().load(played);
    expect(walk().at).toBe(0);
    while (walk().at + 1 < played.length) expect(walk().stepOn()).toBe(true);
    expect(walk().past[walk().at]).toBe(played.at(-1));
  });

  describe("case data", () => {
    /** The first way holds above ten, the second up to ten. */
    const byPower = () => {
      const [first, second] = outgoingOf(model, "decide").map(({ id }) => id) as [Id, Id];
      const conditions = performAll(
        model,
        { type: "setCondition", flow: first, text: "power > 10" },
        { type: "setCondition", flow: second, text: "power <= 10" },
      );
      walk().begin({ model: conditions }, process, null);
      return { first, second };
    };
    const taken = () => walk().past[walk().at]?.log.flatMap(({ flows }) => flows) ?? [];

    test("given on the way decides what comes, and nothing that was", () => {
      const { first } = byPower();
      goOn();
      const before = taken();
      walk().give("power", "12");
      expect(taken()).toEqual(before);
      goOn();
      expect(taken()).toContain(first);
    });

    test("stays when the case goes back or begins anew, and decides again what was decided without it", () => {
      const { first, second } = byPower();
      walk().give("power", "12");
      goOn();
      expect(taken()).toContain(first);
      const end = walk().at;
      walk().give("power", "3");
      // What is over stays over.
      expect(walk().at).toBe(end);
      expect(taken()).toContain(first);
      walk().goTo(0);
      expect(walk().data).toEqual({ power: "3" });
      expect(walk().past).toHaveLength(1);
      goOn();
      expect(taken()).toContain(second);
      expect(taken()).not.toContain(first);
    });

    test("leaves steps that were taken back where nothing changed since", () => {
      byPower();
      walk().give("power", "12");
      goOn();
      const last = walk().past.length;
      walk().goTo(1);
      expect(walk().past).toHaveLength(last);
    });

    test("of another kind than is asked for counts for nothing", () => {
      byPower();
      walk().give("power", "much");
      goOn();
      expect(choices().length).toBeGreaterThan(1);
      expect(usualNext(walk())).toBeUndefined();
    });
  });

  test("without a case nothing is done", () => {
    useWalk.setState({ world: null, past: [] });
    expect(walk().stepOn()).toBe(false);
    walk().act({} as never);
    expect(walk().past).toEqual([]);
  });
});
