/** The thread of the server: any job by its name. Models come as JSON text, which is handed over at once, however large. */
import { type StoredModel, trustStored } from "@/core/model";
import { briefSummary, frameBuilt, frameGrowth, framesTold } from "./briefs";
import { readDecisionFile } from "./decisionFiles";
import { describedServices } from "./descriptions";
import { evidenceReport } from "./evidenceReport";
import { bpmnFile, packageFile, picture, readFile, sequencePicture, sheetFile } from "./files";
import { handbookFile } from "./handbooks";
import { jobs } from "./index";
import { lensed } from "./lenses";
import { openedModel } from "./opened";
import { isRebuilt } from "./rebuilt";
import { summary } from "./summary";
import { builtModel, syncCopy } from "./syncs";
import { workedCases } from "./workedCases";

/** Jobs that only the server asks for: what reads and writes files needs what only a server has. */
const serverJobs = {
  ...jobs,
  bpmnFile,
  briefSummary,
  builtModel,
  describedServices,
  evidenceReport,
  frameBuilt,
  frameGrowth,
  framesTold,
  handbookFile,
  isRebuilt,
  lensed,
  openedModel,
  packageFile,
  picture,
  readDecisionFile,
  readFile,
  sequencePicture,
  sheetFile,
  summary,
  syncCopy,
  workedCases,
} as const;
export type ServerJobs = typeof serverJobs;

export interface ThreadRequest {
  readonly name: keyof ServerJobs;
  readonly models: { readonly [name: string]: string };
  readonly input: unknown;
}

export default async function run({ name, models, input }: ThreadRequest): Promise<unknown> {
  const opened = Object.entries(models).map(([slot, text]) => [slot, trustStored(JSON.parse(text) as StoredModel)]);
  return serverJobs[name](Object.fromEntries(opened), input as never, () => {});
}
