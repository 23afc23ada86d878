import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { monitorEventLoopDelay } from "node:perf_hooks";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { LocalDatabase } from "./client";

const script = new URL("./thread.mjs", import.meta.url).pathname;
const folder = () => join(mkdtempSync(join(tmpdir(), "lane-")), "postgres");

describe("the database in a thread", () => {
  let database: LocalDatabase;
  beforeAll(async () => {
    database = await LocalDatabase.open(script, folder());
    await database.exec("create table things (id int primary key, said jsonb, at timestamptz)");
  });
  afterAll(() => database.close());
  const ids = async () =>
    (await database.query("select id from things order by id")).rows.map((row) => (row as { id: number }).id);

  test("JSON comes as what it says, moments as text, in rows by name and by place", async () => {
    const said = { name: "\u00e4 'quoted'", list: [1, null, "2"], deep: { a: true } };
    await database.query("insert into things values ($1, $2, $3)", [1, JSON.stringify(said), "2026-11-27T09:00:00Z"]);
    const { rows } = await database.query("select said, at from things");
    expect(rows).toEqual([{ said, at: expect.stringMatching(/^2026-11-27/) }]);
    const placed = await database.query("select id, said, null::jsonb from things", [], { rowMode: "array" });
    expect(placed.rows).toEqual([[1, said, null]]);
    await database.query("delete from things");
  });

  test("an act is all or nothing, and nobody reads between its parts", async () => {
    const failed = database.transaction(async (act) => {
      await act.query("insert into things (id) values (1)");
      throw new Error("no");
    });
    await expect(failed).rejects.toThrow("no");
    expect(await ids()).toEqual([]);
    const [, between] = await Promise.all([
      database.transaction(async (act) => {
        await act.query("insert into things (id) values (1)");
        await new Promise((resolve) => setTimeout(resolve, 30));
        await act.query("insert into things (id) values (2)");
      }),
      ids(),
    ]);
    expect(between).toEqual([1, 2]);
    await database.query("delete from things");
  });

  test("an act in which something failed is never committed as if it had not", async () => {
    const act = database.transaction(async (part) => {
      await part.query("insert into things (id) values (1)");
      await part.query("insert into nowhere values (1)").catch(() => undefined);
    });
    await expect(act).rejects.toMatchObject({ code: "25P02" });
    expect(await ids()).toEqual([]);
  });

  test("an error keeps the database's own code and place", async () => {
    await database.query("insert into things (id) values (5)");
    await expect(database.query("insert into things (id) values (5)")).rejects.toMatchObject({
      code: "23505",
      table: "things",
      constraint: "things_pkey",
    });
    await database.query("delete from things");
  });

  test("what takes the database long holds up nobody else", async () => {
    const delay = monitorEventLoopDelay({ resolution: 1 });
    delay.enable();
    const began = performance.now();
    await database.query("select count(*) from generate_series(1, 3000000)");
    const took = performance.now() - began;
    delay.disable();
    // Held by the shortest pause that tells the two apart on a busy machine.
    expect(delay.max / 1e6).toBeLessThan(Math.max(60, took / 2));
  });

  test("after its end every question is refused at once, and what was kept is there when it is opened again", async () => {
    const place = folder();
    const first = await LocalDatabase.open(script, place);
    await first.exec("create table kept (id int); insert into kept values (7)");
    await first.close();
    await expect(first.query("select 1")).rejects.toThrow("closed");
    const again = await LocalDatabase.open(script, place);
    expect((await again.query("select id from kept")).rows).toEqual([{ id: 7 }]);
    await again.close();
  }, 30_000);
});
