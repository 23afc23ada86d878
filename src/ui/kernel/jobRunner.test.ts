import { expose } from "comlink";
import fc from "fast-check";
import { afterEach, describe, expect, test } from "vitest";
import { checkModel } from "@/core/check";
import { perform } from "@/core/commands";
import { type Model, toStored } from "@/core/model";
import { commandFor, smallModel, startModel } from "@/core/testing/models";
import { type Jobs, jobIn, jobModules } from "@/jobs";
import { HandingOver, Held } from "@/jobs/handover";
import { JobRunner } from "./jobRunner";

/** The worker's side, with a rest before each answer, counted. */
const ports: MessagePort[] = [];
let [started, ended, whole, edited] = [0, 0, 0, 0];
let rest = 0;
/** What a worker does instead of the next job. */
let instead: (() => Promise<unknown>) | undefined;
const start = () => {
  started++;
  const held = new Held();
  const { port1, port2 } = new MessageChannel();
  ports.push(port1, port2);
  expose(
    {
      run: async (name: keyof Jobs, handed: Parameters<Held["take"]>[0], input: never) => {
        for (const [, how] of handed) "whole" in how ? whole++ : edited++;
        const models = held.take(handed);
        await new Promise((resolve) => setTimeout(resolve, rest));
        if (instead) return instead();
        return ((await jobIn(jobModules, name)) as (...given: unknown[]) => unknown)(models, input, () => {});
      },
    },
    port2,
  );
  return Object.assign(port1, {
    terminate: () => {
      ended++;
      port1.close();
    },
  }) as unknown as Worker;
};

afterEach(() => {
  for (const port of ports.splice(0)) port.close();
  [started, ended, whole, edited, rest] = [0, 0, 0, 0, 0];
  instead = undefined;
});

const model = smallModel();
const ask = (runner: JobRunner, given: Model = model, isAlone = false) =>
  runner.run("findings", { model: given }, { profile: "review", part: "all" }, { isAlone });

describe("long work away from the page", () => {
  test("comes to what the same work on the page comes to", async () => {
    expect(await ask(new JobRunner(start))).toEqual(checkModel(model, { profile: "review" }));
  });

  test("has one worker, which is handed a model once, and then what has changed of it", async () => {
    const runner = new JobRunner(start);
    expect(started).toBe(0);
    await ask(runner);
    const [element] = [...model.elements].filter((one) => one.type === "userTask");
    const changed = perform(model, { type: "rename", id: element?.id as string, name: "Weigh the parcel" });
    if (!changed.ok) throw new Error(changed.problems[0]?.message);
    const found = await ask(runner, changed.value.model);
    expect(found).toEqual(checkModel(changed.value.model, { profile: "review" }));
    await ask(runner, changed.value.model);
    expect({ started, ended, whole, edited }).toEqual({ started: 1, ended: 0, whole: 1, edited: 2 });
  });

  test("does several jobs at a time", async () => {
    const runner = new JobRunner(start);
    const both = await Promise.all([ask(runner), runner.run("soundness", { model }, {})]);
    expect(both[1]).toHaveLength(1);
    expect(started).toBe(1);
  });

  test("one that stands alone calls off what was asked before, which is never answered", async () => {
    const runner = new JobRunner(start);
    rest = 40;
    let isAnswered = false;
    void ask(runner, model, true).then(() => {
      isAnswered = true;
    });
    await ask(runner, model, true);
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect(isAnswered).toBe(false);
    expect([started, ended]).toEqual([2, 1]);
    // Nothing is open any more, so nothing has to be called off.
    await ask(runner, model, true);
    expect([started, ended]).toEqual([2, 1]);
  });

  test("a job that fails is told, and the next is done by the same worker, handed whole again", async () => {
    const runner = new JobRunner(start);
    await expect(runner.run("tidyPage", {}, { diagram: "x" })).rejects.toThrow('no model "model"');
    await ask(runner);
    expect({ started, ended, whole }).toEqual({ started: 1, ended: 0, whole: 1 });
  });

  test("a worker whose script cannot be fetched is told, and the next job has another one", async () => {
    const workers: Worker[] = [];
    const runner = new JobRunner(() => {
      workers.push(start());
      return workers.at(-1) as Worker;
    });
    instead = () => new Promise(() => {});
    const waiting = Promise.allSettled([ask(runner), ask(runner)]);
    await new Promise((resolve) => setTimeout(resolve, 20));
    workers[0]?.dispatchEvent(new Event("error"));
    for (const one of await waiting) expect(one).toMatchObject({ status: "rejected", reason: { name: "TypeError" } });
    instead = undefined;
    expect(await ask(runner)).toEqual(checkModel(model, { profile: "review" }));
    expect({ started, ended }).toEqual({ started: 2, ended: 1 });
  });

  test("one that breaks at a job, as when a part of its script is gone, is not asked again", async () => {
    const runner = new JobRunner(start);
    instead = () => Promise.reject(Object.assign(new Error("Loading chunk 12 failed."), { name: "ChunkLoadError" }));
    await expect(ask(runner)).rejects.toMatchObject({ name: "ChunkLoadError" });
    instead = undefined;
    await ask(runner);
    expect({ started, ended, whole }).toEqual({ started: 2, ended: 1, whole: 2 });
  });

  test("after it was stopped the next job starts it anew", async () => {
    const runner = new JobRunner(start);
    await ask(runner);
    runner.stop();
    await ask(runner);
    expect({ started, ended, whole }).toEqual({ started: 2, ended: 1, whole: 2 });
  });
});

test("whatever is done to a model, the other side holds the same after each handing over", () => {
  fc.assert(
    fc.property(fc.array(fc.nat({ max: 999 }), { minLength: 1, maxLength: 40 }), (numbers) => {
      const [handing, held] = [new HandingOver(), new Held()];
      let here = startModel();
      let count = 0;
      for (const number of numbers) {
        const done = perform(here, commandFor(here, { pick: (of) => number % of, id: `new-${count++}` }));
        if (done.ok) here = done.value.model;
        if (number % 3 === 0) continue;
        const there = held.take(structuredClone(handing.hand({ model: here }))).model as Model;
        const sorted = (model: Model) => {
          const stored = toStored(model);
          const byId = <One extends { readonly id: string }>(records: readonly One[]) =>
            [...records].sort((one, other) => (one.id < other.id ? -1 : 1));
          return { ...stored, elements: byId(stored.elements), shapes: byId(stored.shapes), edges: byId(stored.edges) };
        };
        expect(sorted(there)).toEqual(sorted(here));
      }
    }),
    { numRuns: 60 },
  );
});
