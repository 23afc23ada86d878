import { z } from "zod";
import { bookletKinds } from "@/core/booklet";
import { type HandbookTemplate, handbookParts, templateSchema } from "@/core/handbook";
import { area, asks, type Done, named, version, workspace } from "./contract";
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

/** How the handbooks of a house are made, as everybody keeps it. */
export interface TemplateRow {
  readonly id: string;
  readonly template: HandbookTemplate;
  /** Counts how often it was changed, so that one who changes an older one is told. */
  readonly revision: number;
}
export const mostTemplates = 40;
const ofAll = () => [workspace];

export const handbook = named({
  listTemplates: asks<{ templates: readonly TemplateRow[] }>()({ input: z.object({}), right: "read", on: ofAll }),
  /** A new one (revision 0), or another content of one that is there; one that was deleted is there again. */
  saveTemplate: asks<{ revision: number }>()({
    input: z.object({ id, template: templateSchema, revision: z.number().int().min(0).max(2_147_483_647) }),
    right: "hand off",
    on: ofAll,
  }),
  deleteTemplate: asks<Done>()({ input: z.object({ id }), right: "hand off", on: ofAll }),
  restoreTemplate: asks<Done>()({ input: z.object({ id }), right: "hand off", on: ofAll }),
  /** The generated documentation, as a file. */
  handbookFile: asks<{ name: string; bytes: Uint8Array }>()({
    input: z.object({
      about,
      kind: z.enum(bookletKinds),
      parts: z.array(z.enum(handbookParts)).min(1, "Choose at least one part.").max(handbookParts.length),
      language: language.nullable(),
      title: z.string().trim().max(200),
      isNumbered: templateSchema.shape.isNumbered,
      font: templateSchema.shape.font,
      logo: templateSchema.shape.logo,
      /** Which lenses are laid over its diagrams. */
      lenses: z.array(id).max(mostLenses).default([]),
    }),
    right: "read",
    on: ({ about: of }) =>
      of.kind === "version" ? [version(of.version)] : of.kind === "area" ? [area(of.area)] : [workspace],
  }),
});
