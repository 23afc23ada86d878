import { editDistance } from "../directory";

/** Words less alike than this are different words: "check" and "checks" are one, "check" and "book" are not. */
const sameWord = 0.6;

/** How alike two words are: 1 less the edit distance as a share of the longer word; 0 below what could be one word. */
export function wordSimilarity(a: string, b: string): number {
  if (a === b) return 1;
  const longer = Math.max(a.length, b.length);
  // Each letter too many costs one, so lengths that far apart need no table.
  if (Math.min(a.length, b.length) / longer < sameWord) return 0;
  if (lettersApart(a, b) > (1 - sameWord) * longer) return 0;
  const alike = 1 - editDistance(a, b) / longer;
  return alike >= sameWord ? alike : 0;
}

/** A bound below the edit distance: distinct letters that only one of the words has. */
function lettersApart(a: string, b: string): number {
  const [one, other] = [lettersOf(a), lettersOf(b)];
  return Math.max(bits(one & ~other), bits(other & ~one));
}

const masks = new Map<string, number>();
function lettersOf(word: string): number {
  const known = masks.get(word);
  if (known !== undefined) return known;
  let mask = 0;
  for (let at = 0; at < word.length; at++) mask |= 1 << (word.charCodeAt(at) % 31);
  if (masks.size > 20_000) masks.clear();
  masks.set(word, mask);
  return mask;
}

function bits(mask: number): number {
  let count = 0;
  for (let left = mask; left !== 0; left &= left - 1) count++;
  return count;
}

/** The words of a name, in small letters. */
export const wordsOfLabel = (name: string): string[] => name.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/**
 * How alike two names are, 0 to 1: each word with the word of the other name that is most like it, on the average of both. So the
 * order of words does not matter, and a word too many costs its share.
 * Source: the bag-of-words similarity of C. Klinkmüller, I. Weber, J. Mendling, H. Leopold, A. Ludwig, "Increasing Recall of Process
 * Model Matching by Improved Activity Label Matching" (2013), from memory; the bound below which words are different is ours.
 */
export function labelSimilarity(
  a: readonly string[],
  b: readonly string[],
  alike: (one: string, other: string) => number = wordSimilarity,
): number {
  if (a.length === 0 || b.length === 0) return 0;
  const best = (word: string, others: readonly string[], of: (one: string, other: string) => number) =>
    others.reduce((most, other) => Math.max(most, of(word, other)), 0);
  let sum = 0;
  for (const word of a) sum += best(word, b, alike);
  for (const word of b) sum += best(word, a, (one, other) => alike(other, one));
  return sum / (a.length + b.length);
}
