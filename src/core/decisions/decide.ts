import {
  builtIns,
  Decimal,
  type Expression,
  equalValues,
  evaluateExpression,
  FeelContext,
  FeelFailure,
  FeelFunction,
  FeelRange,
  type FeelValue,
  fromJson,
  passes,
  Scope,
  type Surroundings,
  textOf,
  toJson,
  type UnaryTests,
} from "../feel/language";
import { Broken } from "./broken";
import { aggregated, inOrder } from "./hitPolicies";
import type {
  Decision,
  DecisionModel,
  DecisionTable,
  InputData,
  Knowledge,
  Logic,
  TableOutput,
  Written,
} from "./model";
import { asType } from "./types";

/** What a decision comes to. */
export interface Decided {
  readonly decision: string;
  readonly result: unknown;
  /** Numbers from 1 of the rules that matched, where it is a table. */
  readonly rules: readonly number[];
  /** What the data breaks, in words; the result is null then. */
  readonly problems: readonly string[];
}

/** The decisions that no other one requires. */
export function topDecisions({ decisions }: DecisionModel): Decision[] {
  const required = new Set([...decisions.values()].flatMap((one) => one.decisions));
  return [...decisions.values()].filter(({ id }) => !required.has(id));
}

/** The inputs that a decision needs, itself or by what it requires, each once. O(decisions). */
export function inputsNeeded(model: DecisionModel, decision: Decision): InputData[] {
  const seen = new Set([decision.id]);
  const inputs = new Set<string>();
  for (const id of seen) {
    const one = model.decisions.get(id);
    for (const input of one?.inputs ?? []) inputs.add(input);
    for (const required of one?.decisions ?? []) seen.add(required);
  }
  return [...inputs].flatMap((id) => model.inputs.get(id) ?? []);
}

/**
 * Decides: the decisions and business knowledge models it requires first, then its own table or expression.
 * @param data by the names of inputs, as JSON has it
 * Source: DMN 1.5, chapters 6 to 8 and 10 (from memory). O(rules × inputs) for each table, and what expressions take.
 */
export function decide(
  model: DecisionModel,
  decision: Decision,
  data: { readonly [name: string]: unknown },
  surroundings: Surroundings = {},
): Decided {
  const deciding = new Deciding(model, data, surroundings);
  try {
    const { value, rules } = deciding.decision(decision.id);
    return { decision: decision.id, result: toJson(value), rules, problems: [] };
  } catch (error) {
    if (!(error instanceof Broken || error instanceof FeelFailure)) throw error;
    const rules = error instanceof Broken && error.decision === decision.id ? error.rules : [];
    return { decision: decision.id, result: null, rules, problems: [sentence(error.message)] };
  }
}
/** What a table makes of some data: the value of each input, and for each rule which of its cells take it. */
export interface Looked {
  readonly inputs: readonly { readonly name: string; readonly value: unknown }[];
  /** By rule and input; null where a cell cannot be told. */
  readonly rules: readonly (readonly (boolean | null)[])[];
  /** What keeps the table from being looked at. */
  readonly problem: string | undefined;
}

/** Looks at a table with data, so that one sees which rules match and why the others do not. O(rules × inputs). */
export function lookAt(
  model: DecisionModel,
  decision: Decision,
  data: { readonly [name: string]: unknown },
  surroundings: Surroundings = {},
): Looked {
  try {
    return { ...new Deciding(model, data, surroundings).look(decision), problem: undefined };
  } catch (error) {
    if (!(error instanceof Broken || error instanceof FeelFailure)) throw error;
    return { inputs: [], rules: [], problem: sentence(error.message) };
  }
}

const sentence = (message: string) =>
  `${message.charAt(0).toUpperCase()}${message.slice(1)}${/[.!?]$/.test(message) ? "" : "."}`;

interface Outcome {
  readonly value: FeelValue;
  readonly rules: readonly number[];
}

class Deciding {
  readonly #decided = new Map<string, Outcome>();
  readonly #underWay = new Set<string>();
  readonly #scope: Scope;
  readonly #given: ReadonlyMap<string, FeelValue>;

  constructor(
    readonly model: DecisionModel,
    data: { readonly [name: string]: unknown },
    surroundings: Surroundings,
  ) {
    this.#scope = new Scope(builtIns(surroundings));
    this.#given = this.#typed(data);
  }

