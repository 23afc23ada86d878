import { and, eq } from "drizzle-orm";
import { files } from "@/contract";
import { type Model, pageName, processesOf } from "@/core/model";
import { walkTestSchema } from "@/core/tokens";
import { processes, versions, walkTests } from "@/data/schema";
import { huesOf } from "../handoff/handoffs";
import { type Head, loadHead, stateOf } from "../kernel/heads";
import { loadRevision } from "../kernel/revisions";
import { type Context, notFound, query, UseCaseError } from "../kernel/useCase";
import { workedOut } from "../kernel/workedOut";
import { lensedInput } from "../lenses/seen";

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

/** Which sequence is asked for: that of a kept walk, or that of a process. */
async function called<Titled extends { readonly detail: string }>(
  context: Context,
  version: string,
  model: Model,
  { process, walk }: { readonly process?: string | undefined; readonly walk?: string | undefined },
  titled: Titled,
) {
  const processes = processesOf(model);
  const found = process === undefined ? processes[0] : processes.find(({ id }) => id === process);
  if (!found) throw notFound("This process");
  if (walk === undefined) return { ...titled, process: found.id, walk: null };
  const [row] = await context.db
    .select({ name: walkTests.name, content: walkTests.content })
    .from(walkTests)
    .where(and(eq(walkTests.id, walk), eq(walkTests.version, version)));
  const content = walkTestSchema.safeParse(row?.content);
  if (!row || !content.success || !model.elements.has(content.data.process)) throw notFound("This walk");
  return { ...titled, detail: `${titled.detail} · ${row.name}`, process: content.data.process, walk: content.data };
}

/** A page of a version, or some of its elements, as a picture or on paper; or who calls whom. */
export const exportPicture = query(files.exportPicture, async (context, input) => {
  const { version, revision, diagram: wanted, sequence, lensIds, ...options } = input;
  const { model, state } = await exported(context, version, revision);
  const diagrams = [...model.diagrams].sort((a, b) => a.order - b.order);
  const diagram = diagrams.find((candidate) => candidate.id === wanted) ?? diagrams[0];
  if (!diagram) throw notFound("This page");
  const [named] = await context.db
    .select({ version: versions.name, process: processes.name })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(eq(versions.id, version));
  const asked = await lensedInput(context.db, version, model, lensIds);
  const told = { ...asked, log: asked?.log && [asked.log.log, asked.log.steps] };
  const seen = asked ? await workedOut(context, "lensed", state, { model }, asked, told) : [];
  const titled = {
    ...options,
    lenses: [...options.lenses, ...seen.map(({ lens, marked }) => ({ ...lens, marked }))],
    title: named?.process ?? diagram.name ?? "",
    detail: [named?.version, revision && `revision ${revision}`, pageName(model, diagram)]
      .filter((part) => part && part !== named?.process)
      .join(" · "),
    date: context.asked,
  };
  const made = sequence
    ? await workedOut(
        context,
        "sequencePicture",
        state,
        { model },
        await called(context, version, model, sequence, titled),
      )
    : await workedOut(
        context,
        "picture",
        state,
        { model },
        { ...titled, diagram: diagram.id, hues: await huesOf(context.db, model) },
      );
  if ("tooLarge" in made) throw new UseCaseError("too-large", made.tooLarge, 422);
  return made;
});
