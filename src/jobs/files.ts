import { createHash } from "node:crypto";
import { readBpmn, writeBpmn } from "@/core/bpmn";
import { readSheet, writeSheet } from "@/core/capture";
import { drawMissingPages } from "@/core/commands";
import { type NamedRow, namedEntries } from "@/core/directory";
import type { RoleDefaults } from "@/core/forecast";
import { type Manifest, makePackage, type PackageRequest } from "@/core/handoff";
import { type Element, type Id, nameOf, type Problem, participantsOf, processesOf, toStored } from "@/core/model";
import { drawSequence, sequenceOfProcess, sequenceOfWalk } from "@/core/sequence";
import { decodeText } from "@/core/table";
import { choicesOf, type WalkTest, walk } from "@/core/tokens";
import { reportedForecast } from "./forecasts";
import { type Job, needs } from "./job";
import { embeddedFonts, type PictureOptions, pictureOf, sceneFile } from "./pictures";
import { freshId } from "./steps";
import { type FileMade, orTooLarge } from "./tooLarge";

export type FileRead =
  | {
      /** The model as it is stored, as JSON text: that is handed over between threads at once, however large. */
      readonly model: string;
      /** What the file calls its process. */
      readonly named: string | undefined;
      /** Directory entries it names that are not there yet. */
      readonly made: readonly NamedRow[];
    }
  | { readonly problems: readonly Problem[] };

/** Reads a BPMN file, or a step sheet as CSV, with the directory as it is. */
export const readFile: Job<
  {
    readonly name: string;
    readonly title: string;
    readonly bytes: Uint8Array;
    readonly directory: readonly NamedRow[];
  },
  FileRead
> = (_, { name, title, bytes, directory }) => {
  const names = namedEntries(directory, freshId);
  const read = /\.(csv|tsv)$/i.test(name)
    ? readSheet(decodeText(bytes), title, freshId, names.resolve)
    : readBpmn(bytes);
  if (!read.ok) return { problems: read.problems };
  const model = drawMissingPages(read.value);
  const pool = participantsOf(model).find((participant) => participant.processRef !== undefined);
  const named =
    processesOf(model)
      .map((process) => nameOf(model, process.id))
      .find(Boolean) ??
    (pool && nameOf(model, pool.id));
  return { model: JSON.stringify(toStored(model)), named, made: names.made };
};

/** A model as a BPMN file. */
export const bpmnFile: Job<object, string> = (models) => writeBpmn(needs(models, "model"));

/** The step sheet of a process as a CSV file. */
export const sheetFile: Job<{ readonly process: Id }, string> = (models, { process }) =>
  writeSheet(needs(models, "model"), process);

/** The hues of lanes by their ids: what of the directory a drawing needs. */
export type Hues = { readonly [lane: Id]: string };
export const hueIn =
  (hues: Hues) =>
  (lane: Element): string | undefined =>
    Object.hasOwn(hues, lane.id) ? hues[lane.id] : undefined;

/** A page of a model, or some of its elements, as a picture or on paper; words where that would be too large. */
export const picture: Job<
  Omit<PictureOptions, "hueOf"> & { readonly diagram: Id; readonly hues: Hues },
  FileMade
> = async (models, { diagram: wanted, hues, ...options }) => {
  const model = needs(models, "model");
  const diagram = model.diagrams.get(wanted);
  if (!diagram) throw new Error(`The model has no page ${wanted}.`);
  return orTooLarge(pictureOf(model, diagram, { ...options, hueOf: hueIn(hues) }));
};

/** Who calls whom, in a kept walk or on all paths of a process, as a picture or on paper. */
export const sequencePicture: Job<
  Omit<PictureOptions, "hueOf" | "elements" | "legend"> & { readonly process: Id; readonly walk: WalkTest | null },
  FileMade
> = async (models, { process, walk: kept, ...options }) => {
  const model = needs(models, "model");
  const sequence = kept
    ? sequenceOfWalk(model, walk(model, kept.process, choicesOf(kept)).log)
    : sequenceOfProcess(model, process);
  return orTooLarge(sceneFile(drawSequence(sequence).scene, options));
};

/** The package of a checked revision. */
export const packageFile: Job<
  Omit<PackageRequest, "model" | "hueOf" | "fonts" | "sha256" | "forecast"> & {
    readonly hues: Hues;
    readonly roles: readonly RoleDefaults[];
  },
  { readonly bytes: Uint8Array; readonly manifest: Manifest }
> = (models, { hues, roles, ...request }) => {
  const forecast = reportedForecast(models, roles, request.decisions);
  return makePackage({
    ...request,
    ...(forecast && { forecast }),
    model: needs(models, "model"),
    hueOf: hueIn(hues),
    fonts: embeddedFonts(),
    sha256: (bytes) => createHash("sha256").update(bytes).digest("hex"),
  });
};
