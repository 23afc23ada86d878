import { z } from "zod";
import { writeBpmn } from "@/core/bpmn";
import { writeSheet } from "@/core/capture";
import { sceneOf, sceneToSvg } from "@/core/drawing";
import { processesOf } from "@/core/model";
import { embeddedFonts } from "./fonts";
import { huesOf } from "./handoffs";
import { loadHead } from "./heads";
import { loadRevision } from "./revisions";
import { notFound, useCase } from "./useCase";

const request = z.object({ version: z.string(), revision: z.number().int().min(1).optional() });

export const exportBpmn = useCase(request, async (context, { version, revision }) => {
  const model =
    revision === undefined
      ? (await loadHead(context.db, version)).model
      : await loadRevision(context, version, revision);
  return { text: writeBpmn(model) };
});

/** The step sheet of a version's first process, or of the one that is named. */
export const exportSheet = useCase(request.extend({ process: z.string().optional() }), async (context, input) => {
  const { model } = await loadHead(context.db, input.version);
  const process = processesOf(model).find((candidate) => candidate.id === input.process) ?? processesOf(model)[0];
  if (!process) throw notFound("This process");
  return { text: writeSheet(model, process.id) };
});

export const exportSvg = useCase(
  request.extend({ diagram: z.string().optional() }),
  async (context, { version, revision, diagram: wanted }) => {
    const model =
      revision === undefined
        ? (await loadHead(context.db, version)).model
        : await loadRevision(context, version, revision);
    const diagrams = [...model.diagrams].sort((a, b) => a.order - b.order);
    const diagram = diagrams.find((candidate) => candidate.id === wanted) ?? diagrams[0];
    if (!diagram) throw notFound("This page");
    return {
      text: sceneToSvg(sceneOf(model, diagram, { hueOf: await huesOf(context.db, model) }), {
        title: diagram.name,
        fonts: embeddedFonts(),
      }),
    };
  },
);
