import { eq, inArray } from "drizzle-orm";
import { type BuildState, firstState } from "@/core/handoff";
import { buildCopies, heads } from "@/data/schema";
import type { Transaction } from "./act";

/** So many milliseconds what was seen of developers' files is good for: they change without telling. */
const goodFor = 5 * 60_000;

/** How the build copies of some versions stood when they were last looked at, and whether it is time to look again. */
export async function seenBuilds(
  db: Transaction,
  of: readonly string[],
  now: string,
): Promise<ReadonlyMap<string, { readonly state: BuildState | null; readonly isOld: boolean }>> {
  const rows = await db
    .select({
      version: buildCopies.version,
      seen: buildCopies.seen,
      seenAt: buildCopies.seenAt,
      seenSequence: buildCopies.seenSequence,
      sequence: heads.sequence,
    })
    .from(buildCopies)
    .innerJoin(heads, eq(heads.version, buildCopies.version))
    .where(inArray(buildCopies.version, [...of]));
  const versions = new Map<string, { states: BuildState[]; isOld: boolean }>();
  for (const { version, seen, seenAt, seenSequence, sequence } of rows) {
    const known = versions.get(version) ?? { states: [], isOld: false };
    if (seen !== null) known.states.push(seen);
    const isFresh = seenAt !== null && Date.parse(now) - Date.parse(seenAt) < goodFor;
    known.isOld ||= !isFresh || seenSequence !== sequence;
    versions.set(version, known);
  }
  return new Map(
    [...versions].map(([version, { states, isOld }]) => [version, { state: firstState(states) ?? null, isOld }]),
  );
}
