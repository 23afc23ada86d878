import type { Finding } from "./finding";
import type { Verdict } from "./verdict";

/** What a verdict said when it was signed: everything there was to say, so that it can be read when the model has gone on. */
export interface SignedContent {
  readonly sound: boolean | null;
  readonly counts: Verdict["counts"];
  readonly findings: readonly {
    readonly rule: string;
    readonly severity: Finding["severity"];
    readonly message: string;
  }[];
  readonly waivers: readonly {
    readonly message: string;
    readonly reason: string;
    readonly member: string;
    readonly at: string;
  }[];
  readonly walks: readonly { readonly name: string; readonly passes: boolean }[];
}

/** What is signed: the findings nobody accepted, those somebody did, and how the kept walks went. */
export function signedContent(
  findings: readonly Finding[],
  verdict: Verdict,
  sound: boolean | null,
  walks: SignedContent["walks"],
): SignedContent {
  const waived = new Set(verdict.waived.map(({ finding }) => finding));
  return {
    sound,
    counts: verdict.counts,
    findings: findings
      .filter((finding) => !waived.has(finding))
      .map(({ rule, severity, message }) => ({ rule, severity, message })),
    waivers: verdict.waived.map(({ finding, waiver }) => ({
      message: finding.message,
      reason: waiver.reason,
      member: waiver.member,
      at: waiver.at,
    })),
    walks,
  };
}
