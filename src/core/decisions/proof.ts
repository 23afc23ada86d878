import {
  builtIns,
  type Expression,
  equalValues,
  evaluateExpression,
  FeelFailure,
  FeelRange,
  type FeelValue,
  mentions,
  passes,
  Scope,
  toJson,
  type UnaryTest,
  type UnaryTests,
} from "../feel/language";
import { type Axis, axisOf, wordsFor } from "./axis";
import type { DecisionModel, DecisionTable, Written } from "./model";
import { type Box, leftBy, piecesIn } from "./sweep";
import { simpleType } from "./types";
import type { Example, TableProof } from "./verify";

/** So many parts a search may look at, so that no table takes for ever. */
const mostParts = 2_000_000;
/** A table of which something cannot be said, and why. */
export class Unclear extends Error {}

/** A table as boxes: each input cut at all values its cells speak of, each rule the pieces it takes. */
export class Proof {
  readonly axes: readonly Axis[];
  /** By input: the pieces that are allowed at all. */
  readonly allowed: readonly ReadonlySet<number>[];
  /** By rule and input: the allowed pieces that it takes. */
  readonly boxes: readonly (readonly ReadonlySet<number>[])[];
  readonly #scope = new Scope(builtIns());
  readonly #budget = { left: mostParts };

  constructor(
    readonly model: DecisionModel,
    readonly table: DecisionTable,
  ) {
    const { inputs, rules } = table;
    const axes: Axis[] = [];
    const allowed: ReadonlySet<number>[] = [];
    for (const [column, input] of inputs.entries()) {
      const data = [...model.inputs.values()].find(({ name }) => name === input.expression.text);
      const type = input.type ?? data?.type;
      const limits = [input.allowed, ...this.#limitsOf(type)].filter((one) => one !== undefined);
      const cells = rules.map((rule) => rule.inputs[column] as Written<UnaryTests>);
      const points = [...cells, ...limits].flatMap((cell) => this.#pointsOf(cell, input.expression.text));
      const axis = axisOf(input.expression.text, simpleType(model, type), points);
      if (!axis)
        throw new Unclear(`The cells of "${input.expression.text}" speak of values that have no common order.`);
      axes.push(axis);
      const all = axis.segments.flatMap(({ sample }, at) =>
        limits.every((limit) => this.#takes(limit, sample, input.expression.text)) ? [at] : [],
      );
      allowed.push(new Set(all));
    }
    this.axes = axes;
    this.allowed = allowed;
    this.boxes = rules.map((rule) =>
      axes.map(
        (axis, column) =>
          new Set(
            [...(allowed[column] as ReadonlySet<number>)].filter((at) =>
              this.#takes(rule.inputs[column] as Written<UnaryTests>, axis.segments[at]?.sample ?? null, axis.name),
            ),
          ),
      ),
    );
  }

  /** What a type of the file allows, down to the simple one it is made from. */
  #limitsOf(type: string | undefined): Written<UnaryTests>[] {
    const limits: Written<UnaryTests>[] = [];
    const seen = new Set<string>();
    for (
      let item = this.model.types.get(type ?? "");
      item && !seen.has(item.name);
      item = this.model.types.get(item.base ?? "")
    ) {
      if (item.isCollection || item.parts.length > 0)
        throw new Unclear(
          `Values of the type ${item.name} are lists or have parts, which cannot be looked at one by one.`,
        );
      seen.add(item.name);
      if (item.allowed) limits.push(item.allowed);
    }
    return limits;
  }

  #takes({ read, text }: Written<UnaryTests>, sample: FeelValue, column: string): boolean {
    if (read instanceof Error) throw new Unclear(`"${text}" of "${column}" cannot be read.`);
    try {
      return passes(read, sample, this.#scope);
    } catch (error) {
      if (!(error instanceof FeelFailure)) throw error;
      throw new Unclear(`"${text}" of "${column}" cannot be analysed: ${error.message}.`);
    }
  }

  /** The values a cell speaks of: within those nothing changes. */
  #pointsOf({ read, text }: Written<UnaryTests>, column: string): FeelValue[] {
    if (read instanceof Error) throw new Unclear(`"${text}" of "${column}" cannot be read.`);
    if (read.kind === "any") return [];
    return read.tests.flatMap((test) => this.#pointsIn(test, text, column)).filter((value) => value !== null);
  }
  #pointsIn(test: UnaryTest, text: string, column: string): FeelValue[] {
    const expression = test.kind === "compare" ? test.to : test.value;
    if (mentions(expression, "?"))
      throw new Unclear(`"${text}" of "${column}" is a condition of its own, which cannot be analysed.`);
    let value: FeelValue;
    try {
      value = evaluateExpression(expression, this.#scope);
    } catch (error) {
      if (!(error instanceof FeelFailure)) throw error;
      throw new Unclear(`"${text}" of "${column}" hangs on more than its own value, and cannot be analysed.`);
    }
    const isOrder =
      (test.kind === "compare" && test.operator !== "=" && test.operator !== "!=") || value instanceof FeelRange;
    const points = value instanceof FeelRange ? [value.start, value.end] : Array.isArray(value) ? value : [value];
    const plain = points.flatMap((one): FeelValue[] =>
      one instanceof FeelRange ? [one.start, one.end] : [one as FeelValue],
    );
    if (isOrder && plain.some((one) => typeof one === "string"))
      throw new Unclear(`"${text}" of "${column}" orders texts, of which there is no end, and cannot be analysed.`);
    return plain;
  }

  example(choose: (column: number) => number | undefined): Example {
    return Object.fromEntries(
      this.axes.map(({ name, segments }, column) => [name, toJson(segments[choose(column) ?? 0]?.sample ?? null)]),
    );
  }

  /** The parts of what is allowed that no rule takes. */
  left(): Box[] {
    return leftBy(this.boxes, this.allowed, this.#budget);
  }

  gaps(): TableProof["gaps"] {
    return this.left().map((box) => {
      const pieces = box.map(piecesIn);
      const said = this.axes.flatMap((axis, column) => {
        const words = wordsFor(axis, new Set(pieces[column]), this.allowed[column] as ReadonlySet<number>);
        return words === "" ? [] : [`${axis.name} ${words}`];
      });
      return { when: said.join(", ") || "always", example: this.example((column) => pieces[column]?.[0]) };
    });
  }

  hidden(): number[] {
    return this.boxes.flatMap((box, at) => {
      const isEmpty = box.some((pieces) => pieces.size === 0);
      return isEmpty || leftBy(this.boxes.slice(0, at), box, this.#budget).length === 0 ? [at + 1] : [];
    });
  }

  overlaps(): TableProof["overlaps"] {
    const found: TableProof["overlaps"][number][] = [];
    for (const [a, one] of this.boxes.entries())
      for (let b = a + 1; b < this.boxes.length; b++) {
        const other = this.boxes[b] as readonly ReadonlySet<number>[];
        const meeting = one.map((pieces, column) => [...pieces].find((piece) => other[column]?.has(piece)));
        if (meeting.includes(undefined)) continue;
        found.push({
          rules: [a + 1, b + 1],
          conflict: this.#differs(a, b),
          example: this.example((column) => meeting[column]),
        });
      }
    return found;
  }

  /** Whether two rules have other outputs: by their values where they have one by themselves, else by their words. */
  #differs(a: number, b: number): boolean {
    const { rules, outputs } = this.table;
    return outputs.some((_, column) => {
      const [one, other] = [rules[a]?.outputs[column], rules[b]?.outputs[column]];
      if (!one || !other) return false;
      if (one.text === other.text) return false;
      const [first, second] = [this.#constant(one), this.#constant(other)];
      return first === undefined || second === undefined || equalValues(first, second) !== true;
    });
  }
  #constant({ read }: Written<Expression>): FeelValue | undefined {
    if (read instanceof Error) return undefined;
    try {
      return evaluateExpression(read, this.#scope);
    } catch (error) {
      if (error instanceof FeelFailure) return undefined;
      throw error;
    }
  }
}
