import { strToU8, zipSync } from "fflate";
import { writeBpmn } from "../bpmn";
import { type Adaption, checkModel, processVerdicts, type SignedContent, verdictOf, type Waiver } from "../check";
import { packedForm } from "../data";
import type { DecisionFileText } from "../decisions";
import { type SvgOptions, sceneOf, sceneToSvg } from "../drawing";
import { type Element, formOf, type Model, nameOf } from "../model";
import { checklistCsv, checklistMarkdown, checklistOf } from "./checklist";
import { packedDecisions } from "./decisions";
import type { ReportedForecast } from "./forecastReport";
import { type ReviewedState, reportHtml } from "./report";
import { servicesOf, type UsedDescription, usedDescriptions } from "./services";
import { type Manifest, manifestName } from "./verify";

/** Who signed what, and for which profile. */
export interface SignedVerdict {
  readonly member: string;
  /** ISO 8601. */
  readonly at: string;
  readonly profile: string;
  readonly revision: number;
  readonly content: SignedContent;
}

export interface PackageRequest {
  readonly model: Model;
  readonly process: string;
  readonly version: string;
  readonly revision: number;
  /** ISO 8601. */
  readonly date: string;
  readonly member: string;
  readonly waivers: readonly Waiver[];
  readonly adaption?: Adaption;
  /** How the walks kept with the version go. */
  readonly walks?: SignedContent["walks"];
  /** The verdict somebody signed on exactly this state, if there is one. */
  readonly signed?: SignedVerdict;
  /** Rounds of review of exactly this state. */
  readonly reviews?: readonly ReviewedState[];
  /** What follows from the version's first scenario, where it has one. */
  readonly forecast?: ReportedForecast;
  /** Descriptions of services that were read; those that steps are bound to go along. */
  readonly descriptions?: readonly UsedDescription[];
  /** Files of decisions that steps decide by, as their texts. */
  readonly decisions?: readonly DecisionFileText[];
  readonly hueOf?: (lane: Element) => string | undefined;
  readonly fonts?: SvgOptions["fonts"];
  /** SHA-256 in hexadecimal; the platform's own. */
  readonly sha256: (bytes: Uint8Array) => string;
}

const json = (value: unknown) => strToU8(`${JSON.stringify(value, null, 2)}\n`);

/**
 * Makes the package of a checked revision: model, report, pictures, manifest. The same request gives the same bytes.
 * The caller sees to it that no error is open; the report says what was found and what was accepted by whom.
 */
export function makePackage(request: PackageRequest): { bytes: Uint8Array; manifest: Manifest } {
  const { model, sha256 } = request;
  const { walks = [], signed, forecast, reviews = [] } = request;
  const findings = checkModel(model, {
    profile: "hand-off",
    ...(request.adaption && { adaption: request.adaption }),
  });
  const verdict = verdictOf(findings, request.waivers);
  const head = {
    process: request.process,
    version: request.version,
    revision: request.revision,
    date: request.date,
    member: request.member,
  };
  const report = {
    ...head,
    processes: processVerdicts(model),
    counts: verdict.counts,
    signed: signed
      ? {
          member: signed.member,
          date: signed.at,
          profile: signed.profile,
          revision: signed.revision,
          ...signed.content,
        }
      : null,
    reviews,
    walks,
    findings: findings.map(({ rule, severity, elements, message }) => ({ rule, severity, elements, message })),
    waivers: verdict.waived.map(({ finding, waiver }) => ({
      rule: finding.rule,
      elements: finding.elements,
      message: finding.message,
      reason: waiver.reason,
      member: waiver.member,
      date: waiver.at,
    })),
    forecast: forecast ?? null,
  };
  const diagrams = [...model.diagrams].sort((a, b) => a.order - b.order);
  const pictures = diagrams.map((diagram, at) => {
    const scene = sceneOf(model, diagram, { hueOf: request.hueOf });
    const title = diagram.name ?? (diagram.element === undefined ? "" : nameOf(model, diagram.element));
    return [
      at === 0 ? "diagram.svg" : `diagram-${at + 1}.svg`,
      sceneToSvg(scene, { title, fonts: request.fonts }),
    ] as const;
  });
  const checklist = checklistOf(model);
  const services = servicesOf(model);
  const used = usedDescriptions(model, request.descriptions ?? []);
  const forms = [...model.elements].flatMap((step) => {
    const form = formOf(step);
    return form ? [{ step: step.id, name: nameOf(model, step.id), ...packedForm(model, step.id, form) }] : [];
  });
  const decisions = packedDecisions(request.decisions ?? []);
  const title = `${request.process}, revision ${request.revision}`;
  const parts: [string, Uint8Array][] = [
    ["model.bpmn", strToU8(writeBpmn(model))],
    ["report.json", json(report)],
    [
      "report.html",
      strToU8(
        reportHtml(
          head,
          { findings, verdict, walks, signed, reviews, forecast, checklist, services, decisions },
          (id) => nameOf(model, id) || id,
        ),
      ),
    ],
    ["checklist.md", strToU8(checklistMarkdown(checklist, title))],
    ["checklist.csv", strToU8(checklistCsv(checklist))],
    ...(forms.length > 0 ? [["forms.json", json(forms)] as [string, Uint8Array]] : []),
    ...(services ? [["services.json", json(services)] as [string, Uint8Array]] : []),
    ...(decisions.length > 0 ? [["decisions.json", json(decisions)] as [string, Uint8Array]] : []),
    ...decisions.map(({ part }, at): [string, Uint8Array] => [part, strToU8(request.decisions?.[at]?.content ?? "")]),
    ...used.map(({ name, description }, at): [string, Uint8Array] => [
      // Files of one name but for signs stay apart by their number.
      `descriptions/${at + 1}-${name.replace(/[^\w.-]+/g, "-")}.json`,
      json({ file: name, ...description }),
    ]),
    ...pictures.map(([name, svg]): [string, Uint8Array] => [name, strToU8(svg)]),
  ];
  const manifest: Manifest = {
    format: "lucid-lane-package-1",
    ...head,
    parts: parts.map(([name, bytes]) => ({ name, bytes: bytes.length, sha256: sha256(bytes) })),
  };
  // A fixed time in the archive, so that its bytes depend on its content alone.
  const mtime = new Date("2000-01-01T00:00:00Z");
  const files = Object.fromEntries(
    [...parts, [manifestName, strToU8(`${JSON.stringify(manifest, null, 2)}\n`)] as [string, Uint8Array]].map(
      ([name, bytes]) => [name, [bytes, { mtime, level: 6 as const }]],
    ),
  );
  return { bytes: zipSync(files as Parameters<typeof zipSync>[0]), manifest };
}
