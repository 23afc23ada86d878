import { and, desc, eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import { check } from "@/contract";
import type { VerdictRow } from "@/contract/check";
import { type Finding, keyOf, type ProfileName, type SignedContent, signedContent, verdictOf } from "@/core/check";
import { say } from "@/core/messages";
import { sameJson } from "@/core/model";
import { heads, members, verdicts, waivers } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { type Head, loadHead, stateOf } from "../kernel/heads";
import { summaryLapses } from "../kernel/lapse";
import { keepRevision } from "../kernel/revisions";
import { type Context, query, UseCaseError, useCase } from "../kernel/useCase";
import { workedOut } from "../kernel/workedOut";
import { walkResults, walkTestsOf } from "../walk/walks";
import { adaptionOf, profileOf } from "./checkProfiles";
import { waiversOf } from "./waivers";

/** Everything a check finds in what a version holds. */
export async function findingsOf(context: Context, head: Head, profile: ProfileName): Promise<Finding[]> {
  const input = { profile, adaption: await adaptionOf(context.db), part: "all" } as const;
  return workedOut(context, "findings", stateOf(head), { model: head.model }, input);
}

/** What a version is checked for, what was accepted, and what was signed. */
export const openCheck = query(check.openCheck, async ({ db }, { version }) => ({
  profile: await profileOf(db, version),
  adaption: await adaptionOf(db),
  waivers: await waiversOf(db, version),
  verdicts: await verdictsOf(db, version),
}));

/** Accepts a finding, with a reason and the acting member's name, as long as what it is about does not change. */
export const waive = useCase(check.waive, async (context, input) => {
  const { db } = context;
  await lock(db, "version", [input.version]);
  const head = await loadHead(db, input.version);
  const found = await findingsOf(context, head, await profileOf(db, input.version));
  const finding = found.find((one) => keyOf(one) === input.finding);
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
  await summaryLapses(db, input.version);
  return {};
});

export const withdrawWaiver = useCase(check.withdrawWaiver, async ({ db }, input) => {
  await lock(db, "version", [input.version]);
  await db.delete(waivers).where(and(eq(waivers.version, input.version), eq(waivers.finding, input.finding)));
  await summaryLapses(db, input.version);
  return {};
});

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
    profile: verdict.profile as ProfileName,
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
export async function walksFor(context: Context, head: Head): Promise<SignedContent["walks"]> {
  const results = await walkResults(context, head, await walkTestsOf(context.db, head.version));
  return results.map(({ name, result }) => ({ name, passes: result.verdict === "passes" }));
}

/** Signs what the version holds now: a revision is kept for it. Refused while an error is open. */
export const signVerdict = useCase(check.signVerdict, async (context, { version }) => {
  const { db } = context;
  await lock(db, "version", [version]);
  const head = await loadHead(db, version);
  const profile = await profileOf(db, version);
  const findings = await findingsOf(context, head, profile);
  const verdict = verdictOf(findings, await waiversOf(db, version));
  const open = verdict.openErrors.length;
  if (open > 0)
    throw new UseCaseError(
      "errors-open",
      open === 1
        ? "1 error is open. Mend it, or accept it with a reason; then sign."
        : say`${open} errors are open. Mend them, or accept each with a reason; then sign.`,
      409,
    );
  const verdictsOfProcesses = await workedOut(context, "soundness", stateOf(head), { model: head.model }, {});
  const sound = verdictsOfProcesses.reduce<boolean | null>(
    (all, one) => (all === false || one.sound === false ? false : one.sound === null ? null : all),
    true,
  );
  // Asked once more, because an answer was lost or a key was pressed twice: what is signed already is not signed again.
  const content = signedContent(findings, verdict, sound, await walksFor(context, head));
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
