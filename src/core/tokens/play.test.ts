import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { bpmnWith, end, flow, inARow, modelOf, start, task } from "../forecast/testing/models";
import { type Model, processesOf } from "../model";
import { expectOk } from "../testing/models";
import { randomProcess, seededRandom, tangledProcess } from "../testing/randomProcess";
import type { Act } from "./acts";
import { caseSchema } from "./case";
import type { Place } from "./place";
import { Play } from "./play";
import { SparePlaces } from "./sparePlaces";

/** A case, and the nodes that it was told can do something, as whoever lets time pass hears of them. */
interface Player {
  readonly play: Play;
  readonly can: Set<string>;
  readonly listen: () => void;
}

const named = (acts: readonly Act[]) =>
  acts.map(({ at, node, does, flows }) => `${at} ${node} ${does} ${flows.join(" ")}`);

const anyModel = fc
  .record({ seed: fc.nat(1e6), nodes: fc.integer({ min: 3, max: 40 }), kind: fc.nat(2) })
  .map(({ seed, nodes, kind }) => ({
    seed,
    model:
      kind === 2
        ? tangledProcess({ seed, nodes, lanes: 1 })
        : randomProcess({ seed, nodes, lanes: 1, wild: kind === 1 }),
  }));

/** Content with everything that nests: sub-processes, loops, instances, events at edges, errors, signals, compensation. */
const nestedModel = expectOk(
  readBpmn(
    new TextEncoder().encode(
      `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="x"><error id="bad"/><signal id="hey"/><process id="p"><startEvent id="s"/><subProcess id="many"><multiInstanceLoopCharacteristics><loopCardinality>3</loopCardinality></multiInstanceLoopCharacteristics><startEvent id="ms"/><task id="mt"><standardLoopCharacteristics loopMaximum="2"/></task><exclusiveGateway id="mx"/><endEvent id="me"/><endEvent id="mbad"><errorEventDefinition errorRef="bad"/></endEvent><sequenceFlow id="m1" sourceRef="ms" targetRef="mt"/><sequenceFlow id="m2" sourceRef="mt" targetRef="mx"/><sequenceFlow id="m3" sourceRef="mx" targetRef="me"/><sequenceFlow id="m4" sourceRef="mx" targetRef="mbad"/></subProcess><boundaryEvent id="caught" attachedToRef="many"><errorEventDefinition errorRef="bad"/></boundaryEvent><boundaryEvent id="late" attachedToRef="many" cancelActivity="false"><timerEventDefinition/></boundaryEvent><task id="after"/><boundaryEvent id="undoable" attachedToRef="after"><compensateEventDefinition/></boundaryEvent><task id="undo" isForCompensation="true"/><association id="a" sourceRef="undoable" targetRef="undo"/><intermediateThrowEvent id="call"><signalEventDefinition signalRef="hey"/></intermediateThrowEvent><intermediateThrowEvent id="back"><compensateEventDefinition/></intermediateThrowEvent><subProcess id="alarm" triggeredByEvent="true"><startEvent id="heard" isInterrupting="false"><signalEventDefinition signalRef="hey"/></startEvent><endEvent id="done"/><sequenceFlow id="h" sourceRef="heard" targetRef="done"/></subProcess><adHocSubProcess id="free"><task id="one"/><task id="two"/></adHocSubProcess><endEvent id="e"/><endEvent id="e2"/><sequenceFlow id="f1" sourceRef="s" targetRef="many"/><sequenceFlow id="f2" sourceRef="many" targetRef="after"/><sequenceFlow id="f3" sourceRef="caught" targetRef="after"/><sequenceFlow id="f4" sourceRef="late" targetRef="e2"/><sequenceFlow id="f5" sourceRef="after" targetRef="call"/><sequenceFlow id="f6" sourceRef="call" targetRef="back"/><sequenceFlow id="f7" sourceRef="back" targetRef="free"/><sequenceFlow id="f8" sourceRef="free" targetRef="e"/></process></definitions>`,
    ),
  ),
);

