import { type DirectoryEntry, foldedName } from "./entry";

/** Two entries that may be one thing, spelled in two ways. */
export interface SimilarPair {
  readonly one: DirectoryEntry;
  readonly other: DirectoryEntry;
  /** 0..1; 1 where only case, hyphens, word order or plural differ. */
  readonly similarity: number;
}

/** From here on, two spellings are offered as one (by trial on names of roles and systems; no published value). */
const likely = 0.8;
/** Pairs that share fewer three-letter pieces than this cannot reach that, short names aside. */
const sharedPieces = 0.3;
/** Two words less alike than this have nothing to do with each other. */
const leastAlike = 0.7;

/**
 * Pairs of entries of one kind whose names are likely two spellings of one: other word order, plurals, abbreviations
 * ("Netw. engineer"), slips of the finger. The most similar come first.
 *
 * Candidates are found by the three-letter pieces they share (q-grams: E. Ukkonen, "Approximate string-matching with q-grams and
 * maximal matches", Theoretical Computer Science 92, 1992), then judged word by word by edit distance with transpositions
 * (F. Damerau, "A technique for computer detection and correction of spelling errors", Communications of the ACM 7, 1964).
 * O(entries × entries that share a piece).
 */
export function similarEntries(entries: readonly DirectoryEntry[]): SimilarPair[] {
  const holders = new Map<string, number[]>();
  const pieces = entries.map((entry) => piecesOf(foldedName(entry.name)));
  const words = entries.map((entry) => wordsOfName(entry.name));
  const pairs: SimilarPair[] = [];
  // Of each entry, how many pieces it shares with the one that is looked at.
  const shared = new Uint16Array(entries.length);
  for (const [at, other] of entries.entries()) {
    const sharing: number[] = [];
    for (const piece of pieces[at] as ReadonlySet<string>) {
      const key = `${other.kind}\n${piece}`;
      const known = holders.get(key) ?? [];
      for (const earlier of known) {
        if (shared[earlier] === 0) sharing.push(earlier);
        shared[earlier] = (shared[earlier] as number) + 1;
      }
      known.push(at);
      holders.set(key, known);
    }
    for (const earlier of sharing) {
      const count = shared[earlier] as number;
      shared[earlier] = 0;
      const smaller = Math.min((pieces[earlier] as Set<string>).size, (pieces[at] as Set<string>).size);
      if (count / smaller < sharedPieces) continue;
      const one = entries[earlier] as DirectoryEntry;
      const similarity = likeness(words[earlier] as string[], words[at] as string[]);
      if (similarity >= likely) pairs.push({ one, other, similarity });
    }
  }
  return pairs.sort((a, b) => b.similarity - a.similarity || a.one.name.localeCompare(b.one.name));
}

function piecesOf(name: string): ReadonlySet<string> {
  const padded = ` ${name} `;
  const found = new Set<string>();
  for (let at = 0; at + 3 <= padded.length; at++) found.add(padded.slice(at, at + 3));
  return found;
}

/** How alike two names are, 0..1: the letters of words that have a partner in the other name, weighed by how alike those are. */
export const nameSimilarity = (a: string, b: string): number => likeness(wordsOfName(a), wordsOfName(b));

function likeness(first: readonly string[], second: readonly string[]): number {
  const [few, many] = first.length <= second.length ? [first, second] : [second, first];
  const isTaken = new Uint8Array(many.length);
  let letters = 0;
  for (const word of many) letters += word.length;
  for (const word of few) letters += word.length;
  let alike = 0;
  let partners = 0;
  const unlike: string[] = [];
  // Words that are the same need no judging, and are most of them where many names are much alike.
  for (const word of few) {
    let at = many.indexOf(word);
    while (at >= 0 && isTaken[at]) at = many.indexOf(word, at + 1);
    if (at < 0) {
      unlike.push(word);
      continue;
    }
    isTaken[at] = 1;
    partners++;
    alike += 2 * word.length;
  }
  let alone = 0;
  for (const word of unlike) {
    let best = 0;
    let partner = -1;
    for (let at = 0; at < many.length; at++) {
      if (isTaken[at]) continue;
      const similarity = wordSimilarity(word, many[at] as string);
      if (similarity > best) [best, partner] = [similarity, at];
    }
    if (partner < 0) {
      alone++;
      continue;
    }
    isTaken[partner] = 1;
    partners++;
    alike += best * (word.length + (many[partner] as string).length);
  }
  // A word on either side that the other lacks tells two things apart: "Crew north", "Crew south".
  if (alone > 0 && partners < many.length) return 0;
  return alike / letters;
}

function wordsOfName(name: string): string[] {
  return foldedName(name)
    .replace(/[^\p{L}\p{N}. ]+/gu, " ")
    .split(" ")
    .filter((word) => word !== "")
    .map((word) => (word.length > 3 && word.endsWith("s") && !word.endsWith("ss") ? word.slice(0, -1) : word));
}

/** "Netw." stands for "network": a dot, and the beginning of the word. */
const isShortFor = (short: string, long: string) =>
  short.endsWith(".") && short.length > 2 && long.startsWith(short.slice(0, -1));

function wordSimilarity(a: string, b: string): number {
  if (isShortFor(a, b) || isShortFor(b, a)) return 0.95;
  // In short words and numbers one other letter makes another word.
  const [shorter, longer] = a.length <= b.length ? [a.length, b.length] : [b.length, a.length];
  // Each letter that one has more is an edit.
  if (shorter < 4 || shorter < leastAlike * longer || /\d/.test(a) || /\d/.test(b)) return 0;
  const similarity = 1 - editDistance(a, b) / longer;
  return similarity < leastAlike ? 0 : similarity;
}

/**
 * Letters to put in, take out, change or swap with their neighbour to make one word the other (optimal string alignment).
 * @example editDistance("enigneer", "engineer") // 1
 * O(length × length).
 */
export function editDistance(a: string, b: string): number {
  let before: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, at) => at);
  for (let row = 1; row <= a.length; row++) {
    const now = [row];
    for (let column = 1; column <= b.length; column++) {
      const same = a[row - 1] === b[column - 1];
      let best = Math.min(
        (now[column - 1] as number) + 1,
        (last[column] as number) + 1,
        (last[column - 1] as number) + (same ? 0 : 1),
      );
      const swapped = row > 1 && column > 1 && a[row - 1] === b[column - 2] && a[row - 2] === b[column - 1];
      if (swapped) best = Math.min(best, (before[column - 2] as number) + 1);
      now.push(best);
    }
    [before, last] = [last, now];
  }
  return last[b.length] as number;
}
