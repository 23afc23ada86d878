/** A sentence with the names in it told apart, so that they can be set in bold. */
export type Phrase = readonly (string | { readonly name: string })[];

/** Builds a phrase: `phrase\`${named("Register")} is new.\``. Phrases and words may be put in. */
export function phrase(texts: TemplateStringsArray, ...values: readonly (Phrase | string)[]): Phrase {
  const parts = texts.flatMap((words, at): Phrase => {
    const value = values[at];
    return [words, ...(value === undefined ? [] : typeof value === "string" ? [value] : value)];
  });
  return parts.filter((part) => part !== "");
}

export const named = (name: string): Phrase => [{ name }];

/** "A", "A and B", "A, B and C"; more than four are counted. */
export function listed(items: readonly Phrase[], and = "and"): Phrase {
  if (items.length > 4) return [...listed(items.slice(0, 3), ","), ` and ${items.length - 3} more`];
  return items.flatMap((item, at): Phrase => {
    if (at === 0) return item;
    return [at === items.length - 1 && and !== "," ? ` ${and} ` : ", ", ...item];
  });
}

export const plainWords = (words: Phrase): string =>
  words.map((part) => (typeof part === "string" ? part : part.name)).join("");
