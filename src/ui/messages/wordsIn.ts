import { en } from "./en";
import { spoken } from "./german";
import type { Language } from "./languages";
import type { Translated } from "./translated";

/** The words of the interface in a language, for what the server itself writes: it answers many, and is put into no language. */
export const wordsIn = (language: Language): Translated<typeof en> => (language === "de" ? spoken.words : en);
