import { z } from "zod";
import { type Reason, reasonSchema } from "@/core/compare";
import { asks, type Done, named, version } from "./contract";
import { id, name } from "./inputs";

export interface ReasonRow {
  readonly change: string;
  readonly words: string;
  readonly reason: Reason;
  readonly member: string;
  readonly at: string;
}

/** The same element in another version of the process. */
export interface CounterpartRow {
  readonly version: string;
  readonly versionName: string;
  readonly kind: "as-is" | "to-be";
  readonly element: string;
  readonly name: string;
  readonly type: string;
}

const aim = z.string().trim().max(2_000);

export const compare = named({
  /** A to-be begins as a copy of a version whose elements remember their counterparts. */
  createToBe: asks<{ version: string }>()({
    input: z.object({ source: id, name, aim: aim.default(""), versionId: id.optional() }),
    right: "arrange",
    on: (input) => [version(input.source)],
  }),
  /** What a version is called, and what it is for. */
  describeVersion: asks<Done>()({
    input: z.object({ id, name, aim }),
    right: "arrange",
    on: (input) => [version(input.id)],
  }),
  /** Makes a to-be the as-is of its process. What the as-is was until now stays as a revision of it. */
  adoptToBe: asks<{ version: string; number: number }>()({
    input: z.object({ version: id }),
    right: "arrange",
    on: (input) => [version(input.version)],
  }),
  /** Where an element is in the other versions of its process: several where it was split or merged, none where it is new or gone. */
  listCounterparts: asks<{ counterparts: readonly CounterpartRow[] }>()({
    input: z.object({ version: id, element: z.string().max(1000) }),
    right: "read",
    on: (input) => [version(input.version)],
  }),
  /** Why the changes from one version to another are made. */
  listReasons: asks<{ reasons: readonly ReasonRow[] }>()({
    input: z.object({ version: id, against: id }),
    right: "read",
    on: (input) => [version(input.version), version(input.against)],
  }),
  /** Gives a change its reason, or another one; `null` takes it back. */
  giveReason: asks<Done>()({
    input: z.object({
      version: id,
      against: id,
      change: z.string().min(1).max(500),
      words: z.string().max(2_000),
      reason: reasonSchema.nullable() as z.ZodType<Reason | null, Reason | null>,
    }),
    right: "edit",
    on: (input) => [version(input.version)],
  }),
});
