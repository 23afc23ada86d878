/** The thread of the server: any job by its name. Models come as JSON text, which is handed over at once, however large. */
import { type StoredModel, trustStored } from "@/core/model";
import { type JobsIn, jobIn, jobModules } from "./index";

/** Jobs that only the server asks for: what reads and writes files needs what only a server has. */
const serverModules = {
  ...jobModules,
  bpmnFile: () => import("./files"),
  briefSummary: () => import("./briefs"),
  builtModel: () => import("./syncs"),
  describedServices: () => import("./descriptions"),
  evidenceReport: () => import("./evidenceReport"),
  frameBuilt: () => import("./briefs"),
  frameGrowth: () => import("./briefs"),
  framesTold: () => import("./briefs"),
  handbookFile: () => import("./handbooks"),
  isRebuilt: () => import("./rebuilt"),
  lensed: () => import("./lenses"),
  openedModel: () => import("./opened"),
  packageFile: () => import("./files"),
  picture: () => import("./files"),
  readDecisionFile: () => import("./decisionFiles"),
  readFile: () => import("./files"),
  sequencePicture: () => import("./files"),
  sheetFile: () => import("./files"),
  summary: () => import("./summary"),
  syncCopy: () => import("./syncs"),
  workedCases: () => import("./workedCases"),
} as const;
export type ServerJobs = JobsIn<typeof serverModules>;

export interface ThreadRequest {
  readonly name: keyof ServerJobs;
  readonly models: { readonly [name: string]: string };
  readonly input: unknown;
}

export default async function run({ name, models, input }: ThreadRequest): Promise<unknown> {
  const opened = Object.entries(models).map(([slot, text]) => [slot, trustStored(JSON.parse(text) as StoredModel)]);
  const job = await jobIn(serverModules, name);
  return job(Object.fromEntries(opened), input as never, () => {});
}
