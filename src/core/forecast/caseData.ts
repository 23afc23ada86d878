import { type CaseData, readCondition } from "../feel";
import { type Element, type Id, type Model, outgoingOf, processOf } from "../model";
import { type DrawnData, drawValue, type Scenario } from "../scenario";
import { decisionOf, modelsOf, type World } from "../tokens";
import type { Stream } from "./random";

/** A piece of data of a case, with where its chance comes from. */
export interface DrawnPlan extends DrawnData {
  readonly stream: Stream;
}

/** What is drawn for the cases of a start: what the scenario says of its process, and of the start itself, which goes before. */
export function drawnFor(scenario: Scenario, start: Id, process: Id): readonly DrawnData[] {
  const own = scenario.of.get(start)?.drawn ?? [];
  const ofProcess = start === process ? [] : (scenario.of.get(process)?.drawn ?? []);
  return [...ofProcess.filter(({ path }) => !own.some((one) => one.path === path)), ...own];
}

/** The data of a case, drawn by its number: the same whatever else happens in it. O(pieces). */
export function drawnCase(drawn: readonly DrawnPlan[], number: number): CaseData | undefined {
  if (drawn.length === 0) return undefined;
  const data: { [name: string]: unknown } = Object.create(null);
  for (const { path, spread, stream } of drawn) put(data, path.split("."), drawValue(spread, stream.at(number, 0)));
  return data;
}

/** Writes a value at a path; a record on the way is made, and what is no record gives way to it. */
function put(data: { [name: string]: unknown }, path: readonly string[], value: unknown): void {
  const [first = "", ...rest] = path.map((part) => part.trim());
  if (rest.length === 0) {
    data[first] = value;
    return;
  }
  const known = data[first];
  const inner =
    typeof known === "object" && known !== null ? (known as { [name: string]: unknown }) : Object.create(null);
  data[first] = inner;
  put(inner, rest, value);
}

/** The names by which conditions find what is drawn or decided, in all models of a world. */
export function namesDrawn(world: World, scenario: Scenario): ReadonlySet<string> {
  const names = new Set<string>();
  for (const model of modelsOf(world))
    for (const element of model.elements) {
      const result = decisionOf(world, element)?.by.result;
      if (result !== undefined) names.add(result);
      if (element.type !== "process" && element.type !== "startEvent") continue;
      for (const { path } of scenario.of.get(element.id)?.drawn ?? []) names.add((path.split(".")[0] ?? path).trim());
    }
  return names;
}

/** Whether data can decide at a node: every way out but the default has a condition, and asks only for what is drawn or decided. */
export function isDecidedByData(model: Model, node: Element, names: ReadonlySet<string>): boolean {
  if (names.size === 0) return false;
  const asked = outgoingOf(model, node.id).filter(({ id }) => id !== node.default);
  return (
    asked.length > 0 &&
    processOf(model, node.id) !== undefined &&
    asked.every(({ conditionExpression }) => {
      const text = (conditionExpression as { readonly text?: string } | undefined)?.text;
      const read = text ? readCondition(text, [...names]) : undefined;
      return read?.kind === "executable" && read.asks.every((name) => names.has(name));
    })
  );
}
