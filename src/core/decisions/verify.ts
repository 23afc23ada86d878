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
import type { Decision, DecisionModel, DecisionTable, HitPolicy, Written } from "./model";
import { simpleType } from "./types";

/** Data, by input expression, at which what is said can be seen. */
export type Example = { readonly [expression: string]: unknown };

/** What a table leaves out, says twice, and can never say. */
export interface TableProof {
  readonly decision: string;
  readonly hitPolicy: HitPolicy;
  /** Null where a cell cannot be analysed; why stands in the problems. */
  readonly complete: boolean | null;
  readonly gaps: readonly { readonly when: string; readonly example: Example }[];
  /** Pairs of rules, by their numbers from 1, that some input satisfies both. */
  readonly overlaps: readonly {
    readonly rules: readonly [number, number];
    readonly conflict: boolean;
    readonly example: Example;
  }[];
  /** Rules under FIRST that those before them take everything from. */
  readonly hidden: readonly number[];
  readonly problems: readonly string[];
}

/** So many parts a search may look at, so that no table takes for ever. */
const mostParts = 2_000_000;
const mostGaps = 20_000;
class TooMuch extends Error {}
class Unclear extends Error {}

/**
 * Proves a table: the inputs no rule takes, the pairs of rules that meet, the rules that are never come to. Each input is cut at all values
 * its cells speak of; within a piece no cell changes its mind, so one value of each decides (a sweep over the rules' boxes, input by input).
 * Null is not looked at.
 * Source of the method: D. Calvanese, M. Dumas, Ü. Laurson, F. M. Maggi, M. Montali, I. Teinemaa, "Semantics, Analysis and Simplification of
 * DMN Decision Tables" (Information Systems 78, 2018), from memory. O(rules² × inputs × pieces), and what the gaps themselves take.
 */
export function proveTable(model: DecisionModel, decision: Decision, table: DecisionTable): TableProof {
  const head = { decision: decision.id, hitPolicy: table.hitPolicy };
  const nothing = { ...head, complete: null, gaps: [], overlaps: [], hidden: [] };
  try {
    const proof = new Proof(model, table);
    const hidden = table.hitPolicy === "FIRST" ? proof.hidden() : [];
    const overlaps = proof.overlaps();
    const gaps = proof.gaps();
    return { ...head, complete: gaps.length === 0, gaps, overlaps, hidden, problems: [] };
  } catch (error) {
    if (error instanceof TooMuch) return { ...nothing, problems: ["The table has too many parts to be looked at."] };
    if (error instanceof Unclear) return { ...nothing, problems: [error.message] };
    throw error;
  }
}

/** By input: the pieces, as bits of a number. */
type Box = readonly bigint[];
const maskOf = (pieces: Iterable<number>) => [...pieces].reduce((mask, piece) => mask | (1n << BigInt(piece)), 0n);
function piecesIn(mask: bigint): number[] {
  const pieces: number[] = [];
  for (let [left, at] = [mask, 0]; left > 0n; left >>= 1n, at++) if (left & 1n) pieces.push(at);
  return pieces;
}

class Proof {
  readonly #axes: readonly Axis[];
  /** By input: the pieces that are allowed at all. */
  readonly #allowed: readonly ReadonlySet<number>[];
  /** By rule and input: the allowed pieces that it takes. */
  readonly #boxes: readonly (readonly ReadonlySet<number>[])[];
  readonly #scope = new Scope(builtIns());
  #left = mostParts;

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
    this.#axes = axes;
    this.#allowed = allowed;
    this.#boxes = rules.map((rule) =>
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

