/** How the words of a name are put together. */
export const caseStyles = ["camelCase", "PascalCase", "snake_case", "kebab-case", "UPPER_CASE"] as const;
export type CaseStyle = (typeof caseStyles)[number];

/** The naming standard of an IT department. */
export interface NamingRules {
  readonly style: CaseStyle;
  /** The words that begin the name of an operation; a name that begins otherwise is told. */
  readonly verbs: readonly string[];
  /** Words to replace, as whole words in any case: what stands for what. */
  readonly replace: readonly (readonly [from: string, to: string])[];
}

/** The words of a name: at blanks and signs, and where capitals begin ("readMeter2" is read, meter, 2). */
export function wordsOfName(name: string): string[] {
  return name
    .normalize("NFKD")
    .replace(/\p{Mn}/gu, "")
    .replace(/['’]/g, "")
    .replace(/(\p{Ll}|\p{Nd})(\p{Lu})/gu, "$1 $2")
    .replace(/(\p{Lu})(\p{Lu}\p{Ll})/gu, "$1 $2")
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== "");
}

/** A name in a style; "" where it has no letter or digit. Doing it again changes nothing. */
export function inCase(name: string, style: CaseStyle): string {
  const words = wordsOfName(name).map((word) => word.toLowerCase());
  const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);
  switch (style) {
    case "camelCase":
      return words.map((word, at) => (at === 0 ? word : capital(word))).join("");
    case "PascalCase":
      return words.map(capital).join("");
    case "snake_case":
      return words.join("_");
    case "kebab-case":
      return words.join("-");
    case "UPPER_CASE":
      return words.join("_").toUpperCase();
  }
}

export interface RuledName {
  readonly name: string;
  /** Whether it begins with one of the verbs, where there are any. */
  readonly beginsWithVerb: boolean;
}

/**
 * A name by the rules: words replaced, a verb that stands elsewhere put first, then the case. What begins with no verb is left to a
 * person.
 */
export function byRules(name: string, rules: NamingRules): RuledName {
  const verbs = new Set(rules.verbs.map((verb) => verb.toLowerCase()));
  let text = ` ${wordsOfName(name).join(" ")} `;
  for (const [from, to] of rules.replace) {
    const words = wordsOfName(from).map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, "\\$&"));
    if (words.length === 0) continue;
    text = text.replace(new RegExp(`(?<= )${words.join(" ")}(?= )`, "giu"), () => to);
  }
  const words = wordsOfName(text);
  const at = words.findIndex((word) => verbs.has(word.toLowerCase()));
  const ordered = at > 0 ? [words[at] as string, ...words.slice(0, at), ...words.slice(at + 1)] : words;
  return { name: inCase(ordered.join(" "), rules.style), beginsWithVerb: verbs.size === 0 || at >= 0 };
}
