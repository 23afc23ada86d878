import { z } from "zod";
import type { Thing } from "./contract";

const thing = z.union([
  z.object({ kind: z.enum(["workspace", "directory"]) }),
  z.object({ kind: z.enum(["area", "process", "version"]), id: z.string() }),
]);

/** Something was done: to what, by which use case, and where a version's content changed, up to which of its changes. */
export const eventSchema = z.object({
  by: z.string(),
  things: z.array(thing),
  sequences: z.record(z.string(), z.number().int()).optional(),
});
export interface Happened {
  readonly by: string;
  readonly things: readonly Thing[];
  readonly sequences?: { readonly [version: string]: number };
}

const keyOf = (one: Thing): string => ("id" in one ? `${one.kind} ${one.id}` : one.kind);

/**
 * Whether an answer about some things may be another one after something was done to others. What is asked of the workspace as a whole
 * (Home, what is found) may be another after anything; what was done to the workspace as a whole concerns every answer.
 */
export function concerns(asked: readonly Thing[], done: readonly Thing[]): boolean {
  if (asked.some((one) => one.kind === "workspace") || done.some((one) => one.kind === "workspace")) return true;
  const keys = new Set(done.map(keyOf));
  return asked.some((one) => keys.has(keyOf(one)));
}
