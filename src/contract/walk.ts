import { z } from "zod";
import { type WalkTest, walkTestSchema } from "@/core/tokens";
import { asks, type Done, named, version } from "./contract";
import { id } from "./inputs";

const name = z.string().trim().min(1, "Give the walk a name.").max(200);

export interface WalkTestRow {
  readonly id: string;
  readonly name: string;
  readonly content: WalkTest;
  readonly member: string;
  readonly at: string;
}

const here = (input: { readonly version: string }) => [version(input.version)];

export const walk = named({
  listWalkTests: asks<{ tests: readonly WalkTestRow[] }>()({
    input: z.object({ version: id }),
    right: "read",
    on: here,
  }),
  /** Keeps walks as tests, behind those there are. */
  keepWalkTests: asks<{ ids: readonly string[] }>()({
    input: z.object({
      version: id,
      tests: z
        .array(z.object({ name, content: walkTestSchema }))
        .min(1)
        .max(200),
    }),
    right: "edit",
    on: here,
  }),
  /** Another name for a kept walk, or what it is to expect from now on. */
  changeWalkTest: asks<Done>()({
    input: z
      .object({ version: id, test: id, name: name.optional(), content: walkTestSchema.optional() })
      .refine((change) => change.name !== undefined || change.content !== undefined, "Say what is to change."),
    right: "edit",
    on: here,
  }),
  deleteWalkTest: asks<Done>()({ input: z.object({ version: id, test: id }), right: "edit", on: here }),
});
