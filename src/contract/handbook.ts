import { z } from "zod";
import { bookletKinds } from "@/core/booklet";
import { handbookParts } from "@/core/handbook";
import { area, asks, named, version, workspace } from "./contract";
import { id, revisionNumber } from "./inputs";
import { mostLenses } from "./lenses";

/** What a handbook is about: a version as it is now, or a kept state of it; the as-is of each process in an area and the areas inside it, or of all. */
const about = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("version"), version: id, revision: revisionNumber.optional() }),
  z.object({ kind: z.literal("area"), area: id }),
  z.object({ kind: z.literal("all") }),
]);
export type HandbookAbout = z.infer<typeof about>;

/** The code of a language (BCP 47), as far as texts are kept by it. */
const language = z
  .string()
  .max(40)
  .regex(/^[A-Za-z]{2,8}(?:-[A-Za-z0-9]{1,8})*$/, "Give the code of a language, as de or pt-BR.");

export const handbook = named({
  /** The generated documentation, as a file. */
  handbookFile: asks<{ name: string; bytes: Uint8Array }>()({
    input: z.object({
      about,
      kind: z.enum(bookletKinds),
      parts: z.array(z.enum(handbookParts)).min(1, "Choose at least one part.").max(handbookParts.length),
      language: language.nullable(),
      title: z.string().trim().max(200),
      /** Which lenses are laid over its diagrams. */
      lenses: z.array(id).max(mostLenses).default([]),
    }),
    right: "read",
    on: ({ about: of }) =>
      of.kind === "version" ? [version(of.version)] : of.kind === "area" ? [area(of.area)] : [workspace],
  }),
});
