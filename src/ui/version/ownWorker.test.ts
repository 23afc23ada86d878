import { expose } from "comlink";
import { afterEach, describe, expect, test } from "vitest";
import { OwnWorker } from "./ownWorker";

/** Something that answers when it is let, and counts how often it was begun. */
const slow = {
  double: async (number: number, rest: number) => {
    await new Promise((resolve) => setTimeout(resolve, rest));
    return 2 * number;
  },
  fail: async (): Promise<number> => {
    throw new Error("It cannot be told.");
  },
};

const ports: MessagePort[] = [];
let started = 0;
let ended = 0;
const start = () => {
  started++;
  const { port1, port2 } = new MessageChannel();
  ports.push(port1, port2);
  expose(slow, port2);
  return Object.assign(port1, {
    terminate: () => {
      ended++;
      port1.close();
    },
  }) as unknown as Worker;
};

afterEach(() => {
  for (const port of ports.splice(0)) port.close();
  started = 0;
  ended = 0;
});

describe("a worker of one's own", () => {
  test("is started with the first question, and once", async () => {
    const worker = new OwnWorker<typeof slow>(start);
    expect(started).toBe(0);
    expect(await worker.ask((remote) => remote.double(2, 0))).toBe(4);
    expect(await worker.ask((remote) => remote.double(3, 0))).toBe(6);
    expect([started, ended]).toEqual([1, 0]);
  });

  test("answers several questions at a time", async () => {
    const worker = new OwnWorker<typeof slow>(start);
    const answers = [30, 5].map((rest) => worker.ask((remote) => remote.double(rest, rest)));
    expect(await Promise.all(answers)).toEqual([60, 10]);
    expect(started).toBe(1);
  });

  test("one that stands alone calls off what was asked before, which is never answered", async () => {
    const worker = new OwnWorker<typeof slow>(start);
    let isAnswered = false;
    void worker
      .ask((remote) => remote.double(1, 40), true)
      .then(() => {
        isAnswered = true;
      });
    expect(await worker.ask((remote) => remote.double(5, 60), true)).toBe(10);
    expect(isAnswered).toBe(false);
    expect([started, ended]).toEqual([2, 1]);
    // Nothing is open any more, so nothing has to be called off.
    expect(await worker.ask((remote) => remote.double(6, 0), true)).toBe(12);
    expect([started, ended]).toEqual([2, 1]);
  });

  test("an answer that fails is told, and the next is had from the same worker", async () => {
    const worker = new OwnWorker<typeof slow>(start);
    await expect(worker.ask((remote) => remote.fail(), true)).rejects.toThrow("It cannot be told.");
    expect(await worker.ask((remote) => remote.double(4, 0), true)).toBe(8);
    expect([started, ended]).toEqual([1, 0]);
  });

  test("after it was stopped the next question starts it anew", async () => {
    const worker = new OwnWorker<typeof slow>(start);
    await worker.ask((remote) => remote.double(1, 0));
    worker.stop();
    expect(await worker.ask((remote) => remote.double(7, 0))).toBe(14);
    expect([started, ended]).toEqual([2, 1]);
  });
});
