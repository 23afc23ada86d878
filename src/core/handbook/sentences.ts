import type { Sentences } from "../messages";
import { german } from "./german";

const none: Sentences = new Map();

/** What a handbook says by itself, in a language; nothing for one that we have no words of, which leaves English. */
export const sentencesIn = (language: string | undefined): Sentences =>
  language !== undefined && /^de\b/i.test(language) ? german : none;
