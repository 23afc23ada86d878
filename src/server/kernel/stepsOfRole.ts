import { eq } from "drizzle-orm";
import { rolesOf } from "@/core/directory";
import { isActivity } from "@/core/model";
import { uses } from "@/data/schema";
import type { Transaction } from "./act";
import { DamagedVersion, tryHead } from "./heads";

/** Steps a role has a part in, by version: also those that have it from their lane, which only the model tells. */
export async function stepsOfRole(db: Transaction, role: string): Promise<[version: string, ids: string[]][]> {
  const found = await db.selectDistinct({ version: uses.version }).from(uses).where(eq(uses.entry, role));
  const steps: [string, string[]][] = [];
  for (const { version } of found) {
    const head = await tryHead(db, version);
    if (head instanceof DamagedVersion) continue;
    const { model } = head;
    const ids = [...model.elements].flatMap((element) =>
      isActivity(element.type) && rolesOf(model, element.id).some((part) => part.entry === role) ? [element.id] : [],
    );
    if (ids.length > 0) steps.push([version, ids]);
  }
  return steps;
}
