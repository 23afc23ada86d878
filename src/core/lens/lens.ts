import { z } from "zod";

/** What a lens looks at. Times in seconds, shares from 0 to 1, money in the model's currency. */
export const lensFields = [
  "kind",
  "name",
  "role",
  "system",
  "lane",
  "site",
  "takes",
  "waits",
  "costs",
  "busy",
  "findings",
  "comments",
  "cases",
  "incidents",
  "deviates",
  "own",
] as const;
export type LensField = (typeof lensFields)[number];

/** How a field is said: one of a few, in words, or by an amount. */
export const fieldKinds: { readonly [field in LensField]: "choice" | "words" | "time" | "money" | "share" | "count" } =
  {
    kind: "choice",
    name: "words",
    role: "words",
    system: "words",
    lane: "words",
    site: "words",
    takes: "time",
    waits: "time",
    costs: "money",
    busy: "share",
    findings: "count",
    comments: "count",
    cases: "count",
    incidents: "count",
    deviates: "share",
    own: "words",
  };

export const wordTests = ["is", "isNot", "contains", "isThere", "isMissing"] as const;
export const amountTests = ["more", "less", "isThere", "isMissing"] as const;
export const choiceTests = ["is", "isNot"] as const;
export type LensTest = (typeof wordTests)[number] | (typeof amountTests)[number];

/** Kinds of elements as one speaks of them. */
export const lensKinds = [
  "step",
  "byHand",
  "bySystem",
  "decision",
  "event",
  "timer",
  "subProcess",
  "call",
  "flow",
] as const;
export type LensKind = (typeof lensKinds)[number];

export const lensPens = ["plum", "brick", "teal", "moss", "ochre", "slate"] as const;
export const lensLines = ["solid", "dashed", "dotted", "double"] as const;
export const lensSigns = ["clock", "coin", "person", "machine", "flag", "bolt", "eye", "question"] as const;
export type LensPen = (typeof lensPens)[number];
export type LensLine = (typeof lensLines)[number];
export type LensSign = (typeof lensSigns)[number];

export const lensConditionSchema = z
  .object({
    field: z.enum(lensFields),
    /** Of one's own attributes, which. */
    name: z.string().trim().max(200).optional(),
    test: z.enum([...wordTests, "more", "less"]),
    value: z.union([z.string().max(200), z.number().finite()]).optional(),
  })
  .refine(({ field, name }) => field !== "own" || (name ?? "") !== "", "Say which attribute is meant.")
  .refine(
    ({ test, value }) => test === "isThere" || test === "isMissing" || (value !== undefined && value !== ""),
    "Say what it is compared with.",
  );

/** A rule that marks elements by their data. */
export const lensSchema = z.object({
  name: z.string().trim().min(1, "Give it a name.").max(200),
  /** Whether all of the conditions have to hold, or one. */
  which: z.enum(["all", "any"]),
  conditions: z.array(lensConditionSchema).max(20),
  /** Besides, a condition in FEEL on the same fields; empty: none. */
  feel: z.string().max(2_000),
  pen: z.enum(lensPens),
  line: z.enum(lensLines),
  sign: z.enum(lensSigns),
});
export type LensCondition = z.output<typeof lensConditionSchema>;
export type Lens = z.output<typeof lensSchema>;

/** Which fields a lens looks at: what has to be found out before it can be used. */
export function fieldsOf({ conditions, feel }: Pick<Lens, "conditions" | "feel">): ReadonlySet<LensField> {
  const named = lensFields.filter((field) => new RegExp(`\\b${field}\\b`).test(feel));
  return new Set([...conditions.map(({ field }) => field), ...named]);
}
