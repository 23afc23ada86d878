import type { Command } from "../../commands";
import { holds } from "../../feel";
import { type Said, say } from "../../messages";
import {
  called,
  type DecidedBy,
  decidedBy,
  type Element,
  elementsOfType,
  incomingOf,
  type Model,
  outgoingOf,
} from "../../model";
import type { Found, Rule } from "../finding";

/**
 * A gateway behind a business rule task asks what the task decided: its answers are what can come out of the decision. An answer nobody
 * decides is never taken; an outcome without an answer leaves a case stuck (BPMN 2.0, 13.3.2: a runtime exception).
 */
export const answerNotDecided: Rule = {
  id: "answer-not-decided",
  group: "completeness",
  severity: "error",
  wants: say`The answers behind a decision are what the decision can come to.`,
  find: (model) =>
    elementsOfType(model, "exclusiveGateway").flatMap((gateway) => {
      const ins = incomingOf(model, gateway.id);
      const task = ins.length === 1 ? model.elements.get(ins[0]?.sourceRef ?? "") : undefined;
      const by = task && decidedBy(task);
      const flows = outgoingOf(model, gateway.id);
      if (!task || !by?.answers || by.answers.length === 0 || flows.length < 2) return [];
      return unlike(model, gateway, task, { ...by, answers: by.answers }, flows);
    }),
};

type Listed = DecidedBy & { readonly answers: readonly string[] };
const conditionOf = (flow: Element): string =>
  (flow.conditionExpression as { readonly text: string } | undefined)?.text.trim() ?? "";
const folded = (words: string) => words.trim().toLowerCase().replace(/\s+/g, " ");

function unlike(model: Model, gateway: Element, task: Element, by: Listed, flows: readonly Element[]): Found[] {
  const taking = new Map(flows.map((flow) => [flow, by.answers.filter((answer) => takes(flow, by, answer))]));
  const others = flows.filter((flow) => flow.id !== gateway.default);
  const open = by.answers.filter((answer) => !others.some((flow) => taking.get(flow)?.includes(answer)));
  const found: Found[] = [];
  for (const flow of others) {
    if (taking.get(flow)?.length !== 0) continue;
    const name = flow.name ?? conditionOf(flow);
    found.push({
      elements: [flow.id, task.id],
      message: say`The answer “${name}” at ${called(model, gateway)} is never given: ${called(model, task)} decides ${by.name}, which comes to ${listed(by.answers)}.`,
      repairs: open.slice(0, 3).map((answer) => ({
        label: say`Make the answer “${answer}”`,
        commands: answering(flow, by, answer),
      })),
    });
  }
  const isCaught = gateway.default !== undefined;
  if (open.length > 0 && !isCaught && found.length === 0)
    found.push({
      elements: [gateway.id, task.id],
      message: say`${called(model, task)} can come to ${listed(open)}, and ${called(model, gateway)} has no answer for that, so a case would stop there. Add the answer, or make one the default.`,
    });
  return found;
}

const listed = (answers: readonly string[]): Said =>
  say`${answers
    .slice(0, 6)
    .map((answer) => `“${answer}”`)
    .join(", ")}${answers.length > 6 ? " …" : ""}`;

/** Whether a flow is taken for what a decision comes to: by its condition, where it has one that can tell, else by its name. */
function takes(flow: Element, by: Listed, answer: string): boolean {
  const condition = conditionOf(flow);
  const values = [
    answer,
    ...(Number.isFinite(Number(answer)) && answer.trim() !== "" ? [Number(answer)] : []),
    ...(/^(true|false)$/.test(answer) ? [answer === "true"] : []),
  ];
  const told = values.map((value) => holds(condition, { [by.result]: value }));
  if (told.includes(true)) return true;
  return told.every((one) => one === undefined) && folded(flow.name ?? condition) === folded(answer);
}

/** A flow named by an answer, and taken for it. */
const answering = (flow: Element, by: Listed, answer: string): readonly Command[] => [
  { type: "rename", id: flow.id, name: answer },
  {
    type: "setCondition",
    flow: flow.id,
    text: `${by.result} = ${/^(true|false|-?\d+(\.\d+)?)$/.test(answer) ? answer : JSON.stringify(answer)}`,
    isExecutable: true,
  },
];
