import { z } from "zod";
import { type Said, say } from "../messages";
import { failure, type Result } from "../model";
import { type ArchiveLimits, archiveLimits, openArchive, TooLarge } from "./archive";

/** The file of a package that says what it holds; it is no part itself. */
export const manifestName = "manifest.json";

const manifestSchema = z.object({
  format: z.literal("lucid-lane-package-1"),
  process: z.string(),
  version: z.string(),
  revision: z.number(),
  date: z.string(),
  member: z.string(),
  parts: z.array(z.object({ name: z.string(), bytes: z.number(), sha256: z.string() })),
});

/** What a package says of itself; every part with its SHA-256, so that a copy can be told from the original. */
export type Manifest = z.infer<typeof manifestSchema>;

export type PartState = "same" | "changed" | "missing" | "added";

export interface VerifiedPackage {
  readonly manifest: Manifest;
  /** Whether it is what was handed off: all parts, each as it was, and nothing beside them. */
  readonly isWhole: boolean;
  /** Those of the manifest in its order, then what was added. */
  readonly parts: readonly { readonly name: string; readonly state: PartState }[];
}

/**
 * Holds a copy of a package against its own manifest. A part that cannot be unpacked any more has changed. What is no package is told
 * as a problem.
 * @param sha256 SHA-256 in hexadecimal; the platform's own.
 */
export function verifyPackage(
  bytes: Uint8Array,
  sha256: (bytes: Uint8Array) => string,
  limits: ArchiveLimits = archiveLimits,
): Result<VerifiedPackage> {
  const archive = openArchive(bytes, limits);
  if (!archive.ok) return archive;
  const refuse = (message: Said) => failure({ code: "no-package", message });
  const { names, read } = archive.value;
  if (!names.includes(manifestName)) return refuse(say`There is no ${manifestName} in it, so it is not a package.`);
  try {
    const manifest = readManifest(read(manifestName));
    if (!manifest) return refuse(say`Its ${manifestName} is not that of a package.`);
    const stateOf = (name: string, hash: string): PartState => {
      if (!names.includes(name)) return "missing";
      const content = read(name);
      return content && sha256(content) === hash.toLowerCase() ? "same" : "changed";
    };
    const told = manifest.parts.map((part) => ({ name: part.name, state: stateOf(part.name, part.sha256) }));
    const known = new Set([manifestName, ...manifest.parts.map(({ name }) => name)]);
    const added = names.filter((name) => !known.has(name)).map((name) => ({ name, state: "added" as const }));
    // What nobody asked for may be larger than it says, too.
    for (const { name } of added) read(name);
    const parts = [...told, ...added];
    return { ok: true, value: { manifest, parts, isWhole: parts.every(({ state }) => state === "same") } };
  } catch (error) {
    if (error instanceof TooLarge) return refuse(error.said);
    throw error;
  }
}

function readManifest(bytes: Uint8Array | undefined): Manifest | undefined {
  if (!bytes) return undefined;
  let said: unknown;
  try {
    said = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return undefined;
  }
  const manifest = manifestSchema.safeParse(said);
  if (!manifest.success) return undefined;
  const names = manifest.data.parts.map(({ name }) => name);
  return names.includes(manifestName) || new Set(names).size < names.length ? undefined : manifest.data;
}
