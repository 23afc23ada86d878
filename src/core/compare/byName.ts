import { type Element, type Id, incomingOf, isFlowNode, type Model, nameOf, outgoingOf } from "../model";
import { bestAssignment, type Candidate } from "./assignment";
import { familyOfCompared, isCompared, isFlow } from "./compared";
import { labelSimilarity, wordSimilarity, wordsOfLabel } from "./labels";

/** Names less alike than this are two things. */
const leastAlike = 0.6;
/** How much of a pair's worth its neighbours decide, where names leave a choice. */
const shareOfNeighbours = 0.25;

/**
 * Pairs elements whose names are alike, and unnamed ones that stand between paired neighbours; the sum over all pairs is the greatest
 * there is. Names are compared word by word; where they leave a choice, the surroundings decide, after the label and context
 * similarity of R. Dijkman, M. Dumas, B. van Dongen, R. Käärik, J. Mendling, "Similarity of business process models: Metrics and
 * evaluation" (2011). Flows have no part in it. O(names² · words²), and the assignment.
 */
export function pairsByName(from: Model, to: Model): Map<Id, Id> {
  const before = [...from.elements].filter((element) => isCompared(element) && !isFlow(element.type));
  const after = [...to.elements].filter((element) => isCompared(element) && !isFlow(element.type));
  const labels = labelCandidates(from, before, to, after);
  const asPairs = (chosen: ReadonlyMap<number, number>) =>
    new Map([...chosen].map(([row, column]) => [(before[row] as Element).id, (after[column] as Element).id]));
  const first = asPairs(bestAssignment(labels));
  const candidates = labels.map((candidate) => {
    const [a, b] = [before[candidate.row] as Element, after[candidate.column] as Element];
    const around = isFlowNode(a.type) ? surroundings(from, a.id, to, b.id, first) : candidate.weight;
    return { ...candidate, weight: (1 - shareOfNeighbours) * candidate.weight + shareOfNeighbours * around };
  });
  return asPairs(bestAssignment([...candidates, ...unnamedCandidates(from, before, to, after, first)]));
}

function labelCandidates(
  from: Model,
  before: readonly Element[],
  to: Model,
  after: readonly Element[],
): readonly Candidate[] {
  const words = (model: Model, elements: readonly Element[]) =>
    elements.map((element) => wordsOfLabel(nameOf(model, element.id)));
  const [mine, theirs] = [words(from, before), words(to, after)];
  const alike = similarWords(new Set(mine.flat()), new Set(theirs.flat()));
  // Elements by the words they hold: names without any similar word need not be looked at together.
  const holders = new Map<string, number[]>();
  theirs.forEach((list, column) => {
    for (const word of new Set(list)) {
      const found = holders.get(word);
      if (found) found.push(column);
      else holders.set(word, [column]);
    }
  });
  const similarity = (one: string, other: string) => alike.get(one)?.get(other) ?? 0;
  const families = after.map(familyOfCompared);
  const candidates: Candidate[] = [];
  before.forEach((element, row) => {
    const family = familyOfCompared(element);
    const seen = new Set<number>();
    for (const word of mine[row] ?? [])
      for (const other of alike.get(word)?.keys() ?? [])
        for (const column of holders.get(other) ?? []) seen.add(column);
    for (const column of seen) {
      if (families[column] !== family) continue;
      const weight = labelSimilarity(mine[row] ?? [], theirs[column] ?? [], similarity);
      if (weight >= leastAlike) candidates.push({ row, column, weight });
    }
  });
  return candidates;
}

/** For each word of the one side, the words of the other that may be meant by it, with how alike they are. */
function similarWords(mine: ReadonlySet<string>, theirs: ReadonlySet<string>): Map<string, Map<string, number>> {
  const found = new Map<string, Map<string, number>>();
  for (const word of mine) {
    const like = new Map<string, number>();
    for (const other of theirs) {
      const similarity = wordSimilarity(word, other);
      if (similarity > 0) like.set(other, similarity);
    }
    found.set(word, like);
  }
  return found;
}

/** The share of neighbours before and after that are paired with each other. */
function surroundings(from: Model, a: Id, to: Model, b: Id, pairs: ReadonlyMap<Id, Id>): number {
  const sides = [
    [incomingOf(from, a).map((flow) => flow.sourceRef), incomingOf(to, b).map((flow) => flow.sourceRef)],
    [outgoingOf(from, a).map((flow) => flow.targetRef), outgoingOf(to, b).map((flow) => flow.targetRef)],
  ] as const;
  let [met, all] = [0, 0];
  for (const [mine, theirs] of sides) {
    const other = new Set<unknown>(theirs);
    met += 2 * mine.filter((id) => other.has(pairs.get(id as Id))).length;
    all += mine.length + theirs.length;
  }
  return all === 0 ? 0 : met / all;
}

/** Gateways and events without a name, by where they stand. */
function unnamedCandidates(
  from: Model,
  before: readonly Element[],
  to: Model,
  after: readonly Element[],
  pairs: ReadonlyMap<Id, Id>,
): Candidate[] {
  const found: Candidate[] = [];
  const columns = new Map(after.map((element, column) => [element.id, column]));
  before.forEach((element, row) => {
    if (!isFlowNode(element.type) || nameOf(from, element.id)) return;
    for (const { id } of neighboursOfPaired(from, element.id, to, pairs)) {
      const other = to.elements.get(id) as Element;
      if (other.type !== element.type || nameOf(to, id)) continue;
      const around = surroundings(from, element.id, to, id, pairs);
      if (around > 0) found.push({ row, column: columns.get(id) as number, weight: around / 2 });
    }
  });
  return found;
}

/** What stands beside the partners of an element's neighbours. */
function neighboursOfPaired(from: Model, id: Id, to: Model, pairs: ReadonlyMap<Id, Id>): Element[] {
  const ids = new Set<Id>();
  for (const flow of incomingOf(from, id))
    for (const next of outgoingOf(to, pairs.get(flow.sourceRef as Id) ?? "")) ids.add(next.targetRef as Id);
  for (const flow of outgoingOf(from, id))
    for (const last of incomingOf(to, pairs.get(flow.targetRef as Id) ?? "")) ids.add(last.sourceRef as Id);
  return [...ids].flatMap((one) => to.elements.get(one) ?? []);
}
