import { beforeEach, describe, expect, test, vi } from "vitest";
import type { Thing } from "@/contract";
import { ToLookAt } from "./toLookAt";

const hour = 3_600_000;
const runOf = (id: string, shows = 0) => ({ id, version: `of ${id}`, clock: { real: 0, shows, pace: 0 } });
const two = [runOf("a"), runOf("b")];
const idsOf = (runs: readonly { readonly id: string }[]) => runs.map(({ id }) => id);

describe("which runs are looked at again", () => {
  let looked: ToLookAt;
  const done = (...things: Thing[]) => looked.hear({ text: JSON.stringify({ by: "someAct", things }) });
  beforeEach(() => {
    looked = new ToLookAt();
    expect(idsOf(looked.take(two))).toEqual(["a", "b"]);
    expect(looked.take(two)).toEqual([]);
  });

  test("those of a version that something was done to, once", () => {
    done({ kind: "version", id: "of b" });
    done({ kind: "version", id: "of b" }, { kind: "version", id: "of none" });
    expect(idsOf(looked.take(two))).toEqual(["b"]);
    expect(looked.take(two)).toEqual([]);
  });

  test("all, where costs may have changed, or something may have been missed or failed", () => {
    done({ kind: "directory" });
    expect(looked.take(two)).toHaveLength(2);
    done({ kind: "workspace" });
    expect(looked.take(two)).toHaveLength(2);
    looked.again();
    expect(looked.take(two)).toHaveLength(2);
    expect(looked.take(two)).toEqual([]);
  });

  test("none for what has nothing to do with them", () => {
    done({ kind: "area", id: "of a" }, { kind: "process", id: "of b" });
    looked.hear({ text: JSON.stringify({ here: { window: "w", version: "of a" } }) });
    expect(looked.take(two)).toEqual([]);
  });

  test("one that is new, and one that was not under way for a while", () => {
    expect(idsOf(looked.take([...two, runOf("c")]))).toEqual(["c"]);
    looked.take([runOf("a")]);
    expect(idsOf(looked.take(two))).toEqual(["b"]);
  });

  test("each when an hour of its own time has passed since it was looked at, whatever was asked meanwhile", () => {
    expect(looked.take([runOf("a", hour - 1)])).toEqual([]);
    expect(idsOf(looked.take([runOf("a", hour)]))).toEqual(["a"]);
    expect(looked.take([runOf("a", 2 * hour - 1)])).toEqual([]);
    vi.setSystemTime(0);
    const quick = { ...runOf("a", hour), clock: { real: 0, shows: hour, pace: 60 } };
    expect(looked.take([quick])).toEqual([]);
    vi.setSystemTime(60_000);
    expect(idsOf(looked.take([quick]))).toEqual(["a"]);
    vi.useRealTimers();
  });

  test("what is done while they are looked at counts for the next time", () => {
    const now = looked.take([runOf("c")]);
    done({ kind: "version", id: "of c" });
    expect(idsOf(now)).toEqual(["c"]);
    expect(idsOf(looked.take([runOf("c")]))).toEqual(["c"]);
  });
});
