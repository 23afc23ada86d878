import { parseExpression } from "feelin";
import { effortOf, mostEffort } from "./effort";

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
      /** It would take more steps than a condition may, or look for a pattern that has no end. */
      readonly isEndless?: boolean;
    };

/**
 * Reads a condition as FEEL (DMN 1.3, chapter 10 "Expression Language"). Names with blanks are known by the data in reach. Nothing
 * that is merely a row of words is taken for FEEL, though by its grammar it could be one long name: "application is complete".
 * @example readCondition("rated power <= 10", ["rated power"]) // executable, asks for "rated power"
 */
export function readCondition(text: string, dataInReach: readonly string[]): ConditionReading {
  const typed = text.trim();
  const tree = parseExpression(typed, Object.fromEntries(dataInReach.map((name) => [name, {}])), undefined);
  const names = new Set<string>();
  const bound = new Set<string>();
  const nodes: string[] = [];
  let broken: number | undefined;
  let functionAt = -1;
  tree.iterate({
    enter: ({ name, from, to, type }) => {
      if (type.isError) broken ??= from;
      nodes.push(name);
      if (name === "FunctionInvocation") functionAt = from;
      else if (name === "Name") bound.add(typed.slice(from, to));
      else if (name === "Type") return false;
      else if (name === "VariableName" && from !== functionAt) names.add(typed.slice(from, to));
      return true;
    },
  });
  if (broken !== undefined) return { kind: "words", at: broken };
  if (effortOf(typed, {}) > mostEffort) return { kind: "words", isEndless: true };
  const asks = [...names].filter((name) => !bound.has(name));
  const unknown = asks.filter((name) => !dataInReach.includes(name));
  const isBareName = nodes[1] === "VariableName" && nodes.slice(2).every((name) => name === "Identifier");
  if (isBareName && unknown.length > 0) return { kind: "words" };
  if (unknown.some((name) => /\s/.test(name))) return { kind: "words", unknown };
  return { kind: "executable", asks, unknown };
}
