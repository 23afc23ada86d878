import type { en } from "./en";

/** A catalogue of words in another language: the same keys, the same parameters, other words. */
export type Translated<Words> = Words extends string
  ? string
  : Words extends (...given: infer Given) => unknown
    ? (...given: Given) => string
    : Words extends object
      ? { readonly [key in keyof Words]: Translated<Words[key]> }
      : Words;

/** Some parts of the interface's words, in another language. */
export type Part<Keys extends keyof typeof en> = Translated<Pick<typeof en, Keys>>;
