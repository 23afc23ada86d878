import { z } from "zod";
import { asks, type Done, named, version } from "./contract";
import { id, name, revisionNumber } from "./inputs";
import { mostLenses } from "./lenses";

export interface LinkRow {
  readonly id: string;
  readonly name: string;
  /** The kept state it shows; null: what the version holds now. */
  readonly revision: number | null;
  readonly allows: "read" | "comment";
  readonly hasPassword: boolean;
  readonly expiresAt: string | null;
  readonly member: string;
  readonly at: string;
  readonly state: "open" | "expired" | "withdrawn";
}

/** Shorter than this a password is guessed too soon. */
export const leastPassword = 8;

const ofVersion = z.object({ version: id });
const on = (input: { readonly version: string }) => [version(input.version)];

/** Links by which somebody without an account reads a version. */
export const links = named({
  listLinks: asks<{ links: readonly LinkRow[] }>()({ input: ofVersion, right: "hand off", on }),
  /** The token is told this once; what is kept is its hash. */
  makeLink: asks<{ token: string }>()({
    input: ofVersion.extend({
      link: id,
      name,
      revision: revisionNumber.nullable(),
      /** What whoever has it may: read, or say something of it as well. */
      allows: z.enum(["read", "comment"]).default("read"),
      /** The last day on which it opens. */
      until: z.iso.date().nullable(),
      /** Which lenses are laid over what it shows. */
      lenses: z.array(id).max(mostLenses).default([]),
      password: z.string().min(leastPassword, `A password has ${leastPassword} letters at least.`).max(200).nullable(),
    }),
    right: "hand off",
    on,
  }),
  withdrawLink: asks<Done>()({ input: ofVersion.extend({ link: id }), right: "hand off", on }),
});
