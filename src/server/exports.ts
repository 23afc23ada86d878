import { eq } from "drizzle-orm";
import { z } from "zod";
import { writeBpmn } from "@/core/bpmn";
import { writeSheet } from "@/core/capture";
import { processesOf } from "@/core/model";
import { processes, versions } from "@/data/schema";
import { huesOf } from "./handoffs";
import { loadHead } from "./heads";
import { id, revisionNumber } from "./kernel/inputs";
import { PictureTooLarge, pageName, pictureOf } from "./pictures";
import { loadRevision } from "./revisions";
import { notFound, query, UseCaseError } from "./useCase";

const request = z.object({ version: id, revision: revisionNumber.optional() });

export const exportBpmn = query(request, async (context, { version, revision }) => {
  const model =
    revision === undefined
      ? (await loadHead(context.db, version)).model
      : await loadRevision(context, version, revision);
  return { text: writeBpmn(model) };
});

/** The step sheet of a version's first process, or of the one that is named. */
export const exportSheet = query(request.extend({ process: z.string().optional() }), async (context, input) => {
  const { model } = await loadHead(context.db, input.version);
  const process = processesOf(model).find((candidate) => candidate.id === input.process) ?? processesOf(model)[0];
  if (!process) throw notFound("This process");
  return { text: writeSheet(model, process.id) };
});

const pictureRequest = request.extend({
  format: z.enum(["svg", "png", "pdf"]),
  diagram: z.string().optional(),
  scale: z.number().min(1).max(4).default(1),
  paper: z.enum(["A4", "A3"]).default("A4"),
  spread: z.enum(["fit", "tile"]).default("fit"),
  legend: z.boolean().default(true),
  elements: z.array(z.string()).max(20_000).default([]),
});

/** A page of a version, or some of its elements, as a picture or on paper. */
export const exportPicture = query(pictureRequest, async (context, input) => {
  const { version, revision, diagram: wanted, ...options } = input;
  const model =
    revision === undefined
      ? (await loadHead(context.db, version)).model
      : await loadRevision(context, version, revision);
  const diagrams = [...model.diagrams].sort((a, b) => a.order - b.order);
  const diagram = diagrams.find((candidate) => candidate.id === wanted) ?? diagrams[0];
  if (!diagram) throw notFound("This page");
  const [named] = await context.db
    .select({ version: versions.name, process: processes.name })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(eq(versions.id, version));
  try {
    const bytes = await pictureOf(model, diagram, {
      ...options,
      title: named?.process ?? diagram.name ?? "",
      detail: [named?.version, revision && `revision ${revision}`, pageName(model, diagram)]
        .filter((part) => part && part !== named?.process)
        .join(" · "),
      date: context.now(),
      hueOf: await huesOf(context.db, model),
    });
    return { bytes };
  } catch (error) {
    if (error instanceof PictureTooLarge) throw new UseCaseError("too-large", error.message, 422);
    throw error;
  }
});
