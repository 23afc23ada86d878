import type { Expression, FeelSyntaxError, UnaryTests } from "../feel/language";

/** An expression as it stands in a file, and as it is read; or why it cannot be. */
export interface Written<Read> {
  readonly text: string;
  readonly read: Read | FeelSyntaxError;
}

/** A type by its name: simple, or one of the file with allowed values, parts, or many of it. */
export interface ItemType {
  readonly name: string;
  /** The type it is made from; undefined where it has parts. */
  readonly base: string | undefined;
  readonly isCollection: boolean;
  readonly allowed: Written<UnaryTests> | undefined;
  readonly parts: readonly ItemType[];
}

export interface TableInput {
  readonly expression: Written<Expression>;
  readonly type: string | undefined;
  readonly allowed: Written<UnaryTests> | undefined;
}
export interface TableOutput {
  readonly name: string;
  readonly type: string | undefined;
  readonly allowed: Written<UnaryTests> | undefined;
  readonly usual: Written<Expression> | undefined;
}
export type HitPolicy = "UNIQUE" | "FIRST" | "PRIORITY" | "ANY" | "COLLECT" | "RULE ORDER" | "OUTPUT ORDER";
export type Aggregator = "SUM" | "COUNT" | "MIN" | "MAX";

export interface TableRule {
  readonly inputs: readonly Written<UnaryTests>[];
  readonly outputs: readonly Written<Expression>[];
}
export interface DecisionTable {
  readonly kind: "table";
  readonly inputs: readonly TableInput[];
  readonly outputs: readonly TableOutput[];
  readonly rules: readonly TableRule[];
  readonly hitPolicy: HitPolicy;
  readonly aggregator: Aggregator | undefined;
}

/** How a decision comes to its result. */
export type Logic =
  | DecisionTable
  | { readonly kind: "expression"; readonly expression: Written<Expression> }
  | { readonly kind: "context"; readonly entries: readonly { readonly name: string; readonly logic: Logic }[] }
  | {
      readonly kind: "invocation";
      readonly of: Logic;
      readonly args: readonly { readonly name: string; readonly logic: Logic }[];
    }
  | { readonly kind: "list"; readonly items: readonly Logic[] }
  | { readonly kind: "relation"; readonly columns: readonly string[]; readonly rows: readonly (readonly Logic[])[] }
  | { readonly kind: "conditional"; readonly test: Logic; readonly so: Logic; readonly otherwise: Logic }
  | { readonly kind: "filter"; readonly of: Logic; readonly by: Logic }
  | {
      readonly kind: "iteration";
      readonly how: "for" | "some" | "every";
      readonly variable: string;
      readonly over: Logic;
      readonly each: Logic;
    }
  | { readonly kind: "function"; readonly parameters: readonly string[]; readonly body: Logic }
  | { readonly kind: "none"; readonly what: string };

export interface Decision {
  readonly id: string;
  readonly name: string;
  /** By what others know its result. */
  readonly variable: string;
  readonly type: string | undefined;
  readonly decisions: readonly string[];
  readonly inputs: readonly string[];
  readonly knowledge: readonly string[];
  readonly logic: Logic;
}
export interface InputData {
  readonly id: string;
  readonly name: string;
  readonly type: string | undefined;
}
export interface Knowledge {
  readonly id: string;
  readonly name: string;
  readonly knowledge: readonly string[];
  readonly logic: Logic;
}

/** The decisions of a file. */
export interface DecisionModel {
  readonly name: string;
  readonly types: ReadonlyMap<string, ItemType>;
  readonly inputs: ReadonlyMap<string, InputData>;
  readonly decisions: ReadonlyMap<string, Decision>;
  readonly knowledge: ReadonlyMap<string, Knowledge>;
}
