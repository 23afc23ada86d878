import { eq } from "drizzle-orm";
import type { Thing } from "@/contract";
import { database } from "@/data/database";
import { areas, processes, versions } from "@/data/schema";

/** What stands in an area, or is one. */
export type InArea = Extract<Thing, { readonly id: string }>;

/** The areas that a thing is in, from its own up to the outermost; none for one that is not there. */
export async function areasAround(thing: InArea): Promise<readonly string[]> {
  const { db } = await database();
  const parents = new Map(
    (await db.select({ id: areas.id, parent: areas.parent }).from(areas)).map((row) => [row.id, row.parent]),
  );
  const around: string[] = [];
  for (let area = await areaOf(thing); area && !around.includes(area); area = parents.get(area) ?? undefined)
    around.push(area);
  return around;
}

async function areaOf({ kind, id }: InArea): Promise<string | undefined> {
  if (kind === "area") return id;
  const { db } = await database();
  const ofProcesses = db.select({ area: processes.area }).from(processes);
  const [row] =
    kind === "process"
      ? await ofProcesses.where(eq(processes.id, id))
      : await ofProcesses.innerJoin(versions, eq(versions.process, processes.id)).where(eq(versions.id, id));
  return row?.area;
}
