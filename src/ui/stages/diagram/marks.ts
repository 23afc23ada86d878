import { type Ask, markOfKey } from "@/core/brief";
import type { Handover } from "@/core/directory";
import { type Id, isFlowNode, type Model, wordsOf } from "@/core/model";
import type { Mark } from "../../canvas/marks/mark";

/** What a description leaves open, on the elements that stand for its words. */
export function askMarks(asks: readonly Ask[], model: Model): Mark[] {
  if (asks.length === 0) return [];
  const asked = new Set(asks.flatMap(({ marks }) => marks));
  const near = new Set([...asked].map(markOfKey));
  const exact = new Set<string>();
  const found: { readonly id: Id; readonly words: readonly string[] }[] = [];
  for (const element of model.elements) {
    const words = wordsOf(element);
    if (!isFlowNode(element.type) || words.length === 0) continue;
    found.push({ id: element.id, words });
    for (const word of words) if (asked.has(word)) exact.add(word);
  }
  // What was built for a turn of phrase is meant; where it is gone, what stands for the same words.
  return found
    .filter(({ words }) =>
      words.some(
        (word) =>
          asked.has(word) ||
          (near.has(markOfKey(word)) && ![...exact].some((one) => markOfKey(one) === markOfKey(word))),
      ),
    )
    .map(({ id }) => ({ on: id, means: "asked", as: "frame", tone: "attention", isThin: true }));
}

/** Where work changes hands: the flows it goes along, and a sign on the last one that says from whom to whom. */
export function handoverMarks(handovers: readonly Handover[]): Mark[] {
  const last = new Map<Id, string[]>();
  for (const { flows, from, to } of handovers) {
    const id = flows.at(-1);
    if (id) last.set(id, [...(last.get(id) ?? []), `${from} → ${to}`]);
  }
  return [
    ...[...new Set(handovers.flatMap(({ flows }) => flows))].map(
      (on): Mark => ({ on, means: "handoverAlong", as: "ribbon", tone: "attention" }),
    ),
    ...[...last].map(
      ([on, words]): Mark => ({ on, means: "handover", as: "sign", sign: "hand-over", words: words.join(", ") }),
    ),
  ];
}
