import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { sql } from "drizzle-orm";
import { closeDatabase, database } from "../../src/data/database";
import { localMember, runUseCase, useCases, workspaceReady } from "../../src/server";
import type { BenchRow } from "./measure";

/** What an edit of a large model costs on disk: bytes of tables and of the write-ahead log, beside the edit itself. */
export async function growthRow(edits = 1_000): Promise<BenchRow> {
  process.env.LANE_DATA = mkdtempSync(join(tmpdir(), "lane-bench-"));
  process.env.LANE_DEMO = "none";
  await workspaceReady();
  const run = <Output>(name: keyof typeof useCases, input: unknown) =>
    runUseCase(localMember, useCases[name] as never, input) as Promise<Output>;
  await run("createArea", { id: "area", name: "Area", parent: null });
  await run("createProcess", { name: "Large", area: "area", processId: "large", versionId: "v" });
  const { model } = await run<{ model: { diagrams: { id: string }[] } }>("openVersion", { version: "v" });
  const diagram = model.diagrams[0]?.id ?? "";
  await run("createEntry", { id: "desk", kind: "role", name: "Front desk" });
  let base = 0;
  let batch = 0;
  const send = async (...commands: object[]) => {
    const answer = await run<{ sequence: number }>("applyCommands", {
      version: "v",
      batch: `b${batch++}`,
      base,
      commands,
    });
    base = answer.sequence;
  };
  const steps = Array.from({ length: 500 }, (_, at) => `step-${at}`);
  for (let at = 0; at < steps.length; at += 50)
    await send(
      ...steps.slice(at, at + 50).flatMap((id, index) => [
        {
          type: "place",
          diagram,
          id,
          kind: { type: "userTask" },
          at: { x: 100 + ((at + index) % 25) * 140, y: 100 + Math.floor((at + index) / 25) * 120 },
          name: `Check part ${at + index}`,
        },
        {
          type: "assignRole",
          step: id,
          role: { entry: "desk", name: "Front desk" },
          part: "responsible",
          id: `${id}.who`,
        },
      ]),
    );
  const { db } = await database();
  const measured = async () => {
    await db.execute(sql`checkpoint`);
    const { rows } = await db.execute<{ wal: string; tables: string; log: string }>(sql`
      select pg_wal_lsn_diff(pg_current_wal_lsn(), '0/0')::text as wal,
        (select sum(pg_total_relation_size(oid))::text from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace) as tables,
        (select sum(octet_length(edits::text))::text from log) as log`);
    return { wal: Number(rows[0]?.wal), tables: Number(rows[0]?.tables), log: Number(rows[0]?.log) };
  };
  await db.execute(sql`vacuum`);
  const before = await measured();
  for (let at = 0; at < edits; at++)
    await send({ type: "rename", id: steps[at % steps.length], name: `Check part ${at} again` });
  await db.execute(sql`vacuum`);
  const after = await measured();
  const each = (key: "wal" | "tables" | "log") => (after[key] - before[key]) / edits / 1024;
  const share = each("tables") / each("log");
  await closeDatabase();
  return {
    what: "what an edit of 500 steps takes on disk",
    measured: `${each("log").toFixed(2)} kB itself, ${each("tables").toFixed(2)} kB of tables (${share.toFixed(1)} times), ${each("wal").toFixed(1)} kB of write-ahead log`,
    goal: "at most 10 times the edit itself",
    met: share <= 10,
  };
}
