import { type Table as DrizzleTable, getTableColumns } from "drizzle-orm";
import { gunzipSync, gzipSync, strFromU8, strToU8 } from "fflate";
import { z } from "zod";
import type { Database } from "@/data/database";
import * as schema from "@/data/schema";
import { forgetHeads } from "./heads";
import { UseCaseError, useCase } from "./useCase";

/** Every table of the workspace, with the columns its rows are ordered by, so that the same content is the same bytes. */
const tables: readonly (readonly [name: string, table: DrizzleTable, order: readonly string[]])[] = [
  ["workspace", schema.workspace, ["key"]],
  ["members", schema.members, ["id"]],
  ["areas", schema.areas, ["id"]],
  ["processes", schema.processes, ["id"]],
  ["briefs", schema.briefs, ["id"]],
  ["versions", schema.versions, ["id"]],
  ["heads", schema.heads, ["version"]],
  ["log", schema.log, ["version", "sequence"]],
  ["revisions", schema.revisions, ["version", "number"]],
  ["directory", schema.directory, ["id"]],
  ["uses", schema.uses, ["version", "entry", "element", "how"]],
  ["wordLinks", schema.wordLinks, ["version", "mark", "element"]],
  ["elements", schema.elements, ["version", "element"]],
  ["files", schema.files, ["id"]],
  ["waivers", schema.waivers, ["id"]],
  ["walkTests", schema.walkTests, ["id"]],
  ["changeReasons", schema.changeReasons, ["version", "against", "change"]],
  ["verdicts", schema.verdicts, ["id"]],
  ["handoffs", schema.handoffs, ["id"]],
];
const format = "lucid-lane-backup-1";

/** The whole workspace as one file. Restoring it and backing up again gives the same bytes. */
export const backup = useCase(z.object({}), async ({ db }) => ({ bytes: await backupBytes(db) }));

async function backupBytes(db: Database): Promise<Uint8Array> {
  const content: { [table: string]: unknown[] } = {};
  for (const [name, table, order] of tables) {
    const rows = (await db.select().from(table)) as Record<string, unknown>[];
    const key = (row: Record<string, unknown>) =>
      order
        .map((column) =>
          typeof row[column] === "number" ? String(row[column]).padStart(12, "0") : String(row[column]),
        )
        .join("\u0000");
    rows.sort((a, b) => (key(a) < key(b) ? -1 : key(a) > key(b) ? 1 : 0));
    // The running number of a use is this database's own and says nothing.
    content[name] = rows.map((row) => sorted(name === "uses" ? { ...row, id: undefined } : row));
  }
  return gzipSync(strToU8(JSON.stringify({ format, content })), { mtime: 0, level: 6 });
}

/** Rows with their fields in order and bytes as Base64, moments in one spelling. */
function sorted(value: unknown): unknown {
  if (value instanceof Uint8Array) return { base64: Buffer.from(value).toString("base64") };
  if (Array.isArray(value)) return value.map(sorted);
  if (value === null || typeof value !== "object") return value;
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, field]) => field !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, field]) => [key, sorted(field)]),
  );
}

/** Puts a backup in the place of everything there is, all or nothing. */
export const restore = useCase(z.object({ bytes: z.instanceof(Uint8Array) }), async ({ db }, { bytes }) => {
  let content: { readonly [table: string]: readonly Record<string, unknown>[] };
  try {
    const parsed = z
      .object({ format: z.literal(format), content: z.record(z.string(), z.array(z.record(z.string(), z.unknown()))) })
      .parse(JSON.parse(strFromU8(gunzipSync(bytes))));
    content = parsed.content;
  } catch {
    throw new UseCaseError(
      "not-a-backup",
      "This file is not a Lucid Lane backup, or it is damaged. Nothing was changed.",
      422,
    );
  }
  await db.transaction(async (transaction) => {
    for (const [, table] of tables) await transaction.delete(table);
    for (const [name, table] of tables) {
      const columns = Object.keys(getTableColumns(table));
      const rows = (content[name] ?? []).map((row) =>
        Object.fromEntries(columns.filter((column) => column in row).map((column) => [column, revived(row[column])])),
      );
      for (let at = 0; at < rows.length; at += 200) await transaction.insert(table).values(rows.slice(at, at + 200));
    }
  });
  forgetHeads();
  return {};
});

function revived(value: unknown): unknown {
  if (value !== null && typeof value === "object" && "base64" in value && Object.keys(value).length === 1)
    return new Uint8Array(Buffer.from(String(value.base64), "base64"));
  return value;
}
