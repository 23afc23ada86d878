import { z } from "zod";

/** What a change answers. */
export const pains = ["waiting", "rework", "cost", "error", "risk", "compliance"] as const;
export type Pain = (typeof pains)[number];

/** What became of a change. */
export const changeStates = ["proposed", "agreed", "rejected"] as const;
export type ChangeState = (typeof changeStates)[number];

/** Why a change is made, kept with it. */
export const reasonSchema = z.object({
  pains: z.array(z.enum(pains)).max(pains.length),
  note: z.string().max(4_000),
  /** What is expected of it, in words: "the engineer starts a week earlier". */
  effect: z.string().max(1_000),
  state: z.enum(changeStates),
  /** How the change was settled, once it is no difference any more: taken over into the old side, or undone in the new one. */
  settled: z.enum(["taken", "undone"]).optional(),
});
export type Reason = z.infer<typeof reasonSchema>;

export const noReason: Reason = { pains: [], note: "", effect: "", state: "proposed" };
