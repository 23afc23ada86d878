import type { Thing } from "@/contract";
import { audit } from "@/data/schema";
import type { Transaction } from "./act";

/** Notes what was done, in the transaction that does it: neither is there without the other. */
export async function note(
  db: Transaction,
  what: {
    readonly member: string;
    readonly act: string;
    readonly things: readonly Thing[];
    readonly isRefused?: boolean;
  },
): Promise<void> {
  await db.insert(audit).values({ ...what, at: new Date().toISOString() });
}
