import { type Entry, none } from "./answers";
import { contextFunctions } from "./contextFunctions";
import { conversions, textOf } from "./conversions";
import { listFunctions } from "./listFunctions";
import { numberFunctions } from "./numberFunctions";
import { rangeFunctions } from "./rangeFunctions";
import { DateAndTime } from "./temporal";
import { textFunctions } from "./textFunctions";
import { FeelFailure, FeelFunction, type FeelValue } from "./values";

/** What the language cannot know by itself: the clock. */
export interface Surroundings {
  /** ISO 8601, a date and a time with an offset. */
  readonly now?: string;
}

/** The functions of the language with their parameters (DMN 1.5, 10.3.4; from memory). */
const functions: readonly Entry[] = [
  ...conversions,
  ...textFunctions,
  ...listFunctions,
  ...numberFunctions,
  ...rangeFunctions,
  ...contextFunctions,
];

/**
 * The functions of the language by their names. What a function has no answer for is a failure that names it, where the standard has null
 * without a word; where an argument is null and the function has nothing to say of that, null stays null.
 */
export function builtIns({ now }: Surroundings = {}): ReadonlyMap<string, FeelValue> {
  const made = new Map<string, FeelValue>(
    functions.map(([name, parameters, run]) => {
      const names = parameters === "..." ? ["list"] : parameters.split(", ");
      const call = (args: readonly FeelValue[]): FeelValue => {
        const answer = run(...args);
        if (answer !== none) return answer;
        if (args.some((one) => one === null)) return null;
        throw new FeelFailure(
          `${name}(${args
            .map((one) => textOf(one, true))
            .join(", ")
            .slice(0, 120)}) has no value`,
        );
      };
      return [name, new FeelFunction(names, call)] as const;
    }),
  );
  const clock = now === undefined ? undefined : DateAndTime.read(now);
  const told = (value: FeelValue | undefined) =>
    new FeelFunction([], () => {
      if (value === undefined) throw new FeelFailure("it is not told what time it is");
      return value;
    });
  made.set("now", told(clock));
  made.set("today", told(clock?.date));
  return made;
}
export const builtInNames: readonly string[] = [...functions.map(([name]) => name), "now", "today"];
