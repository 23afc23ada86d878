import { eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import { inVersion } from "@/contract";
import { extractedProcess } from "@/core/commands";
import { processes, versions } from "@/data/schema";
import { addProcess } from "../home/processes";
import { lock } from "../kernel/act";
import { loadHead } from "../kernel/heads";
import { notFound, UseCaseError, useCase } from "../kernel/useCase";

/** Makes a process of its own from steps of a version, beside it in its area; the caller puts a call in their place. */
export const extractProcess = useCase(inVersion.extractProcess, async (context, input) => {
  await lock(context.db, "home");
  const [row] = await context.db
    .select({ area: processes.area })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(eq(versions.id, input.version));
  if (!row) throw notFound("This version");
  const { model } = await loadHead(context.db, input.version);
  const key = nanoid(8).replace(/[^A-Za-z0-9]/g, "x");
  const process = `process-${key}`;
  const made = extractedProcess(model, input.diagram, input.ids, {
    name: input.name,
    definitions: `definitions-${key}`,
    process,
    page: `page-${key}`,
  });
  if (!made.ok) throw new UseCaseError("not-apart", made.problems[0]?.said ?? "", 422, made.problems);
  const added = await addProcess(context, { name: input.name, area: row.area }, made.value);
  return { ...added, calledElement: process };
});
