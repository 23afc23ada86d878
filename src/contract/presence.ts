import { z } from "zod";
import { asks, named, version } from "./contract";
import { id } from "./inputs";

const bounds = z.object({
  x: z.number().finite(),
  y: z.number().finite(),
  width: z.number().positive().finite(),
  height: z.number().positive().finite(),
});

/** Where somebody is: in which window, at which stage of which version, and what is chosen and in view there. */
export const placeSchema = z.object({
  window: id,
  version: id,
  stage: z.string().max(40),
  page: id.nullable(),
  selection: z.array(id).max(50),
  /** The part of the page in view. */
  view: bounds.nullable(),
  isGone: z.boolean(),
});
export const hereSchema = placeSchema.extend({ member: z.string(), name: z.string() });
/** Who is where. */
export type Here = Readonly<z.output<typeof hereSchema>>;

/** After so many seconds without a word somebody is taken to have gone. */
export const goneAfter = 25;

export const presence = named({
  /** Says where a window is, and is told who else is in the version. */
  sayWhereIAm: asks<{ others: readonly Here[] }>()({
    input: placeSchema,
    right: "read",
    on: (input) => [version(input.version)],
  }),
});
