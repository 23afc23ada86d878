import { z } from "zod";

/** What inputs are made of, with the limits of what the database keeps. */

export const id = z.string().min(1).max(200);
export const name = z.string().trim().min(1, "A name is needed.").max(200);

/** Whole numbers are kept in 32 bits. */
const mostNumber = 2_147_483_647;
export const sequenceNumber = z.number().int().min(0).max(mostNumber);
export const revisionNumber = z.number().int().min(1).max(mostNumber);