  /** Data as the inputs of the file have it. */
  #typed(data: { readonly [name: string]: unknown }): ReadonlyMap<string, FeelValue> {
    const given = new Map(Object.entries(data).map(([name, value]) => [name, fromJson(value)]));
    for (const { name, type } of this.model.inputs.values()) {
      const value = given.get(name);
      if (value === undefined) continue;
      const typed = asType(this.model, value, type, this.#scope);
      if ("fault" in typed) this.#faults.set(name, `the input ${name} is ${textOf(value, true)}, which ${typed.fault}`);
      else given.set(name, typed.value);
    }
    return given;
  }
  readonly #faults = new Map<string, string>();

  decision(id: string): Outcome {
    const known = this.#decided.get(id);
    if (known) return known;
    const decision = this.model.decisions.get(id);
    if (!decision) throw new Broken(`the decision "${id}" is not in this file`);
    if (this.#underWay.has(id)) throw new Broken(`"${decision.name}" requires itself`);
    this.#underWay.add(id);
    const outcome = this.#logic(decision.logic, this.#within(decision), decision);
    this.#underWay.delete(id);
    this.#decided.set(id, outcome);
    return outcome;
  }

  /** What a decision can use: the data, and what it requires. */
  #within(decision: Decision): Scope {
    for (const input of decision.inputs) {
      const fault = this.#faults.get(this.model.inputs.get(input)?.name ?? "");
      if (fault) throw new Broken(fault, decision.id);
    }
    const names = new Map<string, FeelValue>(this.#given);
    for (const required of decision.decisions) {
      const one = this.model.decisions.get(required);
      names.set(one?.variable ?? required, this.decision(required).value);
    }
    return new Scope(names, this.#knowledge(decision.knowledge, this.#scope));
  }

  /** The values of a table's inputs, and what its cells make of them. */
  look(decision: Decision): Omit<Looked, "problem"> {
    const { logic } = decision;
    if (logic.kind !== "table") return { inputs: [], rules: [] };
    const scope = this.#within(decision);
    const values = this.#inputValues(logic, scope, decision);
    const takes = (tests: Written<UnaryTests>, column: number): boolean | null => {
      try {
        return this.#passes(tests, values[column] ?? null, scope);
      } catch (error) {
        if (error instanceof Broken) return null;
        throw error;
      }
    };
    return {
      inputs: logic.inputs.map(({ expression }, at) => ({ name: expression.text, value: toJson(values[at] ?? null) })),
      rules: logic.rules.map(({ inputs }) => inputs.map(takes)),
    };
  }

  /** What some business knowledge models are known by, and those they need themselves; each may call the others, and itself. */
  #knowledge(ids: readonly string[], outer: Scope): Scope {
    const names = new Map<string, FeelValue>();
    const scope = new Scope(names, outer);
    const needed = [...ids];
    const seen = new Set(ids);
    for (const id of needed) {
      const one = this.model.knowledge.get(id);
      if (!one) throw new Broken(`the business knowledge model "${id}" is not in this file`);
      for (const more of one.knowledge)
        if (!seen.has(more)) {
          seen.add(more);
          needed.push(more);
        }
      names.set(one.name, this.#logic(one.logic, scope, one).value);
    }
    return scope;
  }

  #logic(logic: Logic, scope: Scope, of: Decision | Knowledge): Outcome {
    const value = (found: FeelValue): Outcome => ({ value: found, rules: [] });
    switch (logic.kind) {
      case "table":
        return this.#table(logic, scope, of);
      case "expression":
        return value(this.#evaluate(logic.expression, scope));
      case "context": {
        const entries = new Map<string, FeelValue>();
        for (const { name, logic: inner } of logic.entries) {
          const found = this.#logic(inner, new Scope(entries, scope), of).value;
          // The last entry without a name is what the context comes to.
          if (name === "") return value(found);
          entries.set(name, found);
        }
        return value(new FeelContext(entries));
      }
      case "invocation": {
        const called = this.#logic(logic.of, scope, of).value;
        if (!(called instanceof FeelFunction)) throw new Broken(`"${of.name}" calls what is no function`);
        const args = called.parameters.map((name) => {
          const arg = logic.args.find((one) => one.name === name);
          return arg ? this.#logic(arg.logic, scope, of).value : null;
        });
        return value(called.call(args));
      }
      case "list":
        return value(logic.items.map((item) => this.#logic(item, scope, of).value));
      case "relation":
        return value(
          logic.rows.map(
            (row) =>
              new FeelContext(
                new Map(
                  logic.columns.map((name, at) => [name, row[at] ? this.#logic(row[at], scope, of).value : null]),
                ),
              ),
          ),
        );
      case "conditional":
        return this.#logic(this.#logic(logic.test, scope, of).value === true ? logic.so : logic.otherwise, scope, of);
      case "filter":
        return value(this.#filtered(logic.of, logic.by, scope, of));
      case "iteration": {
        const found = this.#logic(logic.over, scope, of).value;
        const each = this.#items(found).map(
          (item) => this.#logic(logic.each, new Scope(new Map([[logic.variable, item]]), scope), of).value,
        );
        if (logic.how === "for") return value(each);
        const [decisive, rest] = logic.how === "some" ? [true, false] : [false, true];
        if (each.includes(decisive)) return value(decisive);
        return value(each.every((one) => one === rest) ? rest : null);
      }
      case "function": {
        const { parameters, body } = logic;
        return value(
          new FeelFunction(parameters, (args) => {
            const names = new Map(parameters.map((name, at) => [name, args[at] ?? null] as const));
            return this.#logic(body, new Scope(names, scope), of).value;
          }),
        );
      }
      case "none":
        throw new Broken(`"${logic.what}" has no table or expression that can be decided by`);
    }
  }

  /** One value is a list of one (DMN 1.5, 10.3.2.6); null is none. */
  #items(value: FeelValue): readonly FeelValue[] {
    if (Array.isArray(value)) return value;
    if (value instanceof FeelRange) throw new Broken("a range is gone through in an expression only");
    return value === null ? [] : [value];
  }

  /** The items for which something holds, by `item` and the names of its parts; or the one at a place. */
  #filtered(list: Logic, by: Logic, scope: Scope, of: Decision | Knowledge): FeelValue {
    const items = this.#items(this.#logic(list, scope, of).value);
    const kept: FeelValue[] = [];
    for (const item of items) {
      const names = new Map<string, FeelValue>(item instanceof FeelContext ? item.entries : []);
      names.set("item", item);
      const found = this.#logic(by, new Scope(names, scope), of).value;
      if (found instanceof Decimal) {
        const at = Number(found.toString());
        return items[at < 0 ? items.length + at : at - 1] ?? null;
      }
      if (found === true) kept.push(item);
    }
    return kept;
  }

  #evaluate({ text, read }: Written<Expression>, scope: Scope): FeelValue {
    if (read instanceof Error) throw new Broken(`"${text}" cannot be read: ${read.message}`);
    try {
      return evaluateExpression(read, scope);
    } catch (error) {
      if (!(error instanceof FeelFailure)) throw error;
      const [, missing] = /^nothing is known of "(.*)"$/.exec(error.message) ?? [];
      if (missing !== undefined) throw new Broken(`"${missing}" is missing, which "${text}" needs`);
      throw new Broken(error instanceof Broken ? error.message : `"${text}" fails: ${error.message}`);
    }
  }

  #table(table: DecisionTable, scope: Scope, of: Decision | Knowledge): Outcome {
    const { rules, hitPolicy } = table;
    const values = this.#inputValues(table, scope, of);
    const matched: number[] = [];
    for (const [at, rule] of rules.entries()) {
      if (!rule.inputs.every((tests, column) => this.#passes(tests, values[column] ?? null, scope))) continue;
      matched.push(at);
      if (hitPolicy === "FIRST") break;
    }
    const numbers = matched.map((at) => at + 1);
    if (matched.length === 0) return { value: this.#usual(table, scope), rules: numbers };
    if (hitPolicy === "UNIQUE" && matched.length > 1)
      throw new Broken(
        `the rules ${numbers.join(" and ")} of "${of.name}" both match, where only one may`,
        of.id,
        numbers,
      );
    const outcomes = matched.map((at) =>
      table.outputs.map((output, column) => this.#output(table, at, column, output, scope, of, numbers)),
    );
    const [first] = outcomes as [FeelValue[], ...FeelValue[][]];
    if (
      hitPolicy === "ANY" &&
      outcomes.some((one) => one.some((value, column) => equalValues(value, first[column] ?? null) !== true))
    )
      throw new Broken(
        `the rules ${numbers.join(" and ")} of "${of.name}" match with different outputs`,
        of.id,
        numbers,
      );
    const whole = (outputs: readonly FeelValue[]): FeelValue =>
      table.outputs.length === 1
        ? (outputs[0] ?? null)
        : new FeelContext(new Map(table.outputs.map(({ name }, column) => [name, outputs[column] ?? null])));
    const ordered = () => inOrder(outcomes, table.outputs, (allowed) => this.#listed(allowed, scope));
    switch (hitPolicy) {
      case "PRIORITY":
        return { value: whole(ordered()[0] ?? first), rules: numbers };
      case "OUTPUT ORDER":
        return { value: ordered().map(whole), rules: numbers };
      case "RULE ORDER":
        return { value: outcomes.map(whole), rules: numbers };
      case "COLLECT": {
        const collected = outcomes.map(whole);
        if (!table.aggregator) return { value: collected, rules: numbers };
        return { value: aggregated(table.aggregator, collected, of.name), rules: numbers };
      }
      default:
        return { value: whole(first), rules: numbers };
    }
  }

  #inputValues(table: DecisionTable, scope: Scope, of: Decision | Knowledge): FeelValue[] {
    return table.inputs.map(({ expression, type, allowed }) => {
      const value = this.#evaluate(expression, scope);
      const typed = asType(this.model, value, type, scope);
      if ("fault" in typed)
        throw new Broken(`the input ${expression.text} is ${textOf(value, true)}, which ${typed.fault}`, of.id);
      if (allowed && typed.value !== null && !this.#passes(allowed, typed.value, scope))
        throw new Broken(
          `the input ${expression.text} is ${textOf(typed.value, true)}, which is not among the allowed values ${allowed.text}`,
          of.id,
        );
      return typed.value;
    });
  }

  #output(
    table: DecisionTable,
    rule: number,
    column: number,
    output: TableOutput,
    scope: Scope,
    of: Decision | Knowledge,
    matched: readonly number[],
  ): FeelValue {
    const written = table.rules[rule]?.outputs[column];
    const value = written ? this.#evaluate(written, scope) : null;
    const typed = asType(this.model, value, output.type, scope);
    const where = `the output ${output.name} of rule ${rule + 1}`;
    if ("fault" in typed) throw new Broken(`${where} is ${textOf(value, true)}, which ${typed.fault}`, of.id, matched);
    if (output.allowed && typed.value !== null && !this.#passes(output.allowed, typed.value, scope))
      throw new Broken(
        `${where} is ${textOf(typed.value, true)}, which is not among its allowed values ${output.allowed.text}`,
        of.id,
        matched,
      );
    return typed.value;
  }

  /** What is so where no rule matches. */
  #usual({ outputs }: DecisionTable, scope: Scope): FeelValue {
    if (outputs.every(({ usual }) => !usual)) return null;
    const values = outputs.map(({ usual, type }) => {
      const value = usual ? this.#evaluate(usual, scope) : null;
      const typed = asType(this.model, value, type, scope);
      return "fault" in typed ? value : typed.value;
    });
    if (outputs.length === 1) return values[0] ?? null;
    return new FeelContext(new Map(outputs.map(({ name }, at) => [name, values[at] ?? null])));
  }

  #passes({ text, read }: Written<UnaryTests>, value: FeelValue, scope: Scope): boolean {
    if (read instanceof Error) throw new Broken(`"${text}" cannot be read: ${read.message}`);
    try {
      return passes(read, value, scope);
    } catch (error) {
      if (!(error instanceof FeelFailure)) throw error;
      const [, missing] = /^nothing is known of "(.*)"$/.exec(error.message) ?? [];
      throw new Broken(
        missing === undefined ? `"${text}" fails: ${error.message}` : `"${missing}" is missing, which "${text}" needs`,
      );
    }
  }

  /** The values of a list of allowed ones, in their order: the first is the most important. */
  #listed({ read }: Written<UnaryTests>, scope: Scope): readonly FeelValue[] {
    if (read instanceof Error || read.kind === "any") return [];
    return read.tests.flatMap((test) => (test.kind === "is" ? [evaluateExpression(test.value, scope)] : []));
  }
}
