import type { Expression } from "../feel/language";
import { builtIns, evaluateExpression, FeelFailure, Scope, textOf } from "../feel/language";
import type { Decision, Written } from "./model";

const scope = new Scope(builtIns());

/**
 * What can come out of a decision, where that can be listed: the outputs of a table with one output that gives one value, each once.
 * @returns undefined where it cannot: an output is worked out, there are several, or a list comes out
 */
export function answersOf({ logic }: Decision): string[] | undefined {
  if (logic.kind !== "table" || logic.outputs.length !== 1) return undefined;
  if (["COLLECT", "RULE ORDER", "OUTPUT ORDER"].includes(logic.hitPolicy)) return undefined;
  const written = [...logic.rules.map((rule) => rule.outputs[0]), logic.outputs[0]?.usual];
  const answers = new Set<string>();
  for (const one of written) {
    if (!one || one.text === "") continue;
    const answer = constantOf(one);
    if (answer === undefined) return undefined;
    answers.add(answer);
  }
  return [...answers];
}

function constantOf({ read }: Written<Expression>): string | undefined {
  if (read instanceof Error) return undefined;
  try {
    return textOf(evaluateExpression(read, scope)) ?? undefined;
  } catch (error) {
    if (error instanceof FeelFailure) return undefined;
    throw error;
  }
}
