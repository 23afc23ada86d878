import { mkdirSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { getTableColumns } from "drizzle-orm";
import { nanoid } from "nanoid";
import { files as terms } from "@/contract";
import { dataFolder } from "@/data/database";
import { keyOf, registered } from "@/data/register";
import { afterCommit, type Transaction } from "../kernel/act";
import { generationOf, isOwnKey, setGeneration } from "../kernel/generation";
import { DamagedVersion, forgetHeads, tryHead } from "../kernel/heads";
import { renewIndex } from "../kernel/searchIndex";
import { type Context, longUseCase, query, UseCaseError } from "../kernel/useCase";
import { keepAccess, membersWithAccess } from "../members/restored";
import { checkBackup } from "./backupCheck";
import { type BackupContent, readBackup, writeBackup } from "./backupFile";

/** What a backup holds, by the register; the rest is made anew from it. */
const kept = registered.filter(([, { backup }]) => backup === "kept");

/** The whole workspace as one file, of one moment. Restoring it and backing up again gives the same bytes. */
export const backup = query(terms.backup, async ({ db }) => ({ bytes: writeBackup(await contentOf(db)) }));

async function contentOf(db: Transaction): Promise<BackupContent> {
  const content: { [table: string]: { [column: string]: unknown }[] } = {};
  for (const [name, { table, leftOut = [] }] of kept) {
    const rows = (await db.select().from(table)) as Record<string, unknown>[];
    const order = keyOf(table);
    const key = (row: Record<string, unknown>) =>
      order
        .map((column) =>
          typeof row[column] === "number" ? String(row[column]).padStart(12, "0") : String(row[column]),
        )
        .join("\u0000");
    const own = name === "workspace" ? rows.filter((row) => !isOwnKey(String(row.key))) : rows;
    own.sort((a, b) => (key(a) < key(b) ? -1 : key(a) > key(b) ? 1 : 0));
    for (const column of leftOut) for (const row of own) delete row[column];
    content[name] = own.map((row) => sorted(row) as { [column: string]: unknown });
  }
  return content;
}

/** Rows with their fields in order and bytes as Base64. */
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

/**
 * Puts a backup in the place of everything there is, all or nothing. It is looked at as a whole before, and what it replaces is kept
 * as a backup beside the workspace.
 */
export const restore = longUseCase(terms.restore, async (outside, { bytes }) => {
  const content = await readBackup(bytes);
  checkBackup(content);
  return outside.writeWhole(async (context) => {
    const { db } = context;
    const keptAs = await keepReplaced(context);
    const generation = await generationOf(db);
    const withAccess = await membersWithAccess(db);
    for (const [, { table, backup: how }] of registered) if (how !== "of the installation") await db.delete(table);
    for (const [name, { table }] of kept) {
      const columns = Object.keys(getTableColumns(table));
      const rows = (content[name] ?? [])
        .filter((row) => name !== "workspace" || !isOwnKey(String(row.key)))
        .map((row) => {
          const values = columns.filter((column) => column in row).map((column) => [column, revived(row[column])]);
          // Older backups do not name the state a version is in.
          return Object.fromEntries(name === "heads" && !row.batch ? [...values, ["batch", nanoid()]] : values);
        });
      for (let at = 0; at < rows.length; at += 200) await db.insert(table).values(rows.slice(at, at + 200));
    }
    await keepAccess(context, withAccess);
    await setGeneration(db, generation + 1);
    forgetHeads();
    for (const { version } of (content.heads ?? []) as unknown as { version: string }[]) {
      const head = await tryHead(db, version);
      if (!(head instanceof DamagedVersion)) await renewIndex(db, version, undefined, head.model);
    }
    afterCommit(db, forgetHeads);
    return { keptAs };
  });
});

/** Backups of what restores replaced that stay beside the workspace. */
const mostKept = 10;

/** Keeps what there is beside the workspace before it is replaced; an empty workspace is nothing to keep. */
async function keepReplaced({ db, now }: Context): Promise<string | null> {
  const content = await contentOf(db);
  if ((content.processes ?? []).length === 0 && (content.directory ?? []).length === 0) return null;
  const folder = join(dataFolder(), "backups");
  const name = `before-restore-${now().replace(/[:.]/g, "-")}.backup`;
  try {
    mkdirSync(folder, { recursive: true });
    writeFileSync(join(folder, name), writeBackup(content), { flag: "wx" });
    const older = readdirSync(folder).filter((file) => file.startsWith("before-restore-"));
    for (const file of older.sort().slice(0, -mostKept)) rmSync(join(folder, file), { force: true });
  } catch (cause) {
    throw new UseCaseError(
      "cannot-keep",
      `What is there now could not be kept in ${folder} (${(cause as NodeJS.ErrnoException).code ?? "unknown"}), so nothing was replaced. Make room there or give the right to write, then restore again.`,
      507,
      [],
      { cause },
    );
  }
  return join(folder, name);
}

function revived(value: unknown): unknown {
  if (value !== null && typeof value === "object" && "base64" in value && Object.keys(value).length === 1)
    return new Uint8Array(Buffer.from(String(value.base64), "base64"));
  return value;
}
