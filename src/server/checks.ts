import { and, desc, eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import { z } from "zod";
import { checkModel, keyOf, processVerdicts, type SignedContent, signedContent, verdictOf } from "@/core/check";
import { everyRule } from "@/core/language";
import { type Model, sameJson } from "@/core/model";
import { heads, members, verdicts, waivers } from "@/data/schema";
import { adaptionOf, profileOf } from "./checkProfiles";
import { loadHead } from "./heads";
import { lock, type Transaction } from "./kernel/act";
import { id } from "./kernel/inputs";
import { keepRevision } from "./revisions";
import { query, UseCaseError, useCase } from "./useCase";
import { waiversOf } from "./waivers";
import { walkResults, walkTestsOf } from "./walks";

/** What a version is checked for, what was accepted, and what was signed. */
export const openCheck = query(z.object({ version: id }), async ({ db }, { version }) => ({
  profile: await profileOf(db, version),
  adaption: await adaptionOf(db),
  waivers: await waiversOf(db, version),
  verdicts: await verdictsOf(db, version),
}));
export type CheckData = Awaited<ReturnType<(typeof openCheck)["run"]>>;

/** Accepts a finding, with a reason and the acting member's name, as long as what it is about does not change. */
export const waive = useCase(
  z.object({
    version: id,
    finding: z.string().min(1).max(5000),
    reason: z.string().trim().min(3, "Say in a few words why this is accepted.").max(2000),
  }),
  async (context, input) => {
    const { db } = context;
    await lock(db, "version", [input.version]);
    const head = await loadHead(db, input.version);
    const options = {
      profile: await profileOf(db, input.version),
      adaption: await adaptionOf(db),
      rules: everyRule,
    };
    const finding = checkModel(head.model, options).find((one) => keyOf(one) === input.finding);
    if (!finding) {
      throw new UseCaseError("no-finding", "This finding is no longer there; the model has changed meanwhile.", 409);
    }
    await db.delete(waivers).where(and(eq(waivers.version, input.version), eq(waivers.finding, input.finding)));
    await db.insert(waivers).values({
      id: nanoid(12),
      version: input.version,
      finding: input.finding,
      about: finding.about,
      reason: input.reason,
      member: context.member.id,
      at: context.now(),
    });
    return {};
  },
);

export const withdrawWaiver = useCase(
  z.object({ version: id, finding: z.string().min(1).max(5000) }),
  async ({ db }, input) => {
    await lock(db, "version", [input.version]);
    await db.delete(waivers).where(and(eq(waivers.version, input.version), eq(waivers.finding, input.finding)));
    return {};
  },
);

export interface VerdictRow {
  readonly id: string;
  readonly revision: number;
  readonly profile: string;
  readonly content: SignedContent;
  readonly member: string;
  readonly at: string;
  /** Whether the process is still what was signed. */
  readonly holds: boolean;
}

/** Verdicts that were signed on a version, the latest first. */
async function verdictsOf(db: Transaction, version: string): Promise<VerdictRow[]> {
  const [head] = await db.select({ sequence: heads.sequence }).from(heads).where(eq(heads.version, version));
  const rows = await db
    .select({ verdict: verdicts, member: members.name })
    .from(verdicts)
    .leftJoin(members, eq(members.id, verdicts.member))
    .where(eq(verdicts.version, version))
    .orderBy(desc(verdicts.at));
  return rows.map(({ verdict, member }) => ({
    id: verdict.id,
    revision: verdict.revision,
    profile: verdict.profile,
    content: verdict.content,
    member: member ?? "",
    at: verdict.at,
    holds: verdict.sequence === head?.sequence,
  }));
}

/** The signed verdict that holds now, if there is one. */
export async function holdingVerdict(db: Transaction, version: string): Promise<VerdictRow | undefined> {
  return (await verdictsOf(db, version)).find((verdict) => verdict.holds);
}

/** How the kept walks of a version go, by name. */
export async function walksFor(db: Transaction, version: string, model: Model): Promise<SignedContent["walks"]> {
  const results = await walkResults(db, model, await walkTestsOf(db, version));
  return results.map(({ name, result }) => ({ name, passes: result.verdict === "passes" }));
}

/** Signs what the version holds now: a revision is kept for it. Refused while an error is open. */
export const signVerdict = useCase(z.object({ version: id }), async (context, { version }) => {
  const { db } = context;
  await lock(db, "version", [version]);
  const head = await loadHead(db, version);
  const profile = await profileOf(db, version);
  const findings = checkModel(head.model, { profile, adaption: await adaptionOf(db), rules: everyRule });
  const verdict = verdictOf(findings, await waiversOf(db, version));
  const open = verdict.openErrors.length;
  if (open > 0)
    throw new UseCaseError(
      "errors-open",
      `${open} ${open === 1 ? "error is" : "errors are"} open. Mend them, or accept each with a reason; then sign.`,
      409,
    );
  const sound = processVerdicts(head.model).reduce<boolean | null>(
    (all, one) => (all === false || one.sound === false ? false : one.sound === null ? null : all),
    true,
  );
  // Asked once more, because an answer was lost or a key was pressed twice: what is signed already is not signed again.
  const content = signedContent(findings, verdict, sound, await walksFor(db, version, head.model));
  const holding = await holdingVerdict(db, version);
  const isSame = holding?.profile === profile && holding.member === context.member.name;
  if (isSame && sameJson(holding.content, content)) return { revision: holding.revision };
  const revision = await keepRevision(context, version, "signed");
  await db.insert(verdicts).values({
    id: nanoid(12),
    version,
    revision,
    sequence: head.sequence,
    profile,
    content,
    member: context.member.id,
    at: context.now(),
  });
  return { revision };
});
