import fc from "fast-check";
import { expect, test } from "vitest";
import { flowChart } from "../testing/flowChart";
import { type Relation, successionOf } from "./succession";

/** A process made of blocks: a step, blocks one after another, blocks at once, or one of several. */
type Block = string | { readonly kind: "sequence" | "+" | "x"; readonly parts: readonly Block[] };

const { block } = fc.letrec<{ block: Block }>((tie) => ({
  block: fc.oneof(
    { depthSize: "small", withCrossShrink: true },
    fc.constant("step"),
    fc.record({
      kind: fc.constantFrom("sequence" as const, "+" as const, "x" as const),
      parts: fc.array(tie("block"), { minLength: 2, maxLength: 3 }),
    }),
  ),
}));

let gateways = 0;
const gateway = (sign: "+" | "x") => `${sign}${gateways++}`;

/** The lines of a flow chart for a block, between two nodes; steps get numbers. */
function draw(block: Block, from: string, to: string, lines: string[], steps: string[]): Block {
  if (typeof block === "string") {
    const step = `step-${steps.length}`;
    steps.push(step);
    lines.push(`${from} > ${step} > ${to}`);
    return step;
  }
  const { kind, parts } = block;
  if (kind === "sequence") {
    let last = from;
    const named = parts.map((part, at) => {
      // An exclusive gateway with one way in and out joins the parts without doing anything.
      const next = at === parts.length - 1 ? to : gateway("x");
      const drawn = draw(part, last, next, lines, steps);
      last = next;
      return drawn;
    });
    return { kind, parts: named };
  }
  const [split, join] = [gateway(kind), gateway(kind)];
  lines.push(`${from} > ${split}`, `${join} > ${to}`);
  return { kind, parts: parts.map((part) => draw(part, split, join, lines, steps)) };
}

const stepsIn = (block: Block): string[] => (typeof block === "string" ? [block] : block.parts.flatMap(stepsIn));

/** What the blocks say: the innermost block that holds both decides. */
function known(block: Block, a: string, b: string): Relation | undefined {
  if (typeof block === "string") return undefined;
  const place = (step: string) => block.parts.findIndex((part) => stepsIn(part).includes(step));
  const [one, other] = [place(a), place(b)];
  if (one < 0 || other < 0) return undefined;
  if (one === other) return known(block.parts[one] as Block, a, b);
  if (block.kind === "+") return "parallel";
  if (block.kind === "x") return "alternative";
  return one < other ? "before" : "after";
}

test("of processes made of blocks, the relation of any two steps is what the blocks say", () => {
  fc.assert(
    fc.property(block, (shape) => {
      const [lines, steps] = [[] as string[], [] as string[]];
      const named = draw(shape, "(s", ")e", lines, steps);
      const { relation } = successionOf(flowChart(lines));
      for (const a of steps) for (const b of steps) if (a !== b) expect(relation(a, b)).toBe(known(named, a, b));
    }),
    { numRuns: 200 },
  );
});

test("an event at a step's edge is instead of what follows, or beside it where the step goes on", () => {
  const withEvent = (cancel: boolean) => {
    const model = flowChart(["(s > check > book > )e", "late > remind > )f"]);
    const late = model.elements.get("late");
    const event = { ...late, type: "boundaryEvent", attachedToRef: "check", cancelActivity: cancel };
    return { ...model, elements: model.elements.with(new Map([["late", event as never]])) };
  };
  expect(successionOf(withEvent(true)).relation("book", "remind")).toBe("alternative");
  expect(successionOf(withEvent(false)).relation("book", "remind")).toBe("parallel");
  expect(successionOf(withEvent(true)).relation("check", "remind")).toBe("before");
});

test("what no start leads to stands in no order to anything", () => {
  const { relation } = successionOf(flowChart(["(s > check > )e", "lost > found"]));
  expect(relation("check", "lost")).toBeUndefined();
  expect(relation("lost", "found")).toBe("before");
});
