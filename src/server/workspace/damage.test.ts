import { sql } from "drizzle-orm";
import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { database } from "@/data/database";
import { forgetHeads } from "../kernel/heads";
import { countedHome, leaveWorkspace, makeProcess, nameOfElement, openWorkspace, run } from "../testing/workspace";

afterAll(leaveWorkspace);

/** As a fault of the disk, or of a release before this one, leaves it. */
async function damage(statement: ReturnType<typeof sql>): Promise<void> {
  const { db } = await database();
  await db.execute(statement);
  forgetHeads();
}

interface Home {
  readonly versions: readonly { readonly id: string; readonly damaged: string | null; readonly summary: object }[];
}

describe("one damaged version", () => {
  beforeEach(async () => {
    await openWorkspace();
    await makeProcess();
    await run("nameRevision", { version: "v", reason: "good" });
    await run("createProcess", { name: "Another", area: "area", processId: "other", versionId: "other-v" });
    await run("createEntry", { id: "desk", kind: "role", name: "Front desk" });
  });
  const damages: [string, ReturnType<typeof sql>][] = [
    ["a snapshot that is no model", sql`update heads set snapshot = '{"schemaVersion": 2}' where version = 'v'`],
    [
      "a shape without bounds",
      sql`update heads set snapshot = jsonb_set(snapshot, '{shapes}', '[{"id": "s"}]') where version = 'v'`,
    ],
    [
      "a log that does not fit",
      sql`update log set edits = '[{"kind": "set", "table": "elements", "id": "gone", "field": "name", "from": null, "to": "x"}]' where version = 'v'`,
    ],
    [
      "a model of a newer release",
      sql`update heads set snapshot = jsonb_set(snapshot, '{schemaVersion}', '99') where version = 'v'`,
    ],
  ];
  test.each(damages)(
    "%s: every list goes on, it says what it is, and its last revision is put back",
    async (_, statement) => {
      await damage(statement);
      const home = await countedHome<Home>();
      expect(home.versions.find(({ id }) => id === "v")?.damaged).toMatch(
        /cannot be read .* put back the last revision/s,
      );
      expect(home.versions.find(({ id }) => id === "other-v")?.damaged).toBeNull();
      for (const [list, input] of [
        ["openMap", {}],
        ["listCallable", {}],
        ["openDirectory", {}],
        ["searchElements", { text: "", role: "desk" }],
        ["listCallers", { version: "other-v" }],
        ["openCalled", { version: "other-v" }],
        ["listRevisions", { version: "v" }],
        ["listHistory", { version: "v", after: 0, upTo: 9 }],
        ["openCheck", { version: "v" }],
      ] as const)
        await run(list, input);
      await expect(run("openVersion", { version: "v" })).rejects.toMatchObject({ code: "damaged", status: 422 });
      await run("restoreRevision", { version: "v", number: 1 });
      expect(await nameOfElement("v", "check")).toBe("Check application");
      const healed = await countedHome<Home>();
      expect(healed.versions.find(({ id }) => id === "v")?.damaged).toBeNull();
    },
  );

  test("a damaged revision is told, and the others open", async () => {
    await damage(sql`update revisions set model = '{"schemaVersion": 2}' where number = 1`);
    await run("nameRevision", { version: "v", reason: "second" });
    await expect(run("openRevision", { version: "v", number: 1 })).rejects.toMatchObject({ code: "damaged" });
    await run("openRevision", { version: "v", number: 2 });
    expect((await run<{ revisions: unknown[] }>("listRevisions", { version: "v" })).revisions).toHaveLength(2);
  });

  test("a kept walk or a profile that cannot be read stops nothing", async () => {
    await damage(
      sql`insert into walk_tests (id, version, name, rank, content, member, at) values ('w', 'v', 'w', 1, '{"odd": true}', 'member-local', now())`,
    );
    await damage(sql`insert into workspace (key, value) values ('profiles', 'nonsense')`);
    await countedHome();
    expect(await run("listWalkTests", { version: "v" })).toEqual({ tests: [] });
    await run("openCheck", { version: "v" });
  });
});
