import { createHash } from "node:crypto";
import { createGunzip, gzipSync } from "node:zlib";
import { say } from "@/core/messages";
import { UseCaseError } from "../kernel/useCase";

/** The rows of a workspace, by table. */
export interface BackupContent {
  readonly [table: string]: readonly { readonly [column: string]: unknown }[];
}

/**
 * A backup is a line that says what it is, a line with the checksum of all that follows, and a compressed list of lines, one a row:
 * `["table", { … }]`. Every byte is covered: whatever is changed in it on its way is noticed before anything is replaced.
 */
const format = "lucid-lane-backup-2";
/** The first form: compressed JSON of everything at once, without a checksum. */
const firstFormat = "lucid-lane-backup-1";

/** Sizes beyond which a file is no backup of this product: as it comes, unpacked, and one row of it. */
export const mostBackupBytes = 512 * 1024 * 1024;
const mostUnpackedBytes = 8 * 1024 * 1024 * 1024;
const mostRowBytes = 256 * 1024 * 1024;
const mostRows = 20_000_000;

const hash = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");

/** The same content is the same bytes. */
export function writeBackup(content: BackupContent): Uint8Array {
  const chunks: Buffer[] = [];
  for (const [table, rows] of Object.entries(content))
    for (const row of rows) chunks.push(Buffer.from(`${JSON.stringify([table, row])}\n`));
  const packed = gzipSync(Buffer.concat(chunks), { level: 6 });
  // The operating system that packed it says nothing about the content.
  packed[9] = 255;
  return Buffer.concat([Buffer.from(`${format}\nsha256 ${hash(packed)}\n`), packed]);
}

const damaged = (what: string) =>
  new UseCaseError(
    "not-a-backup",
    say`This file is not a Lucid Lane backup, or it is damaged: ${what}. Nothing was changed. Take another copy of it, or an older backup.`,
    422,
  );

/** Reads a backup, or says what is wrong with it. Memory grows with its content, up to the limits above. */
export async function readBackup(bytes: Uint8Array): Promise<BackupContent> {
  if (bytes.length > mostBackupBytes)
    throw new UseCaseError("too-large", "Backups of up to 512 MB can be read. Nothing was changed.", 413);
  const start = Buffer.from(bytes.buffer, bytes.byteOffset, Math.min(bytes.length, 200)).toString("latin1");
  if (!start.startsWith(`${format}\n`)) return readFirstFormat(bytes);
  const [, line = ""] = start.split("\n");
  const packed = bytes.subarray(format.length + 1 + line.length + 1);
  if (line !== `sha256 ${hash(packed)}`) throw damaged("its checksum is not that of its content");
  const content: { [table: string]: { [column: string]: unknown }[] } = Object.create(null);
  let count = 0;
  for await (const row of linesOf(packed)) {
    if (++count > mostRows) throw damaged("it has more rows than a workspace can have");
    const [table, fields] = parsedRow(row, count);
    content[table] ??= [];
    content[table].push(fields);
  }
  return content;
}

function parsedRow(line: string, number: number): [string, { [column: string]: unknown }] {
  try {
    const row: unknown = JSON.parse(line);
    if (Array.isArray(row) && typeof row[0] === "string" && row[1] !== null && typeof row[1] === "object")
      return row as never;
  } catch {
    // Told below.
  }
  throw damaged(`row ${number} cannot be read`);
}

/** Lines of compressed text, counted while they are unpacked. */
async function* linesOf(packed: Uint8Array): AsyncGenerator<string> {
  let [parts, waiting, unpacked]: [string[], number, number] = [[], 0, 0];
  const decoder = new TextDecoder("utf-8", { fatal: true });
  try {
    const stream = createGunzip();
    stream.end(packed);
    for await (const chunk of stream as AsyncIterable<Uint8Array>) {
      unpacked += chunk.length;
      if (unpacked > mostUnpackedBytes) throw damaged("it unpacks to more than 8 GB");
      const [first = "", ...lines] = decoder.decode(chunk, { stream: true }).split("\n");
      // A long row comes in many parts, which are put together once.
      parts.push(first);
      waiting += first.length;
      if (waiting > mostRowBytes) throw damaged("one of its rows is larger than 256 MB");
      const last = lines.pop();
      if (last === undefined) continue;
      yield parts.join("");
      yield* lines;
      [parts, waiting] = [[last], last.length];
    }
  } catch (error) {
    throw error instanceof UseCaseError ? error : damaged("it cannot be unpacked");
  }
  if (waiting > 0) throw damaged("its end is missing");
}

async function readFirstFormat(bytes: Uint8Array): Promise<BackupContent> {
  const chunks: Uint8Array[] = [];
  let unpacked = 0;
  try {
    const stream = createGunzip();
    stream.end(bytes);
    for await (const chunk of stream as AsyncIterable<Uint8Array>) {
      unpacked += chunk.length;
      if (unpacked > mostRowBytes) throw damaged("it unpacks to more than 256 MB");
      chunks.push(chunk);
    }
    const parsed = JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(Buffer.concat(chunks)));
    if (parsed?.format === firstFormat && typeof parsed.content === "object") return parsed.content as BackupContent;
  } catch (error) {
    if (error instanceof UseCaseError) throw error;
  }
  throw damaged("it does not begin as one");
}
