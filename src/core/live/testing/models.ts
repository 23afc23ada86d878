import { readBpmn } from "../../bpmn";
import type { CaseData } from "../../feel";
import type { Id, Model } from "../../model";
import { type Scenario, scenariosOf } from "../../scenario";
import { expectOk } from "../../testing/models";
import { firstProcess, type LiveEvent, type RunOutcome, runCases, runWorld } from "..";

/** A file of processes; elements in the standard's namespace without a prefix. */
export const file = (inner: string): string =>
  `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance" id="defs" targetNamespace="urn:quillmere">${inner}</definitions>`;
export const processOf = (inner: string, id = "p"): string => `<process id="${id}">${inner}</process>`;

let count = 0;
/** A way from one node to another, with a condition where one is given. */
export const flow = (from: string, to: string, condition = "", id = `f${count++}`): string =>
  `<sequenceFlow id="${id}" sourceRef="${from}" targetRef="${to}">${condition && `<conditionExpression>${escaped(condition)}</conditionExpression>`}</sequenceFlow>`;
/** Ways along a chain of nodes. */
export const chain = (...nodes: readonly string[]): string =>
  nodes
    .slice(1)
    .map((to, at) => flow(nodes[at] as string, to))
    .join("");
const escaped = (text: string) => text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");

export const node = (type: string, id: string, inner = "", attributes = ""): string =>
  `<${type} id="${id}" name="${id}" ${attributes}>${inner}</${type}>`;
export const start = node("startEvent", "s");
export const end = node("endEvent", "e");
export const task = (id: string, inner = ""): string => node("userTask", id, inner);
export const timer = (kind: "timeDuration" | "timeDate" | "timeCycle", text: string): string =>
  `<timerEventDefinition id="t${count++}"><${kind}>${text}</${kind}></timerEventDefinition>`;
export const definition = (kind: string, attributes = ""): string =>
  `<${kind}EventDefinition id="d${count++}" ${attributes}/>`;
export const edge = (id: string, host: string, inner: string, cancels = true): string =>
  node("boundaryEvent", id, inner, `attachedToRef="${host}" cancelActivity="${cancels}"`);

export const modelOf = (text: string): Model => expectOk(readBpmn(new TextEncoder().encode(text)));

export interface Ran extends RunOutcome {
  /** By element: how often it was entered, and how often tokens left it. */
  readonly counts: { readonly [element: Id]: readonly [entered: number, completed: number] };
  readonly events: readonly (readonly LiveEvent[])[];
}

/** Runs a file: cases with data, or so many by chance. */
export function ran(
  text: string,
  cases: number | readonly CaseData[],
  more: { seed?: number; scenario?: Scenario } = {},
): Ran {
  const model = modelOf(text);
  const process = firstProcess(model);
  if (process === undefined) throw new Error("no process");
  const events: (readonly LiveEvent[])[] = [];
  const scenario = more.scenario ?? scenariosOf(model)[0];
  const outcome = runCases(runWorld(model), process, {
    cases,
    scenario,
    seed: more.seed ?? 1,
    log: (_, own) => events.push(own),
  });
  const counts = Object.fromEntries(
    outcome.elements.map(({ id, entered, completed }) => [id, [entered, completed] as const]),
  );
  return { ...outcome, counts, events };
}
