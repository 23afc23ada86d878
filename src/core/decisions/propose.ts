import { type Axis, testsFor } from "./axis";
import { fewestBoxes, joinedBoxes } from "./fewest";
import type { DecisionModel, DecisionTable, HitPolicy } from "./model";
import { Proof, Unclear } from "./proof";
import { type Box, leftBy, maskOf, type Pieces, piecesIn, TooMuch } from "./sweep";

/** Rules that close what a table leaves open: the cells of each, by input. */
export interface MissingRules {
  readonly rules: readonly (readonly string[])[];
  /** Whether fewer cannot do; else fewer may be possible, and were not found. */
  readonly isFewest: boolean;
}
/** A table that says the same in fewer rules. */
export interface JoinedRules {
  /** In the new order: the rules each stands for, by their numbers from 1, and its cells where there are several. */
  readonly rules: readonly { readonly of: readonly number[]; readonly inputs: readonly string[] | undefined }[];
}

const searchedParts = 400_000;

/**
 * The fewest rules found that take what no rule of a table takes, and nothing else.
 * @returns undefined where the table cannot be looked at, or leaves nothing open
 * A region is cut into boxes in several orders of the inputs, boxes are joined, and small regions are searched through; the least has no
 * polynomial method (minimum partition into boxes). O(orders × what the gaps take).
 */
export function missingRules(model: DecisionModel, table: DecisionTable): MissingRules | undefined {
  return looked(() => {
    const proof = new Proof(model, table);
    const found = fewestBoxes(proof.boxes, proof.allowed, { left: searchedParts });
    if (found.boxes.length === 0) return undefined;
    return { rules: found.boxes.map((box) => cellsOf(proof.axes, box, proof.allowed)), isFewest: found.isFewest };
  });
}

/** Policies under which rules with the same outputs may stand for each other whatever their order. */
const free: readonly HitPolicy[] = ["UNIQUE", "ANY", "PRIORITY"];

/**
 * A table with fewer rules that decides the same: rules with the same outputs are taken together and cut into the fewest boxes found. Under
 * FIRST only such as follow each other. Proven by looking: each group takes what it took before, nothing more or less.
 * @returns undefined where nothing can be joined, or the table cannot be looked at
 * O(groups × what their boxes take).
 */
export function joinedRules(model: DecisionModel, table: DecisionTable): JoinedRules | undefined {
  const { hitPolicy, rules } = table;
  if (!free.includes(hitPolicy) && hitPolicy !== "FIRST") return undefined;
  return looked(() => {
    const proof = new Proof(model, table);
    // Two rules that meet are a fault here, which joining would hide.
    if (hitPolicy === "UNIQUE" && proof.overlaps().length > 0) return undefined;
    const groups: number[][] = [];
    const byOutputs = new Map<string, number[]>();
    for (const [at, rule] of rules.entries()) {
      const outputs = JSON.stringify(rule.outputs.map(({ text }) => text));
      const group = byOutputs.get(outputs);
      if (group && (hitPolicy !== "FIRST" || group.at(-1) === at - 1)) group.push(at);
      else {
        const begun = [at];
        groups.push(begun);
        byOutputs.set(outputs, begun);
      }
    }
    let isSmaller = false;
    const joined = groups.flatMap((group): JoinedRules["rules"] => {
      const asTheyAre = group.map((at) => ({ of: [at + 1], inputs: undefined }));
      if (group.length < 2) return asTheyAre;
      const own = group.map((at) => proof.boxes[at] as Pieces);
      const region = smallerRegion(own, proof.allowed);
      if (!region) return asTheyAre;
      isSmaller = true;
      return region.map((box) => {
        const pieces = piecesOf(box);
        const of = group.filter((_, at) => meets(own[at] as Pieces, pieces));
        return { of: of.map((at) => at + 1), inputs: cellsOf(proof.axes, box, proof.allowed) };
      });
    });
    return isSmaller ? { rules: joined } : undefined;
  });
}

/** So many rules of one output are cut anew; of more, only such as differ in one input are put together. */
const mostCutAnew = 8;

/** What some boxes take together in fewer boxes; undefined where none were found. */
function smallerRegion(own: readonly Pieces[], allowed: Pieces): readonly Box[] | undefined {
  const filled = own.filter((box) => box.every((pieces) => pieces.size > 0));
  const pairs = joinedBoxes(filled.map((box) => box.map(maskOf)));
  if (own.length > mostCutAnew || own.length !== filled.length) return pairs.length < filled.length ? pairs : undefined;
  const region = regionOf(own, allowed);
  const isLess = region.length < Math.min(pairs.length, own.length) && isSameRegion(own, region, allowed);
  return isLess ? region : pairs.length < own.length ? pairs : undefined;
}

/** What some boxes take together, in few boxes: what is left by what they leave. */
function regionOf(boxes: readonly Pieces[], allowed: Pieces): readonly Box[] {
  const others = leftBy(boxes, allowed, { left: searchedParts }).map(piecesOf);
  return fewestBoxes(others, allowed, { left: searchedParts }).boxes;
}
const piecesOf = (box: Box): Pieces => box.map((mask) => new Set(piecesIn(mask)));
const meets = (one: Pieces, other: Pieces): boolean =>
  one.every((pieces, column) => [...pieces].some((piece) => other[column]?.has(piece)));

/** Whether new boxes take just what the old ones took: neither leaves anything of the other. */
function isSameRegion(before: readonly Pieces[], after: readonly Box[], allowed: Pieces): boolean {
  const now = after.map(piecesOf);
  const budget = { left: searchedParts };
  const within = (box: Pieces) => box.map((pieces, at) => new Set([...pieces].filter((one) => allowed[at]?.has(one))));
  return (
    before.every((box) => box.some((pieces) => pieces.size === 0) || leftBy(now, within(box), budget).length === 0) &&
    now.every((box) => leftBy(before, within(box), budget).length === 0)
  );
}

const cellsOf = (axes: readonly Axis[], box: Box, allowed: Pieces): string[] =>
  axes.map((axis, column) =>
    testsFor(axis, new Set(piecesIn(box[column] ?? maskOf([]))), allowed[column] ?? new Set()),
  );

function looked<Found>(look: () => Found | undefined): Found | undefined {
  try {
    return look();
  } catch (error) {
    if (error instanceof Unclear || error instanceof TooMuch) return undefined;
    throw error;
  }
}
