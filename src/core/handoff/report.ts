import type { Finding, Verdict } from "../check";
import { escapeText } from "../xml";

export interface ReportHead {
  readonly process: string;
  readonly version: string;
  readonly revision: number;
  readonly date: string;
  readonly member: string;
}

const signs = { error: "✕ Error", warning: "! Warning", advice: "· Advice" } as const;

/** The check report as a page that needs nothing besides itself. */
export function reportHtml(
  head: ReportHead,
  findings: readonly Finding[],
  verdict: Verdict,
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
<p><strong>${error} open errors, ${warning} warnings, ${advice} pieces of advice${verdict.waived.length > 0 ? `, ${verdict.waived.length} accepted` : ""}.</strong></p>
<h2>Open findings</h2>${table(open.map(row).join(""), "Nothing was found.")}
<h2>Accepted findings</h2>${accepted === "" ? "<p>None.</p>" : `<ul>${accepted}</ul>`}
</body></html>
`;
}
