import { Inflate } from "fflate";
import { type Said, say } from "../messages";
import { failure, type Result } from "../model";

/**
 * A zip archive (the ZIP file format: PKWARE, "APPNOTE.TXT", 4.3) from somebody else, read with care: what its headers claim is
 * checked before anything is unpacked, and what they do not say truly is noticed while it is.
 */
export interface Archive {
  /** Files in their order, without folders. */
  readonly names: readonly string[];
  /** The bytes of a file; undefined where they cannot be unpacked. Throws `TooLarge` where all that was unpacked is more than allowed. */
  readonly read: (name: string) => Uint8Array | undefined;
}

export interface ArchiveLimits {
  readonly entries: number;
  readonly unpackedBytes: number;
}

/** Bounds of what is taken for a package. */
export const archiveLimits: ArchiveLimits = { entries: 5_000, unpackedBytes: 256 * 1024 * 1024 };

/** What was unpacked is more than an archive may hold. */
export class TooLarge extends Error {
  constructor(readonly said: Said) {
    super(said.text);
  }
}

interface Entry {
  readonly name: string;
  readonly method: number;
  readonly isLocked: boolean;
  readonly packed: number;
  readonly unpacked: number;
  readonly start: number;
}

const endSize = 22;
const entrySize = 46;
const localSize = 30;
const longestComment = 0xffff;
/** Of sizes and places that do not fit, which stand elsewhere (ZIP64): nothing that large is a package. */
const elsewhere = 0xffffffff;

/**
 * Opens an archive. Refused are: what is no zip, names that lead out of a folder or are there twice, more entries or bytes than
 * `archiveLimits`, and locked or oddly packed entries. O(size of its list).
 */
export function openArchive(bytes: Uint8Array, limits: ArchiveLimits = archiveLimits): Result<Archive> {
  const refuse = (message: Said) => failure({ code: "no-archive", message });
  const listed = entriesOf(bytes, limits.entries);
  if (!Array.isArray(listed)) return refuse(listed);
  const files = new Map<string, Entry>();
  const seen = new Set<string>();
  let claimed = 0;
  for (const entry of listed) {
    const shown = JSON.stringify(entry.name);
    if (!isInside(entry.name)) return refuse(say`The entry ${shown} leads out of the archive.`);
    // Two names that one file system takes for one would be one file over the other.
    const plain = entry.name.normalize("NFC").replaceAll("\\", "/");
    if (seen.has(plain)) return refuse(say`The entry ${shown} is there twice.`);
    seen.add(plain);
    claimed += entry.unpacked;
    if (claimed > limits.unpackedBytes) return refuse(tooLarge(limits.unpackedBytes));
    if (entry.isLocked) return refuse(say`The entry ${shown} is locked with a password.`);
    if (entry.method !== 0 && entry.method !== 8)
      return refuse(say`The entry ${shown} is packed in a way that is not read.`);
    if (!entry.name.endsWith("/")) files.set(entry.name, entry);
  }
  let left = limits.unpackedBytes;
  return {
    ok: true,
    value: {
      names: [...files.keys()],
      read: (name) => {
        const entry = files.get(name);
        const content = entry && unpacked(bytes, entry, left);
        if (content === "too large") throw new TooLarge(tooLarge(limits.unpackedBytes));
        left -= content?.length ?? 0;
        return content;
      },
    },
  };
}

const tooLarge = (bytes: number) => say`Unpacked it is larger than ${Math.round(bytes / 1024 / 1024)} MB.`;

/** The list at the end of an archive, or what is wrong with it. */
function entriesOf(bytes: Uint8Array, most: number): Entry[] | Said {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const end = endOf(view);
  if (end === undefined) return say`This is not a zip archive.`;
  const count = view.getUint16(end + 10, true);
  if (count > most) return say`It holds more than ${most} entries.`;
  const entries: Entry[] = [];
  let at = view.getUint32(end + 16, true);
  for (let number = 0; number < count; number++) {
    if (at + entrySize > end || view.getUint32(at, true) !== 0x02014b50) return say`Its list of entries is damaged.`;
    const [nameLength, extraLength, commentLength] = [28, 30, 32].map((field) => view.getUint16(at + field, true));
    const after = at + entrySize + (nameLength as number) + (extraLength as number) + (commentLength as number);
    if (after > end) return say`Its list of entries is damaged.`;
    const name = new TextDecoder().decode(bytes.subarray(at + entrySize, at + entrySize + (nameLength as number)));
    const [packed, size, start] = [20, 24, 42].map((field) => view.getUint32(at + field, true)) as [
      number,
      number,
      number,
    ];
    if (packed === elsewhere || size === elsewhere || start === elsewhere) return say`It is too large for a package.`;
    entries.push({
      name,
      method: view.getUint16(at + 10, true),
      isLocked: (view.getUint16(at + 8, true) & 1) === 1,
      packed,
      unpacked: size,
      start,
    });
    at = after;
  }
  return entries;
}

/** Where the end of an archive's list is told: the last place at which a comment of the length it tells reaches to the very end. */
function endOf(view: DataView): number | undefined {
  const first = Math.max(0, view.byteLength - endSize - longestComment);
  for (let at = view.byteLength - endSize; at >= first; at--)
    if (view.getUint32(at, true) === 0x06054b50 && at + endSize + view.getUint16(at + 20, true) === view.byteLength)
      return at;
  return undefined;
}

/** Whether a name stays below the folder that one unpacks into, on any system. */
function isInside(name: string): boolean {
  if (name === "" || name.includes("\0") || /^([/\\]|[A-Za-z]:)/.test(name)) return false;
  return !name.split(/[/\\]/).includes("..");
}

/** The bytes of an entry, unpacked piece by piece: its header's word for how many there are is not taken. */
function unpacked(bytes: Uint8Array, entry: Entry, most: number): Uint8Array | "too large" | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const { start, packed, method } = entry;
  if (start + localSize > bytes.length || view.getUint32(start, true) !== 0x04034b50) return undefined;
  const from = start + localSize + view.getUint16(start + 26, true) + view.getUint16(start + 28, true);
  const content = bytes.subarray(from, from + packed);
  if (content.length < packed) return undefined;
  if (method === 0) return content.length > most ? "too large" : content;
  const pieces: Uint8Array[] = [];
  let size = 0;
  const inflating = new Inflate((piece) => {
    size += piece.length;
    pieces.push(piece);
  });
  const slice = 16 * 1024;
  try {
    for (let at = 0; at < content.length || at === 0; at += slice) {
      inflating.push(content.subarray(at, at + slice), at + slice >= content.length);
      if (size > most) return "too large";
    }
  } catch {
    return undefined;
  }
  const whole = new Uint8Array(size);
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.length;
  }
  return whole;
}
