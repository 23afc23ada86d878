import type { Sentences } from "../messages";
import { languagesOf, type Model } from "../model";
import { german } from "./german";

const none: Sentences = new Map();

/** What a handbook says by itself, in a language; nothing for one that we have no words of, which leaves English. */
export const sentencesIn = (language: string | undefined): Sentences =>
  language !== undefined && /^de\b/i.test(language) ? german : none;

/**
 * The language that models are to be put into; undefined where they are told as they stand: none is asked for, or English, which is what
 * a model is written in where it says nothing else and keeps no English beside.
 */
export const languageToTell = (models: readonly Model[], language: string | undefined): string | undefined =>
  language !== undefined && /^en\b/i.test(language) && !models.some((model) => languagesOf(model).includes(language))
    ? undefined
    : language;
