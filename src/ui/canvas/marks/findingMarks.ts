import type { Finding } from "@/core/check";
import type { Id, Model } from "@/core/model";
import type { Mark } from "./mark";

/** The worst that the check has to say about each element; advice is not drawn. */
export function findingMarks(findings: readonly Finding[]): Mark[] {
  const worst = new Map<Id, "error" | "warning">();
  for (const { severity, elements } of findings) {
    if (severity === "advice") continue;
    for (const id of elements) if (worst.get(id) !== "error") worst.set(id, severity);
  }
  return [...worst].map(([on, sign]) => ({ on, means: sign, as: "sign", sign }));
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

/** The flows on which what a stuck case waits for would have to come. */
export const awaitedMarks = (flows: readonly Id[]): Mark[] =>
  flows.map((on) => ({ on, means: "awaited", as: "ribbon", tone: "pencil" }));
