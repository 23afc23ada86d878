import { createHash } from "node:crypto";

/** What is kept of a token: it is long and random, so that one round says nothing of it. */
export const hashOfToken = (token: string): string => createHash("sha256").update(token).digest("hex");
