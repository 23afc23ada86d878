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
import { Workers } from "./workers";

/** The worker's side, with a rest before each answer, counted. */
const ports: MessagePort[] = [];
let [started, ended, whole, edited] = [0, 0, 0, 0];
let rest = 0;
/** What a worker does instead of the next job. */
let instead: ((tell?: (share: number) => void) => Promise<unknown>) | undefined;
const start = () => {
  started++;
  const held = new Held();
  const { port1, port2 } = new MessageChannel();
  ports.push(port1, port2);
  expose(
    {
      run: async (
        name: keyof Jobs,
        handed: Parameters<Held["take"]>[0],
        input: never,
        tell?: (share: number) => void,
      ) => {
        for (const [, how] of handed) "whole" in how ? whole++ : edited++;
        const models = held.take(handed);
        await new Promise((resolve) => setTimeout(resolve, rest));
        if (instead) return instead(tell);
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
    expect(await ask(new JobRunner({ workers: new Workers(start) }))).toEqual(checkModel(model, { profile: "review" }));
  });

  test("has one worker, which is handed a model once, and then what has changed of it", async () => {
    const runner = new JobRunner({ workers: new Workers(start) });
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
    const runner = new JobRunner({ workers: new Workers(start) });
    const both = await Promise.all([ask(runner), runner.run("soundness", { model }, {})]);
    expect(both[1]).toHaveLength(1);
    expect(started).toBe(1);
  });

  test("one that stands alone calls off what was asked before, which is never answered", async () => {
    const runner = new JobRunner({ workers: new Workers(start) });
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
    const runner = new JobRunner({ workers: new Workers(start) });
    await expect(runner.run("tidyPage", {}, { diagram: "x" })).rejects.toThrow('no model "model"');
    await ask(runner);
    expect({ started, ended, whole }).toEqual({ started: 1, ended: 0, whole: 1 });
  });

  test("a worker whose script cannot be fetched is told, and the next job has another one", async () => {
    const workers: Worker[] = [];
    const runner = new JobRunner({
      workers: new Workers(() => {
        workers.push(start());
        return workers.at(-1) as Worker;
      }),
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
    const runner = new JobRunner({ workers: new Workers(start) });
    instead = () => Promise.reject(Object.assign(new Error("Loading chunk 12 failed."), { name: "ChunkLoadError" }));
    await expect(ask(runner)).rejects.toMatchObject({ name: "ChunkLoadError" });
    instead = undefined;
    await ask(runner);
    expect({ started, ended, whole }).toEqual({ started: 2, ended: 1, whole: 2 });
  });

  test("stopped in the middle of a job, the next is done by another worker", async () => {
    const runner = new JobRunner({ workers: new Workers(start) });
    rest = 40;
    let isAnswered = false;
    void ask(runner).then(() => {
      isAnswered = true;
    });
    runner.stop();
    await ask(runner);
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect({ isAnswered, started, ended, whole }).toEqual({ isAnswered: false, started: 2, ended: 1, whole: 2 });
  });
});

test("how far it is is told while it goes on, and not after it was stopped, however late it comes", async () => {
  const runner = new JobRunner({ workers: new Workers(start) });
  const told: number[] = [];
  let far = (_: number): unknown => undefined;
  const soon = () => new Promise((resolve) => setTimeout(resolve, 20));
  instead = (tell) =>
    new Promise(() => {
      if (tell) far = tell;
    });
  void runner.run("findings", { model }, { profile: "review", part: "all" }, { tell: (share) => told.push(share) });
  await soon();
  far(0.25);
  await soon();
  expect(told).toEqual([0.25]);
  runner.stop();
  far(0.5);
  await soon();
  // Nor while the next one goes on.
  instead = undefined;
  await ask(runner);
  far(0.75);
  await soon();
  expect(told).toEqual([0.25]);
});

describe("the workers of a page", () => {
  test("a worker that rests is taken by whoever has the next job, and holds what it was handed by others", async () => {
    const workers = new Workers(start);
    const [one, other] = [new JobRunner({ workers }), new JobRunner({ workers })];
    await ask(one);
    expect(await ask(other)).toEqual(checkModel(model, { profile: "review" }));
    // To stop one that has nothing to do takes it from nobody.
    one.stop();
    other.stop();
    await ask(one);
    expect({ started, ended, whole, edited }).toEqual({ started: 1, ended: 0, whole: 1, edited: 2 });
  });

  test("two that work at once have one each, and none gets the answer of the other", async () => {
    const workers = new Workers(start);
    rest = 20;
    const other = startModel();
    const found = await Promise.all([ask(new JobRunner({ workers })), ask(new JobRunner({ workers }), other)]);
    expect(found).toEqual([model, other].map((one) => checkModel(one, { profile: "review" })));
    expect({ started, ended }).toEqual({ started: 2, ended: 0 });
  });

  test("no more than two are kept at rest", async () => {
    const workers = new Workers(start);
    rest = 20;
    await Promise.all([1, 2, 3, 4].map(() => ask(new JobRunner({ workers }))));
    expect({ started, ended }).toEqual({ started: 4, ended: 2 });
    await Promise.all([1, 2].map(() => ask(new JobRunner({ workers }))));
    expect({ started, ended }).toEqual({ started: 4, ended: 2 });
  });

  test("one that breaks while it rests is not taken any more", async () => {
    const begun: Worker[] = [];
    const workers = new Workers(() => {
      begun.push(start());
      return begun.at(-1) as Worker;
    });
    await ask(new JobRunner({ workers }));
    begun[0]?.dispatchEvent(new Event("error"));
    await ask(new JobRunner({ workers }));
    expect(started).toBe(2);
  });

  test("what is called off leaves the worker at rest to others: the next that stands alone has one begun for it", async () => {
    const workers = new Workers(start);
    const [quick, long] = [new JobRunner({ workers }), new JobRunner({ workers })];
    await ask(quick);
    instead = () => new Promise(() => {});
    void ask(long, model, true);
    await new Promise((resolve) => setTimeout(resolve, 20));
    instead = undefined;
    await ask(quick);
    await Promise.all([ask(long, model, true), ask(quick)]);
    expect({ started, ended }).toEqual({ started: 3, ended: 1 });
  });

  test("whoever keeps a worker has it to itself, until it is stopped", async () => {
    const workers = new Workers(start);
    const keeper = new JobRunner({ workers, keeps: true });
    await ask(keeper);
    await ask(new JobRunner({ workers }));
    expect({ started, ended }).toEqual({ started: 2, ended: 0 });
    await ask(keeper);
    expect({ started, edited }).toEqual({ started: 2, edited: 1 });
    keeper.stop();
    expect(ended).toBe(1);
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

test("a worker that is asked about one process after the other keeps the last of them, and what is asked again is right", () => {
  const [handing, held] = [new HandingOver(), new Held()];
  const named = (name: string) => {
    const done = perform(model, { type: "rename", id: [...model.elements][0]?.id as string, name });
    if (!done.ok) throw new Error(done.problems[0]?.message);
    return done.value.model;
  };
  const ask = (...names: string[]) => {
    const handed = handing.hand(Object.fromEntries(names.map((name) => [name, named(name)])));
    const there = held.take(structuredClone(handed));
    for (const name of names) expect(toStored(there[name] as Model)).toEqual(toStored(named(name)));
    return handed.filter(([, how]) => "whole" in how).length;
  };
  for (let at = 0; at < 100; at++) ask("model", `called ${at}`);
  expect(held.size).toBe(16);
  // What is used all the time was never let go of, what was used lately is there still, the rest is handed whole once more.
  expect(ask("model", "called 99", "called 90")).toBe(0);
  expect(ask("called 5")).toBe(1);
  // Of what is asked about at once nothing is let go of, and nothing else stays.
  const many = Array.from({ length: 40 }, (_, at) => `part ${at}`);
  ask(...many);
  expect(held.size).toBe(40);
  expect(ask(...many)).toBe(0);
  ask("model");
  expect(held.size).toBe(16);
});
