import type { BookletKind } from "@/core/booklet";
import { type ReportedJudgement, evidenceReport as reportOf } from "@/core/evidence";
import { sentencesIn } from "@/core/handbook";
import { bookletFile } from "./booklets";
import { type HoldInput, heldFor } from "./evidence";
import { type Hues, hueIn } from "./files";
import { type Job, needs } from "./job";
import { type FileMade, orTooLarge } from "./tooLarge";

export interface EvidenceReportInput extends HoldInput {
  readonly title: string;
  readonly subtitle: string;
  readonly name: string;
  readonly judged: readonly ReportedJudgement[];
  readonly hues: Hues;
  readonly kind: BookletKind;
}

/** What a log says of a model, as a file to be read and filed. */
export const evidenceReport: Job<EvidenceReportInput, FileMade> = async (models, input, tell) => {
  const { log, held } = await heldFor(models, input, tell);
  const booklet = reportOf({
    model: needs(models, "model"),
    title: input.title,
    subtitle: input.subtitle,
    log: input.name,
    part: log,
    filters: input.filters,
    held,
    judged: input.judged,
    sentences: sentencesIn(undefined),
    language: "en",
    hueOf: hueIn(input.hues),
  });
  return orTooLarge(bookletFile(booklet, input.kind));
};
