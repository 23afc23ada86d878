import { z } from "zod";
import { type Distribution, faultOf } from "./distributions";
import { faultOfSpread, type Spread } from "./drawnData";

const number = z.number().finite();
const point = z.object({ share: z.number().min(0), value: number });

/** A distribution from outside: of a known kind, and one that can be drawn from. */
export const distributionSchema: z.ZodType<Distribution> = z
  .discriminatedUnion("kind", [
    z.object({ kind: z.literal("constant"), value: number }),
    z.object({ kind: z.literal("uniform"), min: number, max: number }),
    z.object({ kind: z.literal("triangular"), min: number, mode: number, max: number }),
    z.object({ kind: z.literal("normal"), mean: number, deviation: number, min: number, max: number.optional() }),
    z.object({ kind: z.literal("logNormal"), mean: number, deviation: number }),
    z.object({ kind: z.literal("exponential"), mean: number }),
    z.object({ kind: z.literal("erlang"), k: number, mean: number }),
    z.object({ kind: z.literal("gamma"), shape: number, scale: number }),
    z.object({ kind: z.literal("weibull"), shape: number, scale: number }),
    z.object({ kind: z.literal("beta"), alpha: number, beta: number, min: number, max: number }),
    z.object({ kind: z.literal("poisson"), mean: number, unit: number }),
    z.object({ kind: z.literal("binomial"), trials: number, probability: number, unit: number }),
    z.object({ kind: z.literal("discrete"), points: z.array(point).max(10_000) }),
    z.object({ kind: z.literal("continuous"), points: z.array(point).max(10_000) }),
  ])
  .refine((one) => faultOf(one as Distribution) === undefined, {
    message: "these numbers make no distribution",
  }) as unknown as z.ZodType<Distribution>;

/** How data is drawn, from outside. */
export const spreadSchema: z.ZodType<Spread> = z.union([
  z
    .object({
      kind: z.literal("values"),
      points: z
        .array(z.object({ share: z.number().min(0), value: z.union([z.string().max(2_000), number, z.boolean()]) }))
        .max(1_000),
    })
    .refine((one) => faultOfSpread(one) === undefined, { message: "these shares make no whole" }),
  distributionSchema,
]);
