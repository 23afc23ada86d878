import { type Finding, keyOf, type Severity } from "./finding";

/** A finding accepted by somebody, with the reason. */
export interface Waiver {
  readonly finding: string;
  /** What the finding was about when it was accepted. */
  readonly about: string;
  readonly reason: string;
  readonly member: string;
  readonly at: string;
}

export interface Verdict {
  readonly counts: { readonly [severity in Severity]: number };
  /** Errors nobody has accepted; while there are any, nothing is handed off. */
  readonly openErrors: readonly Finding[];
  readonly waived: readonly { readonly finding: Finding; readonly waiver: Waiver }[];
}

/** The waiver that holds for a finding: one of its name, given when it was about what it is about now. */
export function waiverFor(finding: Finding, waivers: readonly Waiver[]): Waiver | undefined {
  const key = keyOf(finding);
  return waivers.find((waiver) => waiver.finding === key && waiver.about === finding.about);
}

export function verdictOf(findings: readonly Finding[], waivers: readonly Waiver[]): Verdict {
  const waived = findings.flatMap((finding) => {
    const waiver = waiverFor(finding, waivers);
    return waiver ? [{ finding, waiver }] : [];
  });
  const accepted = new Set(waived.map(({ finding }) => finding));
  const open = findings.filter((finding) => !accepted.has(finding));
  const count = (severity: Severity) => open.filter((finding) => finding.severity === severity).length;
  return {
    counts: { error: count("error"), warning: count("warning"), advice: count("advice") },
    openErrors: open.filter((finding) => finding.severity === "error"),
    waived,
  };
}
