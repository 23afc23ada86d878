import { builtInNames, FeelSyntaxError, namesUsed } from "./language";

/** What a condition is: something a machine can decide by, or words for people. */
export type ConditionReading =
  | {
      readonly kind: "executable";
      /** Data it asks for, by name; and which of that is not known where the condition stands. */
      readonly asks: readonly string[];
      readonly unknown: readonly string[];
    }
  | {
      readonly kind: "words";
      /** Where it breaks off as FEEL, where it does. */
      readonly at?: number;
      /** Names it would need if FEEL was meant. */
      readonly unknown?: readonly string[];
    };

/**
 * Reads a condition as FEEL (DMN 1.5, chapter 10 "Expression Language"). Names with blanks are known by the data in reach. Nothing
 * that is merely a row of words is taken for FEEL, though by its grammar it could be one long name: "application is complete".
 * @example readCondition("rated power <= 10", ["rated power"]) // executable, asks for "rated power"
 */
export function readCondition(text: string, dataInReach: readonly string[]): ConditionReading {
  const typed = text.trim();
  try {
    const used = namesUsed(typed, [...builtInNames, ...dataInReach], "expression", true);
    const asked = used.filter((one) => {
      const isCalled = /^\s*\(/.test(typed.slice(one.to));
      return !one.isOwn && !one.isPart && !(isCalled && builtInNames.includes(one.name));
    });
    const asks = [...new Set(asked.map(({ name }) => name))];
    const unknown = asks.filter((name) => !dataInReach.includes(name));
    const isBareName = asked.length === 1 && asked[0]?.name.length === typed.replace(/\s+/g, " ").length;
    if (isBareName && unknown.length > 0) return { kind: "words" };
    if (unknown.some((name) => /\s/.test(name))) return { kind: "words", unknown };
    return { kind: "executable", asks, unknown };
  } catch (error) {
    if (error instanceof FeelSyntaxError) return { kind: "words", at: error.at };
    throw error;
  }
}
