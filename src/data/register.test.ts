import { getTableColumns, is } from "drizzle-orm";
import { PgTable } from "drizzle-orm/pg-core";
import { describe, expect, test } from "vitest";
import { keyOf, register, registered } from "./register";
import * as schema from "./schema";

const tables = Object.entries(schema).flatMap(([name, one]): [string, PgTable][] =>
  is(one, PgTable) ? [[name, one as PgTable]] : [],
);

describe("the register of tables", () => {
  test("knows every table of the schema, and each by the schema's name for it", () => {
    expect(registered.map(([name]) => name).sort()).toEqual(tables.map(([name]) => name).sort());
    for (const [name, table] of tables) expect(register[name as keyof typeof register].table).toBe(table);
  });

  test("says of every table with a version what becomes of its rows, and of no other", () => {
    const withVersion = tables.filter(([name, table]) => name !== "versions" && "version" in getTableColumns(table));
    expect(
      registered
        .filter(([, one]) => one.hangs)
        .map(([name]) => name)
        .sort(),
    ).toEqual(withVersion.map(([name]) => name).sort());
  });

  test("names only columns and tables that there are", () => {
    for (const [name, { table, names = {}, leftOut = [], hangs }] of registered) {
      const columns = Object.keys(getTableColumns(table));
      const used = [
        ...Object.keys(names),
        ...leftOut,
        ...(hangs ? [hangs.by, ...(hangs.alsoBy ?? [])] : []),
        ...(hangs && hangs.whenAdopted !== "stays" ? hangs.whenAdopted.replacesBy : []),
      ];
      for (const column of used) expect(columns, `${name}.${column}`).toContain(column);
      for (const other of Object.values(names)) expect(register, `${name} names ${other}`).toHaveProperty(other);
      expect(keyOf(table).length, name).toBeGreaterThan(0);
    }
  });

  test("lists what a row names before the row, so that a restore never meets a name of nothing", () => {
    const order = registered.map(([name]) => name as string);
    for (const [name, { names = {} }] of registered)
      for (const other of Object.values(names))
        expect(order.indexOf(other), `${name} names ${other}`).toBeLessThanOrEqual(order.indexOf(name));
  });
});
