import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { perform } from "../commands";
import { flowNodesIn, type Id, type Model } from "../model";
import { expectOk } from "../testing/models";
import { randomProcess } from "../testing/randomProcess";
import { afterMove, initialStates, keyOfState, movesOf, scopeNetOf } from "../tokens";
import { dataMatrix, writtenData } from ".";

const define = (model: Model) =>
  expectOk(
    perform(model, {
      type: "defineData",
      process: "process",
      id: "d",
      name: "rated power",
      schema: '{"type":"number"}',
    }),
  ).model;
const use = (model: Model, step: Id, how: "none" | "reads" | "creates" | "changes") =>
  expectOk(perform(model, { type: "setDataUse", step, data: "d", use: how })).model;

/** Nodes that some run comes to before the data was written, by going through all runs with one bit for "written". */
function unwrittenAt(model: Model, writers: ReadonlySet<Id>): Set<Id> {
  const net = scopeNetOf(model, "process");
  const found = new Set<Id>();
  const seen = new Set<string>();
  const open = initialStates(net).map((state) => ({ state, isWritten: false }));
  for (const { state, isWritten } of open) {
    const key = `${isWritten}${keyOfState(state)}`;
    if (seen.has(key)) continue;
    seen.add(key);
    if (seen.size > 60_000) throw new Error("too many states");
    for (const move of movesOf(net, state)) {
      const { id } = net.nodes[move.node] as { id: Id };
      if (!isWritten) found.add(id);
      open.push({ state: afterMove(net, state, move), isWritten: isWritten || writers.has(id) });
    }
  }
  return found;
}

describe("what is written before a step", () => {
  // Against brute force: all runs of block-structured processes, with data written at some of their steps.
  test("is what every run has written", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 100_000 }),
        fc.array(fc.nat(), { minLength: 1, maxLength: 3 }),
        (seed, at) => {
          let model = define(randomProcess({ seed, nodes: 16, lanes: 1, wild: false }));
          const tasks = flowNodesIn(model, "process").filter(({ type }) => type === "userTask");
          const writers = new Set(at.map((one) => tasks[one % tasks.length]?.id as Id));
          for (const step of writers) model = use(model, step, "creates");
          const { before } = writtenData(model, "process");
          const unwritten = unwrittenAt(model, writers);
          for (const { id, type } of flowNodesIn(model, "process"))
            if (type !== "startEvent") expect([id, !before.get(id)?.has("d")]).toEqual([id, unwritten.has(id)]);
        },
      ),
      { numRuns: 80 },
    );
  });
});

test("the matrix says what each step does with the data, and a use is changed and taken back", () => {
  const model = define(randomProcess({ seed: 3, nodes: 8, lanes: 1, wild: false }));
  const [step] = dataMatrix(model, "process").steps.filter(({ type }) => type === "userTask");
  const id = step?.id as Id;
  for (const how of ["reads", "creates", "changes", "reads", "none"] as const) {
    const after = use(use(model, id, "changes"), id, how);
    expect(dataMatrix(after, "process").useOf(id, "d")).toBe(how);
  }
  // Nothing is left of it.
  expect([...use(use(model, id, "changes"), id, "none").elements].length).toBe([...model.elements].length);
});
