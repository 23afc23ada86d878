import { inLanguage, partsOf, type Said, type Sentences } from "@/core/messages";

export { en as text } from "./en";

/** What core says besides English; a second language is a table here, beside the interface's own words. */
const sentences: Sentences = new Map();

/** What core says, in the language of the interface. */
export const worded = (said: Said): string => inLanguage(said, sentences);

/** The same in pieces, so that names can be set apart. */
export const wordedParts = (said: Said) => partsOf(said, sentences);

/** Why something could not be done, in the language of the interface. */
export const reasons = (problems: readonly { readonly said: Said }[]): string =>
  problems.map(({ said }) => worded(said)).join(" ");
