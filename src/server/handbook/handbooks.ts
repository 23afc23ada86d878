import { and, asc, eq, inArray, isNull } from "drizzle-orm";
import { handbook as terms } from "@/contract";
import type { HandbookAbout } from "@/contract/handbook";
import type { ReviewRow } from "@/contract/review";
import { directoryEntrySchema } from "@/core/directory";
import { say } from "@/core/messages";
import { type Model, toStored } from "@/core/model";
import { areas, directory, heads, processes, versions } from "@/data/schema";
import type { HandbookInput } from "@/jobs/handbooks";
import { holdingVerdict } from "../check/checks";
import { openThreads } from "../comments/threads";
import { huesOf } from "../handoff/handoffs";
import type { Transaction } from "../kernel/act";
import { DamagedVersion, tryHead } from "../kernel/heads";
import { loadRevision } from "../kernel/revisions";
import { inThread } from "../kernel/threads";
import { type Context, longUseCase, notFound, UseCaseError } from "../kernel/useCase";
import { lensedInput } from "../lenses/seen";
import { reviewsOf } from "../review/reviews";
import { decisionsOf } from "../walk/walks";

/** So many processes stand in one handbook. */
const mostProcesses = 500;

interface Chosen {
  readonly version: string;
  readonly name: string;
  readonly process: string;
}

/** The versions that are told, in the order of Home. */
async function chosenBy(db: Transaction, about: HandbookAbout): Promise<{ title: string; chosen: Chosen[] }> {
  const columns = { version: versions.id, name: versions.name, process: processes.name, area: processes.area };
  const there = and(isNull(versions.deletedAt), isNull(processes.deletedAt));
  const rows = () =>
    db
      .select(columns)
      .from(versions)
      .innerJoin(processes, eq(processes.id, versions.process))
      .orderBy(asc(processes.area), asc(processes.rank), asc(processes.name));
  if (about.kind === "version") {
    const found = await rows().where(and(there, eq(versions.id, about.version)));
    if (found.length === 0) throw notFound("This version");
    return { title: found[0]?.process ?? "", chosen: found };
  }
  const asIs = and(there, eq(versions.kind, "as-is"));
  if (about.kind === "all") return { title: "", chosen: await rows().where(asIs) };
  const all = await db.select().from(areas).where(isNull(areas.deletedAt));
  const own = all.find(({ id }) => id === about.area);
  if (!own) throw notFound("This area");
  const inside = [own.id];
  for (const id of inside) inside.push(...all.filter(({ parent }) => parent === id).map((one) => one.id));
  return { title: own.name, chosen: await rows().where(and(asIs, inArray(processes.area, inside))) };
}

/** The generated documentation: read from one state, written in a thread with nothing held meanwhile. */
export const handbookFile = longUseCase(terms.handbookFile, async (outside, asked) => {
  const { about, kind, parts, language } = asked;
  const { input, models } = await outside.read(async (context) => {
    const { db } = context;
    const { title, chosen } = await chosenBy(db, about);
    if (chosen.length === 0)
      throw new UseCaseError("nothing-to-tell", "There is no process here yet. Make one, then its handbook.", 409);
    if (chosen.length > mostProcesses)
      throw new UseCaseError(
        "too-large",
        say`A handbook holds ${mostProcesses} processes at most; here are ${chosen.length}. Choose an area.`,
        413,
      );
    const told = await Promise.all(
      chosen.map((one) => readTold(context, one, about.kind === "version" ? about.revision : undefined, asked.lenses)),
    );
    const read = told.flatMap((one) => one ?? []);
    if (read.length === 0) throw new UseCaseError("damaged", "None of these versions can be read.", 409);
    const decisions = await decisionsOf(
      db,
      read.map(({ model }) => model),
    );
    const entries = await db.select().from(directory).where(isNull(directory.deletedAt)).orderBy(asc(directory.id));
    const made: HandbookInput = {
      title: asked.title || title || "Processes",
      subtitle: about.kind === "version" ? (chosen[0]?.name ?? "") : "",
      models: read.map(({ name, facts, hues, threads, approved, lensed }) => ({
        ...{ name, facts, hues, threads, approved },
        ...(lensed && { lensed }),
      })),
      entries: entries.flatMap((entry) => directoryEntrySchema.safeParse(entry).data ?? []),
      roles: entries.filter((entry) => entry.kind === "role"),
      decisions: decisions.map(({ id, content }) => ({ id, content })),
      parts,
      isNumbered: asked.isNumbered,
      font: asked.font,
      logo: asked.logo,
      language,
      kind,
    };
    return { input: made, models: Object.fromEntries(read.flatMap(({ texts }) => texts)) };
  });
  const file = await inThread("handbookFile", models, input);
  if ("tooLarge" in file) throw new UseCaseError("too-large", file.tooLarge, 422);
  return { name: input.title, bytes: file.bytes };
});

/** A version as it is now, or a kept state of it, with what is said below its heading; undefined for one that is damaged. */
async function readTold(
  context: Context,
  { version, name, process }: Chosen,
  revision: number | undefined,
  lenses: readonly string[],
) {
  const { db } = context;
  const head = await tryHead(db, version);
  if (head instanceof DamagedVersion) return undefined;
  const [row] = await db.select({ changedAt: heads.changedAt }).from(heads).where(eq(heads.version, version));
  const verdict = await holdingVerdict(db, version);
  const approved = (await reviewsOf(db, version, "")).find(({ state }) => state === "approved");
  const facts = [
    { name: say`Version`, text: name },
    revision === undefined
      ? { name: say`As of`, text: (row?.changedAt ?? "").slice(0, 10) }
      : { name: say`Revision`, text: String(revision) },
    ...(approved?.holds ? [{ name: say`Approved`, text: approvedBy(approved) }] : []),
    ...(verdict
      ? [{ name: say`Checked`, text: `${verdict.member}, ${verdict.at.slice(0, 10)} (${verdict.profile})` }]
      : []),
  ];
  const model: Model = revision === undefined ? head.model : await loadRevision(context, version, revision);
  return {
    name: version,
    process,
    model,
    texts: [
      [version, JSON.stringify(toStored(model))] as const,
      ...(approved
        ? [
            [
              `approved ${version}`,
              JSON.stringify(toStored(await loadRevision(context, version, approved.revision))),
            ] as const,
          ]
        : []),
    ],
    approved: approved ? { name: `approved ${version}`, revision: approved.revision } : null,
    facts,
    hues: await huesOf(db, model),
    threads: await openThreads(db, version),
    lensed: await lensedInput(db, version, model, lenses),
  };
}

/** Who approved, and when the last of them did. */
function approvedBy({ reviewers }: ReviewRow): string {
  const last =
    reviewers
      .map(({ at }) => at ?? "")
      .sort()
      .at(-1) ?? "";
  return `${reviewers.map(({ name }) => name).join(", ")}, ${last.slice(0, 10)}`;
}
