import type { Thing } from "@/contract";
import { audit } from "@/data/schema";
import type { Transaction } from "./act";

const spoken = new WeakMap<Transaction, string>();

/** Says in an act what it is about, where that is nothing that has a place: a member, by name. */
export const isAbout = (db: Transaction, words: string): void => void spoken.set(db, words);

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
  await db.insert(audit).values({ ...what, about: spoken.get(db) ?? "", at: new Date().toISOString() });
}