  #example(choose: (column: number) => number | undefined): Example {
    return Object.fromEntries(
      this.#axes.map(({ name, segments }, column) => [name, toJson(segments[choose(column) ?? 0]?.sample ?? null)]),
    );
  }

  gaps(): TableProof["gaps"] {
    const boxes = this.#uncovered((1n << BigInt(this.#boxes.length)) - 1n, this.#allowed);
    return boxes.map((box) => {
      const pieces = box.map(piecesIn);
      const said = this.#axes.flatMap((axis, column) => {
        const words = wordsFor(axis, new Set(pieces[column]), this.#allowed[column] as ReadonlySet<number>);
        return words === "" ? [] : [`${axis.name} ${words}`];
      });
      return { when: said.join(", ") || "always", example: this.#example((column) => pieces[column]?.[0]) };
    });
  }

  hidden(): number[] {
    return this.#boxes.flatMap((box, at) => {
      const isEmpty = box.some((pieces) => pieces.size === 0);
      const before = (1n << BigInt(at)) - 1n;
      return isEmpty || this.#uncovered(before, box).length === 0 ? [at + 1] : [];
    });
  }

  /**
   * The parts of a box that some rules leave; boxes that differ in one input only are one. Sets of rules, and of pieces, are bits of a
   * number: most of the work is to cut such sets with each other.
   */
  #uncovered(rules: bigint, within: readonly ReadonlySet<number>[]): Box[] {
    // Inputs that few rules leave open go first: what tells cases apart early leaves little to look at later.
    const order = this.#axes
      .map((_, column) => column)
      .sort((a, b) => this.#openIn(a, within) - this.#openIn(b, within));
    const pieces = order.map((column) => [...(within[column] as ReadonlySet<number>)]);
    /** By input, in that order, and piece: the rules that take it. */
    const taking = order.map((column) =>
      (this.#axes[column] as Axis).segments.map((_, piece) =>
        this.#boxes.reduce((all, box, rule) => (box[column]?.has(piece) ? all | (1n << BigInt(rule)) : all), 0n),
      ),
    );
    /** From an input on: the rules that take all that is left, and so leave nothing. */
    const full: bigint[] = [rules];
    for (let at = order.length - 1; at >= 0; at--)
      full.unshift((pieces[at] ?? []).reduce((kept, piece) => kept & (taking[at]?.[piece] ?? 0n), full[0] as bigint));
    const known = order.map(() => new Map<bigint, readonly Box[]>());
    const whole = pieces.map(maskOf);
    const left = (at: number, active: bigint): readonly Box[] => {
      if (--this.#left < 0) throw new TooMuch();
      if (active === 0n) return [whole.slice(at)];
      if ((active & (full[at] as bigint)) !== 0n) return [];
      const before = known[at]?.get(active);
      if (before) return before;
      const groups = new Map<bigint, bigint>();
      for (const piece of pieces[at] ?? []) {
        const next = active & (taking[at]?.[piece] ?? 0n);
        groups.set(next, (groups.get(next) ?? 0n) | (1n << BigInt(piece)));
      }
      const merged = new Map<string, { mask: bigint; readonly rest: Box }>();
      for (const [next, mask] of groups)
        for (const rest of left(at + 1, next)) {
          const name = rest.join(" ");
          const same = merged.get(name);
          if (same) same.mask |= mask;
          else merged.set(name, { mask, rest });
        }
      const found = [...merged.values()].map(({ mask, rest }): Box => [mask, ...rest]);
      if (found.length > mostGaps) throw new TooMuch();
      known[at]?.set(active, found);
      return found;
    };
    return left(0, rules).map((box) => this.#axes.map((_, column) => box[order.indexOf(column)] as bigint));
  }

  /** How many rules take all of an input. */
  #openIn(column: number, within: readonly ReadonlySet<number>[]): number {
    const all = within[column] as ReadonlySet<number>;
    return this.#boxes.filter((box) => [...all].every((piece) => box[column]?.has(piece))).length;
  }

  overlaps(): TableProof["overlaps"] {
    const found: TableProof["overlaps"][number][] = [];
    for (const [a, one] of this.#boxes.entries())
      for (let b = a + 1; b < this.#boxes.length; b++) {
        const other = this.#boxes[b] as readonly ReadonlySet<number>[];
        const meeting = one.map((pieces, column) => [...pieces].find((piece) => other[column]?.has(piece)));
        if (meeting.includes(undefined)) continue;
        found.push({
          rules: [a + 1, b + 1],
          conflict: this.#differs(a, b),
          example: this.#example((column) => meeting[column]),
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
