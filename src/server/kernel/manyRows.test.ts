import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { database } from "@/data/database";
import { directory, elements, uses } from "@/data/schema";
import { leaveWorkspace, openWorkspace } from "../testing/workspace";
import type { Transaction } from "./act";
import { deleteRows, insertRows } from "./manyRows";

let db: Transaction;
beforeAll(async () => {
  await openWorkspace();
  db = (await database()).db as unknown as Transaction;
});
afterAll(leaveWorkspace);

const row = (element: string, more: object = {}) => ({
  version: "v",
  element,
  name: "",
  type: "task",
  words: "",
  ...more,
});
const kept = async () =>
  (await db.select().from(elements).where(eq(elements.version, "v"))).sort((a, b) =>
    a.element.localeCompare(b.element),
  );

describe("many rows at once", () => {
  test("any text comes back as it went in, what is absent is null, and a column nobody names has its default", async () => {
    const words = ["'; drop table uses; --", "a\\b\\u0041", 'say "so"', "\u{1f50c}\n\t", "{}", "null", ""];
    await insertRows(
      db,
      elements,
      words.map((name, at) => ({ version: "v", element: `e${at}`, name, type: "task", called: at ? name : null })),
    );
    expect((await kept()).map(({ name, called, words: about }) => [name, called, about])).toEqual(
      words.map((name, at) => [name, at ? name : null, ""]),
    );
    await deleteRows(db, elements, [{ version: "v" }]);
    expect(await kept()).toEqual([]);
  });

  test("numbers, moments and more rows than one statement takes", async () => {
    const at = "2026-11-27T09:00:00.000Z";
    const many = Array.from({ length: 2_500 }, (_, place) => ({
      id: `entry-${place}`,
      kind: "role",
      name: `Role ${place}`,
      headcount: place,
      costPerHour: place / 4,
      deletedAt: at,
    }));
    await insertRows(db, directory, many);
    const rows = await db.select().from(directory);
    expect(rows).toHaveLength(2_500);
    const last = rows.find(({ id }) => id === "entry-2499");
    expect(last).toMatchObject({ headcount: 2_499, costPerHour: 624.75, description: "" });
    expect(Date.parse(last?.deletedAt ?? "")).toBe(Date.parse(at));
    await deleteRows(
      db,
      directory,
      many.map(({ id }) => ({ id })),
    );
    expect(await db.select().from(directory)).toEqual([]);
  });

  test("only rows that are the same in every column that is named go", async () => {
    await insertRows(db, elements, [row("a"), row("b"), row("c")]);
    await deleteRows(db, elements, [
      { version: "v", element: "b" },
      { version: "other", element: "c" },
    ]);
    expect((await kept()).map(({ element }) => element)).toEqual(["a", "c"]);
    await deleteRows(db, elements, []);
    await insertRows(db, uses, []);
    expect(await kept()).toHaveLength(2);
  });

  test("a row that is there already is refused, and none of the others is kept", async () => {
    await expect(insertRows(db, elements, [row("d"), row("a")])).rejects.toMatchObject({ cause: { code: "23505" } });
    expect((await kept()).map(({ element }) => element)).toEqual(["a", "c"]);
  });
});
