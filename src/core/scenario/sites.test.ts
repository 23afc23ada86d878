import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { constant } from "./distributions";
import {
  linkBetween,
  linkProperty,
  noSites,
  readSiteProperty,
  roomProperty,
  sitesAfter,
  systemProperty,
} from "./sites";

const name = fc
  .string({ minLength: 1, maxLength: 20 })
  .map((text) => text.replace(/[<>]/g, "").trim())
  .filter((text) => text !== "");

describe("sites in a scenario", () => {
  test("what is written as a property is read as what was meant", () => {
    fc.assert(
      fc.property(name, name, fc.constantFrom("delay" as const, "capacity" as const), (from, to, what) => {
        expect(readSiteProperty(linkProperty(what, from, to))).toEqual({ what, from, to });
      }),
    );
    expect(readSiteProperty(systemProperty("archive-7"))).toEqual({ system: "archive-7", what: "site" });
    expect(readSiteProperty(roomProperty("archive-7"))).toEqual({ system: "archive-7", what: "capacity" });
    for (const other of ["zone", "site", "delay", "capacity", "capacity of ", "", "delay A B"])
      expect(readSiteProperty(other)).toBeUndefined();
  });

  test("the way back is as the way there, unless something else is said of it", () => {
    const there = { from: "A", to: "B", delay: [{ value: constant(60) }] };
    const back = { from: "B", to: "A", delay: [{ value: constant(90) }] };
    const one = { ...noSites, links: [there] };
    expect(linkBetween(one, "A", "B")).toBe(there);
    expect(linkBetween(one, "B", "A")).toBe(there);
    expect(linkBetween({ ...noSites, links: [there, back] }, "B", "A")).toBe(back);
    expect(linkBetween(one, "A", "C")).toBeUndefined();
  });

  test("a scenario after another keeps what it does not say itself, way by way and word by word", () => {
    const before = {
      ofSystems: new Map([
        ["archive", "A"],
        ["ledger", "B"],
      ]),
      roomOf: new Map([["archive", 3]]),
      links: [
        { from: "A", to: "B", delay: [{ value: constant(60) }], capacity: 2 },
        { from: "A", to: "C", delay: [{ value: constant(5) }] },
      ],
    };
    const own = {
      ofSystems: new Map([["ledger", "C"]]),
      roomOf: new Map([["ledger", 1]]),
      links: [{ from: "A", to: "B", capacity: 5 }],
    };
    expect(sitesAfter(before, own)).toEqual({
      ofSystems: new Map([
        ["archive", "A"],
        ["ledger", "C"],
      ]),
      roomOf: new Map([
        ["archive", 3],
        ["ledger", 1],
      ]),
      links: [
        { from: "A", to: "B", delay: [{ value: constant(60) }], capacity: 5 },
        { from: "A", to: "C", delay: [{ value: constant(5) }] },
      ],
    });
  });
});
