import { z } from "zod";

/** What ids, names and counts are, wherever they are sent. */
export const id = z.string().min(1).max(200);
export const name = z.string().trim().min(1, "Give it a name.").max(200);
/** Counts of batches in a database's integers. */
export const sequenceNumber = z.number().int().min(0).max(2_147_483_647);
export const revisionNumber = z.number().int().min(1).max(2_147_483_647);
