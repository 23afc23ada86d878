import { createHash } from "node:crypto";
import { and, desc, eq, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { z } from "zod";
import { checkModel, verdictOf } from "@/core/check";
import { roleOfLane } from "@/core/directory";
import { type Manifest, makePackage } from "@/core/handoff";
import { everyRule } from "@/core/language";
import type { Element, Model } from "@/core/model";
import { directory, handoffs, members, processes, versions } from "@/data/schema";
import { adaptionOf } from "./checkProfiles";
import { holdingVerdict, walksFor } from "./checks";
import { loadHead } from "./heads";
import { lock, type Transaction } from "./kernel/act";
import { embeddedFonts } from "./pictures";
import { keepRevision } from "./revisions";
import { notFound, query, UseCaseError, useCase } from "./useCase";
import { waiversOf } from "./waivers";

const id = z.string().min(1).max(200);

/** The hue of the role behind a lane, as the directory has it. */
export async function huesOf(db: Transaction, model: Model): Promise<(lane: Element) => string | undefined> {
  const rows = await db
    .select({ id: directory.id, name: directory.name, hue: directory.hue })
    .from(directory)
    .where(and(eq(directory.kind, "role"), isNull(directory.deletedAt)));
  return (lane) => {
    const role = roleOfLane(model, lane);
    return rows.find((row) => row.id === role?.entry)?.hue ?? undefined;
  };
}

export interface HandoffRow {
  readonly id: string;
  readonly revision: number;
  readonly at: string;
  readonly member: string;
  readonly manifest: Manifest;
  readonly bytes: number;
}

export const listHandoffs = query(
  z.object({ version: id }),
  async ({ db }, { version }): Promise<{ handoffs: HandoffRow[] }> => {
    const rows = await db
      .select({
        id: handoffs.id,
        revision: handoffs.revision,
        at: handoffs.at,
        member: members.name,
        manifest: handoffs.manifest,
        package: handoffs.package,
      })
      .from(handoffs)
      .leftJoin(members, eq(members.id, handoffs.member))
      .where(eq(handoffs.version, version))
      .orderBy(desc(handoffs.at));
    return {
      handoffs: rows.map(({ package: bytes, ...row }) => ({
        ...row,
        member: row.member ?? "",
        manifest: row.manifest as Manifest,
        bytes: bytes.length,
      })),
    };
  },
);

/** Hands off what the version holds now: a revision is kept, and its package with it. Refused while an error is open. */
export const handOff = useCase(z.object({ version: id }), async (context, { version }) => {
  const { db } = context;
  await lock(db, "version", [version]);
  const [row] = await db
    .select({ version: versions.name, process: processes.name })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(eq(versions.id, version));
  if (!row) throw notFound("This version");
  const head = await loadHead(db, version);
  const accepted = await waiversOf(db, version);
  const adaption = await adaptionOf(db);
  const verdict = verdictOf(checkModel(head.model, { profile: "hand-off", adaption, rules: everyRule }), accepted);
  if (verdict.openErrors.length > 0) {
    throw new UseCaseError(
      "errors-open",
      `${verdict.openErrors.length} ${verdict.openErrors.length === 1 ? "error is" : "errors are"} open. Mend them in Check, or accept each with a reason; then hand off.`,
      409,
    );
  }
  const revision = await keepRevision(context, version, "handed off");
  const at = context.now();
  const made = makePackage({
    model: head.model,
    process: row.process,
    version: row.version,
    revision,
    date: at,
    member: context.member.name,
    waivers: accepted,
    adaption,
    walks: await walksFor(db, version, head.model),
    signed: await holdingVerdict(db, version),
    hueOf: await huesOf(db, head.model),
    fonts: embeddedFonts(),
    sha256: (bytes) => createHash("sha256").update(bytes).digest("hex"),
  });
  const handoff = nanoid(12);
  await db.insert(handoffs).values({
    id: handoff,
    version,
    revision,
    member: context.member.id,
    at,
    manifest: made.manifest,
    package: made.bytes,
  });
  return { handoff, revision };
});

/** The bytes of a package as they were made. */
export const downloadPackage = query(z.object({ handoff: id }), async ({ db }, { handoff }) => {
  const [row] = await db
    .select({ package: handoffs.package, revision: handoffs.revision, manifest: handoffs.manifest })
    .from(handoffs)
    .where(eq(handoffs.id, handoff));
  if (!row) throw notFound("This package");
  const name = (row.manifest as Manifest).process
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .toLowerCase();
  return { bytes: new Uint8Array(row.package), name: `${name || "process"}-revision-${row.revision}.zip` };
});
