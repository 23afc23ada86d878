import { getTableColumns, type Table } from "drizzle-orm";
import { z } from "zod";
import { briefContentSchema } from "@/core/brief";
import { reasonSchema } from "@/core/compare";
import { templateSchema } from "@/core/handbook";
import { lensSchema } from "@/core/lens";
import { say } from "@/core/messages";
import { fromStored, type LoggedEdits } from "@/core/model";
import { walkTestSchema } from "@/core/tokens";
import { registered } from "@/data/register";
import { unstorableIn } from "../kernel/storable";
import { UseCaseError } from "../kernel/useCase";
import type { BackupContent } from "./backupFile";

type Row = { readonly [column: string]: unknown };

const bytes = z.object({ base64: z.base64() });

/** What a column takes, from its declaration in the schema. */
function columnSchema(column: Table["_"]["columns"][string]): z.ZodType {
  const whole = z.number().int().min(-2_147_483_648).max(2_147_483_647);
  const base =
    column.columnType === "PgInteger" || column.columnType === "PgSerial"
      ? whole
      : column.columnType === "PgDoublePrecision"
        ? z.number()
        : column.columnType === "PgBoolean"
          ? z.boolean()
          : column.columnType === "PgJsonb"
            ? z.json()
            : column.columnType === "PgTimestampString"
              ? z.string().refine((text) => !Number.isNaN(Date.parse(text)), "is no moment")
              : column.columnType === "PgCustomColumn"
                ? bytes
                : column.enumValues?.length
                  ? z.enum(column.enumValues as [string, ...string[]])
                  : z.string();
  const present = column.notNull ? base : base.nullable();
  return column.hasDefault || !column.notNull ? present.optional() : present;
}

const rowSchema = (table: Table) =>
  z.strictObject(
    Object.fromEntries(Object.entries(getTableColumns(table)).map(([name, column]) => [name, columnSchema(column)])),
  );

/** Content that a column of JSON holds, by its own schema. */
const contentSchemas: { readonly [table: string]: (row: Row) => string | undefined } = {
  briefs: (row) => wrongWith(briefContentSchema, row.content),
  walkTests: (row) => wrongWith(walkTestSchema, row.content),
  lenses: (row) => wrongWith(lensSchema, row.content),
  templates: (row) => wrongWith(templateSchema, row.content),
  changeReasons: (row) => wrongWith(reasonSchema, row.content),
};

const wrongWith = (schema: z.ZodType, value: unknown): string | undefined => {
  const parsed = schema.safeParse(value);
  return parsed.success ? undefined : z.prettifyError(parsed.error);
};

/**
 * Looks at everything in a backup before anything is replaced by it: each row against its table, each model through its door with what
 * its log adds, each name of another row. Throws a refusal that says what is wrong where.
 */
export function checkBackup(content: BackupContent): void {
  const refuse = (what: string): never => {
    throw new UseCaseError(
      "not-a-backup",
      say`This backup cannot be restored: ${what.split("\n")[0] ?? ""}. Nothing was changed. Take another copy of it, or an older backup.`,
      422,
    );
  };
  for (const [name, rows] of Object.entries(content)) {
    const known = registered.find(([one]) => one === name)?.[1];
    // Older backups keep what is made anew from the models.
    if (known?.backup === "derived") continue;
    if (known?.backup !== "kept") return refuse(`it has a part that this release does not know (${name})`);
    const schema = rowSchema(known.table);
    for (const [at, row] of rows.entries()) {
      const wrong = wrongWith(schema, row) ?? contentSchemas[name]?.(row);
      if (wrong) refuse(`row ${at + 1} of its ${name} is not valid (${wrong.replace(/\s+/g, " ").slice(0, 200)})`);
      const unstorable = unstorableIn(row);
      if (unstorable) refuse(`row ${at + 1} of its ${name} holds ${unstorable.what}`);
    }
  }
  for (const [table, { names = {} }] of registered)
    for (const [column, named] of Object.entries(names)) {
      const known = new Set((content[named] ?? []).map((row) => row.id));
      for (const row of content[table] ?? [])
        if (row[column] != null && !known.has(row[column]))
          refuse(`its ${table} name ${String(row[column]).slice(0, 60)}, which is not among its ${named}`);
    }
  const heads = new Set((content.heads ?? []).map((row) => row.version));
  for (const version of content.versions ?? [])
    if (!heads.has(version.id)) refuse(`what the version ${String(version.id).slice(0, 60)} holds is missing`);
  checkHeads(content, refuse);
  checkRevisions(content, refuse);
}

function checkHeads(content: BackupContent, refuse: (what: string) => never): void {
  const logs = logsOf(content);
  for (const head of content.heads ?? []) {
    const { version, snapshotSequence, sequence } = head as { version: string } & { [column: string]: number };
    const wrong = wrongWithModel(head.snapshot, logs.get(version), snapshotSequence ?? 0, sequence ?? 0);
    if (wrong) refuse(`the version ${version.slice(0, 60)}: ${wrong}`);
  }
}

/** Each kept state opens: as it is stored, or made anew from the one that it names and the log. */
function checkRevisions(content: BackupContent, refuse: (what: string) => never): void {
  const logs = logsOf(content);
  const rows = (content.revisions ?? []) as unknown as {
    readonly version: string;
    readonly number: number;
    readonly sequence: number;
    readonly model: unknown;
    readonly builtOn?: number | null;
  }[];
  const known = new Map(rows.map((row) => [`${row.version} ${row.number}`, row]));
  for (const row of rows) {
    let base: typeof row | undefined = row;
    while (base && base.model === null) {
      const before: typeof row | undefined = known.get(`${row.version} ${base.builtOn}`);
      // Each is built on an older one; a file that says otherwise is none of ours.
      base = before && before.number < base.number ? before : undefined;
    }
    const wrong = base
      ? wrongWithModel(base.model, logs.get(row.version), base.sequence, row.sequence)
      : "what it is made from is missing";
    if (wrong) refuse(`revision ${row.number} of the version ${row.version.slice(0, 60)}: ${wrong}`);
  }
}

function logsOf(content: BackupContent): ReadonlyMap<string, readonly LoggedEdits[]> {
  const logs = new Map<string, LoggedEdits[]>();
  const sorted = [...((content.log ?? []) as unknown as ({ readonly version: string } & LoggedEdits)[])].sort(
    (a, b) => a.sequence - b.sequence,
  );
  for (const row of sorted) {
    // Older backups say no form: it was the first.
    const batch = { ...row, form: row.form ?? 1 };
    const rows = logs.get(row.version);
    if (rows) rows.push(batch);
    else logs.set(row.version, [batch]);
  }
  return logs;
}

function wrongWithModel(
  stored: unknown,
  logged: readonly LoggedEdits[] = [],
  after: number,
  upTo: number,
): string | undefined {
  const edits = logged.filter(({ sequence }) => sequence > after && sequence <= upTo);
  if (edits.length !== upTo - after) return "changes are missing";
  const opened = fromStored(stored, { edits });
  return opened.ok ? undefined : opened.problems[0]?.message;
}
