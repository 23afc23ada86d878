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

  test("an act that asks nothing begins nothing, and one that fails at its first question leaves nothing open", async () => {
    expect(await database.transaction(async () => 7)).toBe(7);
    const failed = database.transaction((act) => act.query("select * from nowhere where id = $1", [1]));
    await expect(failed).rejects.toMatchObject({ code: "42P01" });
    await database.transaction((act) => act.query("insert into things (id) values ($1)", [3]));
    expect(await ids()).toEqual([3]);
    await database.query("delete from things");
  });

  test("an act that only reads may not write, and the next one finds it ended", async () => {
    const kind = "set transaction isolation level repeatable read read only";
    const reading = <Outcome>(act: Parameters<typeof database.transaction<Outcome>>[0]) =>
      database.transaction(async (part) => {
        await part.query(kind);
        return act(part);
      });
    const shown = async (part: Pick<LocalDatabase, "query">) =>
      (
        await part.query(
          "select current_setting('transaction_isolation') as isolation, current_setting('transaction_read_only') as only",
        )
      ).rows;
    expect(await reading(shown)).toEqual([{ isolation: "repeatable read", only: "on" }]);
    expect(await database.transaction(shown)).toEqual([{ isolation: "read committed", only: "off" }]);
    await expect(reading((part) => part.query("insert into things (id) values (1)"))).rejects.toMatchObject({
      code: "25006",
    });
    // Also where the act itself takes no notice.
    await reading(async (part) => {
      await part.query("insert into things (id) values (1)").catch(() => undefined);
    });
    const both = [
      reading((part) => part.query("select count(*)::int as n from things")),
      database.query("insert into things (id) values (4)"),
      reading((part) => part.query("select count(*)::int as n from things")),
    ] as const;
    expect((await Promise.all(both)).map(({ rows }) => rows)).toEqual([[{ n: 0 }], [], [{ n: 1 }]]);
    expect(await reading(async () => 7)).toBe(7);
    await database.query("delete from things");
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

  test("values of every kind come back as what they were", async () => {
    const when = new Date("2026-11-27T09:30:00.250Z");
    const list = ["plain", 'with "quotes"', "a \\\\ stroke", "{brace, comma}", "", "NULL", null];
    const bytes = new Uint8Array([0, 1, 92, 255]);
    const { rows } = await database.query(
      "select $1::text[] as list, $2::bytea as bytes, $3::timestamptz = '2026-11-27T09:30:00.25Z' as at, $4::boolean as yes, $5::float8 as number, $6::jsonb as json, $7::text as nothing, $8::int[][] as table, $9::bigint as large",
      [list, bytes, when, true, -1.5e-7, { a: [1, "x"] }, undefined, [[1, 2], [3, 4]], 9007199254740991n], // biome-ignore format: a row of values
    );
    expect(rows).toEqual([
      {
        list,
        bytes,
        at: true,
        yes: true,
        number: -1.5e-7,
        json: { a: [1, "x"] },
        nothing: null,
        table: [[1, 2], [3, 4]], // biome-ignore format: a table
        large: 9007199254740991,
      },
    ]);
  });

  test("a statement that comes again and again is answered as the first time, whatever failed between", async () => {
    const insert = (id: number) => database.query("insert into things (id) values ($1) returning id", [id]);
    for (let id = 0; id < 250; id++) {
      expect((await insert(id)).rows).toEqual([{ id }]);
      if (id % 60 === 7) await expect(insert(id)).rejects.toMatchObject({ code: "23505" });
      if (id % 60 === 8) {
        const act = database.transaction(async (part) => {
          await part.query("insert into things (id) values ($1) returning id", [id]).catch(() => undefined);
          await part.query("select id from things order by id");
        });
        await expect(act).rejects.toMatchObject({ code: "25P02" });
      }
    }
    expect(await ids()).toEqual(Array.from({ length: 250 }, (_, id) => id));
    await database.query("delete from things");
  });

  test("a statement that was kept in an act which was taken back is kept", async () => {
    const one = (on: Pick<LocalDatabase, "query">) => on.query("select $1::int + 1 as next", [1]);
    const act = database.transaction(async (part) => {
      for (let time = 0; time < 3; time++) await one(part);
      throw new Error("no");
    });
    await expect(act).rejects.toThrow("no");
    expect((await one(database)).rows).toEqual([{ next: 2 }]);
  });

  test("more statements than are kept, twice each, and a table that changes between", async () => {
    const sum = (at: number) => database.query(`select $1::int + ${at} as sum`, [at]);
    // Twice in a row, so that each is kept; then once more, of which the first ones are not any more.
    for (let at = 0; at < 230; at++)
      for (let time = 0; time < 2; time++) expect((await sum(at)).rows).toEqual([{ sum: 2 * at }]);
    for (let at = 229; at >= 0; at -= 5) expect((await sum(at)).rows).toEqual([{ sum: 2 * at }]);
    const values = Array.from({ length: 1_000 }, (_, at) => at);
    const long = `select sum(n)::int as sum from (values ${values.map((at) => `($${at + 1}::int)`).join(", ")}) as all_of(n)`;
    for (let time = 0; time < 3; time++) expect((await database.query(long, values)).rows).toEqual([{ sum: 499_500 }]);
    const kept = await database.query(
      "select count(*)::int as kept, max(length(statement)) as longest from pg_prepared_statements",
    );
    const told = kept.rows[0] as { kept: number; longest: number };
    expect(told.kept).toBeGreaterThan(100);
    expect(told.kept).toBeLessThanOrEqual(200);
    expect(told.longest).toBeLessThan(long.length);
    const all = () => database.query("select * from changing where a = $1", [1]);
    await database.exec("create table changing (a int); insert into changing values (1)");
    for (let time = 0; time < 3; time++) expect((await all()).rows).toEqual([{ a: 1 }]);
    await database.exec("alter table changing add b text default 'more'");
    expect((await all()).rows).toEqual([{ a: 1, b: "more" }]);
  });

  test("a plan made for an empty table is not that of a full one", async () => {
    await database.exec("create table growing (id int primary key, said text)");
    await database.exec("vacuum growing");
    const one = (id: number) => database.query("select said from growing where id = $1", [id]);
    for (let id = 0; id < 20; id++) await one(id);
    await database.query("insert into growing select n, 'word ' || n from generate_series(1, 200000) n");
    for (let id = 1; id < 20; id++) expect((await one(id)).rows).toEqual([{ said: `word ${id}` }]);
    expect(
      (await database.query("select pg_stat_get_xact_tuples_returned('growing'::regclass)::int as gone_through")).rows,
    ).toEqual([{ gone_through: 0 }]);
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
