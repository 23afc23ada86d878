import fc from "fast-check";
import { expect, test } from "vitest";
import { readBpmn } from "../../bpmn";
import type { Model } from "../../model";
import { bruteForce } from "../../testing/bruteForce";
import { expectOk } from "../../testing/models";
import { behaviourOf } from ".";

const types = [
  "task",
  "task",
  "exclusiveGateway",
  "parallelGateway",
  "inclusiveGateway",
  "complexGateway",
  "exclusiveGateway",
  "parallelGateway",
] as const;

/** Any process at all: nodes of every kind, each reached from one before it, further flows anywhere, events at edges. */
const anyProcess = fc
  .record({
    nodes: fc.array(fc.record({ type: fc.constantFrom(...types), from: fc.nat(30), edge: fc.nat(9) }), {
      minLength: 2,
      maxLength: 8,
    }),
    more: fc.array(fc.tuple(fc.nat(30), fc.nat(30)), { maxLength: 5 }),
  })
  .map(({ nodes, more }): Model => {
    const ids = ["s", ...nodes.map((_, at) => `n${at}`)];
    const elements: string[] = ['<startEvent id="s"/>'];
    const flows: string[] = [];
    const connect = (from: string, to: string) =>
      flows.push(`<sequenceFlow id="f${flows.length}" sourceRef="${from}" targetRef="${to}"/>`);
    const sources = ["s"];
    for (const [at, { type, from, edge }] of nodes.entries()) {
      const id = `n${at}`;
      elements.push(`<${type} id="${id}"/>`);
      connect(sources[from % sources.length] as string, id);
      sources.push(id);
      if (type === "task" && edge < 2) {
        elements.push(
          `<boundaryEvent id="b${at}" attachedToRef="${id}"${edge === 1 ? ' cancelActivity="false"' : ""}><timerEventDefinition/></boundaryEvent>`,
        );
        sources.push(`b${at}`);
      }
    }
    for (const [from, to] of more)
      connect(sources[from % sources.length] as string, ids[1 + (to % (ids.length - 1))] as string);
    const xml = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="definitions" targetNamespace="x"><process id="process">${elements.join("")}${flows.join("")}</process></definitions>`;
    return expectOk(readBpmn(new TextEncoder().encode(xml)));
  });

/**
 * For a longer search, with another seed:
 * SOUNDNESS_MINUTES=60 SOUNDNESS_SEED=7 npx vitest run --testTimeout 4000000 bruteForce
 */
const minutes = Number(process.env.SOUNDNESS_MINUTES ?? 0);
const seed = Number(process.env.SOUNDNESS_SEED ?? 0);
const runs = minutes > 0 ? 10_000_000 : 300;

test("on any process, the verdict is what trying everything finds", () => {
  let compared = 0;
  fc.assert(
    fc.property(anyProcess, (model) => {
      const brute = bruteForce(model, "process", 1_500);
      if (!brute) return;
      compared++;
      const [process] = behaviourOf(model);
      const [scope] = process?.scopes ?? [];
      if (!scope) throw new Error("There is no scope.");
      expect(scope.doubled !== undefined).toBe(brute.doubled);
      if (brute.doubled) return;
      expect({
        deadlock: scope.deadlock !== undefined,
        livelock: scope.livelock !== undefined,
        reached: [...scope.reached].sort(),
      }).toEqual({ deadlock: brute.deadlock, livelock: brute.livelock, reached: brute.reached });
    }),
    { numRuns: runs, ...(seed > 0 && { seed }), ...(minutes > 0 && { interruptAfterTimeLimit: minutes * 60_000 }) },
  );
  if (minutes > 0) console.log(`${compared} models compared in ${minutes} minutes, seed ${seed}`);
  else expect(compared).toBeGreaterThan(runs / 2);
});
