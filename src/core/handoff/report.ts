import type { Finding, SignedContent, Verdict } from "../check";
import { counted } from "../model";
import { escapeText } from "../xml";
import { type Checklist, needWords, readyShare } from "./checklist";
import { decisionsHtml, type PackedDecisions } from "./decisions";
import { forecastHtml, type ReportedForecast } from "./forecastReport";
import { type PackedServices, servicesHtml } from "./services";

export interface ReportHead {
  readonly process: string;
  readonly version: string;
  readonly revision: number;
  readonly date: string;
  readonly member: string;
}

/** What members said who were asked about exactly this state. */
export interface ReviewedState {
  readonly state: "asked" | "approved" | "rejected";
  readonly question: string;
  readonly answers: readonly {
    readonly member: string;
    readonly answer: "approve" | "remarks" | "reject" | null;
    readonly note: string;
    /** ISO 8601. */
    readonly at: string | null;
  }[];
}

export interface ReportContent {
  readonly findings: readonly Finding[];
  readonly verdict: Verdict;
  readonly walks: SignedContent["walks"];
  readonly signed: { readonly member: string; readonly at: string; readonly profile: string } | undefined;
  readonly reviews: readonly ReviewedState[];
  readonly forecast: ReportedForecast | undefined;
  readonly checklist: Checklist;
  readonly services: PackedServices | undefined;
  readonly decisions: readonly PackedDecisions[];
}

const signs = { error: "✕ Error", warning: "! Warning", advice: "· Advice" } as const;

/** The check report as a page that needs nothing besides itself. */
export function reportHtml(
  head: ReportHead,
  { findings, verdict, walks, signed, reviews, forecast, checklist, services, decisions }: ReportContent,
  nameOf: (id: string) => string,
): string {
  const text = escapeText;
  const waived = new Set(verdict.waived.map(({ finding }) => finding));
  const row = (finding: Finding) =>
    `<tr><td>${signs[finding.severity]}</td><td>${text(finding.elements.map(nameOf).join(", "))}</td><td>${text(finding.message)}</td><td><code>${text(finding.rule)}</code></td></tr>`;
  const open = findings.filter((finding) => !waived.has(finding));
  const table = (rows: string, empty: string) =>
    rows === ""
      ? `<p>${empty}</p>`
      : `<table><thead><tr><th>Kind</th><th>Where</th><th>What was found</th><th>Rule</th></tr></thead><tbody>${rows}</tbody></table>`;
  const accepted = verdict.waived
    .map(
      ({ finding, waiver }) =>
        `<li>${text(finding.message)}<br><strong>Accepted:</strong> ${text(waiver.reason)} (${text(waiver.member)}, ${text(waiver.at.slice(0, 10))})</li>`,
    )
    .join("");
  const { error, warning, advice } = verdict.counts;
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>Check report: ${text(head.process)}</title>
<style>body{font:15px/1.5 "Atkinson Hyperlegible Next",Verdana,sans-serif;color:#1E2430;background:#F7F4EC;max-width:60rem;margin:2rem auto;padding:0 1rem}table{border-collapse:collapse;width:100%;background:#fff}th,td{border:1px solid #D8D2C4;padding:.4rem .6rem;text-align:left;vertical-align:top}td:first-child{white-space:nowrap}code{color:#5B2A6E}</style></head>
<body><h1>${text(head.process)}</h1>
<p>${text(head.version)}, revision ${head.revision}. Checked ${text(head.date.slice(0, 10))} by ${text(head.member)}.</p>
<p><strong>${counted(error, "open error")}, ${counted(warning, "warning")}, ${counted(advice, "piece")} of advice${verdict.waived.length > 0 ? `, ${verdict.waived.length} accepted` : ""}.</strong></p>
<p>${signed ? `Verdict signed by ${text(signed.member)} on ${text(signed.at.slice(0, 10))}, for ${text(signed.profile)}.` : "Nobody has signed a verdict on this state."}</p>
${reviewsHtml(reviews)}
<h2>Ready for automation: ${readyShare(checklist)} %</h2>${missingHtml(checklist)}
${servicesHtml(services)}
${decisionsHtml(decisions)}
<h2>Open findings</h2>${table(open.map(row).join(""), "Nothing was found.")}
<h2>Accepted findings</h2>${accepted === "" ? "<p>None.</p>" : `<ul>${accepted}</ul>`}
<h2>Kept walks</h2>${walks.length === 0 ? "<p>None.</p>" : `<ul>${walks.map((walk) => `<li>${walk.passes ? "As expected" : "Otherwise than expected"}: ${text(walk.name)}</li>`).join("")}</ul>`}
${forecastHtml(forecast)}
</body></html>
`;
}

/** What a machine still has to be told, element by element; the whole list is a part of the package of its own. */
function missingHtml({ rows, there, needed }: Checklist): string {
  if (needed === 0) return "<p>Nothing here is done by a machine yet.</p>";
  const missing = rows.flatMap((row) => row.needs.filter(({ isThere }) => !isThere).map((need) => ({ row, need })));
  const said = `<p>${there} of ${counted(needed, "thing")} a machine needs ${there === 1 ? "is" : "are"} there; checklist.md and checklist.csv hold them all.</p>`;
  if (missing.length === 0) return said;
  const lines = missing.map(
    ({ row, need }) =>
      `<tr><td>${needWords[need.name]}</td><td>${escapeText(row.name)}</td><td>${escapeText(row.role)}</td><td>${escapeText(need.says.text)}</td><td>${need.from}</td></tr>`,
  );
  return `${said}<table><thead><tr><th>Missing</th><th>Where</th><th>Role</th><th>What</th><th>From</th></tr></thead><tbody>${lines.join("")}</tbody></table>`;
}

const rounds = { asked: "is under way", approved: "approved it", rejected: "rejected it" } as const;
const said = { approve: "approves", remarks: "approves with remarks", reject: "rejects" } as const;

/** What members said who were asked about exactly this state; of others nothing is told. */
function reviewsHtml(reviews: readonly ReviewedState[]): string {
  const text = escapeText;
  return reviews
    .map(({ state, question, answers }) => {
      const lines = answers.map(
        ({ member, answer, note, at }) =>
          `<li>${text(member)} ${answer ? said[answer] : "has not answered yet"}${at ? `, ${text(at.slice(0, 10))}` : ""}${note ? `: ${text(note)}` : ""}</li>`,
      );
      return `<p>A review of this state ${rounds[state]}${question ? `: ${text(question)}` : "."}</p><ul>${lines.join("")}</ul>`;
    })
    .join("\n");
}
