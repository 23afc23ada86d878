import { z } from "zod";
import { writeBpmn } from "@/core/bpmn";
import { sceneOf, sceneToSvg } from "@/core/drawing";
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
