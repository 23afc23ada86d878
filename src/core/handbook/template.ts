import { z } from "zod";
import { handbookParts } from "./handbook";

/** A picture as the address that holds it: so large at most, in letters. */
export const mostLogoLetters = 280_000;

/** How the handbooks of a house are made: which parts in which order, and what they look like. */
export const templateSchema = z.object({
  name: z.string().trim().min(1, "Give it a name.").max(200),
  parts: z.array(z.enum(handbookParts)).min(1, "Choose at least one part.").max(handbookParts.length),
  /** Lenses that are laid over its diagrams, by their ids. */
  lenses: z.array(z.string().max(200)).max(60).default([]),
  isNumbered: z.boolean().default(false),
  font: z.enum(["plain", "serif"]).default("plain"),
  logo: z
    .string()
    .max(mostLogoLetters, "The picture is too large. Take one of at most 200 kB.")
    .regex(/^data:image\/png;base64,[A-Za-z0-9+/]+={0,2}$/, "A logo is a picture as PNG.")
    .nullable()
    .default(null),
});
export type HandbookTemplate = z.infer<typeof templateSchema>;
