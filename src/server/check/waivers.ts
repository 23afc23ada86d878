import { eq } from "drizzle-orm";
import type { Waiver } from "@/core/check";
import { members, waivers } from "@/data/schema";
import type { Transaction } from "../kernel/act";

/** What was accepted on a version, with the names of those who did. */
export async function waiversOf(db: Transaction, version: string): Promise<(Waiver & { id: string })[]> {
  const rows = await db
    .select({
      id: waivers.id,
      finding: waivers.finding,
      about: waivers.about,
      reason: waivers.reason,
      member: members.name,
      at: waivers.at,
    })
    .from(waivers)
    .leftJoin(members, eq(members.id, waivers.member))
    .where(eq(waivers.version, version));
  return rows.map((row) => ({ ...row, member: row.member ?? "" }));
}