/** Plays by chance; after each step something is asked of it. */
function playByChance(model: Model, seed: number, steps: number, look: (play: Play) => Play): number {
  const random = seededRandom(seed);
  const [process] = processesOf(model);
  let play = Play.begin({ model, together: true }, process?.id as string);
  for (let made = 0; made < steps; made++) {
    play = look(play);
    const acts = play.acts();
    if (acts.length === 0) return made;
    const act = acts[Math.floor(random() * acts.length)] as Act;
    play.step(act, act.does === "begin" && random() < 0.4 ? 1 + Math.floor(random() * 3) : undefined);
  }
  return steps;
}

describe("a case being played", () => {
  const same = (model: Model, seed: number) =>
    playByChance(model, seed, 80, (play) => {
      const saved = play.saved();
      // As it comes out of a database, in another process.
      const stored = caseSchema.parse(JSON.parse(JSON.stringify(saved)));
      expect(stored).toEqual(saved);
      const again = Play.load(play.world, stored);
      expect(again.saved()).toEqual(saved);
      // What is found out anew only where something may have changed is what is found out from nothing.
      expect(named(again.acts())).toEqual(named(play.acts()));
      expect(again.isOver()).toBe(play.isOver());
      // What is counted along is what there is.
      for (const { scope, state, watched, isOpen } of play.places()) {
        expect(isOpen).toBe(true);
        expect(watched).toBe(scope.isWatched.reduce((sum, is, flow) => sum + is * (state[flow] as number), 0));
      }
      return seed % 3 === 0 ? again : play;
    });

  test("is the same case when it was kept as plain data and opened again, wherever it stands", () => {
    fc.assert(
      fc.property(anyModel, ({ seed, model }) => void same(model, seed)),
      { numRuns: 120 },
    );
  });

  test("also with scopes in scopes, instances, errors, signals and what is undone", () => {
    let steps = 0;
    for (let seed = 1; seed <= 60; seed++) steps += same(nestedModel, seed);
    expect(steps).toBeGreaterThan(600);
  });

  test.each([
    ["after a step", "f1"],
    ["at once", "direct"],
  ])("a join that was come to %s goes on when whoever may still come goes elsewhere", (_, first) => {
    const ways =
      inARow(
        start,
        '<bpmn:inclusiveGateway id="some"/>',
        task("a"),
        '<bpmn:inclusiveGateway id="join"/>',
        task("after"),
        end,
      ) +
      `${task("b")}<bpmn:exclusiveGateway id="x"/><bpmn:endEvent id="away"/>` +
      flow("direct", "some", "join") +
      flow("toB", "some", "b") +
      flow("toX", "b", "x") +
      flow("toJoin", "x", "join") +
      flow("toAway", "x", "away");
    const model = modelOf(bpmnWith(ways, ""));
    const play = Play.begin({ model }, "p");
    const go = (node: string, ...flows: readonly string[]) => {
      const one = play.acts().find((act) => act.node === node && flows.every((each) => act.flows.includes(each)));
      play.run(play.placeAt(one?.at ?? "") as Place, one as Act);
    };
    const joins = () => play.acts().some(({ node }) => node === "join");
    go("s");
    go("some", first, "toB");
    if (first === "f1") go("a");
    expect(joins()).toBe(false);
    go("b");
    expect(joins()).toBe(false);
    go("x", "toAway");
    expect(joins()).toBe(true);
  });

  test("in scopes that others left behind a case goes as in new ones", () => {
    const spare = new SparePlaces();
    const world = { model: nestedModel, together: true };
    const gone = (seed: number, from?: SparePlaces): unknown[] => {
      const random = seededRandom(seed);
      const play = Play.begin(world, "p", undefined, from);
      const told: unknown[] = [];
      for (let made = 0; made < 80; made++) {
        const acts = play.acts();
        told.push(play.saved(), named(acts));
        if (acts.length === 0) break;
        const act = acts[Math.floor(random() * acts.length)] as Act;
        told.push(play.step(act, act.does === "begin" && random() < 0.4 ? 2 : undefined));
      }
      play.leave();
      return told;
    };
    for (let seed = 1; seed <= 40; seed++) expect(gone(seed, spare)).toEqual(gone(seed));
    fc.assert(
      fc.property(anyModel, ({ seed, model }) => {
        const pool = new SparePlaces();
        const process = processesOf(model)[0]?.id as string;
        const ends = Array.from({ length: 3 }, () => {
          const random = seededRandom(seed);
          const play = Play.begin({ model }, process, undefined, pool);
          for (let made = 0; made < 60; made++) {
            const acts = play.acts();
            if (acts.length === 0) break;
            play.step(acts[Math.floor(random() * acts.length)] as Act);
          }
          const saved = play.saved();
          play.leave();
          return saved;
        });
        expect(ends[1]).toEqual(ends[0]);
        expect(ends[2]).toEqual(ends[0]);
      }),
      { numRuns: 60 },
    );
  });

  test("whoever only counts what else happened comes to the same case, and is told of every node that can do something", () => {
    const beside = (model: Model, seed: number, isLate = seed % 2 === 0) => {
      const [told, counted] = [0, 1].map(() => {
        const play = Play.begin({ model, together: true }, processesOf(model)[0]?.id as string);
        const can = new Set<string>();
        const listen = () => {
          for (let place = play.changed(); place; place = play.changed()) {
            const at = `${place.key} ${place.scope.net.nodes[play.changedNode]?.id}`;
            if ((place.acts[play.changedNode] as readonly Act[]).length > 0) can.add(at);
          }
        };
        return { play, can, listen };
      }) as [Player, Player];
      const random = seededRandom(seed);
      let steps = 0;
      for (; steps < 80; steps++) {
        // Whoever asks late is told all the same; whoever asks each time, of those and of no others.
        if (!isLate || random() < 0.7) {
          told.listen();
          counted.listen();
          if (isLate) expect([...counted.can]).toEqual(expect.arrayContaining([...told.can]));
          else expect(counted.can).toEqual(told.can);
        }
        const [acts, same] = [told.play.acts(), counted.play.acts()];
        expect(named(same)).toEqual(named(acts));
        expect(counted.play.saved()).toEqual(told.play.saved());
        const at = Math.floor(random() * acts.length);
        const [act, other] = [acts[at], same[at]];
        if (!act || !other) break;
        const times = act.does === "begin" && random() < 0.4 ? 2 : undefined;
        const happened = told.play.step(act, times);
        const others = counted.play.run(counted.play.placeAt(other.at) as Place, other, times);
        expect(others).toBe(Math.max(0, happened.length - 1));
      }
      return steps;
    };
    let steps = 0;
    for (let seed = 1; seed <= 60; seed++) steps += beside(nestedModel, seed);
    expect(steps).toBeGreaterThan(600);
    fc.assert(
      fc.property(anyModel, ({ seed, model }) => void beside(model, seed)),
      { numRuns: 120 },
    );
  });

  test("what changed is told node by node until nothing is left to tell", () => {
    const play = Play.begin({ model: nestedModel }, "p");
    const told = new Set<string>();
    for (let place = play.changed(); place; place = play.changed()) {
      const node = place.scope.net.nodes[play.changedNode]?.id ?? "";
      expect(told.has(`${place.key} ${node}`)).toBe(false);
      told.add(`${place.key} ${node}`);
    }
    expect(told.size).toBeGreaterThan(0);
    expect(play.changed()).toBeUndefined();
    const [act] = play.acts();
    if (act) play.step(act);
    expect(play.changed()).toBeDefined();
  });

  test("some of what can happen is always some of all that can happen, and there is none where nothing can", () => {
    fc.assert(
      fc.property(anyModel, fc.double({ min: 0, max: 0.999, noNaN: true }), ({ seed, model }, chance) => {
        playByChance(model, seed, 40, (play) => {
          const [all, some] = [named(play.acts()), play.someActs(chance)];
          if (some === undefined) expect(all).toEqual([]);
          else for (const one of named(some)) expect(all).toContain(one);
          return play;
        });
      }),
      { numRuns: 60 },
    );
  });

  test("one that stands where the model has nothing is refused in words", () => {
    const play = Play.begin({ model: nestedModel }, "p");
    const saved = play.saved();
    const elsewhere = {
      ...saved,
      pools: saved.pools.map((pool) => ({ ...pool, tokens: [["flow gone", 1] as const] })),
    };
    expect(() => Play.load({ model: nestedModel }, elsewhere)).toThrow(/stands at flow gone/);
  });
});
