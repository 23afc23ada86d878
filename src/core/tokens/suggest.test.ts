import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { type Model, nameOf, processesOf } from "../model";
import { expectOk } from "../testing/models";
import { randomProcess, seededRandom } from "../testing/randomProcess";
import {
  actsOf,
  beginPlaying,
  choicesOf,
  explain,
  nextAct,
  outcomeOf,
  played,
  runWalkTest,
  standingAt,
  suggestWalks,
  testOf,
  walk,
} from ".";

const processOfModel = (model: Model) => processesOf(model)[0]?.id as string;

/** Plays with alternatives picked at random, events going off now and then. */
function atRandom(model: Model, seed: number, most = 300) {
  const world = { model };
  const random = seededRandom(seed);
  let playing = beginPlaying(world, processOfModel(model));
  while (playing.step < most) {
    const acts = actsOf(world, playing.state);
    const fires = acts.filter((act) => act.does === "fire");
    const fire = fires.length > 0 && random() < 0.2 ? fires[Math.floor(random() * fires.length)] : undefined;
    const usual = nextAct(world, playing, {});
    if (!usual) break;
    const same = acts.filter((act) => act.at === usual.act.at && act.node === usual.act.node && act.does !== "again");
    playing = played(world, playing, fire ?? same[Math.floor(random() * same.length)] ?? usual.act);
  }
  return { world, playing };
}

describe("on models as people draw them", () => {
  const shape = fc.record({ seed: fc.nat(100_000), nodes: fc.integer({ min: 4, max: 30 }), wild: fc.boolean() });
  test("suggested walks go along every flow, and each goes the same way when told again", () => {
    fc.assert(
      fc.property(shape, ({ seed, nodes, wild }) => {
        const model = randomProcess({ seed, nodes, lanes: 2, wild });
        const process = processOfModel(model);
        const { walks, missed } = suggestWalks(model, process);
        expect(missed).toEqual([]);
        for (const { choices, covers, outcome } of walks) {
          const again = walk({ model }, process, choices);
          expect(again.outcome).toBe(outcome);
          expect([...new Set(again.log.flatMap((line) => line.flows))].sort()).toEqual([...covers].sort());
        }
      }),
      { numRuns: 60 },
    );
  });
  test("a case played at random comes to its end in a process of blocks, and passes as a walk test", () => {
    fc.assert(
      fc.property(shape, ({ seed, nodes }) => {
        const model = randomProcess({ seed, nodes, lanes: 1, wild: false });
        const { world, playing } = atRandom(model, seed, 2_000);
        expect(outcomeOf(world, playing)).toBe("completed");
        const walked = walk(world, processOfModel(model), playing.told);
        expect(runWalkTest(world, testOf(world, processOfModel(model), walked, true)).verdict).toBe("passes");
      }),
      { numRuns: 60 },
    );
  });
  test("wherever a token stands, there is a sentence that says why", () => {
    fc.assert(
      fc.property(shape, ({ seed, nodes }) => {
        const { world, playing } = atRandom(randomProcess({ seed, nodes, lanes: 1 }), seed, 7);
        for (const { instance, node } of standingAt(world, playing.state))
          expect(explain(world, playing.state, instance, node).text).toMatch(/^[A-Z“].{5,}\.$/);
      }),
      { numRuns: 40 },
    );
  });
});

const decision = `<startEvent id="s"/><exclusiveGateway id="x" name="Complete?"/><task id="a" name="Order meter"/><task id="b" name="Ask again"/><exclusiveGateway id="y"/><endEvent id="e"/><sequenceFlow id="f0" sourceRef="s" targetRef="y"/><sequenceFlow id="f1" sourceRef="y" targetRef="x"/><sequenceFlow id="f2" name="Yes" sourceRef="x" targetRef="a"/><sequenceFlow id="f3" name="No" sourceRef="x" targetRef="b"/><sequenceFlow id="f4" sourceRef="b" targetRef="y"/><sequenceFlow id="f5" sourceRef="a" targetRef="e"/>`;
const modelOf = (content: string): Model =>
  expectOk(
    readBpmn(
      new TextEncoder().encode(
        `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="definitions" targetNamespace="x"><process id="process">${content}</process></definitions>`,
      ),
    ),
  );

test("a loop needs one walk more than the way past it", () => {
  const { walks } = suggestWalks(modelOf(decision), "process");
  expect(walks.map((one) => one.because)).toEqual(["f0", "f3"]);
  expect(walks.map((one) => one.outcome)).toEqual(["completed", "completed"]);
});

test("a flow nobody can come to is missed, and said so", () => {
  const model = modelOf(`${decision}<task id="z"/><task id="w"/><sequenceFlow id="lost" sourceRef="z" targetRef="w"/>`);
  expect(suggestWalks(model, "process").missed).toEqual(["lost"]);
});

describe("a kept walk, after the model has changed", () => {
  const kept = (content: string) => {
    const world = { model: modelOf(content) };
    return testOf(world, "process", walk(world, "process", { choose: new Map([["x", [["f3"], ["f2"]]]]) }), true);
  };
  const result = (content: string) => runWalkTest({ model: modelOf(content) }, kept(decision));
  test.each<[string, string, string, readonly string[]]>([
    ["nothing", decision, "passes", []],
    [
      "a step put between",
      decision
        .replace('sourceRef="a" targetRef="e"', 'sourceRef="a" targetRef="n"')
        .concat('<task id="n" name="Book visit"/><sequenceFlow id="f6" sourceRef="n" targetRef="e"/>'),
      "differs",
      ["“Book visit” is passed now."],
    ],
    [
      "a join that waits",
      decision.replace('<exclusiveGateway id="y"/>', '<parallelGateway id="y"/>'),
      "differs",
      [
        "The case gets stuck at this parallel gateway; expected was that it comes to its end.",
        "This parallel gateway is no longer passed.",
        "“Complete?” is no longer passed.",
        "“Ask again” is no longer passed.",
        "“Order meter” is no longer passed.",
        "This end event is no longer passed.",
      ],
    ],
    [
      "the way it took",
      decision.replace('<sequenceFlow id="f3" name="No" sourceRef="x" targetRef="b"/>', ""),
      "gone",
      ["The way “No” it takes at “Complete?” is gone. Play it again and keep it anew."],
    ],
    [
      "the decision it took an answer of",
      decision
        .replace('<exclusiveGateway id="x" name="Complete?"/>', "")
        .replace(/<sequenceFlow id="f[123]"[^>]*>/g, ""),
      "gone",
      ["It names what was called “Complete?”, which is no longer there. Play it again and keep it anew."],
    ],
  ])("%s: %s", (_, content, verdict, differences) => {
    const told = result(content);
    expect([told.verdict, told.differences.map(({ text }) => text)]).toEqual([verdict, differences]);
  });
  test("its names are those of the model as it is", () => {
    expect(nameOf(modelOf(decision), "a")).toBe("Order meter");
    expect(choicesOf(kept(decision)).choose?.get("x")).toEqual([["f3"], ["f2"]]);
  });
});

test("a walk kept before names were kept says what is gone without one, and no id", () => {
  const { names: _, ...old } = testOf(
    { model: modelOf(decision) },
    "process",
    walk({ model: modelOf(decision) }, "process", { choose: new Map([["x", [["f2"]]]]) }),
    true,
  );
  const without = modelOf(decision.replaceAll('"x"', '"other"'));
  expect(runWalkTest({ model: without }, old).differences.map(({ text }) => text)).toEqual([
    "It names an element without a name, which is no longer there. Play it again and keep it anew.",
  ]);
});
