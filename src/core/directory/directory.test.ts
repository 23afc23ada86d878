import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  type DirectoryEntry,
  directoryEntrySchema,
  isWithin,
  nameSimilarity,
  type OrganisationNode,
  organisationOf,
  similarEntries,
} from ".";
import { editDistance } from "./similar";

const entry = (id: string, name: string, more: Partial<DirectoryEntry> = {}): DirectoryEntry =>
  directoryEntrySchema.parse({ id, kind: "role", name, ...more });

describe("two spellings of one name are found", () => {
  test.each([
    ["Network engineer", "network-engineer"],
    ["Network engineer", "Network enigneer"],
    ["Network engineer", "Netw. engineer"],
    ["Network engineer", "Engineer, network"],
    ["Field crew", "Field crews"],
    ["Meter readings", "Meter reading"],
  ])("%s, %s", (one, other) => {
    expect(similarEntries([entry("a", one), entry("b", other)])).toHaveLength(1);
  });
  test.each([
    ["Front desk", "Field crew"],
    ["Crew north", "Crew south"],
    ["Feeder 1", "Feeder 2"],
    ["Billing", "Billing ledger"],
    ["Case register", "Crew planner"],
  ])("but %s and %s are two things", (one, other) => {
    expect(similarEntries([entry("a", one), entry("b", other)])).toHaveLength(0);
  });
  test("entries of two kinds are never one", () => {
    expect(similarEntries([entry("a", "Billing"), entry("b", "Billing", { kind: "system" })])).toHaveLength(0);
  });
  test("two thousand entries are compared in little time", () => {
    const many = Array.from({ length: 2_000 }, (_, at) => entry(`r${at}`, `Role of office ${at.toString(36)}`));
    expect(similarEntries([...many, entry("x", "Network engineer"), entry("y", "Netwrok engineer")])[0]).toMatchObject({
      one: { id: "x" },
      other: { id: "y" },
    });
  });
  test("likeness is the same both ways, from 0 to 1, and 1 for the name itself", () => {
    const name = fc
      .array(fc.stringMatching(/^[a-z]{1,9}$/), { minLength: 1, maxLength: 4 })
      .map((words) => words.join(" "));
    fc.assert(
      fc.property(name, name, (a, b) => {
        expect(nameSimilarity(a, a)).toBeCloseTo(1);
        expect(nameSimilarity(a, b)).toBeGreaterThanOrEqual(0);
        expect(nameSimilarity(a, b)).toBeLessThanOrEqual(1);
      }),
    );
  });
});

/** Distances known from textbooks: kitten/sitting 3, Saturday/Sunday 3; a swap counts once (Damerau 1964), CA/ABC 3 in its restricted form. */
test.each([
  ["kitten", "sitting", 3],
  ["saturday", "sunday", 3],
  ["ca", "ac", 1],
  ["ca", "abc", 3],
  ["", "abc", 3],
  ["abc", "abc", 0],
])("the distance of %s and %s is %i", (a, b, distance) => {
  expect(editDistance(a, b)).toBe(distance);
  expect(editDistance(b, a)).toBe(distance);
});

describe("the organisation is a tree", () => {
  const entries = [
    entry("coop", "Cooperative", { kind: "unit" }),
    entry("net", "Network", { kind: "unit", unit: "coop" }),
    entry("crew", "Field crew", { unit: "net", headcount: 6 }),
    entry("engineer", "Network engineer", { unit: "net", headcount: 2 }),
    entry("guest", "Guest", { unit: "gone" }),
  ];
  test("people are counted upwards", () => {
    const [coop] = organisationOf(entries);
    expect(coop).toMatchObject({
      entry: { id: "coop" },
      headcount: 8,
      children: [{ entry: { id: "net" }, headcount: 8 }],
    });
  });
  test("nobody is missing, whoever they say they belong to", () => {
    const ids = fc.constantFrom("a", "b", "c", "d", "e");
    fc.assert(
      fc.property(fc.uniqueArray(fc.tuple(ids, fc.option(ids), fc.boolean()), { selector: ([id]) => id }), (rows) => {
        const all = rows.map(([id, unit, isUnit]) => entry(id, id, { kind: isUnit ? "unit" : "role", unit }));
        const seen: string[] = [];
        const walk = (node: OrganisationNode) => {
          seen.push(node.entry.id);
          node.children.forEach(walk);
        };
        organisationOf(all).forEach(walk);
        expect(seen.sort()).toEqual(all.map((one) => one.id).sort());
      }),
    );
  });
  test("a unit within a unit within itself is seen", () => {
    expect(isWithin(entries, "net", "coop")).toBe(true);
    expect(isWithin(entries, "coop", "net")).toBe(false);
  });
});
