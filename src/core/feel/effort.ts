import { parseExpression } from "feelin";
import type { CaseData } from "./evaluate";

/** Steps that an expression may take; one that takes more is not begun. A condition on a flow takes a few dozen. */
export const mostEffort = 200_000;
/** What a range or list is taken for whose length the data does not tell. */
const unknownSize = 1_000;

/** What a part of an expression comes to: steps of work, how many items it can give, the number it is where that is known. */
interface Part {
  readonly cost: number;
  readonly size: number;
  readonly value?: number;
}

interface Open {
  readonly name: string;
  readonly from: number;
  readonly to: number;
  readonly parts: { readonly name: string; readonly text: string; readonly part: Part }[];
}

/** A repeated group that is itself repeated: matching it can take time without bound. */
const nestedRepetition = /\([^()]*[+*}][^()]*\)[+*{]|\\\d/;

/**
 * How many steps an expression takes at most, by its form and the data: loops in loops multiply. Worked out before anything is done,
 * since an expression that is under way cannot be called off. An upper bound that may be too high, never far too low.
 * O(length of the expression).
 * @example effortOf("count(for i in 1..1000, j in 1..1000 return i)", {}) // above a million
 */
export function effortOf(expression: string, data: CaseData): number {
  const open: Open[] = [{ name: "", from: 0, to: 0, parts: [] }];
  /** The largest value a loop's variable can have. */
  const bound = new Map<string, number>();
  parseExpression(expression, { ...data }, undefined).iterate({
    enter: ({ name, from, to }) => {
      open.push({ name, from, to, parts: [] });
    },
    leave: () => {
      const node = open.pop() as Open;
      const text = expression.slice(node.from, node.to);
      const part = partOf(node, text, data, bound);
      if (node.name === "InExpression") {
        const variable = node.parts.find((one) => one.name === "Name")?.text;
        if (variable) bound.set(variable, part.value ?? part.size);
      }
      open.at(-1)?.parts.push({ name: node.name, text, part });
    },
  });
  return open[0]?.parts.reduce((sum, { part }) => sum + part.cost, 0) ?? 0;
}

function partOf({ name, parts }: Open, text: string, data: CaseData, bound: ReadonlyMap<string, number>): Part {
  const inner = parts.map(({ part }) => part);
  const sum = inner.reduce((all, { cost }) => all + cost, 1);
  const largest = inner.reduce((most, { size }) => Math.max(most, size), 1);
  switch (name) {
    case "NumericLiteral":
      return { cost: 1, size: 1, value: Number(text) };
    case "VariableName": {
      const known = data[text];
      if (typeof known === "number") return { cost: 1, size: 1, value: known };
      if (Array.isArray(known)) return { cost: 1, size: known.length };
      const most = bound.get(text);
      return most === undefined ? { cost: 1, size: 1 } : { cost: 1, size: most, value: most };
    }
    case "PathExpression":
      return { cost: sum, size: Math.max(largest, unknownSize) };
    case "List":
      return { cost: sum, size: inner.reduce((all, { size }) => all + size, 0) };
    case "IterationContext": {
      const isRange = parts.some((one) => one.name === "..");
      if (!isRange) return { cost: sum, size: largest };
      const [a, b] = parts.filter((one) => one.name !== "..").map(({ part }) => part.value);
      const isKnown = a !== undefined && b !== undefined && Number.isFinite(a) && Number.isFinite(b);
      const size = isKnown ? Math.abs(b - a) + 1 : unknownSize;
      return { cost: sum + size, size, value: isKnown ? Math.max(a, b) : unknownSize };
    }
    case "InExpression": {
      const range = inner.at(-1) ?? { cost: 1, size: 1 };
      return { cost: sum, size: range.size, ...(range.value !== undefined && { value: range.value }) };
    }
    case "InExpressions": {
      let [cost, size] = [1, 1];
      for (const one of parts.filter((child) => child.name === "InExpression")) {
        cost += size * one.part.cost;
        size *= Math.max(1, one.part.size);
      }
      return { cost: cost + size, size };
    }
    case "ForExpression":
    case "QuantifiedExpression": {
      const times = parts.find((one) => one.name === "InExpressions")?.part ?? { cost: 1, size: 1 };
      const body = inner.at(-1) ?? { cost: 1, size: 1 };
      return { cost: times.cost + times.size * body.cost, size: times.size * body.size };
    }
    case "FilterExpression": {
      const [list, test] = [inner[0], inner.at(-2)];
      return { cost: sum + (list?.size ?? 1) * (test?.cost ?? 1), size: list?.size ?? 1 };
    }
    case "FunctionInvocation": {
      const called = parts[0]?.text ?? "";
      if (/^(matches|replace|split)$/.test(called)) {
        const literals = [...text.matchAll(/"(?:[^"\\]|\\.)*"/g)].map(([literal]) => literal);
        if (literals.length === 0 || literals.some((literal) => nestedRepetition.test(literal)))
          return { cost: Number.POSITIVE_INFINITY, size: 1 };
      }
      // Sorting and the like go over what they are given more than once.
      return { cost: sum + largest * Math.ceil(Math.log2(largest + 2)), size: largest };
    }
    default:
      return {
        cost: sum,
        size: largest,
        ...(inner.length === 1 && inner[0]?.value !== undefined && { value: inner[0].value }),
      };
  }
}
