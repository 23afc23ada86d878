import {
  asksOf,
  type BriefContent,
  type BriefSummary,
  buildFrame,
  coverageOf,
  framesOf,
  type Growth,
  growthOf,
  linksOf,
  readBrief,
} from "@/core/brief";
import { plan } from "@/core/capture";
import type { Command } from "@/core/commands";
import { type NamedRow, namedEntries } from "@/core/directory";
import type { Id } from "@/core/model";
import { type Job, needs } from "./job";
import { freshId } from "./steps";

export interface FrameInput {
  readonly content: BriefContent;
  readonly frame: string;
  readonly directory: readonly NamedRow[];
  /** The processes that frames of this description are, by the frames' keys. */
  readonly called: { readonly [frame: string]: Id };
  /** The page, where it is kept tidy. */
  readonly tidy: Id | undefined;
}

export type FrameBuilt =
  | { readonly commands: readonly Command[]; readonly marks: readonly string[]; readonly made: readonly NamedRow[] }
  | { readonly refused: string };

/** Builds one frame of a description into a model, as commands. */
export const frameBuilt: Job<FrameInput, FrameBuilt> = (models, { content, frame: key, directory, called, tidy }) => {
  const model = needs(models, "model");
  const frame = framesOf(readBrief(content.document), content).find((one) => one.key === key);
  if (!frame) throw new Error(`The description has no frame ${key}.`);
  const names = namedEntries(directory, freshId);
  let marks: string[] = [];
  const made = plan(model, freshId, (draft) => {
    const built = new Set([...(content.built[key] ?? []), ...linksOf(model).keys()]);
    marks = buildFrame(draft, frame, {
      organisation: content.organisation,
      built,
      resolve: names.resolve,
      calledProcess: (other) => (Object.hasOwn(called, other) ? called[other] : undefined),
    });
    if (draft.model !== model && tidy !== undefined) draft.do({ type: "tidy", diagram: tidy });
    return undefined;
  });
  if (!made.ok) return { refused: made.problems.map((problem) => problem.message).join(" ") };
  return { commands: made.value.model === model ? [] : made.value.commands, marks, made: names.made };
};

/** What building a frame again would change in a model. */
export const frameGrowth: Job<{ readonly content: BriefContent; readonly frame: string }, Growth> = (
  models,
  { content, frame: key },
) => {
  const model = needs(models, "model");
  const reading = readBrief(content.document);
  const frame = framesOf(reading, content).find((one) => one.key === key);
  if (!frame) throw new Error(`The description has no frame ${key}.`);
  const built = new Set([...(content.built[key] ?? []), ...linksOf(model).keys()]);
  return growthOf(frame, model, { reading, content, built });
};

/** What a description tells of, frame by frame. */
export const framesTold: Job<{ readonly content: BriefContent }, ReturnType<typeof framesOf>> = (_, { content }) =>
  framesOf(readBrief(content.document), content);

/** How much of a description is accounted for by what stands for some of its marks. */
export const briefSummary: Job<{ readonly content: BriefContent; readonly marks: readonly string[] }, BriefSummary> = (
  _,
  { content, marks },
) => {
  const reading = readBrief(content.document);
  const { sentences, accounted } = coverageOf(reading, new Set(marks));
  return { sentences, accounted, asks: asksOf(framesOf(reading, content)) };
};
