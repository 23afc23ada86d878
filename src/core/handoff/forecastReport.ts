import type { ForecastFigures } from "../forecast";
import { spanWords } from "../model";
import type { SaidRow } from "../scenario";
import { escapeText as text } from "../xml";

/** What a package says of the forecast: the scenario, what it left open, and the figures; or why there are none. */
export interface ReportedForecast {
  readonly scenario: { readonly id: string; readonly name: string };
  readonly says: readonly SaidRow[];
  /** What the directory said of roles of which the scenario says nothing. */
  readonly fromDirectory: readonly SaidRow[];
  readonly figures: ForecastFigures | null;
  /** Why there are no figures; empty where there are. */
  readonly why: string;
}

const decimal = (value: number) => String(Number(value.toPrecision(3)));

const percent = (share: number) => `${Math.round(share * 100)} %`;

const rowsOf = (rows: readonly SaidRow[]) =>
  rows
    .map(({ name, what, value }) => `<tr><td>${text(name)}</td><td>${text(what)}</td><td>${text(value)}</td></tr>`)
    .join("");

/** The part of the report that tells the forecast. */
export function forecastHtml(reported: ReportedForecast | undefined): string {
  if (!reported) return "<h2>Forecast</h2><p>No scenario says how often cases come and what steps take.</p>";
  const { scenario, says, fromDirectory, figures, why } = reported;
  return `<h2>Forecast: ${text(scenario.name)}</h2>${figures ? figuresHtml(figures) : `<p>${text(why)}</p>`}
<h3>What the scenario says</h3><table><thead><tr><th>Of what</th><th>What</th><th>Value</th></tr></thead><tbody>${rowsOf(says)}</tbody></table>
${fromDirectory.length === 0 ? "" : `<h3>Taken from the directory</h3><table><thead><tr><th>Of what</th><th>What</th><th>Value</th></tr></thead><tbody>${rowsOf(fromDirectory)}</tbody></table>`}`;
}

function figuresHtml(figures: ForecastFigures): string {
  const { cycleTime, waitingTime, cost, currency, resources, gaps, problems, notEnded } = figures;
  const money = (amount: number) => `${decimal(amount)} ${text(currency)}`;
  const people = resources
    .map(
      (one) =>
        `<tr><td>${text(one.name)}</td><td>${one.quantity}</td><td>${percent(one.utilization)}</td><td>${spanWords(one.waitingMean)}</td><td>${decimal(one.queueMean)}</td></tr>`,
    )
    .join("");
  const told =
    figures.cases === 0
      ? "<p>No case came to its end.</p>"
      : `<p>9 of 10 cases are done within <strong>${spanWords(cycleTime.p90)}</strong>, half within ${spanWords(cycleTime.p50)}. A case takes ${spanWords(cycleTime.mean)} on average (95 %: ${spanWords(cycleTime.ci95[0])} to ${spanWords(cycleTime.ci95[1])}), of that ${spanWords(waitingTime.mean)} waiting, and costs ${money(cost.mean)}.</p>`;
  return `${told}
${problems.map((problem) => `<p>${text(problem)}</p>`).join("")}<p>${Math.round(figures.cases)} cases in each of ${figures.replications} ${figures.replications === 1 ? "replication" : "replications"}, seed ${figures.seed}${figures.warmUp > 0 ? `, the first ${spanWords(figures.warmUp)} not counted` : ""}; ${Math.round(figures.underWay)} under way at the end.</p>
${notEnded.length === 0 ? "" : `<p>${notEnded.reduce((sum, { cases }) => sum + cases, 0)} cases came to no end.</p>`}
${people === "" ? "" : `<table><thead><tr><th>Role</th><th>How many</th><th>Busy</th><th>Waited for, each time</th><th>In queue</th></tr></thead><tbody>${people}</tbody></table>`}
<h3>Not said, and what was taken</h3>${gaps.length === 0 ? "<p>Nothing.</p>" : `<ul>${gaps.map(({ name, taken }) => `<li>${text(name)}: ${text(taken)}</li>`).join("")}</ul>`}`;
}
