import { FeelContext, FeelFailure, FeelFunction, FeelRange, type FeelValue } from "./values";

export const fail = (message: string): never => {
  throw new FeelFailure(message);
};
/** A value in a reason: short, and never its whole content. */
export const shown = (value: FeelValue): string =>
  value === null
    ? "null"
    : typeof value === "string"
      ? `"${value.slice(0, 40)}"`
      : Array.isArray(value)
        ? "a list"
        : value instanceof FeelContext
          ? "a context"
          : value instanceof FeelFunction
            ? "a function"
            : value instanceof FeelRange
              ? "a range"
              : String(value);
