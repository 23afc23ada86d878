import { and, asc, eq, inArray, isNull, ne } from "drizzle-orm";
import { inVersion } from "@/contract";
import { resolver } from "@/core/landscape";
import { processesOf } from "@/core/model";
import { elements, processes, versions } from "@/data/schema";
import { loadHead } from "../kernel/heads";
import { processesWithIds } from "../kernel/processIds";
import { query } from "../kernel/useCase";

/** Call activities of other processes that call a process of this version. */
export const listCallers = query(inVersion.listCallers, async ({ db }, input) => {
  const { model } = await loadHead(db, input.version);
  const called = processesOf(model).map((process) => process.id);
  const [own] = await db.select({ process: versions.process }).from(versions).where(eq(versions.id, input.version));
  if (called.length === 0 || !own) return { callers: [] };
  // Several processes may have these ids in their files; a call leads to one of them.
  const holders = await processesWithIds(db, called);
  const resolve = resolver(holders.map(({ process, id }) => ({ process, processIds: [id] })));
  const found = await db
    .select({
      version: versions.id,
      versionName: versions.name,
      process: processes.name,
      element: elements.element,
      elementName: elements.name,
      called: elements.called,
      calledProcess: elements.calledProcess,
    })
    .from(elements)
    .innerJoin(versions, eq(versions.id, elements.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(
      and(
        inArray(elements.called, called),
        ne(elements.version, input.version),
        isNull(versions.deletedAt),
        isNull(processes.deletedAt),
      ),
    )
    .orderBy(asc(processes.name), asc(versions.createdAt));
  const callers = found
    .filter((call) => {
      const process = resolve({ id: call.called ?? "", ...(call.calledProcess && { process: call.calledProcess }) });
      return process === undefined || process === own.process;
    })
    .map(({ called: _, calledProcess: __, ...caller }) => caller);
  return { callers };
});
