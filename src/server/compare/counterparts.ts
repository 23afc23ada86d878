import { and, asc, eq, isNull } from "drizzle-orm";
import { compare } from "@/contract";
import type { CounterpartRow } from "@/contract/compare";
import { counterpartsIn } from "@/core/compare";
import { nameOf, wordFor } from "@/core/model";
import { versions } from "@/data/schema";
import { DamagedVersion, loadHead, tryHead } from "../kernel/heads";
import { notFound, query } from "../kernel/useCase";

/** Where an element is in the other versions of its process: several where it was split or merged, none where it is new or gone. */
export const listCounterparts = query(
  compare.listCounterparts,
  async ({ db }, { version, element }): Promise<{ counterparts: CounterpartRow[] }> => {
    const [own] = await db.select({ process: versions.process }).from(versions).where(eq(versions.id, version));
    if (!own) throw notFound("This version");
    const { model } = await loadHead(db, version);
    const others = await db
      .select({ id: versions.id, name: versions.name, kind: versions.kind })
      .from(versions)
      .where(and(eq(versions.process, own.process), isNull(versions.deletedAt)))
      .orderBy(asc(versions.createdAt));
    const found: CounterpartRow[] = [];
    for (const other of others) {
      if (other.id === version) continue;
      const head = await tryHead(db, other.id);
      if (head instanceof DamagedVersion) continue;
      const there = head.model;
      for (const id of counterpartsIn(model, element, there))
        found.push({
          version: other.id,
          versionName: other.name,
          kind: other.kind,
          element: id,
          name: nameOf(there, id),
          type: wordFor(there.elements.get(id)?.type ?? ""),
        });
    }
    return { counterparts: found };
  },
);
