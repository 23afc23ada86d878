import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { aboutKinds, type ThreadRow } from "@/contract/comments";
import { openThreads } from "./openThreads";

const threads = fc.array(
  fc.record({ kind: fc.constantFrom(...aboutKinds), key: fc.constantFrom("a", "b", ""), isOpen: fc.boolean() }),
);
const rowsOf = (some: readonly { kind: ThreadRow["about"]["kind"]; key: string; isOpen: boolean }[]): ThreadRow[] =>
  some.map(({ kind, key, isOpen }, at) => ({
    id: String(at),
    about: { kind, key, words: key },
    said: [],
    assigned: null,
    resolved: isOpen ? null : { name: "Ines Orr", at: "2027-03-01T08:00:00Z" },
  }));

describe("open threads", () => {
  test("are counted for each thing of a kind; what is resolved, and what is of another kind, is not", () => {
    const rows = rowsOf([
      { kind: "element", key: "a", isOpen: true },
      { kind: "element", key: "a", isOpen: true },
      { kind: "element", key: "b", isOpen: false },
      { kind: "finding", key: "a", isOpen: true },
    ]);
    expect([...openThreads(rows, "element")]).toEqual([["a", 2]]);
    expect([...openThreads(rows, "finding")]).toEqual([["a", 1]]);
    expect(openThreads(rows, "figure").size).toBe(0);
  });

  test("of all kinds together are all that are open", () => {
    fc.assert(
      fc.property(threads, (some) => {
        const all = aboutKinds.flatMap((kind) => [...openThreads(rowsOf(some), kind).values()]);
        expect(all.reduce((sum, count) => sum + count, 0)).toBe(some.filter(({ isOpen }) => isOpen).length);
        for (const count of all) expect(count).toBeGreaterThan(0);
      }),
    );
  });
});
