/** A parsed expression. */
export type Expression =
  | { readonly kind: "number"; readonly text: string }
  | { readonly kind: "text"; readonly value: string }
  | { readonly kind: "literal"; readonly value: boolean | null }
  /** @"2027-03-31", a date, a time or a duration. */
  | { readonly kind: "at"; readonly value: string }
  | { readonly kind: "name"; readonly name: string }
  | { readonly kind: "negate"; readonly of: Expression }
  | {
      readonly kind: "binary";
      readonly operator: "+" | "-" | "*" | "/" | "**" | "=" | "!=" | "<" | "<=" | ">" | ">=" | "and" | "or";
      readonly left: Expression;
      readonly right: Expression;
    }
  | { readonly kind: "between"; readonly of: Expression; readonly from: Expression; readonly to: Expression }
  | { readonly kind: "in"; readonly of: Expression; readonly tests: readonly UnaryTest[] }
  | { readonly kind: "instance"; readonly of: Expression; readonly type: string }
  | { readonly kind: "path"; readonly of: Expression; readonly name: string }
  | { readonly kind: "filter"; readonly of: Expression; readonly by: Expression }
  | {
      readonly kind: "call";
      readonly of: Expression;
      readonly args: readonly Expression[];
      /** Names of arguments, where they are given by name. */
      readonly names: readonly string[] | undefined;
    }
  | { readonly kind: "list"; readonly items: readonly Expression[] }
  | { readonly kind: "context"; readonly entries: readonly { readonly key: string; readonly value: Expression }[] }
  | {
      readonly kind: "range";
      readonly start: Expression | undefined;
      readonly end: Expression | undefined;
      readonly hasStart: boolean;
      readonly hasEnd: boolean;
    }
  | { readonly kind: "if"; readonly test: Expression; readonly then: Expression; readonly otherwise: Expression }
  | {
      readonly kind: "for";
      readonly over: readonly Iteration[];
      readonly result: Expression;
    }
  | {
      readonly kind: "quantified";
      readonly isEvery: boolean;
      readonly over: readonly Iteration[];
      readonly test: Expression;
    }
  | { readonly kind: "function"; readonly parameters: readonly string[]; readonly body: Expression };

export interface Iteration {
  readonly name: string;
  readonly in: Expression;
  /** Where it runs from one number or date to another. */
  readonly to: Expression | undefined;
}

/** A test of one value (DMN 1.5, 10.3.1.2, grammar rules 7 to 17; from memory). */
export type UnaryTest =
  | { readonly kind: "compare"; readonly operator: "<" | "<=" | ">" | ">=" | "=" | "!="; readonly to: Expression }
  /** A value it is equal to, a list or a range it is in, or a condition about "?". */
  | { readonly kind: "is"; readonly value: Expression };

/** The tests of a cell: any of them, none of them, or whatever there is. */
export type UnaryTests =
  | { readonly kind: "any" }
  | { readonly kind: "some" | "none"; readonly tests: readonly UnaryTest[] };

/** What cannot be read, and where: places count from 0. */
export class FeelSyntaxError extends Error {
  constructor(
    message: string,
    readonly at: number,
  ) {
    super(message);
  }
}
