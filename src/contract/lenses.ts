import { z } from "zod";
import { type Lens, lensSchema } from "@/core/lens";
import { asks, type Done, named, workspace } from "./contract";
import { id } from "./inputs";

export interface LensRow {
  readonly id: string;
  readonly lens: Lens;
  /** Counts how often it was changed, so that one who changes an older one is told. */
  readonly revision: number;
  readonly member: string;
}
/** So many are kept: each is a chip on every diagram. */
export const mostLenses = 60;

const on = () => [workspace];

/** Rules that mark elements by their data, shared by everybody. */
export const lenses = named({
  listLenses: asks<{ lenses: readonly LensRow[] }>()({ input: z.object({}), right: "read", on }),
  /** A new one (revision 0), or another content of one that is there; one that was deleted is there again. */
  saveLens: asks<{ revision: number }>()({
    input: z.object({ id, lens: lensSchema, revision: z.number().int().min(0).max(2_147_483_647) }),
    right: "comment",
    on,
  }),
  deleteLens: asks<Done>()({ input: z.object({ id }), right: "comment", on }),
  restoreLens: asks<Done>()({ input: z.object({ id }), right: "comment", on }),
});
