import { eq } from "drizzle-orm";
import { files } from "@/contract";
import { processesOf } from "@/core/model";
import { processes, versions } from "@/data/schema";
import { pageName } from "@/jobs/pictures/page";
import { huesOf } from "../handoff/handoffs";
import { type Head, loadHead, stateOf } from "../kernel/heads";
import { loadRevision } from "../kernel/revisions";
import { type Context, notFound, query, UseCaseError } from "../kernel/useCase";
import { workedOut } from "../kernel/workedOut";

/** What is exported, with a name for it: what a version holds, or a kept state of it. */
async function exported(context: Context, version: string, revision: number | undefined) {
  if (revision !== undefined)
    return { model: await loadRevision(context, version, revision), state: [version, "revision", revision] };
  const head: Head = await loadHead(context.db, version);
  return { model: head.model, state: stateOf(head) };
}

export const exportBpmn = query(files.exportBpmn, async (context, { version, revision }) => {
  const { model, state } = await exported(context, version, revision);
  return { text: await workedOut(context, "bpmnFile", state, { model }, {}) };
});

/** The step sheet of a version's first process, or of the one that is named. */
export const exportSheet = query(files.exportSheet, async (context, input) => {
  const { model, state } = await exported(context, input.version, input.revision);
  const process = processesOf(model).find((candidate) => candidate.id === input.process) ?? processesOf(model)[0];
  if (!process) throw notFound("This process");
  return { text: await workedOut(context, "sheetFile", state, { model }, { process: process.id }) };
});

/** A page of a version, or some of its elements, as a picture or on paper. */
export const exportPicture = query(files.exportPicture, async (context, input) => {
  const { version, revision, diagram: wanted, ...options } = input;
  const { model, state } = await exported(context, version, revision);
  const diagrams = [...model.diagrams].sort((a, b) => a.order - b.order);
  const diagram = diagrams.find((candidate) => candidate.id === wanted) ?? diagrams[0];
  if (!diagram) throw notFound("This page");
  const [named] = await context.db
    .select({ version: versions.name, process: processes.name })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(eq(versions.id, version));
  const request = {
    ...options,
    diagram: diagram.id,
    title: named?.process ?? diagram.name ?? "",
    detail: [named?.version, revision && `revision ${revision}`, pageName(model, diagram)]
      .filter((part) => part && part !== named?.process)
      .join(" · "),
    date: context.asked,
    hues: await huesOf(context.db, model),
  };
  const made = await workedOut(context, "picture", state, { model }, request);
  if ("tooLarge" in made) throw new UseCaseError("too-large", made.tooLarge, 422);
  return made;
});
