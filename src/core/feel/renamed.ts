import { builtInNames, FeelSyntaxError, namesUsed, type UsedName } from "./language";

/**
 * An expression (or the tests of a cell) in which a piece of data has another name: the data itself, or a part of it along a path.
 * @param known names of data and of parts
 * @param path from the data down to what gets the name, as "application", "rated power"
 * @returns the same text where it names nothing of that, or cannot be read. O(length × known names).
 * @example renamedIn("application.power > 5", [], ["application", "power"], "rated power") // application.rated power > 5
 */
export function renamedIn(
  text: string,
  known: readonly string[],
  path: readonly string[],
  to: string,
  what: "expression" | "tests" = "expression",
): string {
  let used: UsedName[];
  try {
    used = namesUsed(text, [...builtInNames, ...known, ...path], what, true);
  } catch (error) {
    if (error instanceof FeelSyntaxError) return text;
    throw error;
  }
  const found: UsedName[] = [];
  let chain: UsedName[] = [];
  for (const one of used) {
    const last = chain.at(-1);
    const goesOn = one.isPart && last !== undefined && /^\s*(\[[^\]]*\]\s*)?\.\s*$/.test(text.slice(last.to, one.from));
    chain = goesOn ? [...chain, one] : one.isPart ? [] : [one];
    const isIt = chain.length === path.length && chain.every(({ name }, at) => name === path[at]) && !chain[0]?.isOwn;
    if (isIt) found.push(one);
  }
  return found.reduceRight((words, { from, to: end }) => words.slice(0, from) + to + words.slice(end), text);
}
