import fc from "fast-check";
import { expect, test } from "vitest";
import { behaviourOf, deadNodesOf } from "../check/soundness";
import { perform } from "../commands";
import { elementsOfType, type Model, outgoingOf, processesOf } from "../model";
import { randomProcess } from "../testing/randomProcess";
import { suggestWalks, walk } from ".";
import { reach } from "./reach";

const processIn = (model: Model) => processesOf(model)[0]?.id as string;

/** A process of blocks in which one gateway is of another kind than it was: some of these get stuck, some never get somewhere. */
function spoilt(seed: number, nodes: number): Model {
  const model = randomProcess({ seed, nodes, lanes: 1, wild: false });
  const gateways = [...model.elements].filter(({ type }) => type === "exclusiveGateway" || type === "parallelGateway");
  const one = gateways[seed % Math.max(1, gateways.length)];
  if (!one) return model;
  const to = one.type === "exclusiveGateway" ? "parallelGateway" : "exclusiveGateway";
  const done = perform(model, { type: "retype", id: one.id, to });
  return done.ok ? done.value.model : model;
}

test("what no walk goes along is what the check says no case reaches", () => {
  let withMissed = 0;
  fc.assert(
    fc.property(fc.nat(100_000), fc.integer({ min: 4, max: 14 }), (seed, nodes) => {
      const model = spoilt(seed, nodes);
      const process = processIn(model);
      const { missed, isKnown, walks } = suggestWalks(model, process);
      const [behaviour] = behaviourOf(model);
      if (!isKnown || !behaviour?.complete) return;
      const dead = new Set(behaviour.scopes.flatMap((scope) => deadNodesOf(model, scope)).map(({ id }) => id));
      const behindDead = [...dead].flatMap((node) => outgoingOf(model, node)).map(({ id }) => id);
      for (const flow of behindDead) expect(missed).toContain(flow);
      // A step that is begun and never ends stands where a sub-process inside gets stuck.
      const isStuckInside = behaviour.scopes.slice(1).some((scope) => scope.deadlock || scope.livelock);
      if (!isStuckInside) expect([...missed].sort()).toEqual(behindDead.sort());
      if (missed.length > 0) withMissed++;
      for (const { choices, covers } of walks) {
        const passed = new Set(walk({ model }, process, choices).log.flatMap(({ flows }) => flows));
        for (const flow of covers) expect(passed).toContain(flow);
      }
    }),
    { numRuns: 150, seed: 7 },
  );
  // The property says something only if some of the models have such flows.
  expect(withMissed).toBeGreaterThan(3);
});

test("a way leads to its flow with its last act, and a shorter one is not known", () => {
  fc.assert(
    fc.property(fc.nat(100_000), (seed) => {
      const model = randomProcess({ seed, nodes: 8, lanes: 1, wild: true });
      const process = processIn(model);
      const flows = elementsOfType(model, "sequenceFlow").map(({ id }) => id);
      const { ways } = reach({ model }, process, [], new Set(flows));
      for (const [flow, { acts }] of ways) {
        expect(acts.at(-1)?.flows).toContain(flow);
        expect(acts.slice(0, -1).flatMap((act) => act.flows)).not.toContain(flow);
      }
    }),
    { numRuns: 40 },
  );
});
