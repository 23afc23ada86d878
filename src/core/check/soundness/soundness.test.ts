import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn } from "../../bpmn";
import { applyEdits, type Element, incomingOf, type Model } from "../../model";
import { expectOk } from "../../testing/models";
import { randomProcess, seededRandom, tangledProcess } from "../../testing/randomProcess";
import { scopeNetOf } from "../../tokens";
import { behaviourOf, deadNodesOf } from ".";
import { explore } from "./explore";
import { type ReducedNet, reduced } from "./reduce";

/** A process from lines such as "s > a", "x:xor > b"; the type stands behind the name where it is first used. */
function processOf(flows: string, more = ""): Model {
  const types: { readonly [short: string]: string } = {
    start: "startEvent",
    end: "endEvent",
    xor: "exclusiveGateway",
    and: "parallelGateway",
    or: "inclusiveGateway",
    some: "complexGateway",
    race: "eventBasedGateway",
    task: "task",
    catch: "intermediateCatchEvent",
  };
  const nodes = new Map<string, string>();
  const sequence = flows
    .trim()
    .split(/\s*[\n;]\s*/)
    .flatMap((line) => {
      const names = line.split(">").map((part) => {
        const [name = "", type] = part.trim().split(":");
        if (type || !nodes.has(name))
          nodes.set(name, type ?? (/^s\d*$/.test(name) ? "start" : /^e\d*$/.test(name) ? "end" : "task"));
        return name;
      });
      return names.slice(1).map((to, at) => [names[at], to] as const);
    })
    .map(([from, to], at) => `<sequenceFlow id="f${at}" sourceRef="${from}" targetRef="${to}"/>`);
  // What is said in full is not made a second time from the flows.
  for (const [, id] of more.matchAll(/<\w+ id="(\w+)"/g)) nodes.delete(id as string);
  const elements = [...nodes].map(([name, type]) => `<${types[type] ?? type} id="${name}"/>`);
  const xml = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="definitions" targetNamespace="x"><process id="process">${elements.join("")}${sequence.join("")}${more}</process></definitions>`;
  return expectOk(readBpmn(new TextEncoder().encode(xml)));
}

const verdict = (model: Model) => {
  const [process] = behaviourOf(model);
  const all = process?.scopes ?? [];
  const dead = all.flatMap((scope) => deadNodesOf(model, scope));
  return [
    process?.sound === true ? "sound" : process?.sound === false ? "unsound" : "unknown",
    ...(all.some((scope) => scope.deadlock) ? ["deadlock"] : []),
    ...(all.some((scope) => scope.livelock) ? ["livelock"] : []),
    ...(all.some((scope) => scope.doubled) ? ["doubled"] : []),
    ...(dead.length > 0 ? [`dead ${dead.map((node) => node.id).join(" ")}`] : []),
  ].join(", ");
};

/** BPMN 2.0, chapter 13, and the classic faults of the soundness literature (from memory). */
describe("classics", () => {
  test.each<[string, string, string]>([
    ["steps in a row", "s > a > b > e", "sound"],
    ["a decision and its join", "s > x:xor > a > y:xor > e; x > b > y", "sound"],
    ["a decision that ends twice", "s > x:xor > a > e1; x > b > e2", "sound"],
    ["a parallel block", "s > x:and > a > y:and > e; x > b > y", "sound"],
    ["a parallel split whose branches end apart", "s > x:and > a > e1; x > b > e2", "sound"],
    ["an inclusive block", "s > x:or > a > y:or > e; x > b > y; x > c > y", "sound"],
    ["a loop", "s > j:xor > a > x:xor > e; x > b > j", "sound"],
    ["a loop on the spot", "s > x:xor > e; x > a > x", "sound"],
    ["the first of two is enough, the second is taken", "s > x:and > a > y:some > b > e; x > b2 > y", "sound"],
    ["a join of some where one comes", "s > x:xor > a > y:some > e; x > b > y", "sound"],
    [
      "a join of some that is passed again and again",
      "s > n1 > n3 > n5:some > n1; n1 > n5",
      "unsound, livelock, doubled",
    ],
    [
      "what only a join that never goes off leads to",
      "s > p:and > n > m:xor > e; p > p; s > m",
      "unsound, deadlock, dead p n",
    ],
    ["a race for events", "s > r:race > m:catch > e1; r > t:catch > e2", "sound"],
    [
      "parallel split, exclusive join: what follows runs twice",
      "s > x:and > a > y:xor > c > e; x > b > y",
      "unsound, doubled",
    ],
    ["parallel split, step with two ways in", "s > x:and > a > c > e; x > b > c", "unsound, doubled"],
    ["a step with two ways out is a parallel split", "s > a > b > y:xor > e; a > c > y", "unsound, doubled"],
    [
      "exclusive split, parallel join: stuck",
      "s > x:xor > a > y:and > c > e; x > b > y",
      "unsound, deadlock, dead y c e",
    ],
    [
      "parallel join of two starts that are alternatives",
      "s1 > a > y:and > e; s2 > b > y",
      "unsound, deadlock, dead y e",
    ],
    ["inclusive split, parallel join: stuck unless both", "s > x:or > a > y:and > e; x > b > y", "unsound, deadlock"],
    ["exclusive split, inclusive join", "s > x:xor > a > y:or > e; x > b > y", "sound"],
    ["parallel split, inclusive join", "s > x:and > a > y:or > e; x > b > y", "sound"],
    ["a loop nothing leaves", "s > j:xor > a > b > j", "unsound, livelock"],
    ["a way into a loop nothing leaves", "s > x:xor > e; x > j:xor > a > j", "unsound, livelock"],
    ["a loop that makes more tokens each time", "s > j:xor > x:and > a > j; x > e", "unsound, livelock, doubled"],
    ["what nothing leads to", "s > a > e; b > c > e2", "unsound, dead b c e2"],
    [
      "blocks in blocks",
      "s > x:and > p:xor > a > q:xor > y:and > e; p > b > q; x > g:or > c > h:or > y; g > d > h",
      "sound",
    ],
    ["a jump out of a parallel block", "s > x:and > p:xor > a > y:and > e; p > e2; x > b > y", "unsound, deadlock"],
    [
      "a jump into a parallel block",
      "s > z:xor > x:and > a > y:and > e; x > b > y; z > y",
      "unsound, deadlock, dead y e",
    ],
    ["no start event: what nothing leads to begins at once", "a > y:and > e; b > y", "sound"],
    ["an exclusive gateway at the end takes each token", "s > x:and > a > y:xor; x > b > y", "sound"],
  ])("%s", (_, flows, expected) => {
    expect(verdict(processOf(flows))).toBe(expected);
  });

  test.each<[string, string, string, string]>([
    [
      "a split in two steps before a join of some is not one split",
      "s > a; s > x:and > p:and > y:some > n; x > y; t > y",
      '<boundaryEvent id="t" attachedToRef="a"><timerEventDefinition/></boundaryEvent>',
      "unsound, doubled",
    ],
    [
      "an interrupting event at an edge is a choice",
      "s > a > y:xor > e; t > y",
      '<boundaryEvent id="t" attachedToRef="a"><timerEventDefinition/></boundaryEvent>',
      "sound",
    ],
    [
      "one that does not interrupt adds a token",
      "s > a > y:xor > c > e; t > y",
      '<boundaryEvent id="t" attachedToRef="a" cancelActivity="false"><timerEventDefinition/></boundaryEvent>',
      "unsound, doubled",
    ],
    [
      "one that does not interrupt goes off once",
      "s > a > y:and > e; t > y",
      '<boundaryEvent id="t" attachedToRef="a" cancelActivity="false"><timerEventDefinition/></boundaryEvent>',
      "unsound, deadlock",
    ],
    [
      "a terminate end takes what else is under way",
      "s > x:and > a > z; x > b > y:and; x > c > y; y > e",
      '<endEvent id="z"><terminateEventDefinition/></endEvent>',
      "sound",
    ],
    [
      "a sub-process that gets stuck",
      "s > sub > e",
      '<subProcess id="sub"><startEvent id="i"/><exclusiveGateway id="x"/><parallelGateway id="y"/><endEvent id="o"/><sequenceFlow id="1" sourceRef="i" targetRef="x"/><sequenceFlow id="2" sourceRef="x" targetRef="y"/><sequenceFlow id="3" sourceRef="x" targetRef="y"/><sequenceFlow id="4" sourceRef="y" targetRef="o"/></subProcess>',
      "unsound, deadlock, dead e y o",
    ],
    [
      "an event sub-process that interrupts ends the rest",
      "s > x:and > a > y:and > e; x > b > y",
      '<subProcess id="sub" triggeredByEvent="true"><startEvent id="i"><errorEventDefinition/></startEvent><endEvent id="o"/><sequenceFlow id="1" sourceRef="i" targetRef="o"/></subProcess>',
      "sound",
    ],
    [
      "a link goes on where its name is caught",
      "s > l; k > e",
      '<intermediateThrowEvent id="l"><linkEventDefinition name="A"/></intermediateThrowEvent><intermediateCatchEvent id="k"><linkEventDefinition name="A"/></intermediateCatchEvent>',
      "sound",
    ],
    [
      "compensation is done to undo, and no flow leads to it",
      "s > a > e",
      '<task id="undo" isForCompensation="true"/>',
      "sound",
    ],
  ])("%s", (_, flows, more, expected) => {
    expect(verdict(processOf(flows, more))).toBe(expected);
  });
});

test("a fault is told by the shortest run that leads to it", () => {
  const [process] = behaviourOf(processOf("s > x:and > a > y:xor > c > e; x > b > y"));
  const [scope] = process?.scopes ?? [];
  expect(scope?.doubled?.witness.slice(0, 2)).toEqual(["s", "x"]);
  expect(scope?.doubled?.witness).toEqual(expect.arrayContaining(["a", "b", "y"]));
  expect(scope?.doubled && scope.net.flows[scope.doubled.flow]?.id).toBe("f3");
});

/** The net as it is, without taking anything out: what reduction is measured against. */
function asItIs(model: Model, scope: string): ReducedNet {
  const net = scopeNetOf(model, scope);
  return {
    net,
    nodeRuns: net.nodes.map((node) => ({ run: [node.id], covers: [node.id] })),
    flowRuns: net.flows.map(() => ({ run: [], covers: [] })),
    ends: net.flows.map((_, at) => ({ first: at, last: at })),
  };
}

describe("what is taken out changes nothing", () => {
  const facts = (behaviour: ReturnType<typeof explore>) => ({
    deadlock: behaviour.deadlock !== undefined,
    livelock: behaviour.livelock !== undefined,
    doubled: behaviour.doubled !== undefined,
    canComplete: behaviour.canComplete,
    ...(!behaviour.doubled && { reached: [...behaviour.reached].sort() }),
  });
  test("on tangled processes", () => {
    let compared = 0;
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 100_000 }), fc.integer({ min: 4, max: 11 }), (seed, nodes) => {
        const model = tangledProcess({ seed, nodes, lanes: 1 });
        const [scope = ""] = behaviourOf(model).map((process) => process.process);
        const net = scopeNetOf(model, scope);
        const brute = explore(asItIs(model, scope), net, 2_000);
        if (!brute.complete) return;
        compared++;
        // Beyond the first doubled token the two cut different states off, so only that it is found is compared there.
        const short = explore(reduced(net), net, 2_000);
        if (brute.doubled) expect(short.doubled).toBeDefined();
        else expect(facts(short)).toEqual(facts(brute));
      }),
      { numRuns: 150 },
    );
    expect(compared).toBeGreaterThan(80);
  });
  test("blocks are sound, and small when reduced", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 100_000 }), fc.integer({ min: 5, max: 120 }), (seed, nodes) => {
        const [process] = behaviourOf(randomProcess({ seed, nodes, lanes: 2, wild: false }));
        expect(process?.sound).toBe(true);
        expect(process?.states).toBeLessThan(10);
      }),
      { numRuns: 60 },
    );
  });
  test("sixty branches of five steps each are decided at once", () => {
    const branches = Array.from({ length: 60 }, (_, at) => `x > a${at} > b${at} > c${at} > d${at} > g${at} > y`);
    expect(verdict(processOf(`s > x:and; y:and > e;${branches.join(";")}`))).toBe("sound");
    const apart = Array.from({ length: 60 }, (_, at) => `x > a${at} > b${at} > e${at}`);
    expect(verdict(processOf(`s > x:and;${apart.join(";")}`))).toBe("sound");
  });
  test.each([4, 28, 37])(
    "a thousand nodes of which one part runs twice get their verdict, with a run that leads there (%d)",
    (seed) => {
      const model = randomProcess({ seed, nodes: 1000, lanes: 0, wild: true });
      const joins = [...model.elements].filter(
        (element) => element.type === "parallelGateway" && incomingOf(model, element.id).length > 1,
      );
      const join = joins[Math.floor(seededRandom(seed + 999)() * joins.length)] as Element;
      const broken = expectOk(
        applyEdits(model, [
          { kind: "remove", table: "elements", record: join },
          { kind: "insert", table: "elements", record: { ...join, type: "exclusiveGateway" } },
        ]),
      );
      const [process] = behaviourOf(broken);
      expect(process?.sound).toBe(false);
      const run = process?.scopes.flatMap(({ doubled, deadlock }) => doubled?.witness ?? deadlock?.witness ?? []) ?? [];
      expect(run.length).toBeGreaterThan(2);
      for (const id of run) expect(broken.elements.has(id)).toBe(true);
    },
  );
});
