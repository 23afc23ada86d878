import { beforeEach, describe, expect, test } from "vitest";
import {
  did,
  didBefore,
  doAct,
  joinHistory,
  nextInHistory,
  nextMoment,
  redoLast,
  undoLast,
  useHistory,
} from "./history";

/** Edits of an open version, as its store has them. */
function edits() {
  const done: { label: string; at: number }[] = [];
  const undone: { label: string; at: number }[] = [];
  const told: string[] = [];
  return {
    told,
    make: (label: string) => done.push({ label, at: nextMoment() }),
    open: {
      last: () => done.at(-1),
      undone: () => undone.at(-1),
      undo: () => {
        const step = done.pop();
        if (step) undone.push({ ...step, at: nextMoment() });
        told.push(`undo ${step?.label}`);
      },
      redo: () => {
        const step = undone.pop();
        if (step) done.push({ ...step, at: nextMoment() });
        told.push(`redo ${step?.label}`);
      },
      forgetUndone: () => undone.splice(0),
    },
  };
}

beforeEach(() => useHistory.setState({ done: [], undone: [], isBusy: false }));

describe("one history of what a member did", () => {
  test("what is under way is waited for before anything is taken back, and answers in another order change nothing", async () => {
    const told: string[] = [];
    const slow = () => {
      let answer = () => {};
      const forth = () => new Promise<void>((resolve) => (answer = resolve));
      return { forth, answer: () => answer() };
    };
    const [first, second, third] = [slow(), slow(), slow()];
    const begun = [first, second, third].map(({ forth }, at) =>
      doAct(`act ${at + 1}`, forth, async () => told.push(`back ${at + 1}`)),
    );
    first.answer();
    await begun[0];
    const undone = undoLast();
    third.answer();
    await begun[2];
    expect(told).toEqual([]);
    second.answer();
    expect((await undone)?.label).toBe("act 3");
    expect([(await undoLast())?.label, (await undoLast())?.label]).toEqual(["act 2", "act 1"]);
    expect(told).toEqual(["back 3", "back 2", "back 1"]);
  });

  test("an act that is refused while its undoing waits is not taken back, but what stood before it", async () => {
    await doAct(
      "one",
      async () => {},
      async () => {},
    );
    let refuse = () => {};
    const forth = () =>
      new Promise<void>((_, reject) => {
        refuse = () => reject(new Error("no"));
      });
    const refused = doAct("two", forth, async () => {}).catch(() => "refused");
    const undone = undoLast();
    refuse();
    expect(await refused).toBe("refused");
    expect((await undone)?.label).toBe("one");
  });

  test("acts and edits are taken back in the order they were made, the last first, each by its name", async () => {
    const { make, open, told } = edits();
    const leave = joinHistory(open);
    make("add a step");
    await doAct(
      "accept a finding",
      async () => told.push("accept"),
      async () => told.push("withdraw"),
    );
    make("rename a step");
    expect(nextInHistory()).toEqual({ undo: "rename a step", redo: undefined });
    expect([
      (await undoLast())?.label,
      (await undoLast())?.label,
      (await undoLast())?.label,
      (await undoLast())?.label,
    ]).toEqual(["rename a step", "accept a finding", "add a step", undefined]);
    expect(told).toEqual(["accept", "undo rename a step", "withdraw", "undo add a step"]);
    // And are brought again in the order in which they were taken back, the last first.
    expect([
      (await redoLast())?.label,
      (await redoLast())?.label,
      (await redoLast())?.label,
      (await redoLast())?.label,
    ]).toEqual(["add a step", "accept a finding", "rename a step", undefined]);
    leave();
  });

  test("what was taken back is not brought again after something else was done", async () => {
    const { make, open } = edits();
    const leave = joinHistory(open);
    make("add a step");
    await undoLast();
    did({ label: "keep a walk", undo: async () => {}, redo: async () => {} });
    expect(nextInHistory()).toEqual({ undo: "keep a walk", redo: undefined });
    leave();
  });

  test("one that cannot be taken back says why, and lets those before it be", async () => {
    did({ label: "rename an area", undo: async () => {}, redo: async () => {} });
    did({
      label: "delete a process",
      undo: async () => {
        throw new Error("It is gone for good.");
      },
      redo: async () => {},
    });
    await expect(undoLast()).rejects.toThrow("gone for good");
    expect(nextInHistory()).toEqual({ undo: "rename an area", redo: undefined });
    expect((await undoLast())?.label).toBe("rename an area");
  });

  test("what it came to is known when it is taken back, also after it was brought again", async () => {
    let made = 0;
    const gone: number[] = [];
    await doAct(
      "new process",
      async () => ++made,
      async (id) => gone.push(id),
    );
    await undoLast();
    await redoLast();
    await undoLast();
    expect(gone).toEqual([1, 2]);
  });

  test("edits of a version that is closed keep their place among what else was done", async () => {
    const { make, open } = edits();
    const leave = joinHistory(open);
    make("add a step");
    const [step] = [open.last()];
    did({ label: "keep a walk", undo: async () => {}, redo: async () => {} });
    leave();
    didBefore([{ label: "add a step", at: step?.at ?? 0, undo: async () => {}, redo: async () => {} }]);
    expect([(await undoLast())?.label, (await undoLast())?.label]).toEqual(["keep a walk", "add a step"]);
  });

  test("without an open version its edits are no part of it", async () => {
    const { make, open } = edits();
    const leave = joinHistory(open);
    make("add a step");
    leave();
    expect((await undoLast())?.label).toBeUndefined();
  });
});
