import { inLanguage, partsOf, type Said, type Sentences } from "@/core/messages";
import { termFor } from "@/core/model";
import { en } from "./en";
import type { Language } from "./languages";
import type { Translated } from "./translated";

export { en as text };

/** A language besides English: the interface's own words, and what core and the server say, by its English code. */
export interface Spoken {
  readonly language: Language;
  readonly words: Translated<typeof en>;
  readonly sentences: Sentences;
}

let spoken: { readonly language: Language; readonly sentences: Sentences } = { language: "en", sentences: new Map() };

/**
 * Puts the interface into another language, once, before anything of it is shown (see `InLanguage`): whoever holds a part of the words
 * holds the same part after it, with other words in it. So a module may hold parts from its beginning, but no single word.
 */
export function speak({ language, words, sentences }: Spoken): void {
  put(en, words);
  spoken = { language, sentences };
}

function put(words: object, others: object): void {
  for (const [key, other] of Object.entries(others)) {
    const own: unknown = Reflect.get(words, key);
    if (typeof own === "object" && own !== null && typeof other === "object") put(own, other);
    else Reflect.set(words, key, other);
  }
}

/** The language the interface is in. */
export const language = (): Language => spoken.language;

/** How numbers and dates are written in it, as the platform's formats take it. */
export const locale = (): string => (spoken.language === "en" ? "en-GB" : spoken.language);

/** What core says, in the language of the interface. */
export const worded = (said: Said): string => inLanguage(said, spoken.sentences);

/** The same in pieces, so that names can be set apart. */
export const wordedParts = (said: Said) => partsOf(said, spoken.sentences);

/** Why something could not be done, in the language of the interface. */
export const reasons = (problems: readonly { readonly said: Said }[]): string =>
  problems.map(({ said }) => worded(said)).join(" ");

/** What a type of element is called: "user task". */
export const typeWord = (type: string): string => worded(termFor(type));
