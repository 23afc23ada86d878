import { and, asc, desc, eq, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { handoff as terms } from "@/contract";
import type { HandoffRow } from "@/contract/handoff";
import { verdictOf, type Waiver } from "@/core/check";
import { roleOfLane } from "@/core/directory";
import { type Manifest, usedDescriptions } from "@/core/handoff";
import { say, term } from "@/core/messages";
import type { Model } from "@/core/model";
import { descriptions, directory, handoffs, members, processes, versions } from "@/data/schema";
import type { Hues } from "@/jobs/files";
import { adaptionOf } from "../check/checkProfiles";
import { findingsOf, holdingVerdict, walksFor } from "../check/checks";
import { waiversOf } from "../check/waivers";
import { lock, type Transaction } from "../kernel/act";
import { type Head, loadHead } from "../kernel/heads";
import { keepRevision, nextRevision } from "../kernel/revisions";
import { type Context, notFound, query, UseCaseError, useCase } from "../kernel/useCase";
import { workedOut } from "../kernel/workedOut";
import { reviewsOf } from "../review/reviews";
import { withCalled } from "../walk/walks";

/** The hues of the roles behind the lanes of a model, as the directory has them. */
export async function huesOf(db: Transaction, model: Model): Promise<Hues> {
  const rows = await db
    .select({ id: directory.id, name: directory.name, hue: directory.hue })
    .from(directory)
    .where(and(eq(directory.kind, "role"), isNull(directory.deletedAt)));
  const hues = new Map(rows.map((row) => [row.id, row.hue]));
  return Object.fromEntries(
    [...model.elements].flatMap((element) => {
      const role = element.type === "lane" ? roleOfLane(model, element) : undefined;
      const hue = role?.entry && hues.get(role.entry);
      return hue ? [[element.id, hue] as const] : [];
    }),
  );
}

/** What the directory says of roles, for the forecast of the report. */
const rolesOf = (db: Transaction) =>
  db
    .select({
      id: directory.id,
      headcount: directory.headcount,
      costPerHour: directory.costPerHour,
      hoursPerWeek: directory.hoursPerWeek,
    })
    .from(directory)
    .where(and(eq(directory.kind, "role"), isNull(directory.deletedAt)))
    .orderBy(asc(directory.id));

export const listHandoffs = query(
  terms.listHandoffs,
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

/** Only a checked model leaves: refused while an error is open that nobody accepted. */
export async function needsNoOpenError(
  context: Context,
  head: Head,
  accepted: readonly Waiver[],
  then: "hand off" | "send" | "start up",
): Promise<void> {
  const open = verdictOf(await findingsOf(context, head, "hand-off"), accepted).openErrors.length;
  if (open > 0)
    throw new UseCaseError(
      "errors-open",
      open === 1
        ? say`1 error is open. Mend it in Check, or accept it with a reason; then ${term(then)}.`
        : say`${open} errors are open. Mend them in Check, or accept each with a reason; then ${term(then)}.`,
      409,
    );
}

/** Hands off what the version holds now: a revision is kept, and its package with it. Refused while an error is open. */
export const handOff = useCase(terms.handOff, async (context, { version }) => {
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
  await needsNoOpenError(context, head, accepted, "hand off");
  const revision = await nextRevision(context, version);
  const signed = await holdingVerdict(db, version);
  const { models, state, decisions } = await withCalled(db, head);
  const made = await workedOut(context, "packageFile", state, models, {
    process: row.process,
    version: row.version,
    revision,
    date: context.asked,
    member: context.member.name,
    waivers: accepted,
    adaption,
    decisions,
    walks: await walksFor(context, head),
    ...(signed && { signed }),
    reviews: (await reviewsOf(db, version, context.member.id)).flatMap(({ holds, state, question, reviewers }) =>
      holds && state !== "withdrawn"
        ? [
            {
              state,
              question,
              answers: reviewers.map(({ name, answer, note, at }) => ({ member: name, answer, note, at })),
            },
          ]
        : [],
    ),
    hues: await huesOf(db, head.model),
    roles: await rolesOf(db),
    descriptions: usedDescriptions(
      head.model,
      await db.select({ name: descriptions.name, description: descriptions.content }).from(descriptions),
    ),
  });
  await keepRevision(context, version, "handed off");
  const handoff = nanoid(12);
  await db.insert(handoffs).values({
    id: handoff,
    version,
    revision,
    member: context.member.id,
    at: made.manifest.date,
    manifest: made.manifest,
    package: made.bytes,
  });
  return { handoff, revision };
});

/** The bytes of a package as they were made. */
export const downloadPackage = query(terms.downloadPackage, async ({ db }, { version, handoff }) => {
  const [row] = await db
    .select({ package: handoffs.package, revision: handoffs.revision, manifest: handoffs.manifest })
    .from(handoffs)
    .where(and(eq(handoffs.version, version), eq(handoffs.id, handoff)));
  if (!row) throw notFound("This package");
  const name = (row.manifest as Manifest).process
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .toLowerCase();
  return { bytes: new Uint8Array(row.package), name: `${name || "process"}-revision-${row.revision}.zip` };
});
