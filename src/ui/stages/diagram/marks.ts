import { type Ask, markOfKey } from "@/core/brief";
import type { Finding } from "@/core/check";
import type { Handover } from "@/core/directory";
import { type Id, isFlowNode, type Model, wordsOf } from "@/core/model";
import type { Mark } from "../../canvas/marks/mark";

/** The worst that the check has to say about each element; advice is not drawn. */
export function findingMarks(findings: readonly Finding[]): Mark[] {
  const worst = new Map<Id, "error" | "warning">();
  for (const { severity, elements } of findings) {
    if (severity === "advice") continue;
    for (const id of elements) if (worst.get(id) !== "error") worst.set(id, severity);
  }
  return [...worst].map(([on, sign]) => ({ on, means: sign, as: "sign", sign }));
}

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

/** A run through the page: the flows it goes along, and on each node the steps at which it is passed. */
export function runMarks(run: readonly Id[], model: Model): Mark[] {
  const passed = new Map<Id, number[]>();
  for (const [at, id] of run.entries()) passed.set(id, [...(passed.get(id) ?? []), at + 1]);
  const along: Mark[] = [];
  for (const { id, type, sourceRef, targetRef } of model.elements)
    if (type === "sequenceFlow" && passed.has(String(sourceRef)) && passed.has(String(targetRef)))
      along.push({ on: id, means: "runAlong", as: "ribbon", tone: "attention" });
  return [
    ...along,
    ...[...passed].map(
      ([on, steps]): Mark => ({
        on,
        means: "runStep",
        as: "label",
        text: steps.length > 3 ? `${steps.slice(0, 3).join(", ")} …` : steps.join(", "),
        tone: "attention",
        at: "start",
        isFilled: true,
      }),
    ),
  ];
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
