import { sql } from "drizzle-orm";
import { drizzle } from "drizzle-orm/node-postgres";
import pg from "pg";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { toldByDatabase } from "@/server/kernel/databaseErrors";
import { type PostgresServer, postgresMissing, startPostgres } from "@/server/testing/postgres";
import { closeWorkspace, makeProcess, nameOfElement, openWorkspace, run, send } from "@/server/testing/workspace";
import { ServerPool } from "./serverPool";

/** What the driver keeps to itself: the wire below a connection. */
interface Wired {
  readonly connection: { readonly stream: { readonly destroy: () => void } };
}

describe.skipIf(postgresMissing !== undefined)("a PostgreSQL server", () => {
  let server: PostgresServer;
  beforeAll(async () => {
    server = await startPostgres();
    process.env.DATABASE_URL = server.url;
    await openWorkspace();
  }, 60_000);
  afterAll(async () => {
    await closeWorkspace();
    delete process.env.DATABASE_URL;
    await server.stop();
  });

  test("the same schema and use cases serve it: edit, keep, restore, rename, hand off", async () => {
    const { version } = await makeProcess();
    await run("createEntry", { id: "map", kind: "system", name: "Network map" });
    await send(version, {
      type: "useSystem",
      step: "check",
      system: { entry: "map", name: "Network map" },
      use: "reads",
    });
    await run("nameRevision", { version, reason: "first" });
    await send(version, { type: "rename", id: "check", name: "Changed" });
    expect(await run("changeEntry", { id: "map", name: "Grid map" })).toEqual({ versions: [version] });
    await run("restoreRevision", { version, number: 1 });
    expect(await nameOfElement(version, "check")).toBe("Check application");
    expect(await run("handOff", { version })).toMatchObject({ revision: expect.any(Number) });
  });

  test("a connection that breaks costs what was asked on it, and nothing after it", async () => {
    const pool = new ServerPool(server.url);
    const db = drizzle(pool);
    const others = new pg.Client({ connectionString: server.url });
    await others.connect();
    // More often than there are connections: none stays lent out.
    for (let time = 0; time < 12; time++) {
      const told = await db
        .transaction(async (tx) => {
          const { rows } = await tx.execute(sql`select pg_backend_pid() as id`);
          await others.query("select pg_terminate_backend($1)", [rows[0]?.id]);
          await tx.execute(sql`select pg_sleep(1)`);
        })
        .catch(toldByDatabase);
      expect(told).toMatchObject({ code: "database-unreachable" });
      // Cut off before the transaction has said its first word.
      pool.once("acquire", (client) => (client as unknown as Wired).connection.stream.destroy());
      expect(await db.transaction((tx) => tx.execute(sql`select 1`)).catch(toldByDatabase)).toMatchObject({
        code: "database-unreachable",
      });
    }
    expect((await db.execute(sql`select 1 as one`)).rows).toEqual([{ one: 1 }]);
    expect(pool.totalCount).toBe(1);
    await others.end();
    await pool.end();
  });

  test("when it goes, the cause is told in words", async () => {
    await server.kill();
    await expect(run("openHome", {})).rejects.toMatchObject({ code: "database-unreachable", status: 503 });
  });
});
