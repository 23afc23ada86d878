import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type PostgresServer, postgresMissing, startPostgres } from "@/server/testing/postgres";
import { closeWorkspace, makeProcess, nameOfElement, openWorkspace, run, send } from "@/server/testing/workspace";

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

  test("when it goes, the cause is told in words", async () => {
    await server.kill();
    await expect(run("openHome", {})).rejects.toMatchObject({ code: "database-unreachable", status: 503 });
  });
});
