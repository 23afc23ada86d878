export { textOf } from "./conversions";
export type { UsedName } from "./cursor";
export { Decimal } from "./decimal";
export { builtInNames, builtIns, type Surroundings } from "./functions";
export { evaluateExpression, mentions, passes, readTemporal, Scope } from "./interpret";
export { namesUsed, parseExpression, parseUnaryTests } from "./parse";
export { type Expression, FeelSyntaxError, type UnaryTest, type UnaryTests } from "./syntax";
export { DateAndTime, Day, DaysAndTime, Months, TimeOfDay } from "./temporal";
export {
  compareValues,
  equalValues,
  FeelContext,
  FeelFailure,
  FeelFunction,
  FeelRange,
  type FeelValue,
  fromJson,
  isWithin,
  kindOf,
  toJson,
} from "./values";
